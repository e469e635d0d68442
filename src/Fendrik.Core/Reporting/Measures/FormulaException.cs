namespace Fendrik.Core.Reporting.Measures;

/// <summary>A formula that cannot be: what is wrong with it, and where.</summary>
public sealed class FormulaException : Exception
{
    /// <summary>What is wrong, without a place.</summary>
    public FormulaException() { }

    /// <summary>What is wrong, without a place.</summary>
    public FormulaException(string message)
        : base(message) { }

    /// <summary>What is wrong, without a place.</summary>
    public FormulaException(string message, Exception inner)
        : base(message, inner) { }

    /// <summary>What is wrong, at a character of the formula counted from 1.</summary>
    public FormulaException(string message, int at)
        : base(message) => At = at;

    /// <summary>The character from which on it is wrong, counted from 1; 0 where it is the whole.</summary>
    public int At { get; }
}
