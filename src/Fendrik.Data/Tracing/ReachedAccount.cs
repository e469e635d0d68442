using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Matching;
using Fendrik.Core.Serving;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Strategies;
using Npgsql;

namespace Fendrik.Data.Tracing;

/// <summary>The part of a working copy that searches reach, as the network would serve it.</summary>
internal sealed class ReachedAccount
{
    /// <summary>The score taken where the network's is not known.</summary>
    public const int MiddlingQuality = 5;

    /// <summary>Keywords that are looked at of those that match a search; nobody reads more.</summary>
    private const int MostCandidates = 2_000;

    private readonly NpgsqlConnection _connection;
    private readonly int _accountId;
    private readonly KeywordIndex<long> _index;
    private readonly Dictionary<long, Campaign> _campaigns;
    private readonly ReadKeywords _keywords;
    private readonly Dictionary<long, int> _scores = [];
    private readonly Dictionary<long, StrategyNow> _strategies = [];

    private ReachedAccount(
        NpgsqlConnection connection,
        AccountFacts account,
        KeywordIndex<long> index,
        IReadOnlyList<Campaign> campaigns,
        KeywordIndex<PlacedNegative> negatives,
        string? trackingTemplate,
        Targeting targeting,
        PlaceReaching places
    )
    {
        (_connection, _accountId, _index, Campaigns) = (connection, account.Id, index, campaigns);
        _campaigns = campaigns.ToDictionary(each => each.Id);
        _keywords = new ReadKeywords(index);
        Served = new ServedAccount(
            account.Network,
            account.Currency,
            account.Payer is not null,
            _keywords,
            negatives,
            trackingTemplate,
            targeting,
            places
        );
    }

    /// <summary>The campaigns that are not removed.</summary>
    public IReadOnlyList<Campaign> Campaigns { get; }

    /// <summary>How searches are answered.</summary>
    public ServedAccount Served { get; }

    /// <summary>Quality scores as they were reported last; nothing for keywords without.</summary>
    public IReadOnlyDictionary<long, int> Scores => _scores;

    /// <summary>Takes up an account at the moment that the connection is in.</summary>
    public static async Task<ReachedAccount> OpenAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        KeywordIndex<long> index
    ) =>
        new(
            connection,
            account,
            index,
            await CampaignsAsync(connection, account.Id),
            PlacedNegatives.Index(await PlacedNegatives.LoadAsync(connection, account.Id), account.Network),
            await connection.ExecuteScalarAsync<string?>(
                "select tracking_template from account_item where account_id = @Id and not removed",
                new { account.Id }
            ),
            await TargetingAsync(connection, account.Id),
            await PlacesAsync(connection, account.Id)
        );

    private static async Task<PlaceReaching> PlacesAsync(NpgsqlConnection connection, int accountId) =>
        new(
            (
                await connection.QueryAsync<PlaceRow>(
                    "select id, campaign_id, text, radius, side, modifier from place where account_id = @accountId and not removed",
                    new { accountId }
                )
            ).Select(row => new PlacedPlace(row.Id, row.CampaignId, row.Text, row.Radius, row.Side, row.Modifier))
        );

    private static async Task<Targeting> TargetingAsync(NpgsqlConnection connection, int accountId) =>
        new(
            (
                await connection.QueryAsync<SiteRow>(
                    "select id, campaign_id, ad_group_id, text, state, side, max_cpc from placement where account_id = @accountId and not removed and state = 1",
                    new { accountId }
                )
            ).Select(row => new PlacedSite(
                row.Id,
                row.CampaignId,
                row.AdGroupId,
                row.Text,
                row.State,
                row.Side,
                row.MaxCpc
            )),
            (
                await connection.QueryAsync<AudienceRow>(
                    "select id, campaign_id, ad_group_id, text, state, used, modifier from audience where account_id = @accountId and not removed and state = 1",
                    new { accountId }
                )
            ).Select(row => new PlacedAudience(
                row.Id,
                row.CampaignId,
                row.AdGroupId,
                row.Text,
                row.State,
                row.Used,
                row.Modifier
            ))
        );

    /// <summary>Reads the keywords that searches reach; those that were read for others before are let go.</summary>
    public async Task ReachAsync(IReadOnlyCollection<string> searches, CancellationToken cancellation)
    {
        _keywords.Read.Clear();
        _scores.Clear();
        var found = searches
            .SelectMany(text =>
                _index
                    .FindWith(_index.Reach.WordsOf(text))
                    .OrderBy(each => each.Closeness)
                    .ThenByDescending(each => each.Strength)
                    .ThenBy(each => each.Item)
                    .Take(MostCandidates)
                    .Select(each => each.Item)
            )
            .Distinct()
            .ToArray();
        foreach (var keyword in await KeywordsAsync(found))
        {
            _keywords.Read[keyword.Keyword.Id] = keyword;
        }

        await ReadScoresAsync([.. _keywords.Read.Keys]);
        await ReadStrategiesAsync(cancellation);
    }

    /// <summary>What answers a search whose keywords were read, before anything of a budget is spent.</summary>
    public AnswerToSearch Answer(Search search) =>
        Served.Answer(
            search,
            null,
            0,
            (keyword, _) => _scores.GetValueOrDefault(keyword.Keyword.Id, MiddlingQuality),
            strategyOf: campaign => _strategies.GetValueOrDefault(campaign.Id)
        );

    /// <summary>What strategies go by is read for campaigns that searches reach, once for each.</summary>
    private async Task ReadStrategiesAsync(CancellationToken cancellation)
    {
        var reached = _keywords
            .Read.Values.Select(each => each.Campaign)
            .DistinctBy(each => each.Id)
            .Where(each => !_strategies.ContainsKey(each.Id));
        foreach (var (id, now) in await StrategyReader.NowAsync(_connection, _accountId, reached, cancellation))
        {
            _strategies.Add(id, now);
        }
    }

    private async Task ReadScoresAsync(long[] keywords)
    {
        foreach (
            var (keyword, score) in await _connection.QueryAsync<(long Keyword, int Score)>(
                """
                select k.id, q.score::int from unnest(@keywords) as k(id)
                cross join lateral (
                  select score from quality_day where account_id = @accountId and keyword_id = k.id order by day desc limit 1
                ) q
                """,
                new { accountId = _accountId, keywords }
            )
        )
        {
            _scores[keyword] = score;
        }
    }

    private static async Task<IReadOnlyList<Campaign>> CampaignsAsync(NpgsqlConnection connection, int accountId) =>
        [
            .. (
                await connection.QueryAsync<CampaignRow>(
                    $"select {CampaignRow.Columns} from campaign where account_id = @accountId and not removed order by name, id",
                    new { accountId }
                )
            ).Select(row => row.Campaign),
        ];

    private async Task<IEnumerable<ServedKeyword>> KeywordsAsync(long[] ids)
    {
        var rows = (
            await _connection.QueryAsync<KeywordRow>(
                """
                select k.id, k.text, k.match_type, k.state, k.max_cpc, k.landing_page, k.review, g.id as ad_group_id, g.name as ad_group, g.state as ad_group_state,
                  g.max_cpc as ad_group_max_cpc, g.campaign_id, k.tracking_template, g.tracking_template as ad_group_template,
                  g.desktop_modifier, g.phone_modifier, g.tablet_modifier
                from keyword k join ad_group g on g.id = k.ad_group_id where k.account_id = @accountId and k.id = any(@ids) and not k.removed
                """,
                new { accountId = _accountId, ids }
            )
        ).AsList();
        var ads = (
            await _connection.QueryAsync<AdRow>(
                $"""
                select {AdRow.Columns}
                from ({AdTables.Where(
                    "account_id = @accountId and ad_group_id = any(@groups) and not removed and state = @running and review <> @refused"
                )}) ads order by id
                """,
                new
                {
                    accountId = _accountId,
                    groups = rows.Select(row => row.AdGroupId).Distinct().ToArray(),
                    running = (short)ItemState.Running,
                    refused = (short)ReviewState.Refused,
                }
            )
        ).ToLookup(row => row.AdGroupId, row => row.Ad);
        return rows.Select(row => new ServedKeyword(
            new Keyword(
                row.Id,
                row.AdGroupId,
                row.Text,
                row.MatchType,
                row.State,
                row.MaxCpc,
                row.LandingPage,
                row.TrackingTemplate
            ),
            new AdGroup(
                row.AdGroupId,
                row.CampaignId,
                row.AdGroup,
                row.AdGroupState,
                row.AdGroupMaxCpc,
                row.AdGroupTemplate,
                row.DesktopModifier,
                row.PhoneModifier,
                row.TabletModifier
            ),
            _campaigns[row.CampaignId],
            // What is not sent or not read yet is looked at as if it were.
            row.Review == ReviewState.Refused
                ? ReviewState.Refused
                : ReviewState.Approved,
            [.. ads[row.AdGroupId]],
            _index.Reach.WordsOf(row.Text)
        ));
    }

    /// <summary>Of the keywords that match, those that were read.</summary>
    private sealed class ReadKeywords(KeywordIndex<long> index) : IKeywordFinder
    {
        public Dictionary<long, ServedKeyword> Read { get; } = [];

        public WordReach Reach => index.Reach;

        public IReadOnlyList<FoundKeyword<ServedKeyword>> Find(IReadOnlyList<string> words) =>
            [
                .. index
                    .FindWith(words)
                    .Where(found => Read.ContainsKey(found.Item))
                    .Select(found => new FoundKeyword<ServedKeyword>(
                        Read[found.Item],
                        found.Closeness,
                        found.Strength
                    )),
            ];

        public bool IsBidOn(string wordClass) => index.IsBidOn(wordClass);
    }

    [method: ExplicitConstructor]
    private sealed record SiteRow(
        long Id,
        long? CampaignId,
        long? AdGroupId,
        string Text,
        ItemState State,
        PlacementSide Side,
        decimal? MaxCpc
    );

    [method: ExplicitConstructor]
    private sealed record AudienceRow(
        long Id,
        long? CampaignId,
        long? AdGroupId,
        string Text,
        ItemState State,
        AudienceUse Used,
        decimal? Modifier
    );

    [method: ExplicitConstructor]
    private sealed record PlaceRow(
        long Id,
        long CampaignId,
        string Text,
        decimal? Radius,
        PlacementSide Side,
        decimal? Modifier
    );

    [method: ExplicitConstructor]
    private sealed record KeywordRow(
        long Id,
        string Text,
        MatchType MatchType,
        ItemState State,
        decimal? MaxCpc,
        string? LandingPage,
        ReviewState Review,
        long AdGroupId,
        string AdGroup,
        ItemState AdGroupState,
        decimal? AdGroupMaxCpc,
        long CampaignId,
        string? TrackingTemplate,
        string? AdGroupTemplate,
        decimal? DesktopModifier,
        decimal? PhoneModifier,
        decimal? TabletModifier
    );
}
