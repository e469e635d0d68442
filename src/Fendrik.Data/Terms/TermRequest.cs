using Fendrik.Core.Reporting;
using Fendrik.Core.Searches;
using Fendrik.Data.Sheets.Conditions;

namespace Fendrik.Data.Terms;

/// <summary>What search terms are put in order by.</summary>
public enum TermOrder
{
    /// <summary>The dearest first.</summary>
    Cost = 1,

    /// <summary>Most clicks first.</summary>
    Clicks = 2,

    /// <summary>Most impressions first.</summary>
    Impressions = 3,

    /// <summary>Most conversions first.</summary>
    Conversions = 4,

    /// <summary>The newest first.</summary>
    FirstSeen = 5,

    /// <summary>By the alphabet.</summary>
    Term = 6,
}

/// <summary>Which search terms are shown.</summary>
public sealed record TermRequest
{
    /// <summary>Weeks up to the last reported day.</summary>
    public int Weeks { get; init; } = 13;
    public long? CampaignId { get; init; }
    public long? AdGroupId { get; init; }

    /// <summary>A part of the term.</summary>
    public string? Text { get; init; }

    /// <summary>Words that stand in it one after another.</summary>
    public string? Word { get; init; }

    /// <summary>True for what was decided, false for what was not, none for both.</summary>
    public bool? Decided { get; init; }

    /// <summary>Only those that are no keyword of the account.</summary>
    public bool WithoutKeyword { get; init; }

    /// <summary>Only those that were first seen after the last decisions.</summary>
    public bool New { get; init; }

    /// <summary>Only those that several ad groups answered.</summary>
    public bool Several { get; init; }

    /// <summary>Conditions on figures, which all have to hold.</summary>
    public IReadOnlyList<SheetCondition> Conditions { get; init; } = [];
    public TermOrder Order { get; init; } = TermOrder.Cost;
    public int Offset { get; init; }
    public int Limit { get; init; } = 100;
}

/// <summary>A keyword through which a term came.</summary>
/// <param name="KeywordId">The keyword.</param>
/// <param name="Keyword">Its text; none where it is not known any more.</param>
/// <param name="Match">Its match type.</param>
/// <param name="AdGroupId">Its ad group.</param>
/// <param name="AdGroup">Name of it.</param>
/// <param name="CampaignId">Its campaign.</param>
/// <param name="Campaign">Name of it.</param>
/// <param name="Figures">What the term brought through it.</param>
public sealed record TermPart(
    long KeywordId,
    string? Keyword,
    MatchType? Match,
    long AdGroupId,
    string? AdGroup,
    long CampaignId,
    string? Campaign,
    Figures Figures
);

/// <summary>A search term.</summary>
/// <param name="Term">What was typed.</param>
/// <param name="Figures">What it brought.</param>
/// <param name="AdGroups">How many ad groups answered it.</param>
/// <param name="Parts">The keywords through which it came, most impressions first.</param>
/// <param name="FirstSeen">The first day on which somebody typed it.</param>
/// <param name="IsNew">True where that is after the last decisions.</param>
/// <param name="IsKeyword">True where it is a keyword of the account, in any form.</param>
/// <param name="Decision">What was decided; none for what was not.</param>
/// <param name="Said">The same with the place, in words.</param>
/// <param name="BlockedBy">A negative that keeps it away everywhere it came through, by now.</param>
public sealed record SearchTerm(
    string Term,
    Figures Figures,
    int AdGroups,
    IReadOnlyList<TermPart> Parts,
    DateOnly FirstSeen,
    bool IsNew,
    bool IsKeyword,
    TermDecision? Decision,
    string? Said,
    string? BlockedBy
);

/// <summary>A page of search terms.</summary>
/// <param name="First">The first day.</param>
/// <param name="Last">The last.</param>
/// <param name="Terms">How many different terms there were in all.</param>
/// <param name="SeenOnce">How many of them were seen once.</param>
/// <param name="All">What all brought.</param>
/// <param name="Wasted">Cost of terms with a word that never brought a conversion.</param>
/// <param name="Since">Day of the last decisions; none before the first.</param>
/// <param name="AsOf">The newest step of the account: what others decide after it is told to whoever decides by this page.</param>
/// <param name="Count">How many the filter lets through.</param>
/// <param name="Sum">What these brought.</param>
/// <param name="Rows">The page.</param>
public sealed record TermPage(
    DateOnly First,
    DateOnly Last,
    int Terms,
    int SeenOnce,
    Figures All,
    decimal Wasted,
    DateOnly? Since,
    long AsOf,
    int Count,
    Figures Sum,
    IReadOnlyList<SearchTerm> Rows
);

/// <summary>A word of search terms, or several in a row.</summary>
/// <param name="Word">The words.</param>
/// <param name="Terms">Different terms that have them.</param>
/// <param name="Clicks">Their clicks.</param>
/// <param name="Cost">Their cost.</param>
/// <param name="Sold">The part of the cost that terms with a conversion had.</param>
/// <param name="Conversions">Their conversions.</param>
public sealed record TermWord(string Word, int Terms, long Clicks, decimal Cost, decimal Sold, decimal Conversions);
