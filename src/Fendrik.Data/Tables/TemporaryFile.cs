namespace Fendrik.Data.Tables;

/// <summary>A file for as long as it is open: for what has to be moved about in, such as a workbook, and must not fill the memory.</summary>
internal static class TemporaryFile
{
    public static FileStream Create() =>
        new(
            Path.Combine(Path.GetTempPath(), Path.GetRandomFileName()),
            FileMode.CreateNew,
            FileAccess.ReadWrite,
            FileShare.None,
            1 << 16,
            FileOptions.DeleteOnClose
        );
}
