namespace Fendrik.Network.Worlds;

/// <summary>A file of the world that cannot be used as it is.</summary>
/// <param name="file">Name of the file.</param>
/// <param name="line">Its line, counted from 1.</param>
/// <param name="reason">What is wrong, and what is expected.</param>
public sealed class WorldFaultException(string file, int line, string reason)
    : Exception($"{file}, line {line}: {reason}")
{
    /// <summary>Name of the file.</summary>
    public string File { get; } = file;

    /// <summary>Its line, counted from 1.</summary>
    public int Line { get; } = line;
}
