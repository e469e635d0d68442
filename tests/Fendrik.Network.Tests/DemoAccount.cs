using System.Globalization;
using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;
using Fendrik.Core.Places;
using Fendrik.Core.Serving;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Network.Simulation;
using Fendrik.Tests.Shared;
using Microsoft.VisualBasic.FileIO;

namespace Fendrik.Network.Tests;

/// <summary>An account of the demo just as its files have it, published and approved from the first hour on.</summary>
public sealed class DemoAccount
{
    private readonly Dictionary<string, Campaign> _campaigns = [];
    private readonly Dictionary<(string, string), AdGroup> _groups = [];
    private readonly List<Ad> _ads = [];
    private readonly List<(ItemKind Kind, PlacedExtension Extension)> _extensions = [];
    private readonly List<(AdGroup Group, Keyword Keyword)> _keywords = [];
    private readonly List<(PlacedNegative Placed, string Text, MatchType Match)> _negatives = [];
    private readonly List<PlacedAudience> _audiences = [];
    private readonly List<PlacedPlace> _places = [];
    private int _last;

    public DemoAccount(string name)
    {
        using var scenario = JsonDocument.Parse(File.ReadAllText(Repository.PathTo("demo", "scenario.json")));
        var told = scenario
            .RootElement.GetProperty("accounts")
            .EnumerateArray()
            .Single(account => account.GetProperty("name").GetString() == name);
        Seed = told.GetProperty("seed").GetUInt64();
        StartAt = told.GetProperty("startAt").GetDateTimeOffset();
        foreach (var list in told.GetProperty("lists").EnumerateArray())
        {
            ReadList(Repository.PathTo("demo", list.GetString()!));
        }

        foreach (var shared in told.GetProperty("sharedLists").EnumerateArray())
        {
            Share(shared);
        }

        Live = Served(NetworkProfile.Of(told.GetProperty("network").GetString()!));
    }

    public ulong Seed { get; }

    public DateTimeOffset StartAt { get; }

    public LiveAccount Live { get; }

    public IEnumerable<long> AdsOn(string page) =>
        from ad in _ads
        where ad.LandingPage!.EndsWith(page, StringComparison.Ordinal)
        select ad.Id;

    public long GroupNamed(string name) => _groups.Values.Single(group => group.Name == name).Id;

    public IEnumerable<long> KeywordsNamed(string text) =>
        from each in _keywords
        where each.Keyword.Text == text
        select each.Keyword.Id;

    private void ReadList(string path)
    {
        using var file = new TextFieldParser(path) { Delimiters = [","], HasFieldsEnclosedInQuotes = true };
        var columns = file.ReadFields()!
            .Select((header, at) => (header, at))
            .ToDictionary(each => each.header, each => each.at);
        while (file.ReadFields() is { } cells)
        {
            string Cell(string header) => columns.TryGetValue(header, out var at) ? cells[at] : "";
            string[] Parts(string header) =>
                [.. Enumerable.Range(1, 15).Select(part => Cell($"{header} {part}")).Where(part => part.Length > 0)];
            decimal? Amount(string header) =>
                Cell(header) is { Length: > 0 } cell ? decimal.Parse(cell, CultureInfo.InvariantCulture) : null;
            if (Cell("Place").Length > 0)
            {
                _places.Add(
                    new PlacedPlace(
                        ++_last,
                        CampaignOf(Cell("Campaign"), null, "").Id,
                        Gazetteer.Find(Cell("Place")).Single().FullName,
                        Cell("Radius").Length > 0
                            ? decimal.Parse(Cell("Radius").Split(' ')[0], CultureInfo.InvariantCulture)
                            : null,
                        PlacementSide.In,
                        null
                    )
                );
                continue;
            }

            if (Cell("People").Length > 0)
            {
                var reaching = CampaignOf(Cell("Campaign"), null, "");
                _campaigns[reaching.Name] = reaching with { People = PlaceReach.PresentOrInterested };
                continue;
            }

            if (Cell("Item") == "account" || (Cell("Item") != "call ad" && ReadExtension(Cell)))
            {
                continue;
            }

            var campaign = CampaignOf(Cell("Campaign"), Amount("Daily budget"), Cell("Networks"));
            if (Cell("Keyword").StartsWith('-'))
            {
                var negative = Cell("Keyword")[1..];
                AddNegative(
                    negative,
                    MatchOf(Cell("Match type").Replace("negative ", "", StringComparison.Ordinal)),
                    campaign.Id,
                    Cell("Ad group") is { Length: > 0 } name ? GroupOf(campaign, name, null).Id : null
                );
            }
            else if (Cell("Audience").Length > 0)
            {
                _audiences.Add(
                    new PlacedAudience(
                        ++_last,
                        campaign.Id,
                        null,
                        Cell("Audience"),
                        ItemState.Running,
                        AudienceUse.Observed,
                        null
                    )
                );
            }
            else if (Cell("Ad group").Length > 0)
            {
                var group = GroupOf(campaign, Cell("Ad group"), Amount("Ad group max CPC"));
                if (Cell("Keyword").Length > 0)
                {
                    var bid = Amount("Max CPC");
                    _keywords.Add(
                        (
                            group,
                            new Keyword(
                                ++_last,
                                group.Id,
                                Cell("Keyword"),
                                MatchOf(Cell("Match type")),
                                ItemState.Running,
                                bid,
                                null
                            )
                        )
                    );
                }
                else if (Cell("Item") == "call ad")
                {
                    _ads.Add(
                        new CallAd(
                            ++_last,
                            group.Id,
                            ItemState.Running,
                            Cell("Business name"),
                            Cell("Call number"),
                            Parts("Headline"),
                            Parts("Description"),
                            Cell("Landing page"),
                            WeekHours.Of(Cell("Call hours"))
                        )
                    );
                }
                else if (Cell("Item") == "responsive ad")
                {
                    _ads.Add(
                        new ResponsiveAd(
                            ++_last,
                            group.Id,
                            ItemState.Running,
                            Parts("Headline"),
                            Parts("Description"),
                            Parts("Path"),
                            Cell("Landing page"),
                            Cell("Kept apart"),
                            null
                        )
                    );
                }
                else if (Parts("Headline").Length > 0)
                {
                    _ads.Add(
                        new TextAd(
                            ++_last,
                            group.Id,
                            ItemState.Running,
                            Parts("Headline"),
                            Parts("Description"),
                            Parts("Path"),
                            Cell("Landing page"),
                            Enum.TryParse<Device>(Cell("Device preference"), ignoreCase: true, out var device)
                                ? device
                                : null
                        )
                    );
                }
            }
        }
    }

    private bool ReadExtension(Func<string, string> cell)
    {
        var (kind, text) =
            cell("Callout") is { Length: > 0 } callout ? (ItemKind.Callout, callout)
            : cell("Sitelink") is { Length: > 0 } link ? (ItemKind.Sitelink, link)
            : (ItemKind.CallExtension, cell("Call number"));
        if (text.Length == 0)
        {
            return false;
        }

        var campaign = cell("Campaign") is { Length: > 0 } name ? CampaignOf(name, null, "") : null;
        var hours = cell("Extension hours");
        _extensions.Add(
            (
                kind,
                new PlacedExtension(
                    ++_last,
                    campaign?.Id,
                    cell("Ad group") is { Length: > 0 } group ? GroupOf(campaign!, group, null).Id : null,
                    text,
                    Hours: hours.Length > 0 ? WeekHours.Of(hours) : null,
                    Shows: kind == ItemKind.CallExtension ? NumberShows.WithSite : null,
                    LandingPage: cell("Landing page") is { Length: > 0 } page ? page : null
                )
            )
        );
        return true;
    }

    private IReadOnlyList<PlacedExtensions> ExtensionsOf(AdGroup group) =>
        [
            .. ItemTypes.Extensions.Select(type => new PlacedExtensions(
                type,
                [
                    .. from each in _extensions
                    where each.Kind == type.Kind
                    where each.Extension.CampaignId is null || each.Extension.CampaignId == @group.CampaignId
                    where each.Extension.AdGroupId is null || each.Extension.AdGroupId == @group.Id
                    select each.Extension,
                ]
            )),
        ];

    private Campaign CampaignOf(string name, decimal? budget, string networks)
    {
        if (!_campaigns.TryGetValue(name, out var known))
        {
            var sites = networks
                .Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                .Aggregate((SiteKinds)0, (all, site) => all | Enum.Parse<SiteKinds>(site, ignoreCase: true));
            _campaigns[name] = known = new Campaign(++_last, name, ItemState.Running, budget, null, null, sites);
        }

        return known;
    }

    private AdGroup GroupOf(Campaign campaign, string name, decimal? bid)
    {
        if (!_groups.TryGetValue((campaign.Name, name), out var known))
        {
            _groups[(campaign.Name, name)] = known = new AdGroup(++_last, campaign.Id, name, ItemState.Running, bid);
        }

        return known;
    }

    private void AddNegative(
        string text,
        MatchType match,
        long? campaign,
        long? group,
        IReadOnlyList<long>? shared = null
    ) =>
        _negatives.Add(
            (
                new PlacedNegative(
                    new NegativeKeyword(++_last, campaign, group, text, match, shared is null ? null : 1),
                    shared ?? []
                ),
                text,
                match
            )
        );

    private void Share(JsonElement list)
    {
        if (list.TryGetProperty("unpublished", out var unpublished) && unpublished.GetBoolean())
        {
            return;
        }

        long[] campaigns =
        [
            .. list.GetProperty("campaigns").EnumerateArray().Select(name => _campaigns[name.GetString()!].Id),
        ];
        foreach (var line in list.GetProperty("lines").EnumerateArray())
        {
            AddNegative(line.GetString()!, MatchOf(list.GetProperty("match").GetString()!), null, null, campaigns);
        }
    }

    private static MatchType MatchOf(string name) =>
        Enum.GetValues<MatchType>().Single(match => Choices.NameOf(match) == name);

    private LiveAccount Served(NetworkProfile profile)
    {
        var campaigns = _campaigns.Values.ToDictionary(campaign => campaign.Id);
        var ads = _ads.ToLookup(ad => ad.AdGroupId);
        var served = _keywords
            .Select(each => new ServedKeyword(
                each.Keyword,
                each.Group,
                campaigns[each.Group.CampaignId],
                ReviewState.Approved,
                [.. ads[each.Group.Id]],
                profile.Reach.WordsOf(each.Keyword.Text)
            ))
            .ToDictionary(keyword => keyword.Keyword.Id);
        return new LiveAccount(
            new ServedAccount(
                profile,
                Currency.Of("GBP"),
                hasPayer: true,
                new IndexedKeywords(
                    new KeywordIndex<ServedKeyword>(
                        served.Values.Select(each => (each, each.Keyword.Text, each.Keyword.Match)),
                        profile.Reach
                    )
                ),
                new KeywordIndex<PlacedNegative>(_negatives, profile.Reach.ForNegatives),
                targeting: new Targeting([], _audiences),
                places: new PlaceReaching(_places)
            ),
            [.. _campaigns.Values],
            served,
            ExtensionsOf,
            new ConversionGoals([])
        );
    }
}
