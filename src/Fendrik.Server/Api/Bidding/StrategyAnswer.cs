using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Bidding.Strategies;

namespace Fendrik.Server.Api.Bidding;

/// <summary>Something typed that cannot be.</summary>
public sealed record TypedProblem(string Field, string Text);

/// <summary>A strategy that may be chosen.</summary>
/// <param name="Key">As it travels.</param>
/// <param name="Name">Its name.</param>
/// <param name="Says">What it does, in a sentence.</param>
/// <param name="Fields">The settings that it has.</param>
public sealed record StrategyChoice(string Key, string Name, string Says, IReadOnlyList<string> Fields);

/// <summary>What a strategy that runs does, and whether it meets its target.</summary>
/// <param name="Name">The strategy.</param>
/// <param name="Since">Its first day.</param>
/// <param name="Verdict">Whether it meets its target.</param>
/// <param name="CostPerConversion">What a conversion cost.</param>
/// <param name="Low">The lowest that one may truly cost, nine times in ten.</param>
/// <param name="High">The highest; none where nothing was counted.</param>
/// <param name="Sentences">In words.</param>
public sealed record RunningStrategy(
    string Name,
    DateOnly? Since,
    TargetVerdict Verdict,
    decimal? CostPerConversion,
    decimal? Low,
    decimal? High,
    IReadOnlyList<string> Sentences
);

/// <summary>Figures of a replay.</summary>
public sealed record ReplayedLine(
    decimal Clicks,
    decimal Cost,
    decimal Conversions,
    decimal? CostPerConversion,
    decimal Value
)
{
    internal static ReplayedLine Of(ReplayedFigures figures, Currency currency) =>
        new(
            Math.Round((decimal)figures.Clicks, 1),
            currency.Round((decimal)figures.Cost),
            Math.Round((decimal)figures.Conversions, 1),
            figures.Conversions > 0 ? currency.Round((decimal)(figures.Cost / figures.Conversions)) : null,
            currency.Round((decimal)figures.Value)
        );

    /// <summary>The same in round figures, as ends of a range are.</summary>
    internal ReplayedLine Rough() =>
        this with
        {
            Clicks = Math.Round(Clicks),
            Cost = Math.Round(Cost),
            Conversions = Math.Round(Conversions),
            Value = Math.Round(Value),
        };
}

/// <summary>A week of a replay.</summary>
public sealed record ReplayedWeekLine(DateOnly First, ReplayedLine Was, ReplayedLine Would);

/// <summary>What past weeks would have brought under the strategy that is thought of.</summary>
public sealed record ReplayAnswer(
    IReadOnlyList<ReplayedWeekLine> Weeks,
    ReplayedLine Was,
    ReplayedLine Would,
    ReplayedLine Low,
    ReplayedLine High,
    IReadOnlyList<string> CannotKnow
)
{
    internal static ReplayAnswer Of(ReplayReport report, Currency currency) =>
        new(
            [
                .. report.Weeks.Select(week => new ReplayedWeekLine(
                    week.First,
                    ReplayedLine.Of(week.Was, currency),
                    ReplayedLine.Of(week.Would, currency)
                )),
            ],
            ReplayedLine.Of(report.Was, currency),
            ReplayedLine.Of(report.Would, currency),
            ReplayedLine.Of(report.Low, currency).Rough(),
            ReplayedLine.Of(report.High, currency).Rough(),
            report.CannotKnow
        );
}

/// <summary>What a strategy takes a part of the clicks for.</summary>
/// <param name="Kind">By what they are parted.</param>
/// <param name="Name">Which.</param>
/// <param name="Times">How many times as likely to convert as the campaign's: 1 is as likely.</param>
public sealed record StrategyPart(SegmentKind Kind, string Name, decimal Times);

/// <summary>A campaign and a strategy that is thought of for it.</summary>
/// <param name="Version">The version of the campaign, against which edits hold.</param>
/// <param name="Strategies">What there is to choose from.</param>
/// <param name="Chosen">Key of the strategy in the working copy.</param>
/// <param name="Values">Its settings there, as they are typed.</param>
/// <param name="Wanted">Key of the strategy that is thought of.</param>
/// <param name="Problems">What of its settings cannot be.</param>
/// <param name="Runs">The strategy that runs on the network; none while people set the bids.</param>
/// <param name="Points">What speaks for and against the one that is thought of.</param>
/// <param name="Target">A first target for it; none where it has none.</param>
/// <param name="TypedTarget">That target as it is typed.</param>
/// <param name="Replay">What past weeks would have brought; none without figures.</param>
/// <param name="Rate">Conversions for each click of the campaign, in per cent.</param>
/// <param name="Parts">What devices, hours, kinds of site and places do to that.</param>
public sealed record StrategyAnswer(
    long Version,
    IReadOnlyList<StrategyChoice> Strategies,
    string Chosen,
    IReadOnlyDictionary<string, string> Values,
    string Wanted,
    IReadOnlyList<TypedProblem> Problems,
    RunningStrategy? Runs,
    IReadOnlyList<ReadinessPoint> Points,
    TargetProposal? Target,
    string? TypedTarget,
    ReplayAnswer? Replay,
    decimal Rate,
    IReadOnlyList<StrategyPart> Parts
);
