using Fendrik.Core.Accounts;

namespace Fendrik.Core.Intake;

/// <summary>What is taken for granted where a list says nothing.</summary>
/// <param name="Campaign">Campaign for rows without one.</param>
/// <param name="AdGroup">Ad group for rows without one.</param>
/// <param name="BareMatch">Match type of keywords without notation and without a match type column.</param>
/// <param name="NegativeMatch">Match type of negatives without either.</param>
/// <param name="Intent">What rows without an action ask for.</param>
/// <param name="EmptyClears">True when an empty cell takes an optional value away, false when it says nothing.</param>
public sealed record IntakeDefaults(
    string? Campaign = null,
    string? AdGroup = null,
    MatchType BareMatch = MatchType.Broad,
    MatchType NegativeMatch = MatchType.Phrase,
    RowIntent Intent = RowIntent.AddAndChange,
    bool EmptyClears = false
);

/// <summary>One row of a list, understood. Which of the parts are filled depends on the kind of item.</summary>
public sealed class IntakeRow
{
    /// <summary>Row in the list as a spreadsheet counts: the first is 1, a header counts.</summary>
    public required int RowNumber { get; init; }

    /// <summary>The row's own item: the most special one that it names.</summary>
    public ItemKind Kind { get; set; }

    /// <summary>What the row asks for.</summary>
    public RowIntent Intent { get; set; } = RowIntent.AddAndChange;

    /// <summary>Name of the negative list that the row is about or that its negative is in; empty for none.</summary>
    public string NegativeList { get; set; } = "";

    /// <summary>Campaign name.</summary>
    public string Campaign { get; set; } = "";

    /// <summary>Daily budget.</summary>
    public decimal? DailyBudget { get; set; }

    /// <summary>First day of the campaign.</summary>
    public DateOnly? StartDate { get; set; }

    /// <summary>Last day of the campaign.</summary>
    public DateOnly? EndDate { get; set; }

    /// <summary>Where the campaign shows.</summary>
    public SiteKinds? Networks { get; set; }

    /// <summary>Ad group name; empty for items of the campaign itself.</summary>
    public string AdGroup { get; set; } = "";

    /// <summary>The ad group's default max CPC.</summary>
    public decimal? AdGroupMaxCpc { get; set; }

    /// <summary>Keyword or negative text.</summary>
    public string Text { get; set; } = "";

    /// <summary>Match type.</summary>
    public MatchType? Match { get; set; }

    /// <summary>Max CPC of the keyword.</summary>
    public decimal? MaxCpc { get; set; }

    /// <summary>State of the row's own item.</summary>
    public ItemState? State { get; set; }

    /// <summary>Landing page.</summary>
    public string? FinalUrl { get; set; }

    /// <summary>Headlines.</summary>
    public IReadOnlyList<string> Headlines { get; set; } = [];

    /// <summary>Descriptions.</summary>
    public IReadOnlyList<string> Descriptions { get; set; } = [];

    /// <summary>Display path.</summary>
    public IReadOnlyList<string> DisplayPath { get; set; } = [];

    /// <summary>Device preference.</summary>
    public Device? DevicePreference { get; set; }

    /// <summary>Labels of the row's own item; none when the row does not say.</summary>
    public IReadOnlyList<string>? Labels { get; set; }

    /// <summary>Values that are to be taken away.</summary>
    public ClearedValues Cleared { get; set; }

    /// <summary>Why the row is refused: a sentence without its first words; none when it can come in.</summary>
    public string? Problem { get; set; }

    /// <summary>Field that the problem is in.</summary>
    public IntakeField ProblemField { get; set; }

    /// <summary>Key of the row's own item inside its parent: with the parent's it makes a duplicate a duplicate.</summary>
    public string ItemKey =>
        Kind switch
        {
            ItemKind.Keyword or ItemKind.NegativeKeyword => TextIdentity.Of(Text),
            ItemKind.TextAd => AdKey(Headlines, Descriptions, DisplayPath, FinalUrl ?? "", DevicePreference),
            _ => "",
        };

    /// <summary>Key by which two ads of an ad group are the same.</summary>
    public static string AdKey(
        IEnumerable<string> headlines,
        IEnumerable<string> descriptions,
        IEnumerable<string> displayPath,
        string finalUrl,
        Device? device
    ) => TextIdentity.Of([.. headlines, "|", .. descriptions, "|", .. displayPath, "|", finalUrl, device?.ToString()]);
}
