using Fendrik.Core.Items.Values;
using Fendrik.Core.Places;

namespace Fendrik.Core.Serving;

/// <summary>What the places of a campaign make of a search.</summary>
/// <param name="Hindrance">What keeps it away; none when nothing does.</param>
/// <param name="Modifier">The modifier of the narrowest place, with its name; none for as it is.</param>
/// <param name="IsByInterest">True when only an interest in a place lets it in: the person is elsewhere.</param>
public readonly record struct PlaceReached(
    Hindrance? Hindrance,
    (string Name, decimal Percent)? Modifier,
    bool IsByInterest
);

/// <summary>
/// Where the campaigns of an account show. Out wins, by where people are; where any place is in, only people who are there see ads, or
/// who are interested in it where the campaign reaches these; the narrowest place decides the modifier. The order is Fendrik's own choice.
/// </summary>
public sealed class PlaceReaching
{
    private readonly ILookup<long, (PlacedPlace Item, PlaceArea Area)> _ofCampaign;
    private readonly bool _isNothing;

    /// <param name="places">The account's places; those that are not known any more decide nothing.</param>
    public PlaceReaching(IEnumerable<PlacedPlace> places)
    {
        _ofCampaign = places
            .Select(place => (Item: place, Area: PlaceArea.Of(place.Text, place.Radius)))
            .Where(each => each.Area is not null)
            .OrderBy(each => each.Area!.Width)
            .ToLookup(each => each.Item.CampaignId, each => (each.Item, each.Area!));
        _isNothing = _ofCampaign.Count == 0;
    }

    /// <summary>An account without any.</summary>
    public static PlaceReaching None { get; } = new([]);

    /// <summary>What the places of a campaign make of a search. One from nowhere in particular meets none of them.</summary>
    public PlaceReached Of(Campaign campaign, Search search)
    {
        if (_isNothing || search.Place is null || Gazetteer.OfKey(search.Place) is not { } home)
        {
            return default;
        }

        (PlacedPlace Item, PlaceArea Area)? found = null;
        var isAnyIn = false;
        foreach (var each in _ofCampaign[campaign.Id])
        {
            if (each.Item.Side == PlacementSide.Out)
            {
                if (each.Area.Holds(home))
                {
                    return new PlaceReached(
                        new Hindrance(
                            HindranceKind.PlaceOut,
                            ItemKind.Place,
                            each.Item.Id,
                            $"{each.Area.InWords} is out on the campaign: nobody in {home.Name} sees it."
                        ),
                        null,
                        false
                    );
                }

                continue;
            }

            isAnyIn = true;
            // The narrowest comes first.
            found ??= each.Area.Holds(home) ? each : null;
        }

        if (!isAnyIn)
        {
            return default;
        }

        var byInterest = false;
        if (found is null && campaign.People == PlaceReach.PresentOrInterested)
        {
            if (search.Interest is { } interest && Gazetteer.OfKey(interest) is { } wanted)
            {
                foreach (var each in _ofCampaign[campaign.Id])
                {
                    if (found is null && each.Item.Side == PlacementSide.In && each.Area.Holds(wanted))
                    {
                        (found, byInterest) = (each, true);
                    }
                }
            }
        }

        if (found is not { } place)
        {
            return new PlaceReached(
                Hindrance.OfCampaign(
                    HindranceKind.OtherPlace,
                    campaign,
                    $"{home.Name} is in none of the places of the campaign."
                ),
                null,
                false
            );
        }

        if (place.Item.Modifier is not { } percent)
        {
            return new PlaceReached(null, null, byInterest);
        }

        return new PlaceReached(
            percent == PercentValue.Lowest
                ? new Hindrance(
                    HindranceKind.ShutOff,
                    ItemKind.Place,
                    place.Item.Id,
                    $"The modifier of −100% for {place.Area.InWords} means never."
                )
                : null,
            ($"place {place.Area.InWords}", percent),
            byInterest
        );
    }
}
