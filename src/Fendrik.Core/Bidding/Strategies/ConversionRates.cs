using System.Globalization;
using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Places;

namespace Fendrik.Core.Bidding.Strategies;

/// <summary>What clicks of a campaign brought where keyword, device, part of the week and kind of site come together.</summary>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="KeywordId">The keyword.</param>
/// <param name="Device">The device.</param>
/// <param name="Block">Number of the block of hours.</param>
/// <param name="Site">The kind of site.</param>
/// <param name="Clicks">Clicks.</param>
/// <param name="Conversions">Conversions of these.</param>
/// <param name="Value">What they are worth.</param>
public readonly record struct ClickCell(
    long AdGroupId,
    long KeywordId,
    Device Device,
    int Block,
    SiteKinds Site,
    double Clicks,
    double Conversions,
    double Value
);

/// <summary>What clicks of a search that a keyword answered brought.</summary>
/// <param name="KeywordId">The keyword.</param>
/// <param name="Term">The search in the network's reading.</param>
/// <param name="Clicks">Clicks.</param>
/// <param name="Conversions">Conversions of these.</param>
public readonly record struct TermCell(long KeywordId, string Term, double Clicks, double Conversions);

/// <summary>What clicks of people in a place brought.</summary>
/// <param name="Place">Name of the place.</param>
/// <param name="Clicks">Clicks.</param>
/// <param name="Conversions">Conversions of these.</param>
public readonly record struct PlaceCell(string Place, double Clicks, double Conversions);

/// <summary>A click that may come.</summary>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="KeywordId">The keyword.</param>
/// <param name="Term">The search in the network's reading.</param>
/// <param name="Device">The device.</param>
/// <param name="Block">Number of the block of hours; none for no hour in particular.</param>
/// <param name="Site">The kind of site.</param>
/// <param name="Place">Name of the place; none for nowhere in particular.</param>
public readonly record struct ClickAhead(
    long AdGroupId,
    long KeywordId,
    string Term,
    Device Device,
    int? Block,
    SiteKinds Site,
    string? Place
);

/// <summary>How likely a click is to convert, and what that would be worth.</summary>
/// <param name="Rate">Conversions for each click: 0 to <see cref="ConversionRates.MostRate"/>.</param>
/// <param name="Value">What a conversion is worth.</param>
/// <param name="RelativeValue">The same against a usual conversion of the campaign: 1 is as much.</param>
/// <param name="Factors">What the rate comes from: the campaign's first, then what each part makes of it.</param>
public sealed record PredictedClick(
    double Rate,
    double Value,
    double RelativeValue,
    IReadOnlyList<(string Name, double Factor)> Factors
);

/// <summary>
/// How likely clicks of a campaign are to convert, from what is counted: the campaign's own rate, what its ad groups, keywords and
/// searches make of it, and what device, part of the week, kind of site and place do. Each is drawn towards what it stands in as long as
/// little is counted, as segments are (see <see cref="SegmentFactor"/>): a keyword with three clicks is taken for its ad group.
/// </summary>
public sealed class ConversionRates
{
    /// <summary>Conversions for each click that are taken for usual before any are counted. Fendrik's own choice.</summary>
    public const double UsualRate = 0.03;

    /// <summary>No click is taken to convert more surely.</summary>
    public const double MostRate = 0.9;

    /// <summary>Days of clicks that are looked at: 12 weeks, so that no day of the week counts more than another.</summary>
    public const int Days = 84;

    private readonly Dictionary<long, double> _groups;
    private readonly Dictionary<long, double> _keywords;
    private readonly Dictionary<(long Keyword, string Term), double> _terms;
    private readonly Dictionary<string, double> _places;
    private readonly IReadOnlyDictionary<Segment, SegmentFactor> _segments;
    private readonly Dictionary<long, double> _values;

    /// <param name="cells">What clicks brought, by keyword, device, part of the week and kind of site.</param>
    /// <param name="terms">The same clicks by search.</param>
    /// <param name="places">The same clicks by place.</param>
    public ConversionRates(
        IReadOnlyCollection<ClickCell> cells,
        IEnumerable<TermCell> terms,
        IEnumerable<PlaceCell> places
    )
    {
        Clicks = cells.Sum(cell => cell.Clicks);
        Conversions = cells.Sum(cell => cell.Conversions);
        Rate = Math.Min(MostRate, UsualRate * new SegmentFactor(Conversions, Clicks * UsualRate).Mean);
        var value = cells.Sum(cell => cell.Value);
        Value = Conversions > 0 ? value / Conversions : 0;
        _groups = cells
            .GroupBy(cell => cell.AdGroupId)
            .ToDictionary(group => group.Key, group => FactorOf(group, Rate).Mean);
        _keywords = cells
            .GroupBy(cell => (cell.KeywordId, cell.AdGroupId))
            .GroupBy(keyword => keyword.Key.KeywordId)
            // A keyword that moved is taken for what it is in the ad group where it had most clicks.
            .ToDictionary(
                same => same.Key,
                same =>
                    same.Select(each => FactorOf(each, Rate * _groups[each.Key.AdGroupId]))
                        .MaxBy(factor => factor.Expected)
                        .Mean
            );
        var groupOf = cells
            .GroupBy(cell => cell.KeywordId)
            .ToDictionary(same => same.Key, same => same.First().AdGroupId);
        _terms = terms
            .GroupBy(term => (term.KeywordId, term.Term))
            .ToDictionary(
                same => same.Key,
                same =>
                    new SegmentFactor(
                        same.Sum(term => term.Conversions),
                        same.Sum(term => term.Clicks)
                            * Rate
                            * (groupOf.TryGetValue(same.Key.KeywordId, out var group) ? _groups[group] : 1)
                            * _keywords.GetValueOrDefault(same.Key.KeywordId, 1)
                    ).Mean
            );
        _places = places
            .GroupBy(place => place.Place, StringComparer.Ordinal)
            .ToDictionary(
                same => same.Key,
                same =>
                    new SegmentFactor(
                        same.Sum(place => place.Conversions),
                        same.Sum(place => place.Clicks) * Rate
                    ).Mean,
                StringComparer.Ordinal
            );
        _segments = SegmentModel.Weigh(
            [
                .. cells
                    .GroupBy(cell => (cell.Device, cell.Block, cell.Site))
                    .Select(same => new SegmentCell(
                        (int)same.Key.Device,
                        same.Key.Block,
                        (int)same.Key.Site,
                        same.Sum(cell => cell.Clicks),
                        same.Sum(cell => cell.Conversions)
                    )),
            ],
            1 / Rate
        );
        _values = cells
            .GroupBy(cell => cell.AdGroupId)
            .ToDictionary(
                group => group.Key,
                group =>
                    (group.Sum(cell => cell.Value) + SegmentFactor.Prior * Value)
                    / (group.Sum(cell => cell.Conversions) + SegmentFactor.Prior)
            );
    }

    /// <summary>The rates before anything is counted.</summary>
    public static ConversionRates Unknown { get; } = new([], [], []);

    /// <summary>Clicks that they rest on.</summary>
    public double Clicks { get; }

    /// <summary>Conversions that they rest on.</summary>
    public double Conversions { get; }

    /// <summary>Conversions for each click of the campaign.</summary>
    public double Rate { get; }

    /// <summary>What a conversion of the campaign is worth; 0 where none is counted.</summary>
    public double Value { get; }

    /// <summary>What devices, parts of the week, kinds of site and places do to the campaign's rate.</summary>
    public IReadOnlyList<(SegmentKind Kind, string Name, double Factor)> Parts =>
        [
            .. _segments
                .OrderBy(each => each.Key.Kind)
                .ThenBy(each => each.Key.Key)
                .Select(each => (each.Key.Kind, EvidenceWords.NameOf(each.Key), each.Value.Mean)),
            .. _places
                .OrderByDescending(each => Math.Abs(Math.Log(each.Value)))
                .ThenBy(each => each.Key, StringComparer.Ordinal)
                .Select(each => (SegmentKind.Place, NameOf(each.Key), each.Value)),
        ];

    /// <summary>How likely clicks of a keyword are to convert, whoever clicks and when.</summary>
    public double OfKeyword(long adGroupId, long keywordId) =>
        Math.Min(MostRate, Rate * _groups.GetValueOrDefault(adGroupId, 1) * _keywords.GetValueOrDefault(keywordId, 1));

    /// <summary>How likely a click is to convert.</summary>
    public PredictedClick Of(in ClickAhead click)
    {
        var factors = new List<(string, double)>(8) { ("a click of the campaign", Rate) };
        var rate = Rate;
        void Take(string name, double factor)
        {
            if (factor != 1)
            {
                factors.Add((name, factor));
                rate *= factor;
            }
        }

        Take("its ad group", _groups.GetValueOrDefault(click.AdGroupId, 1));
        Take("its keyword", _keywords.GetValueOrDefault(click.KeywordId, 1));
        Take("its search", _terms.GetValueOrDefault((click.KeywordId, click.Term), 1));
        Take(
            Choices.NameOf(Choices.Device, (int)click.Device),
            MeanOf(new Segment(SegmentKind.Device, (int)click.Device))
        );
        if (click.Block is { } block)
        {
            Take(HourBlock.All[block].Name, MeanOf(new Segment(SegmentKind.Hours, block)));
        }

        Take(Choices.NameOf(Choices.Sites, (int)click.Site), MeanOf(new Segment(SegmentKind.Site, (int)click.Site)));
        if (click.Place is { } place)
        {
            Take(NameOf(place), _places.GetValueOrDefault(place, 1));
        }

        var value = _values.GetValueOrDefault(click.AdGroupId, Value);
        return new PredictedClick(Math.Min(MostRate, rate), value, Value > 0 ? value / Value : 1, factors);
    }

    private static string NameOf(string place) => Gazetteer.OfKey(place)?.Name ?? place;

    private double MeanOf(Segment segment) => _segments.TryGetValue(segment, out var factor) ? factor.Mean : 1;

    private static SegmentFactor FactorOf(IEnumerable<ClickCell> cells, double rate)
    {
        var (clicks, conversions) = (0.0, 0.0);
        foreach (var cell in cells)
        {
            clicks += cell.Clicks;
            conversions += cell.Conversions;
        }

        return new SegmentFactor(conversions, clicks * rate);
    }

    /// <summary>A factor in words: × 1.24; a likelihood as per cent.</summary>
    internal static string InWords(double factor, bool isRate = false) =>
        isRate
            ? "× " + (factor * 100).ToString("0.##", CultureInfo.InvariantCulture) + "%"
            : "× " + factor.ToString("0.00", CultureInfo.InvariantCulture);
}
