using Fendrik.Core.Reporting;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Microsoft.AspNetCore.Mvc;

namespace Fendrik.Server.Api.Results;

/// <summary>What figures are asked for, as it stands in an address.</summary>
/// <param name="First">The first day.</param>
/// <param name="Last">The last.</param>
/// <param name="CampaignId">Only within this campaign.</param>
/// <param name="AdGroupId">Only within this ad group.</param>
/// <param name="Against">Which days they are compared with; the days before unless it says.</param>
/// <param name="BeforeFirst">The first of the days that somebody chose to compare with.</param>
/// <param name="BeforeLast">The last of them.</param>
public sealed record AskedResults(
    [FromQuery(Name = "first")] DateOnly First,
    [FromQuery(Name = "last")] DateOnly Last,
    [FromQuery(Name = "campaignId")] long? CampaignId = null,
    [FromQuery(Name = "adGroupId")] long? AdGroupId = null,
    [FromQuery(Name = "against")] string? Against = null,
    [FromQuery(Name = "beforeFirst")] DateOnly? BeforeFirst = null,
    [FromQuery(Name = "beforeLast")] DateOnly? BeforeLast = null
)
{
    private const int MostDays = 800;

    /// <summary>The request for items of a kind.</summary>
    /// <exception cref="InvalidChangeException">The days cannot be.</exception>
    public ResultsRequest Of(ItemKind level)
    {
        var against = QueryChoice.Of<Comparison>(Against, "against") ?? Comparison.DaysBefore;
        return new ResultsRequest(
            Checked(First, Last, "last"),
            level,
            CampaignId,
            AdGroupId,
            against,
            Chosen: against != Comparison.Chosen ? null
                : BeforeFirst is { } first && BeforeLast is { } last ? Checked(first, last, "beforeLast")
                : throw new InvalidChangeException(
                    "beforeFirst",
                    "Choose the first and the last of the days to compare with."
                )
        );
    }

    /// <summary>The request for items of a kind by the key that the API writes.</summary>
    /// <exception cref="InvalidChangeException">There is no such kind, or the days cannot be.</exception>
    public ResultsRequest Of(string level)
    {
        var levels = ItemTypes.All.Where(type => type.FigureColumn is not null);
        return levels.FirstOrDefault(type => NetworkProfile.KeyOf(type.Kind) == level) is { } type
            ? Of(type.Kind)
            : throw new InvalidChangeException(
                "level",
                $"“{level}” is none of {string.Join(", ", levels.Select(each => NetworkProfile.KeyOf(each.Kind)))}."
            );
    }

    private static Period Checked(DateOnly first, DateOnly last, string field) =>
        last < first || last.DayNumber - first.DayNumber >= MostDays
            ? throw new InvalidChangeException(
                field,
                $"Choose a last day after the first, and at most {MostDays} days."
            )
            : new Period(first, last);
}
