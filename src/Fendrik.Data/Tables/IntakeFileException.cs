namespace Fendrik.Data.Tables;

/// <summary>A file that cannot be read as a table at all; the message is for the person who chose it.</summary>
public sealed class IntakeFileException(string message) : Exception(message);
