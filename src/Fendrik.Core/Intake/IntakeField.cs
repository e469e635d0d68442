namespace Fendrik.Core.Intake;

/// <summary>What a column of a pasted list or a file holds.</summary>
public enum IntakeField
{
    /// <summary>Nothing that is brought in.</summary>
    LeaveOut = 0,

    /// <summary>Campaign name.</summary>
    Campaign = 1,

    /// <summary>The campaign's daily budget.</summary>
    DailyBudget = 2,

    /// <summary>The campaign's first day.</summary>
    StartDate = 3,

    /// <summary>The campaign's last day.</summary>
    EndDate = 4,

    /// <summary>Where the campaign shows: search, partners, content.</summary>
    Networks = 5,

    /// <summary>Ad group name.</summary>
    AdGroup = 6,

    /// <summary>The ad group's default max CPC.</summary>
    AdGroupMaxCpc = 7,

    /// <summary>A keyword, or a negative when a minus stands in front.</summary>
    Keyword = 8,

    /// <summary>A negative keyword.</summary>
    NegativeKeyword = 9,

    /// <summary>Match type of the keyword or negative.</summary>
    MatchType = 10,

    /// <summary>Max CPC of the keyword, or of the ad group in a row without one.</summary>
    MaxCpc = 11,

    /// <summary>Running or paused, of the row's own item.</summary>
    State = 12,

    /// <summary>Landing page.</summary>
    FinalUrl = 13,

    /// <summary>First headline.</summary>
    Headline1 = 14,

    /// <summary>Second headline.</summary>
    Headline2 = 15,

    /// <summary>Third headline.</summary>
    Headline3 = 16,

    /// <summary>First description.</summary>
    Description1 = 17,

    /// <summary>Second description.</summary>
    Description2 = 18,

    /// <summary>First part of the display path.</summary>
    Path1 = 19,

    /// <summary>Second part of the display path.</summary>
    Path2 = 20,

    /// <summary>Device that an ad prefers.</summary>
    Device = 21,

    /// <summary>Kind of the row's own item.</summary>
    Item = 22,

    /// <summary>What the row asks for: add, change, remove.</summary>
    Action = 23,

    /// <summary>Name of a negative list.</summary>
    NegativeList = 24,

    /// <summary>Labels of the row's own item.</summary>
    Labels = 25,

    /// <summary>Fourth headline.</summary>
    Headline4 = 26,

    /// <summary>Fifth headline.</summary>
    Headline5 = 27,

    /// <summary>Sixth headline.</summary>
    Headline6 = 28,

    /// <summary>Seventh headline.</summary>
    Headline7 = 29,

    /// <summary>Eighth headline.</summary>
    Headline8 = 30,

    /// <summary>Ninth headline.</summary>
    Headline9 = 31,

    /// <summary>Tenth headline.</summary>
    Headline10 = 32,

    /// <summary>Eleventh headline.</summary>
    Headline11 = 33,

    /// <summary>Twelfth headline.</summary>
    Headline12 = 34,

    /// <summary>Thirteenth headline.</summary>
    Headline13 = 35,

    /// <summary>Fourteenth headline.</summary>
    Headline14 = 36,

    /// <summary>Fifteenth headline.</summary>
    Headline15 = 37,

    /// <summary>Third description.</summary>
    Description3 = 38,

    /// <summary>Fourth description.</summary>
    Description4 = 39,
}
