namespace Fendrik.Server.Operation;

/// <summary>The disk that Fendrik's data is on: that of the setting <c>Fendrik:DataFolder</c>, or else of temporary files.</summary>
public sealed class DataDisk(IConfiguration configuration)
{
    /// <summary>With less than this, files and databases cannot be written.</summary>
    public const long LeastToWork = 50L << 20;

    /// <summary>With less than this, the next large list may not fit.</summary>
    public const long LeastForComfort = 1L << 30;

    /// <summary>The folder by which people know it.</summary>
    public string Folder { get; } = configuration["Fendrik:DataFolder"] ?? Path.GetTempPath();

    /// <summary>Free bytes.</summary>
    public long Free => new DriveInfo(Folder).AvailableFreeSpace;
}
