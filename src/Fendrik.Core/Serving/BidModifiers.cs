using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Serving;

/// <summary>Modifiers of device and hour, which hold for every search.</summary>
public static class BidModifiers
{
    /// <summary>The modifiers that a search meets, in the order in which they are shown; their order changes no bid.</summary>
    /// <param name="served">The keyword.</param>
    /// <param name="search">The search; one at no time in particular meets no modifier of hours.</param>
    /// <returns>Each with what it is for, and what keeps the keyword away when one of them means never.</returns>
    public static (IReadOnlyList<(string Name, decimal Percent)> Modifiers, Hindrance? Never) Of(
        ServedKeyword served,
        Search search
    ) => Of(served.Campaign, served.AdGroup, search);

    /// <summary>The same for whatever stands in a campaign.</summary>
    /// <param name="campaign">The campaign.</param>
    /// <param name="group">The ad group, whose modifiers of devices come first; none for one that is not there yet.</param>
    /// <param name="search">The search.</param>
    public static (IReadOnlyList<(string Name, decimal Percent)> Modifiers, Hindrance? Never) Of(
        Campaign campaign,
        AdGroup? group,
        Search search
    )
    {
        var device = group?.ModifierOf(search.Device) ?? campaign.ModifierOf(search.Device);
        var hour =
            search.Minute is { } minute && campaign.Hours is { } hours
                ? hours.At(search.Day.DayOfWeek, minute) ?? 0
                : 0;
        if (device is null && hour == 0)
        {
            return ([], null);
        }

        var modifiers = new List<(string, decimal)>(2);
        Hindrance? never = null;
        if (device is { } percent)
        {
            var name = Choices.NameOf(Choices.Device, (int)search.Device);
            modifiers.Add((name, percent));
            if (percent == PercentValue.Lowest)
            {
                var own = group?.ModifierOf(search.Device) is not null;
                never = new Hindrance(
                    HindranceKind.ShutOff,
                    own ? ItemKind.AdGroup : ItemKind.Campaign,
                    own ? group!.Id : campaign.Id,
                    $"The modifier of −100% for {Choices.NameOf(Choices.Device, (int)search.Device)}s on the {(own ? "ad group" : "campaign")} means never."
                );
            }
        }

        if (hour != 0)
        {
            modifiers.Add(($"{search.Day.DayOfWeek.ToString()[..3]} {search.Clock:HH:mm}", hour));
            never ??=
                hour == PercentValue.Lowest
                    ? Hindrance.OfCampaign(
                        HindranceKind.ShutOff,
                        campaign,
                        "The campaign's modifier of −100% for this hour means never."
                    )
                    : null;
        }

        return (modifiers, never);
    }
}
