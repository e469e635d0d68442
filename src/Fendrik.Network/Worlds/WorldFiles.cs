using System.IO.Hashing;
using System.Text;

namespace Fendrik.Network.Worlds;

/// <summary>The files of a world, by name.</summary>
public static class WorldFiles
{
    private const string Folder = "Fendrik.Network.Worlds.Data.";

    /// <summary>Names of all files that a world has.</summary>
    public static IReadOnlyList<string> Names { get; } =
    [
        "attention.tsv",
        "audiences.tsv",
        "bookings.tsv",
        "calendar.tsv",
        "curves.tsv",
        "habits.tsv",
        "lines.tsv",
        "money.tsv",
        "needs.tsv",
        "pages.tsv",
        "phrases.tsv",
        "places.tsv",
        "rivals.tsv",
        "seasons.tsv",
        "sites.tsv",
        "slips.tsv",
        "slots.tsv",
        "topics.tsv",
    ];

    /// <summary>The files that ship.</summary>
    public static IReadOnlyDictionary<string, string> Shipped() => Names.ToDictionary(name => name, Text);

    /// <summary>A hash of all files together: the version of the world.</summary>
    public static string VersionOf(IReadOnlyDictionary<string, string> files)
    {
        var hash = new XxHash128();
        foreach (var (name, text) in files.OrderBy(file => file.Key, StringComparer.Ordinal))
        {
            hash.Append(Encoding.UTF8.GetBytes($"{name}\0{text}\0"));
        }

        return Convert.ToHexStringLower(hash.GetCurrentHash());
    }

    private static string Text(string name)
    {
        using var stream =
            typeof(WorldFiles).Assembly.GetManifestResourceStream(Folder + name)
            ?? throw new WorldFaultException(name, 1, "The file is not there.");
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }
}
