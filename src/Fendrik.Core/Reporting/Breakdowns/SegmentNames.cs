namespace Fendrik.Core.Reporting.Breakdowns;

/// <summary>The names by which networks tell segments of people, clicks and pages apart.</summary>
public static class SegmentNames
{
    /// <summary>From 18 to 34.</summary>
    public const string Young = "18 to 34";

    /// <summary>From 35 to 54.</summary>
    public const string Middle = "35 to 54";

    /// <summary>From 55 on.</summary>
    public const string Old = "55 and over";

    /// <summary>Women.</summary>
    public const string Women = "women";

    /// <summary>Men.</summary>
    public const string Men = "men";

    /// <summary>The headline of an ad.</summary>
    public const string Headline = "headline";

    /// <summary>A sitelink beside it.</summary>
    public const string Sitelink = "sitelink";

    /// <summary>A number: the click is a call.</summary>
    public const string Call = "call";

    /// <summary>A rival showed on the same page.</summary>
    public const string WithRival = "with a rival";

    /// <summary>No rival did.</summary>
    public const string Alone = "alone";
}
