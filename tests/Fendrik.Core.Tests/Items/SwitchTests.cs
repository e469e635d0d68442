using System.Text.RegularExpressions;
using Fendrik.Tests.Shared;

namespace Fendrik.Core.Tests.Items;

/// <summary>A kind that is forgotten must not compile: no default arm stands where kinds are told apart.</summary>
public partial class SwitchTests
{
    [GeneratedRegex(@"switch\s*\{(?<arms>[^{}]*(?:\{[^{}]*\}[^{}]*)*)\}")]
    private static partial Regex Switches();

    [GeneratedRegex(@"\b(ItemKind|Level|Storage|ValueForm)\.\w+[^=]*=>")]
    private static partial Regex ArmOfKind();

    [GeneratedRegex(@"(^|\n)\s*(_|default)\s*(=>|:)")]
    private static partial Regex DefaultArm();

    [Fact]
    public void No_switch_on_kinds_levels_or_forms_has_a_default_arm()
    {
        var found = Directory
            .EnumerateFiles(Repository.PathTo("src"), "*.cs", SearchOption.AllDirectories)
            .Where(path =>
                !path.Contains("/obj/", StringComparison.Ordinal) && !path.Contains("/bin/", StringComparison.Ordinal)
            )
            .SelectMany(path =>
                Switches()
                    .Matches(File.ReadAllText(path))
                    .Select(match => match.Groups["arms"].Value)
                    .Where(arms => ArmOfKind().IsMatch(arms) && DefaultArm().IsMatch(arms))
                    .Select(arms => $"{Path.GetFileName(path)}: {arms.Trim()}")
            );

        found.ShouldBeEmpty();
    }
}
