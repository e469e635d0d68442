using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;
using Fendrik.Core.Serving;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Network.Simulation;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>Reads all that the network has of an account, now or at a moment of the past, ready to answer searches.</summary>
internal static class LiveAccounts
{
    private const string Now = "select kind, review, item_id, item::text from item where account_id = @Id";

    private const string Then = """
        select kind, review, item_id, item::text from item where account_id = @Id and since <= @moment
        union all
        select kind, review, item_id, item::text from item_was where account_id = @Id and since <= @moment and until > @moment
        """;

    /// <param name="connection">To the network's database.</param>
    /// <param name="account">The account.</param>
    /// <param name="moment">The moment; none for now.</param>
    public static async Task<LiveAccount> ReadAsync(
        NpgsqlConnection connection,
        NetworkAccount account,
        DateTimeOffset? moment = null
    )
    {
        var rows = (
            await connection.QueryAsync<(short Kind, short Review, long Id, string Item)>(
                $"select kind, review, item_id, item from ({(moment is null ? Now : Then)}) items order by kind, item_id",
                new { account.Id, moment }
            )
        ).ToLookup(row => (ItemKind)row.Kind);
        List<(T Item, ReviewState Review)> Of<T>(ItemKind kind) =>
            [
                .. rows[kind]
                    .Select(row =>
                        (JsonSerializer.Deserialize<T>(row.Item, NetworkStore.Json)!, (ReviewState)row.Review)
                    ),
            ];
        var network = NetworkProfile.Of(account.Network);
        var reach = network.ReachWith([.. Of<RelatedWord>(ItemKind.RelatedWords).Select(each => each.Item)]);
        var campaigns = Of<Campaign>(ItemKind.Campaign).ToDictionary(each => each.Item.Id, each => each.Item);
        var groups = Of<AdGroup>(ItemKind.AdGroup).ToDictionary(each => each.Item.Id, each => each.Item);
        var ads = Of<TextAd>(ItemKind.TextAd)
            .Select(each => ((Ad)each.Item, each.Review))
            .Concat(Of<ResponsiveAd>(ItemKind.ResponsiveAd).Select(each => ((Ad)each.Item, each.Review)))
            .Concat(Of<CallAd>(ItemKind.CallAd).Select(each => ((Ad)each.Item, each.Review)))
            .Select(each => (Item: each.Item1, each.Review))
            .Where(each => each is { Item.State: ItemState.Running, Review: ReviewState.Approved })
            .ToLookup(each => each.Item.AdGroupId, each => each.Item);
        var lists = Of<NegativeList>(ItemKind.NegativeList)
            .ToDictionary(each => each.Item.Id, each => each.Item.CampaignIds);
        var keywords = (
            from keyword in Of<Keyword>(ItemKind.Keyword)
            let @group = groups.GetValueOrDefault(keyword.Item.AdGroupId)
            // A database of before may have keywords whose campaign is gone.
            where @group is not null && campaigns.ContainsKey(@group.CampaignId)
            select new ServedKeyword(
                keyword.Item,
                @group,
                campaigns[@group.CampaignId],
                keyword.Review,
                [.. ads[@group.Id]],
                reach.WordsOf(keyword.Item.Text)
            )
        ).ToDictionary(each => each.Keyword.Id);
        var served = new ServedAccount(
            network,
            Currency.Of(account.Currency),
            await Payers.AtAsync(connection, account.Id, moment) is not null,
            new IndexedKeywords(
                new KeywordIndex<ServedKeyword>(
                    keywords.Values.Select(each => (each, each.Keyword.Text, each.Keyword.Match)),
                    reach
                )
            ),
            new KeywordIndex<PlacedNegative>(
                from negative in Of<NegativeKeyword>(ItemKind.NegativeKeyword)
                select (
                    new PlacedNegative(
                        negative.Item,
                        negative.Item.ListId is { } list ? lists.GetValueOrDefault(list, []) : []
                    ),
                    negative.Item.Text,
                    negative.Item.Match
                ),
                network.Reach.ForNegatives
            ),
            Of<OfAccount>(ItemKind.Account).Select(each => each.Item.TrackingTemplate).FirstOrDefault(),
            new Targeting(
                Of<PlacedSite>(ItemKind.Placement).Select(each => each.Item),
                Of<PlacedAudience>(ItemKind.Audience).Select(each => each.Item)
            ),
            new PlaceReaching(Of<PlacedPlace>(ItemKind.Place).Select(each => each.Item))
        );
        return new LiveAccount(
            served,
            [.. campaigns.Values],
            keywords,
            ExtensionsOf(Of<PlacedExtension>),
            new ConversionGoals(Of<ConversionAction>(ItemKind.ConversionAction).Select(each => each.Item))
        );
    }

    /// <summary>What holds for an account as a whole.</summary>
    private sealed record OfAccount(string? TrackingTemplate);

    /// <summary>True when something of an account changed after a moment and up to another.</summary>
    public static Task<bool> ChangedAsync(
        NpgsqlConnection connection,
        string accountId,
        DateTimeOffset after,
        DateTimeOffset upTo
    ) =>
        connection.ExecuteScalarAsync<bool>(
            """
            select exists (select from item where account_id = @accountId and since > @after and since <= @upTo)
              or exists (select from account_payer where account_id = @accountId and since > @after and since <= @upTo)
              or exists (select from item_was where account_id = @accountId and (since > @after and since <= @upTo or until > @after and until <= @upTo))
            """,
            new
            {
                accountId,
                after,
                upTo,
            }
        );

    private static Func<AdGroup, IReadOnlyList<PlacedExtensions>> ExtensionsOf(
        Func<ItemKind, List<(PlacedExtension Item, ReviewState Review)>> of
    )
    {
        var kinds = ItemTypes
            .Extensions.Select(type =>
                (
                    Type: type,
                    At: of(type.Kind)
                        .Where(each => each.Review is ReviewState.None or ReviewState.Approved)
                        .Select(each => each.Item)
                        .ToLookup(each => (each.Level, each.AdGroupId ?? each.CampaignId ?? 0))
                )
            )
            .Where(kind => kind.At.Count > 0)
            .ToArray();
        return group =>
            [
                .. kinds.Select(kind => new PlacedExtensions(
                    kind.Type,
                    [
                        .. kind.At[(Level.Account, 0)],
                        .. kind.At[(Level.Campaign, group.CampaignId)],
                        .. kind.At[(Level.AdGroup, group.Id)],
                    ]
                )),
            ];
    }
}
