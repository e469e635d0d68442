using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Serving;

/// <summary>What placements and audiences make of a search for a keyword.</summary>
/// <param name="Hindrance">What keeps it from answering; none when nothing does.</param>
/// <param name="Bid">A max CPC that comes before the keyword's and the ad group's, with what it is of; none when there is none.</param>
/// <param name="Modifiers">Modifiers in per cent, with what each is for.</param>
public sealed record Targeted(
    Hindrance? Hindrance,
    (string Name, decimal MaxCpc)? Bid,
    IReadOnlyList<(string Name, decimal Percent)> Modifiers
)
{
    /// <summary>Nothing is made of it.</summary>
    public static Targeted AsItIs { get; } = new(null, null, []);
}

/// <summary>
/// Where on content sites the ads of an account show, and to whom. The network and whoever explains it go by the same rules; which of
/// several levels decides is Fendrik's own choice.
/// </summary>
public sealed class Targeting
{
    private readonly ILookup<long, PlacedSite> _sitesOfCampaign;
    private readonly ILookup<long, PlacedSite> _sitesOfGroup;
    private readonly ILookup<long, PlacedAudience> _audiencesOfCampaign;
    private readonly ILookup<long, PlacedAudience> _audiencesOfGroup;
    private readonly bool _isNothing;

    /// <param name="sites">The account's placements.</param>
    /// <param name="audiences">The account's audiences.</param>
    public Targeting(IEnumerable<PlacedSite> sites, IEnumerable<PlacedAudience> audiences)
    {
        PlacedSite[] running = [.. sites.Where(each => each.State == ItemState.Running)];
        PlacedAudience[] people = [.. audiences.Where(each => each.State == ItemState.Running)];
        _isNothing = running.Length + people.Length == 0;
        _sitesOfCampaign = running.Where(each => each.AdGroupId is null).ToLookup(each => each.CampaignId ?? 0);
        _sitesOfGroup = running.Where(each => each.AdGroupId is not null).ToLookup(each => each.AdGroupId!.Value);
        _audiencesOfCampaign = people.Where(each => each.AdGroupId is null).ToLookup(each => each.CampaignId ?? 0);
        _audiencesOfGroup = people.Where(each => each.AdGroupId is not null).ToLookup(each => each.AdGroupId!.Value);
    }

    /// <summary>An account without any.</summary>
    public static Targeting None { get; } = new([], []);

    /// <summary>The names of the audiences that stand on an ad group or its campaign, each once.</summary>
    public IEnumerable<string> AudiencesOf(long campaignId, long adGroupId) =>
        _isNothing
            ? []
            : _audiencesOfGroup[adGroupId]
                .Concat(_audiencesOfCampaign[campaignId])
                .Select(each => each.Text)
                .Distinct(StringComparer.OrdinalIgnoreCase);

    /// <summary>What placements and audiences make of a search for a keyword.</summary>
    public Targeted Of(ServedKeyword served, Search search)
    {
        if (_isNothing)
        {
            return Targeted.AsItIs;
        }

        var (campaign, group) = (served.Campaign.Id, served.AdGroup.Id);
        var modifiers = ModifiersOf(campaign, group, search);
        return new Targeted(
            OfPlacements(campaign, group, search)
                ?? OfAudiences(_audiencesOfGroup[group], "ad group", search)
                ?? OfAudiences(_audiencesOfCampaign[campaign], "campaign", search)
                ?? Never(modifiers),
            BidOf(campaign, group, search),
            [.. modifiers.Select(each => ($"audience {each.Text}", each.Modifier!.Value))]
        );
    }

    /// <summary>Out wins at either level; of those in, the ad group's count alone where it has any.</summary>
    private Hindrance? OfPlacements(long campaign, long group, Search search)
    {
        if (search.Site != SiteKinds.Content || search.Page is not { } page)
        {
            return null;
        }

        var all = _sitesOfGroup[group].Concat(_sitesOfCampaign[campaign]);
        if (
            all.Where(each => each.Side == PlacementSide.Out)
                .FirstOrDefault(each => SiteValue.Covers(each.Text, page)) is
            { } left
        )
        {
            return new Hindrance(
                HindranceKind.PlacementOut,
                ItemKind.Placement,
                left.Id,
                $"The placement {left.Text} is out on {LevelOf(left.AdGroupId)}: nothing shows on {page}."
            );
        }

        PlacedSite[] among = [.. InOf(_sitesOfGroup[group])];
        among = among.Length > 0 ? among : [.. InOf(_sitesOfCampaign[campaign])];
        return among.Length == 0 || among.Any(each => SiteValue.Covers(each.Text, page))
            ? null
            : new Hindrance(
                HindranceKind.PlacementNotIn,
                ItemKind.Placement,
                among[0].Id,
                $"{page} is none of the placements that are in on {LevelOf(among[0].AdGroupId)}."
            );
    }

    private static Hindrance? OfAudiences(IEnumerable<PlacedAudience> audiences, string level, Search search)
    {
        PlacedAudience[] only = [.. audiences.Where(each => each.Use == AudienceUse.Only)];
        return only.Length == 0 || only.Any(each => IsOf(each, search))
            ? null
            : new Hindrance(
                HindranceKind.OtherAudience,
                ItemKind.Audience,
                only[0].Id,
                $"The {level} is kept to {string.Join(" or ", only.Select(each => each.Text))}, and the person is not known to be of them."
            );
    }

    private static Hindrance? Never(IReadOnlyList<PlacedAudience> modifiers) =>
        modifiers.FirstOrDefault(each => each.Modifier == PercentValue.Lowest) is { } never
            ? new Hindrance(
                HindranceKind.ShutOff,
                ItemKind.Audience,
                never.Id,
                $"The modifier of −100% for {never.Text} means never."
            )
            : null;

    /// <summary>The modifiers of all audiences that the person is of; the ad group's instead of the campaign's for the same one.</summary>
    private List<PlacedAudience> ModifiersOf(long campaign, long group, Search search)
    {
        var found = _audiencesOfGroup[group].Where(each => IsOf(each, search)).ToList();
        found.AddRange(
            _audiencesOfCampaign[campaign]
                .Where(each =>
                    IsOf(each, search)
                    && !_audiencesOfGroup[group]
                        .Any(near => string.Equals(near.Text, each.Text, StringComparison.OrdinalIgnoreCase))
                )
        );
        found.RemoveAll(each => each.Modifier is null);
        return found;
    }

    /// <summary>The bid of the nearest placement that is in, of several the one that says most.</summary>
    private (string, decimal)? BidOf(long campaign, long group, Search search) =>
        search is { Site: SiteKinds.Content, Page: { } page }
        && InOf(_sitesOfGroup[group])
            .Concat(InOf(_sitesOfCampaign[campaign]))
            .Where(each => each.MaxCpc is not null && SiteValue.Covers(each.Text, page))
            .OrderBy(each => each.AdGroupId is null)
            .ThenByDescending(each => each.Text.Length)
            .FirstOrDefault()
            is { } placed
            ? ($"placement {placed.Text}", placed.MaxCpc!.Value)
            : null;

    private static IEnumerable<PlacedSite> InOf(IEnumerable<PlacedSite> sites) =>
        sites.Where(each => each.Side == PlacementSide.In);

    private static bool IsOf(PlacedAudience audience, Search search) =>
        search.Audiences?.Contains(audience.Text, StringComparer.OrdinalIgnoreCase) == true;

    private static string LevelOf(long? adGroupId) => adGroupId is null ? "the campaign" : "the ad group";
}
