namespace Fendrik.Core.Tracking.Books;

/// <summary>Sales of a day that the books know by what the link said of the click, and not by the click.</summary>
/// <param name="Row">Its row in the list, from 1.</param>
/// <param name="Day">The day of the clicks, by the account's calendar.</param>
/// <param name="Campaign">Name of the campaign.</param>
/// <param name="AdGroup">Name of the ad group; none where the link did not say.</param>
/// <param name="Keyword">The keyword with its notation, or its words; none likewise.</param>
/// <param name="Match">Its match type; none likewise.</param>
/// <param name="Device">The device; none likewise.</param>
/// <param name="Sales">How many.</param>
/// <param name="Value">What they are worth.</param>
public sealed record BookTotal(
    int Row,
    DateOnly Day,
    string Campaign,
    string? AdGroup,
    string? Keyword,
    MatchType? Match,
    Device? Device,
    decimal Sales,
    decimal Value
);
