using Fendrik.Core.AdText;
using Fendrik.Core.AdText.Combining;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Items.Kinds;

/// <summary>An ad of many headlines and descriptions, of which the network puts a few together for each search.</summary>
public sealed class ResponsiveAdType()
    : AdType(
        Headlines(room: 14, placed: true),
        Descriptions(room: 5, placed: true),
        DisplayPath(),
        CommonFields.LandingPage(needed: true, identity: true),
        PhonePage(),
        new Field
        {
            Name = "keptApart",
            Label = "Kept apart",
            Meaning =
                "Headlines and descriptions that never all show together, with | between; || before the next that do not.",
            Example = "Free Tuning | Ask For A Price",
            Column = "kept_apart",
            Headers = ["kept apart", "never together"],
            TellsKind = true,
            Type = new KeptApartValue(),
            IsClearable = true,
            IsSortable = false,
            IsReviewed = false,
        },
        OnlyOn()
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.ResponsiveAd;

    /// <inheritdoc/>
    public override string FormNoun => Noun;

    /// <inheritdoc/>
    public override string Noun => "responsive ad";

    /// <inheritdoc/>
    public override IReadOnlyList<string> OtherWords => ["responsive", "responsive text ad"];

    /// <inheritdoc/>
    public override string Table => "responsive_ad";

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report)
    {
        var rules = report.Network.Responsive;
        foreach (
            var (name, places) in new[]
            {
                ("headlines", rules.Headlines.Most),
                ("descriptions", rules.Descriptions.Most),
            }
        )
        {
            var (field, lines) = (this[name], LinesOf(values[name]));
            if (lines.FirstOrDefault(line => line.Place > places) is { Text: not null } beyond)
            {
                yield return report.Blocker(
                    field,
                    "place-beyond",
                    $"place {beyond.Place} of {places}",
                    $"“{beyond.Text}” is kept to place {beyond.Place}; {report.Network.Name} shows {places}. Keep it to another, or to none."
                );
            }

            if (
                lines.Count > 0
                && Enumerable
                    .Range(1, Math.Min(places, lines.Count))
                    .FirstOrDefault(place => !lines.Any(line => line.MayStandAt(place, lines)))
                    is > 0
                        and var empty
            )
            {
                yield return report.Caution(
                    field,
                    "place-empty",
                    $"nothing for place {empty}",
                    $"All {field.LowLabel}s are kept to other places: place {empty} stays empty. Set one free."
                );
            }
        }

        string[] texts =
        [
            .. LinesOf(values["headlines"]).Concat(LinesOf(values["descriptions"])).Select(line => line.Text),
        ];
        foreach (var lines in KeptApart.Read(values["keptApart"] as string))
        {
            var missing = lines.Except(texts, StringComparer.OrdinalIgnoreCase).ToArray();
            if (missing.Length > 0)
            {
                yield return report.Hint(
                    this["keptApart"],
                    "kept-apart-gone",
                    "keeps apart what is gone",
                    $"“{KeptApart.Write([lines])}” keeps nothing apart any more: the ad does not say “{missing[0]}”. Take it out."
                );
            }
        }
    }

    private static IReadOnlyList<PlacedLine> LinesOf(object? value) =>
        [.. (value as string[] ?? []).Select(PlacedLine.Of)];
}
