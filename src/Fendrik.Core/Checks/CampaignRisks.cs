using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Places;

namespace Fendrik.Core.Checks;

/// <summary>What a part of a campaign's clicks cost and brought.</summary>
/// <param name="Cost">What they cost.</param>
/// <param name="Conversions">What came of them.</param>
public readonly record struct RiskFigures(decimal Cost, decimal Conversions);

/// <summary>Settings of a campaign that cost money before anybody notices, with what they cost in the last weeks.</summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="Sites">Where it shows.</param>
/// <param name="Objective">What it is for.</param>
/// <param name="People">Whom its places reach.</param>
/// <param name="HasHours">True where it shows at some hours alone.</param>
/// <param name="HasPlaces">True where any place is in.</param>
public sealed record CampaignRisks(
    long CampaignId,
    SiteKinds Sites,
    Objective Objective,
    PlaceReach People,
    bool HasHours,
    bool HasPlaces
)
{
    /// <summary>Days whose cost is told.</summary>
    public const int Days = 28;

    /// <summary>No place is chosen.</summary>
    public const string Everywhere = "shows-everywhere";

    /// <summary>Search and content sites share bids and a budget.</summary>
    public const string MixedSites = "mixed-sites";

    /// <summary>Calls are paid for on partner sites.</summary>
    public const string PartnerCalls = "calls-on-partners";

    /// <summary>Calls are paid for at any hour.</summary>
    public const string AnyHourCalls = "calls-at-any-hour";

    /// <summary>People elsewhere are reached for an interest.</summary>
    public const string Interested = "reaches-interested";

    /// <summary>The checks of this kind.</summary>
    public static IReadOnlyList<string> Codes { get; } =
    [Everywhere, MixedSites, PartnerCalls, AnyHourCalls, Interested];

    /// <summary>True where there is anything to say.</summary>
    public bool IsAny =>
        !HasPlaces
        || IsMixed
        || Objective == Objective.Calls && (Sites.HasFlag(SiteKinds.Partners) || !HasHours)
        || People == PlaceReach.PresentOrInterested;

    /// <summary>True where what kinds of site and hours cost is to be told.</summary>
    public bool AsksSitesAndHours => IsMixed || Objective == Objective.Calls;

    private bool IsMixed => Sites.HasFlag(SiteKinds.Search | SiteKinds.Content);

    /// <summary>The findings.</summary>
    /// <param name="byPlace">What people brought by the key of where they were, and whether they were reached for an interest alone.</param>
    /// <param name="bySite">What kinds of site brought.</param>
    /// <param name="byHour">What hours of the week brought, 0 for Monday at midnight.</param>
    /// <param name="answering">When somebody takes calls; none where nobody said.</param>
    /// <param name="currency">The currency.</param>
    public IEnumerable<Finding> Findings(
        IReadOnlyCollection<(string Place, bool ByInterest, RiskFigures Figures)> byPlace,
        IReadOnlyDictionary<SiteKinds, RiskFigures> bySite,
        IReadOnlyDictionary<int, RiskFigures> byHour,
        WeekHours? answering,
        Currency currency
    )
    {
        string Told(RiskFigures figures, string of) =>
            figures.Cost == 0
                ? ""
                : $" In the last {Days} days {of} cost {new Money(currency.Round(figures.Cost), currency)} and brought {Conversions(figures)}.";
        if (!HasPlaces)
        {
            var abroad = Abroad(byPlace);
            yield return Caution(
                Everywhere,
                "people",
                "no place chosen: it shows in the whole world",
                "Without a place ads show to everybody anywhere."
                    + Told(abroad, "people in other countries")
                    + " Choose the places that are served."
            );
        }

        if (People == PlaceReach.PresentOrInterested)
        {
            yield return Caution(
                Interested,
                "people",
                "reaches people elsewhere who are interested",
                "People who are in none of the places see ads too, when the network takes them to be interested in one: a well-known way to pay for calls from abroad."
                    + Told(Sum(byPlace.Where(each => each.ByInterest).Select(each => each.Figures)), "they")
                    + " Keep to people in the places unless that is meant."
            );
        }

        if (IsMixed)
        {
            yield return Caution(
                MixedSites,
                "networks",
                "search and content sites in one campaign",
                "People who read are not people who search: one bid and one budget for both suits neither."
                    + Told(bySite.GetValueOrDefault(SiteKinds.Content), "content sites")
                    + " Give content sites a campaign of their own."
            );
        }

        if (Objective == Objective.Calls && Sites.HasFlag(SiteKinds.Partners))
        {
            yield return Caution(
                PartnerCalls,
                "networks",
                "partner sites in a campaign for calls",
                "On partner sites people tap without meaning to call."
                    + Told(bySite.GetValueOrDefault(SiteKinds.Partners), "partner sites")
                    + " Leave them out, or watch the calls."
            );
        }

        if (Objective == Objective.Calls && !HasHours)
        {
            var idle = Sum(
                byHour.Where(hour => answering is { } open && !IsOpen(open, hour.Key)).Select(hour => hour.Value)
            );
            yield return Caution(
                AnyHourCalls,
                "hours",
                "a campaign for calls without hours",
                "It pays for calls that nobody takes."
                    + (answering is null ? "" : Told(idle, "hours in which nobody takes calls"))
                    + " Set its hours."
            );
        }
    }

    /// <summary>What people cost in other countries than the one with most of the cost.</summary>
    private static RiskFigures Abroad(IReadOnlyCollection<(string Place, bool ByInterest, RiskFigures Figures)> byPlace)
    {
        var byCountry = byPlace
            .GroupBy(each => Gazetteer.OfKey(each.Place)?.Country)
            .Select(group => (Country: group.Key, Figures: Sum(group.Select(each => each.Figures))))
            .OrderByDescending(each => each.Figures.Cost)
            .ToArray();
        return Sum(byCountry.Skip(1).Select(each => each.Figures));
    }

    private static bool IsOpen(WeekHours answering, int hourOfWeek) =>
        answering.Holds((DayOfWeek)((hourOfWeek / 24 + 1) % 7), hourOfWeek % 24 * 60);

    private static RiskFigures Sum(IEnumerable<RiskFigures> figures) =>
        figures.Aggregate(
            default(RiskFigures),
            (sum, each) => new RiskFigures(sum.Cost + each.Cost, sum.Conversions + each.Conversions)
        );

    private static string Conversions(RiskFigures figures) =>
        figures.Conversions == 0
            ? "nothing"
            : string.Create(
                CultureInfo.InvariantCulture,
                $"{figures.Conversions:0.#} conversion{(figures.Conversions == 1 ? "" : "s")}"
            );

    private Finding Caution(string code, string field, string message, string detail) =>
        new(Weight.Caution, code, ItemKind.Campaign, CampaignId, field, message, detail);
}
