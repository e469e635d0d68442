using System.Globalization;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;
using Fendrik.Core.Places;

namespace Fendrik.Core.Reporting.Breakdowns;

/// <summary>What can be told apart by what, and how it is called.</summary>
public static class BreakdownRules
{
    /// <summary>The key of all items together that are too many to be shown.</summary>
    public const string Others = "others";

    /// <summary>Which reports know of a breakdown.</summary>
    public static BreakdownSource SourceOf(Breakdown by) =>
        by switch
        {
            Breakdown.Campaign or Breakdown.AdGroup => BreakdownSource.All,
            Breakdown.Day or Breakdown.Week or Breakdown.Month or Breakdown.Weekday => BreakdownSource.All,
            Breakdown.Keyword or Breakdown.Hour or Breakdown.Device or Breakdown.Site or Breakdown.Match =>
                BreakdownSource.Performance,
            Breakdown.Place or Breakdown.Age or Breakdown.Gender or Breakdown.Click or Breakdown.Rival =>
                BreakdownSource.Segments,
            Breakdown.Action => BreakdownSource.Conversions,
        };

    /// <summary>The segments that a breakdown is reported by; none for others.</summary>
    public static IReadOnlyList<ReachedBy> SegmentsOf(Breakdown by) =>
        by switch
        {
            Breakdown.Place => [ReachedBy.Place, ReachedBy.Interest],
            Breakdown.Age => [ReachedBy.Age],
            Breakdown.Gender => [ReachedBy.Gender],
            Breakdown.Click => [ReachedBy.Click],
            Breakdown.Rival => [ReachedBy.Rival],
            Breakdown.Campaign
            or Breakdown.AdGroup
            or Breakdown.Keyword
            or Breakdown.Day
            or Breakdown.Week
            or Breakdown.Month
            or Breakdown.Weekday
            or Breakdown.Hour
            or Breakdown.Device
            or Breakdown.Site
            or Breakdown.Match
            or Breakdown.Action => [],
        };

    /// <summary>What it is called.</summary>
    public static string NameOf(Breakdown by) =>
        by switch
        {
            Breakdown.Campaign => "Campaign",
            Breakdown.AdGroup => "Ad group",
            Breakdown.Keyword => "Keyword",
            Breakdown.Day => "Day",
            Breakdown.Week => "Week",
            Breakdown.Month => "Month",
            Breakdown.Weekday => "Day of the week",
            Breakdown.Hour => "Hour",
            Breakdown.Device => "Device",
            Breakdown.Site => "Kind of site",
            Breakdown.Match => "Match type",
            Breakdown.Place => "Place",
            Breakdown.Age => "Age",
            Breakdown.Gender => "Gender",
            Breakdown.Click => "Kind of click",
            Breakdown.Rival => "Rival present",
            Breakdown.Action => "Conversion action",
        };

    /// <summary>True where parts have an order of their own, as days and hours have; else the dearest come first.</summary>
    public static bool IsOrdered(Breakdown by) =>
        by
            is Breakdown.Day
                or Breakdown.Week
                or Breakdown.Month
                or Breakdown.Weekday
                or Breakdown.Hour
                or Breakdown.Age;

    /// <summary>Why two breakdowns cannot be crossed; none where they can.</summary>
    public static string? ProblemOf(Breakdown by, Breakdown then)
    {
        if (by == then)
        {
            return $"{NameOf(by)} by itself is told already: choose another breakdown.";
        }

        var (one, two) = (SourceOf(by), SourceOf(then));
        var isCrossed =
            one == BreakdownSource.All
            || two == BreakdownSource.All
            || (one == BreakdownSource.Performance && two == BreakdownSource.Performance)
            || IsOfConversions(by, then)
            || IsOfConversions(then, by);
        return isCrossed
            ? null
            : $"{NameOf(by)} and {NameOf(then).ToLowerInvariant()} are not reported together: the network tells of each by itself. Cross either with days, campaigns or ad groups.";
    }

    /// <summary>What a part is called; the key itself where only the account knows.</summary>
    /// <param name="by">The breakdown.</param>
    /// <param name="key">
    /// The part: a day as ISO 8601 writes it (of a week its Monday, of a month its first), the number of a weekday (Monday is 1), an hour, a device, a kind of
    /// site or a match type, or the name by which a segment is reported; a place behind the number of how it was reached and a colon.
    /// </param>
    public static string LabelOf(Breakdown by, string key)
    {
        int Number() => int.Parse(key, CultureInfo.InvariantCulture);
        DateOnly Day() => DateOnly.ParseExact(key, "yyyy-MM-dd", CultureInfo.InvariantCulture);
        return by switch
        {
            Breakdown.Day => Day().ToString("ddd d MMM", CultureInfo.InvariantCulture),
            Breakdown.Week => $"week of {Day().ToString("d MMM", CultureInfo.InvariantCulture)}",
            Breakdown.Month => Day().ToString("MMMM yyyy", CultureInfo.InvariantCulture),
            Breakdown.Weekday => CultureInfo.InvariantCulture.DateTimeFormat.GetDayName((DayOfWeek)(Number() % 7)),
            Breakdown.Hour => $"{Number():00}:00",
            Breakdown.Device => ((Device)Number()).ToString().ToLowerInvariant(),
            Breakdown.Site => SiteName((SiteKinds)Number()),
            Breakdown.Match => Choices.NameOf((MatchType)Number()),
            Breakdown.Place => PlaceName(key),
            Breakdown.Age or Breakdown.Gender or Breakdown.Click or Breakdown.Rival => key,
            Breakdown.Campaign or Breakdown.AdGroup or Breakdown.Keyword or Breakdown.Action => key,
        };
    }

    /// <summary>What is not of any part is called: most often what was reported before the network told of these parts.</summary>
    public static string RestOf(Breakdown by) =>
        by switch
        {
            Breakdown.Click => "not clicked",
            Breakdown.Action => "by no action that is known",
            Breakdown.Match or Breakdown.Keyword => "keywords that are gone",
            Breakdown.Day or Breakdown.Week or Breakdown.Month => "days before that stand beside none",
            Breakdown.Campaign
            or Breakdown.AdGroup
            or Breakdown.Weekday
            or Breakdown.Hour
            or Breakdown.Device
            or Breakdown.Site
            or Breakdown.Place
            or Breakdown.Age
            or Breakdown.Gender
            or Breakdown.Rival => "not known",
        };

    private static bool IsOfConversions(Breakdown action, Breakdown other) =>
        action == Breakdown.Action && other is Breakdown.Hour or Breakdown.Device or Breakdown.Keyword;

    private static string SiteName(SiteKinds site) =>
        site == SiteKinds.Search ? "search results"
        : site == SiteKinds.Partners ? "partner sites"
        : "content sites";

    /// <summary>Where a part lies on a map; none for what is no place, or one without a point, such as a country.</summary>
    /// <param name="by">What it was told apart by.</param>
    /// <param name="key">The part.</param>
    public static PlaceOnMap? PointOf(Breakdown by, string key)
    {
        if (by != Breakdown.Place || !key.Contains(':', StringComparison.Ordinal))
        {
            return null;
        }

        var (reached, place) = PlaceOf(key);
        return Gazetteer.OfKey(place)?.Point is { } point
            ? new PlaceOnMap(point.Latitude, point.Longitude, reached == ReachedBy.Interest)
            : null;
    }

    private static string PlaceName(string key)
    {
        var (reached, place) = PlaceOf(key);
        var name = Gazetteer.OfKey(place)?.Name ?? place;
        return reached == ReachedBy.Interest ? $"{name}, for an interest" : name;
    }

    private static (ReachedBy By, string Place) PlaceOf(string key)
    {
        var parts = key.Split(':', 2);
        return ((ReachedBy)int.Parse(parts[0], CultureInfo.InvariantCulture), parts[1]);
    }
}
