namespace Fendrik.Core.Searches;

/// <summary>What became of a search term.</summary>
public enum TermDecision
{
    /// <summary>It is bid for as a keyword.</summary>
    Keyword = 1,

    /// <summary>A negative keeps it away.</summary>
    Negative = 2,

    /// <summary>It is left as it is.</summary>
    Leave = 3,
}
