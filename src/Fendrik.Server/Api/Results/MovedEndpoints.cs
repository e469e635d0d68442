using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Moved;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Results;

/// <summary>What a cause added to a figure.</summary>
/// <param name="Cause">The cause.</param>
/// <param name="Name">What it is called.</param>
/// <param name="How">How it comes about.</param>
/// <param name="Effect">What it added, in the unit of the figure.</param>
public sealed record MovedCause(Cause Cause, string Name, string How, decimal Effect);

/// <summary>What an item added to a figure.</summary>
/// <param name="Id">The item; none for all that are too small to be named.</param>
/// <param name="Name">Its name.</param>
/// <param name="Effect">What it added.</param>
/// <param name="Says">How, in words.</param>
public sealed record MovedPart(long? Id, string Name, decimal Effect, string Says);

/// <summary>The change of a figure, split into causes and items.</summary>
/// <param name="Figure">The figure.</param>
/// <param name="Before">What it was; none where it is not known.</param>
/// <param name="Now">What it is; none where it is not known.</param>
/// <param name="Change">The difference, which the causes add up to.</param>
/// <param name="Causes">The causes.</param>
/// <param name="Parts">The items that did most.</param>
/// <param name="Chance">How far chance explains it, in a sentence.</param>
public sealed record MovedAnswer(
    MovedFigure Figure,
    decimal? Before,
    decimal? Now,
    decimal? Change,
    IReadOnlyList<MovedCause> Causes,
    IReadOnlyList<MovedPart> Parts,
    string? Chance
);

/// <summary>What moved a figure from one period to another.</summary>
internal static class MovedEndpoints
{
    /// <summary>More items than these are taken together: what each did is too small to be seen.</summary>
    private const int MostItems = 20_000;

    private const int MostNamed = 5;
    private const decimal UnitOfConversions = 0.1m;

    public static void MapMoved(this RouteGroupBuilder account) =>
        account.MapGet("/results/moved", ReadAsync).WithName("readMoved");

    private static async Task<Ok<MovedAnswer>> ReadAsync(
        int accountId,
        [AsParameters] AskedResults asked,
        string figure,
        string? condition,
        ResultsReader reader,
        CampaignConditions conditions,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var which = QueryChoice.Of<MovedFigure>(figure, "figure") ?? MovedFigure.CostPerConversion;
        // What a scope holds is what its figures are split among.
        var level =
            asked.AdGroupId is not null ? ItemKind.Keyword
            : asked.CampaignId is not null ? ItemKind.AdGroup
            : ItemKind.Campaign;
        // Campaigns that do one thing are split among themselves.
        var request = await conditions.KeepAsync(accountId, asked.Of(level), condition, cancellation);
        var report = await reader.ReadAsync(accountId, request, MostItems, cancellation);
        var currency = (await workingCopy.FactsAsync(accountId, cancellation)).Currency;
        return TypedResults.Ok(
            MovedReport.Of(which, ItemsOf(report)) is { } moved
                ? AnswerOf(moved, report, request, currency)
                : new MovedAnswer(
                    which,
                    report.Before.CostPerConversion,
                    report.Now.CostPerConversion,
                    null,
                    [],
                    [],
                    null
                )
        );
    }

    /// <summary>The items, with one for what belongs to none that is listed.</summary>
    private static List<MovedItem> ItemsOf(ResultsReport report)
    {
        List<MovedItem> items =
        [
            .. report.Lines.Select(line => new MovedItem(line.Id, line.Name, line.Before, line.Now)),
        ];
        static Figures Rest(Figures all, IEnumerable<Figures> parts)
        {
            var sum = parts.Aggregate(Figures.Zero, (one, other) => one + other);
            return new Figures(
                all.Impressions - sum.Impressions,
                all.Clicks - sum.Clicks,
                all.Cost - sum.Cost,
                all.Conversions - sum.Conversions,
                all.Value - sum.Value
            );
        }

        var (before, now) = (
            Rest(report.Before, items.Select(item => item.Before)),
            Rest(report.Now, items.Select(item => item.Now))
        );
        if (before != Figures.Zero || now != Figures.Zero)
        {
            items.Add(new MovedItem(0, "all others", before, now));
        }

        return items;
    }

    private static MovedAnswer AnswerOf(
        MovedReport moved,
        ResultsReport report,
        ResultsRequest request,
        Currency currency
    )
    {
        var unit = moved.Figure == MovedFigure.Conversions ? UnitOfConversions : currency.SmallestAmount;
        decimal Shown(double amount) => Math.Round((decimal)amount / unit, MidpointRounding.AwayFromZero) * unit;
        var (before, now) = (Shown(moved.Before), Shown(moved.Now));
        var causes = RoundedEffects.Of([.. moved.Causes.Select(cause => cause.Effect)], now - before, unit);
        return new MovedAnswer(
            moved.Figure,
            before,
            now,
            now - before,
            [
                .. moved.Causes.Select(
                    (cause, at) =>
                        new MovedCause(
                            cause.Cause,
                            MovedWords.NameOf(cause.Cause),
                            MovedWords.Explained(cause.Cause, moved.Figure),
                            causes[at]
                        )
                ),
            ],
            [
                .. moved
                    .Items.Take(MostNamed)
                    .Where(item => Shown(item.Effect) != 0)
                    .Select(item => new MovedPart(
                        item.Item.Id == 0 ? null : item.Item.Id,
                        item.Item.Name,
                        Shown(item.Effect),
                        MovedWords.OfItem(item, moved.Figure, report.Before, report.Now, currency)
                    )),
            ],
            MovedWords.OfChance(DifferenceOf(moved.Figure, report, request), request.Period.Days)
        );
    }

    /// <summary>Conversions by what was spent, or by the days; of a profit chance is not known, for values differ.</summary>
    private static RateDifference? DifferenceOf(MovedFigure figure, ResultsReport report, ResultsRequest request) =>
        figure switch
        {
            MovedFigure.CostPerConversion => RateDifference.Of(
                report.Before.Conversions,
                (double)report.Before.Cost,
                report.Now.Conversions,
                (double)report.Now.Cost
            ),
            MovedFigure.Conversions => RateDifference.Of(
                report.Before.Conversions,
                request.Before.Days,
                report.Now.Conversions,
                request.Period.Days
            ),
            MovedFigure.Profit => null,
        };
}
