using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Measures;

namespace Fendrik.Data.Results;

/// <summary>What results are asked for.</summary>
/// <param name="Period">The days.</param>
/// <param name="Level">Campaigns, ad groups, keywords or ads.</param>
/// <param name="CampaignId">Only within this campaign.</param>
/// <param name="AdGroupId">Only within this ad group.</param>
/// <param name="Against">Which days they are compared with.</param>
/// <param name="Campaigns">Only in these campaigns; none for any.</param>
/// <param name="Chosen">The days that they are compared with, where somebody chose them.</param>
/// <param name="Items">Only these items of the level; none for any.</param>
public sealed record ResultsRequest(
    Period Period,
    ItemKind Level,
    long? CampaignId,
    long? AdGroupId,
    Comparison Against = Comparison.DaysBefore,
    IReadOnlyCollection<long>? Campaigns = null,
    Period? Chosen = null,
    IReadOnlyCollection<long>? Items = null
)
{
    /// <summary>The days that they are compared with.</summary>
    public Period Before => Period.ComparedWith(Against, Chosen);

    /// <summary>What queries of both periods go by.</summary>
    internal DynamicParameters Parameters(int accountId) =>
        new(
            new
            {
                accountId,
                CampaignId,
                AdGroupId,
                campaigns = Campaigns?.ToArray(),
                items = Items?.ToArray(),
                Period.First,
                Period.Last,
                BeforeFirst = Before.First,
                BeforeLast = Before.Last,
            }
        );
}

/// <summary>One line of results with the period before.</summary>
public sealed record ResultsLine(
    long Id,
    string Name,
    MatchType? Match,
    string Campaign,
    long CampaignId,
    string? AdGroup,
    long? AdGroupId,
    bool Removed,
    Figures Now,
    Figures Before,
    Standing? StandingNow,
    Standing? StandingBefore
)
{
    /// <summary>What the own books say; none where they say nothing.</summary>
    public Booked? BookedNow { get; init; }

    /// <summary>The same of the days before.</summary>
    public Booked? BookedBefore { get; init; }

    /// <summary>All that is known of it now.</summary>
    public Measured MeasuredNow => new(Now, StandingNow, BookedNow);

    /// <summary>The same of the days before.</summary>
    public Measured MeasuredBefore => new(Before, StandingBefore, BookedBefore);
}

/// <summary>One day of the chart.</summary>
public sealed record ResultsDay(DateOnly Day, Figures Figures, Standing Standing, Booked? Booked)
{
    /// <summary>All that is known of days together.</summary>
    public static Measured Together(IEnumerable<ResultsDay> days) =>
        days.Aggregate(
            new Measured(Figures.Zero, Standing.Zero),
            (sum, day) =>
                new Measured(
                    sum.Figures + day.Figures,
                    sum.Standing! + day.Standing,
                    day.Booked is { } booked ? (sum.Booked ?? Booked.Zero) + booked : sum.Booked
                )
        );
}

/// <summary>Results of a period beside the period before it.</summary>
public sealed record ResultsReport(
    Figures Now,
    Figures Before,
    Standing StandingNow,
    Standing StandingBefore,
    IReadOnlyList<ResultsDay> Days,
    IReadOnlyList<ResultsDay> DaysBefore,
    IReadOnlyList<ResultsLine> Lines,
    bool More
)
{
    /// <summary>All that is known of these days together.</summary>
    public Measured MeasuredNow => ResultsDay.Together(Days);

    /// <summary>The same of the days before.</summary>
    public Measured MeasuredBefore => ResultsDay.Together(DaysBefore);
}
