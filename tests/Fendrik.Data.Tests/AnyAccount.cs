using System.Security.Cryptography;
using System.Text;
using CsCheck;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Intake;
using Fendrik.Core.Matching;
using Npgsql;

namespace Fendrik.Data.Tests;

/// <summary>
/// Accounts as a property test draws them: every kind of item, every optional field there or not, and names that files
/// are known to stumble over.
/// </summary>
public sealed record AnyAccount(
    IReadOnlyList<IntakeRow> Items,
    IReadOnlyList<(string List, IReadOnlyList<string> Campaigns, IReadOnlyList<string> Labels)> Lists
)
{
    private static readonly Gen<string> Name = Gen.OneOf(
            Gen.OneOfConst(
                "Leeds tuning",
                "=HYPERLINK(\"x\")",
                "+44 113 496 0000",
                "-5%",
                "@home",
                "'quoted",
                "''=twice",
                "a, b; \"c\"",
                "Größe & Höhe",
                "𝄞 piano 👩‍🎤",
                "none",
                "1e5",
                "007",
                "2027-01-04",
                "TRUE",
                "campaign",
                "\ufeffmark",
                "Ad group",
                "<tag attr='x'>&amp;",
                "_x000A_",
                "{\"item\":1}"
            ),
            Gen.Char["abc ,;\"'\t=+-@|[]{}<>&%éß£–"].Array[1, 12].Select(characters => new string(characters))
        )
        .Select(Single)
        .Where(name => name.Length > 0);

    private static readonly Gen<string> Plain = Name.Where(text =>
        KeywordNotation.IsPlain(text) && KeywordNotation.Read(text).Problem is null
    );

    private static readonly Gen<string[]> Labels = Gen.OneOfConst("spring", "=test", "Ärger", "a b")
        .Array[0, 2]
        .Select(labels => labels.Distinct().Order(StringComparer.Ordinal).ToArray());

    private static readonly Gen<decimal?> Amount = Gen.Int[-20_000_000, 100_000_000]
        .Select(pence => pence <= 0 ? (decimal?)null : pence / 100m);

    private static readonly Gen<ItemState> State = Gen.OneOfConst(ItemState.Running, ItemState.Paused);

    private static readonly Gen<MatchType> Match = Gen.OneOfConst(
        MatchType.Exact,
        MatchType.Phrase,
        MatchType.AllWords,
        MatchType.Broad
    );

    private static readonly Gen<string?> Url = Gen.OneOfConst(
        null,
        "https://tarnandfell.example/a?b=c,d&e=\"f\"",
        "tarnandfell.example",
        "http://xn--pno-qla.example/%20"
    );

    private static readonly Gen<DateOnly?> Day = Gen.Int[0, 3_000]
        .Select(days => days % 4 == 0 ? (DateOnly?)null : new DateOnly(2024, 2, 28).AddDays(days));

    private static readonly Gen<IntakeRow> Keyword = Gen.Select(Plain, Match, State, Amount, Url, Labels)
        .Select(parts => new IntakeRow
        {
            RowNumber = 0,
            Kind = ItemKind.Keyword,
            Text = parts.Item1,
            Match = parts.Item2,
            State = parts.Item3,
            MaxCpc = parts.Item4,
            FinalUrl = parts.Item5,
            Labels = parts.Item6,
        });

    private static readonly Gen<IntakeRow> Negative = Gen.Select(Plain, Match, Labels)
        .Select(parts => new IntakeRow
        {
            RowNumber = 0,
            Kind = ItemKind.NegativeKeyword,
            Text = parts.Item1,
            Match = parts.Item2,
            Labels = parts.Item3,
        });

    private static readonly Gen<IntakeRow> Ad = Gen.Select(
            Name.Array[1, 15],
            Name.Array[0, 4],
            Name.Array[0, 2],
            Url,
            Gen.OneOfConst<Device?>(null, Device.Desktop, Device.Phone, Device.Tablet),
            State,
            Labels
        )
        .Select(parts => new IntakeRow
        {
            RowNumber = 0,
            Kind = ItemKind.TextAd,
            Headlines = parts.Item1,
            Descriptions = parts.Item2,
            DisplayPath = parts.Item3,
            FinalUrl = parts.Item4,
            DevicePreference = parts.Item5,
            State = parts.Item6,
            Labels = parts.Item7,
        });

    private static readonly Gen<IntakeRow> Campaign = Gen.Select(Name, State, Amount, Day, Day, Gen.Int[1, 7], Labels)
        .Select(parts => new IntakeRow
        {
            RowNumber = 0,
            Kind = ItemKind.Campaign,
            Campaign = parts.Item1,
            State = parts.Item2,
            DailyBudget = parts.Item3,
            StartDate = parts.Item4,
            EndDate = parts.Item5,
            Networks = (SiteKinds)parts.Item6,
            Labels = parts.Item7,
        });

    private static readonly Gen<IntakeRow> Group = Gen.Select(Name, State, Amount, Labels)
        .Select(parts => new IntakeRow
        {
            RowNumber = 0,
            Kind = ItemKind.AdGroup,
            AdGroup = parts.Item1,
            State = parts.Item2,
            AdGroupMaxCpc = parts.Item3,
            Labels = parts.Item4,
        });

    private static readonly Gen<(IntakeRow Group, IntakeRow[] Inside)> FilledGroup = Gen.Select(
        Group,
        Gen.OneOf(Keyword, Negative, Ad).Array[0, 6]
    );

    private static readonly Gen<(
        IntakeRow Campaign,
        IntakeRow[] Negatives,
        (IntakeRow, IntakeRow[])[] Groups
    )> FilledCampaign = Gen.Select(Campaign, Negative.Array[0, 3], FilledGroup.Array[0, 3]);

    public static Gen<AnyAccount> Any { get; } =
        Gen.Select(
                FilledCampaign.Array[0, 3],
                Gen.Select(Name, Labels, Negative.Array[0, 3], Gen.Bool.Array[3]).Array[0, 2]
            )
            .Select((campaigns, lists) => Of(campaigns, lists));

    private static AnyAccount Of(
        (IntakeRow Campaign, IntakeRow[] Negatives, (IntakeRow Group, IntakeRow[] Inside)[] Groups)[] campaigns,
        (string Name, string[] Labels, IntakeRow[] Negatives, bool[] Holds)[] lists
    )
    {
        var items = new List<IntakeRow>();
        foreach (
            var (campaign, negatives, groups) in campaigns.DistinctBy(each => TextIdentity.Of(each.Campaign.Campaign))
        )
        {
            items.Add(campaign);
            Add(items, negatives, row => row.Campaign = campaign.Campaign);
            foreach (var (group, inside) in groups.DistinctBy(each => TextIdentity.Of(each.Group.AdGroup)))
            {
                group.Campaign = campaign.Campaign;
                items.Add(group);
                Add(items, inside, row => (row.Campaign, row.AdGroup) = (campaign.Campaign, group.AdGroup));
            }
        }

        var names = items.Where(item => item.Kind == ItemKind.Campaign).Select(item => item.Campaign).ToArray();
        var kept = lists.DistinctBy(list => TextIdentity.Of(list.Name)).ToArray();
        foreach (var list in kept)
        {
            Add(items, list.Negatives, row => row.NegativeList = list.Name);
        }

        return new AnyAccount(
            items,
            [
                .. kept.Select(list =>
                    (
                        list.Name,
                        (IReadOnlyList<string>)[.. names.Where((_, place) => list.Holds[place])],
                        (IReadOnlyList<string>)list.Labels
                    )
                ),
            ]
        );
    }

    private static void Add(List<IntakeRow> items, IntakeRow[] rows, Action<IntakeRow> place)
    {
        foreach (var row in rows.DistinctBy(row => (row.Kind, row.Match, row.ItemKey)))
        {
            place(row);
            items.Add(row);
        }
    }

    /// <summary>Writes the account straight into the database, past everything that a file goes through.</summary>
    public async Task<int> MakeAsync(WorkingCopyFixture fixture)
    {
        var account = await fixture.NewAccountAsync();
        await using var connection = await fixture.Source.OpenConnectionAsync();
        await using var transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select set_config('fendrik.step', '0', true)");
        foreach (var item in Items.Where(item => item.NegativeList.Length == 0))
        {
            await AddAsync(connection, account, item);
        }

        foreach (var (list, campaigns, labels) in Lists)
        {
            await connection.ExecuteAsync(
                """
                insert into negative_list (account_id, name, name_key, campaign_ids, labels, removed, is_live, review)
                select @account, @list, @key, coalesce((select array_agg(id order by id) from campaign where account_id = @account and name = any(@campaigns)), '{}'), @labels, false, false, 0
                """,
                new
                {
                    account,
                    list,
                    key = TextIdentity.Of(list),
                    campaigns = campaigns.ToArray(),
                    labels = labels.ToArray(),
                }
            );
        }

        foreach (var item in Items.Where(item => item.NegativeList.Length > 0))
        {
            await AddAsync(connection, account, item);
        }

        await transaction.CommitAsync();
        return account;
    }

    private static Task<int> AddAsync(NpgsqlConnection connection, int account, IntakeRow item)
    {
        const string campaign = "(select id from campaign where account_id = @account and name_key = @campaignKey)";
        const string group = $"(select id from ad_group where campaign_id = {campaign} and name_key = @groupKey)";
        const string list = "(select id from negative_list where account_id = @account and name_key = @listKey)";
        return connection.ExecuteAsync(
            item.Kind switch
            {
                ItemKind.Campaign =>
                    "insert into campaign (account_id, name, name_key, state, daily_budget, start_date, end_date, networks, labels, removed, is_live, review) values (@account, @Campaign, @campaignKey, @state, @DailyBudget, @StartDate, @EndDate, @networks, @labels, false, false, 0)",
                ItemKind.AdGroup =>
                    $"insert into ad_group (account_id, campaign_id, name, name_key, state, max_cpc, labels, removed, is_live, review) values (@account, {campaign}, @AdGroup, @groupKey, @state, @AdGroupMaxCpc, @labels, false, false, 0)",
                ItemKind.Keyword =>
                    $"insert into keyword (account_id, ad_group_id, text, text_key, match_type, state, max_cpc, final_url, labels, removed, is_live, review) values (@account, {group}, @Text, @key, @match, @state, @MaxCpc, @FinalUrl, @labels, false, false, 0)",
                ItemKind.NegativeKeyword =>
                    $"insert into negative_keyword (account_id, campaign_id, ad_group_id, list_id, text, text_key, match_type, labels, removed, is_live, review) values (@account, {campaign}, {group}, {list}, @Text, @key, @match, @labels, false, false, 0)",
                _ =>
                    $"insert into text_ad (account_id, ad_group_id, state, headlines, descriptions, display_path, final_url, device_preference, content_key, labels, removed, is_live, review) values (@account, {group}, @state, @headlines, @descriptions, @path, coalesce(@FinalUrl, ''), @device, @contentKey, @labels, false, false, 0)",
            },
            new
            {
                account,
                item.Campaign,
                item.AdGroup,
                campaignKey = TextIdentity.Of(item.Campaign),
                groupKey = TextIdentity.Of(item.AdGroup),
                listKey = TextIdentity.Of(item.NegativeList),
                state = (short?)item.State,
                item.DailyBudget,
                item.StartDate,
                item.EndDate,
                networks = (short?)item.Networks,
                item.AdGroupMaxCpc,
                item.MaxCpc,
                item.FinalUrl,
                item.Text,
                key = TextIdentity.Of(item.Text),
                match = (short?)item.Match,
                headlines = item.Headlines.ToArray(),
                descriptions = item.Descriptions.ToArray(),
                path = item.DisplayPath.ToArray(),
                device = (short?)item.DevicePreference,
                contentKey = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(item.ItemKey))),
                labels = item.Labels!.ToArray(),
            }
        );
    }

    private static string Single(string text) =>
        string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
}
