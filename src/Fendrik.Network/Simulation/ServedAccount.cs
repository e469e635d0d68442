using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;

namespace Fendrik.Network.Simulation;

/// <summary>A keyword that may show, with what it needs to.</summary>
public sealed record ServedKeyword(Keyword Keyword, AdGroup AdGroup, Campaign Campaign, IReadOnlyList<TextAd> Ads)
{
    private IReadOnlyList<string>? _words;
    public IReadOnlyList<string> KeywordWords => _words ??= Words.Of(Keyword.Text);
}

/// <summary>What the network serves of an account: approved, running, and filed for searching.</summary>
public sealed class ServedAccount
{
    private readonly Dictionary<long, IReadOnlyList<string>> _adWords = [];

    public ServedAccount(
        NetworkProfile network,
        Currency currency,
        IReadOnlyList<Campaign> campaigns,
        IReadOnlyList<AdGroup> adGroups,
        IReadOnlyList<Keyword> keywords,
        IReadOnlyList<NegativeKeyword> negatives,
        IReadOnlyList<NegativeList> lists,
        IReadOnlyList<TextAd> ads
    )
    {
        (Network, Currency) = (network, currency);
        var running = campaigns
            .Where(campaign => campaign.State == ItemState.Running)
            .ToDictionary(campaign => campaign.Id);
        var groups = adGroups
            .Where(group => group.State == ItemState.Running && running.ContainsKey(group.CampaignId))
            .ToDictionary(group => group.Id);
        var adsOf = ads.Where(ad => ad.State == ItemState.Running).OrderBy(ad => ad.Id).ToLookup(ad => ad.AdGroupId);
        foreach (var ad in ads)
        {
            _adWords[ad.Id] = [.. ad.Headlines.Concat(ad.Descriptions).SelectMany(text => Words.Of(text))];
        }

        var served = keywords
            .Where(keyword =>
                keyword.State == ItemState.Running
                && groups.ContainsKey(keyword.AdGroupId)
                && adsOf.Contains(keyword.AdGroupId)
            )
            .OrderBy(keyword => keyword.Id)
            .Select(keyword =>
            {
                var group = groups[keyword.AdGroupId];
                return new ServedKeyword(keyword, group, running[group.CampaignId], [.. adsOf[group.Id]]);
            })
            .ToArray();
        Keywords = new KeywordIndex<ServedKeyword>(
            served.Select(each => (each, each.Keyword.Text, each.Keyword.Match)),
            network.Reach
        );
        var campaignsOf = lists.ToDictionary(list => list.Id, list => list.CampaignIds);
        Negatives = new KeywordIndex<PlacedNegative>(
            negatives.Select(each =>
                (
                    new PlacedNegative(each, each.ListId is { } list ? campaignsOf.GetValueOrDefault(list, []) : []),
                    each.Text,
                    each.Match
                )
            ),
            network.Reach.ForNegatives
        );
    }

    public NetworkProfile Network { get; }
    public Currency Currency { get; }
    public KeywordIndex<ServedKeyword> Keywords { get; }
    public KeywordIndex<PlacedNegative> Negatives { get; }

    public IReadOnlyList<string> WordsOf(TextAd ad) => _adWords[ad.Id];
}
