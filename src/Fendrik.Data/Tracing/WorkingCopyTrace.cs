using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Tracing;

/// <summary>
/// Says what would happen to a search by the working copy: everything up to the auction, by the rules that the network goes by.
/// What the network alone knows is said to be unknown.
/// </summary>
public sealed class WorkingCopyTrace(NpgsqlDataSource source, KeywordMemory memory)
{
    /// <summary>Keywords that are looked at of those that match; nobody reads more.</summary>
    private const int MostCandidates = 2_000;

    /// <summary>The score taken where the network's is not known.</summary>
    private const int MiddlingQuality = 5;

    private const int DaysOfPrices = 28;

    /// <summary>Traces a search on a day.</summary>
    public async Task<SearchTrace> TraceAsync(
        int accountId,
        TraceWish wish,
        DateOnly day,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var account = await AccountFacts.ReadAsync(connection, accountId);
        var search = new Search(wish.Text, wish.Device, wish.Site, day);
        return await memory.AskAsync(
            connection,
            account,
            async index =>
            {
                var found = index
                    .FindWith(index.Reach.WordsOf(wish.Text))
                    .OrderBy(each => each.Closeness)
                    .ThenByDescending(each => each.Strength)
                    .ThenBy(each => each.Item)
                    .Take(MostCandidates)
                    .ToArray();
                var keywords = await KeywordsAsync(connection, accountId, [.. found.Select(each => each.Item)]);
                var served = new ServedAccount(
                    account.Network,
                    account.Currency,
                    new FoundKeywords(
                        index,
                        [
                            .. found
                                .Where(each => keywords.ContainsKey(each.Item))
                                .Select(each => new FoundKeyword<ServedKeyword>(
                                    keywords[each.Item],
                                    each.Closeness,
                                    each.Strength
                                )),
                        ]
                    ),
                    PlacedNegatives.Index(await PlacedNegatives.LoadAsync(connection, accountId), account.Network)
                );
                var answer = served.Answer(search, null, 0, (_, _) => MiddlingQuality);
                var trace = SearchTrace.Of(search, answer, await CampaignsAsync(connection, accountId), served);
                return trace with
                {
                    Keywords = [.. trace.Keywords.Select(keyword => keyword with { Quality = null })],
                    Notes = await NotesAsync(connection, account, answer),
                };
            },
            cancellation
        );
    }

    private static async Task<IReadOnlyList<string>> NotesAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        AnswerToSearch answer
    )
    {
        if (answer.Chosen is not { } chosen)
        {
            return [];
        }

        var notes = new List<string>
        {
            $"Who else bids, what a place asks for and the quality score only {account.Network.Name} knows: trace the live copy for these. Between keywords a score of {MiddlingQuality} is taken for each.",
        };
        var (lowest, highest) = await connection.QuerySingleAsync<(decimal? Lowest, decimal? Highest)>(
            """
            select min(price), max(price) from (
              select sum(p.cost) / sum(p.clicks) as price from performance_day p join account a on a.id = p.account_id
              where p.account_id = @Id and p.keyword_id = @keyword and p.day > a.reported_to - @DaysOfPrices and p.clicks > 0 group by p.day) d
            """,
            new
            {
                account.Id,
                keyword = chosen.Keyword.Keyword.Id,
                DaysOfPrices,
            }
        );
        notes.Add(
            lowest is { } low && highest is { } high
                ? $"In the last {DaysOfPrices} days a click on this keyword cost {new Money(account.Currency.Round(low), account.Currency)} to {new Money(account.Currency.Round(high), account.Currency)}, by day."
                : $"There were no clicks on this keyword in the last {DaysOfPrices} days to tell a price by."
        );
        return notes;
    }

    private static async Task<IReadOnlyList<Campaign>> CampaignsAsync(NpgsqlConnection connection, int accountId) =>
        [
            .. (
                await connection.QueryAsync<CampaignRow>(
                    "select id, name, state, daily_budget, start_date, end_date, networks from campaign where account_id = @accountId and not removed order by name, id",
                    new { accountId }
                )
            ).Select(row => row.Campaign),
        ];

    private static async Task<Dictionary<long, ServedKeyword>> KeywordsAsync(
        NpgsqlConnection connection,
        int accountId,
        long[] ids
    )
    {
        var campaigns = (await CampaignsAsync(connection, accountId)).ToDictionary(each => each.Id);
        var rows = (
            await connection.QueryAsync<KeywordRow>(
                """
                select k.id, k.text, k.match_type, k.state, k.max_cpc, k.landing_page, k.review, g.id as ad_group_id, g.name as ad_group, g.state as ad_group_state,
                  g.max_cpc as ad_group_max_cpc, g.campaign_id
                from keyword k join ad_group g on g.id = k.ad_group_id where k.account_id = @accountId and k.id = any(@ids) and not k.removed
                """,
                new { accountId, ids }
            )
        ).AsList();
        var ads = (
            await connection.QueryAsync<AdRow>(
                """
                select id, ad_group_id, headlines, descriptions, display_path, landing_page, device_preference from text_ad
                where account_id = @accountId and ad_group_id = any(@groups) and not removed and state = @running and review <> @refused order by id
                """,
                new
                {
                    accountId,
                    groups = rows.Select(row => row.AdGroupId).Distinct().ToArray(),
                    running = (short)ItemState.Running,
                    refused = (short)ReviewState.Refused,
                }
            )
        ).ToLookup(row => row.AdGroupId, row => row.Ad);
        return rows.ToDictionary(
            row => row.Id,
            row => new ServedKeyword(
                new Keyword(row.Id, row.AdGroupId, row.Text, row.MatchType, row.State, row.MaxCpc, row.LandingPage),
                new AdGroup(row.AdGroupId, row.CampaignId, row.AdGroup, row.AdGroupState, row.AdGroupMaxCpc),
                campaigns[row.CampaignId],
                // What is not sent or not read yet is looked at as if it were.
                row.Review == ReviewState.Refused
                    ? ReviewState.Refused
                    : ReviewState.Approved,
                [.. ads[row.AdGroupId]]
            )
        );
    }

    /// <summary>Keywords that were found already.</summary>
    private sealed class FoundKeywords(KeywordIndex<long> index, IReadOnlyList<FoundKeyword<ServedKeyword>> found)
        : IKeywordFinder
    {
        public WordReach Reach => index.Reach;

        public IReadOnlyList<FoundKeyword<ServedKeyword>> Find(IReadOnlyList<string> words) => found;

        public bool IsBidOn(string wordClass) => index.IsBidOn(wordClass);
    }

    [method: ExplicitConstructor]
    private sealed record CampaignRow(
        long Id,
        string Name,
        ItemState State,
        decimal? DailyBudget,
        DateOnly? StartDate,
        DateOnly? EndDate,
        SiteKinds Networks
    )
    {
        public Campaign Campaign => new(Id, Name, State, DailyBudget, StartDate, EndDate, Networks);
    }

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
        long CampaignId
    );

    [method: ExplicitConstructor]
    private sealed record AdRow(
        long Id,
        long AdGroupId,
        string[] Headlines,
        string[] Descriptions,
        string[] DisplayPath,
        string? LandingPage,
        Device? DevicePreference
    )
    {
        public TextAd Ad =>
            new(Id, AdGroupId, ItemState.Running, Headlines, Descriptions, DisplayPath, LandingPage, DevicePreference);
    }
}
