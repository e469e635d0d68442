namespace Fendrik.Tests.Shared;

/// <summary>The folder that everything is in.</summary>
public static class Repository
{
    public static string Root { get; } = Find();

    public static string PathTo(params string[] parts) => Path.Combine([Root, .. parts]);

    private static string Find()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "Fendrik.slnx")))
        {
            folder = folder.Parent!;
        }

        return folder.FullName;
    }
}
