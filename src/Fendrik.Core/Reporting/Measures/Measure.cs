namespace Fendrik.Core.Reporting.Measures;

/// <summary>How a measure is written.</summary>
public enum MeasureForm
{
    /// <summary>An amount of the account's currency.</summary>
    Money = 1,

    /// <summary>A share from 0 on, in per cent.</summary>
    Share = 2,

    /// <summary>A whole number.</summary>
    Whole = 3,

    /// <summary>A number with a decimal place or two.</summary>
    Number = 4,
}

/// <summary>What a measure tells of.</summary>
public enum MeasureGroup
{
    /// <summary>What ads brought.</summary>
    Brought = 1,

    /// <summary>Where they stood among others.</summary>
    Stood = 2,

    /// <summary>What somebody made of the others.</summary>
    Own = 3,
}

/// <summary>What measures are taken from: what was counted, and where one stood where that is known.</summary>
/// <param name="Figures">What was counted.</param>
/// <param name="Standing">Where one stood; none where it is not known, as of ads and of breakdowns.</param>
/// <param name="Booked">What the own books say; none where they say nothing of it.</param>
public readonly record struct Measured(Figures Figures, Standing? Standing, Booked? Booked = null);

/// <summary>A figure that results are read by.</summary>
/// <param name="Key">Its key, which never changes.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Short">What it is called where there is little room.</param>
/// <param name="How">How it comes about, as a sentence.</param>
/// <param name="Unit">In what it is counted.</param>
/// <param name="Form">How it is written.</param>
/// <param name="Group">What it tells of.</param>
/// <param name="Of">The figure of what was measured; none where there is none, as a cost per click without clicks.</param>
public sealed record Measure(
    string Key,
    string Title,
    string Short,
    string How,
    MeasureUnit Unit,
    MeasureForm Form,
    MeasureGroup Group,
    Func<Measured, decimal?> Of
)
{
    /// <summary>True for what conversions have by themselves, without what was shown and clicked: how many, and what they are worth.</summary>
    public bool IsOfConversionsAlone { get; init; }

    /// <summary>True where it stands among the columns unless somebody chooses others.</summary>
    public bool IsUsual { get; init; }
}
