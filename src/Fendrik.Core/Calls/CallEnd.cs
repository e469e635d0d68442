namespace Fendrik.Core.Calls;

/// <summary>How a call ended.</summary>
public enum CallEnd
{
    /// <summary>Somebody answered.</summary>
    Answered = 1,

    /// <summary>Nobody answered.</summary>
    Missed = 2,

    /// <summary>The line was engaged.</summary>
    Engaged = 3,
}
