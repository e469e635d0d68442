using Fendrik.Core.AdText;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;

namespace Fendrik.Core.Items.Kinds;

/// <summary>A short advantage shown under ads: on the account, a campaign or an ad group.</summary>
public sealed class CalloutType()
    : ExtensionType(
        Text(
            "callout",
            "Callout",
            "A short advantage that is shown under an ad, such as what comes with the service.",
            "Same-week visits",
            "callout",
            "callouts",
            "callout text"
        )
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.Callout;

    /// <inheritdoc/>
    public override string Noun => "callout";

    /// <inheritdoc/>
    public override string Table => "callout";

    /// <inheritdoc/>
    public override string TwinProblem => "The same callout is there already.";

    /// <inheritdoc/>
    /// <remarks>At least two, better four (common practice, no source).</remarks>
    public override (int Fewest, int Wanted) InReach(ExtensionRules rules) =>
        (rules.FewestCallouts, rules.MostCallouts);

    /// <inheritdoc/>
    public override bool IsClicked => false;

    /// <inheritdoc/>
    /// <remarks>
    /// The best go first. One so long that the fewest would not fit beside it gives way to those that do; when none do, none show.
    /// </remarks>
    public override IReadOnlyList<ConsideredExtension> Choose(
        ExtensionRules rules,
        IReadOnlyList<PlacedExtension> best,
        Device device
    )
    {
        for (var first = 0; first < best.Count; first++)
        {
            var chosen = Filled(rules, best, first, device);
            if (chosen.Count(each => each.Shows) >= rules.FewestCallouts)
            {
                return chosen;
            }
        }

        return
        [
            .. best.Select(each => new ConsideredExtension(
                Kind,
                each,
                false,
                best.Count < rules.FewestCallouts
                    ? $"Callouts show from {rules.FewestCallouts} on, and there is only {best.Count}."
                    : $"No {rules.FewestCallouts} of them fit into the line together."
            )),
        ];
    }

    /// <summary>The line filled from one on.</summary>
    private List<ConsideredExtension> Filled(
        ExtensionRules rules,
        IReadOnlyList<PlacedExtension> best,
        int first,
        Device device
    )
    {
        var line = new CalloutLine(rules.CalloutLine.On(device), rules.WideCounts);
        var chosen = new List<ConsideredExtension>(best.Count);
        var shown = 0;
        foreach (var (place, each) in best.Index())
        {
            var left = line.Left;
            var full = shown == rules.MostCallouts;
            var fits = place >= first && !full && line.Take(each.Text);
            shown += fits ? 1 : 0;
            chosen.Add(
                new ConsideredExtension(
                    Kind,
                    each,
                    fits,
                    fits ? ""
                        : place < first
                            ? $"So long that no {rules.FewestCallouts} would fit: it has {TextLength.Of(each.Text, rules.WideCounts)} characters."
                        : full ? $"At most {rules.MostCallouts} show, and others did better."
                        : $"No room: {Math.Max(0, left)} characters are left in the line, it has {TextLength.Of(each.Text, rules.WideCounts)}."
                )
            );
        }

        return chosen;
    }
}
