using Dapper;
using Fendrik.Core.Bidding;
using Fendrik.Core.Changes;
using Fendrik.Core.Checks;
using Fendrik.Core.Matching;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Steps;

/// <summary>Something that a step would bring about and that is likely a mistake.</summary>
/// <param name="Weight">How much it weighs.</param>
/// <param name="Kind">Kind of the item.</param>
/// <param name="Id">The item.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Message">What is the matter, and what to do.</param>
public sealed record StepWarning(Weight Weight, ItemKind Kind, long Id, string Name, string Message);

/// <summary>
/// Says before a step is kept what is likely wrong with what it makes: what the checks would find that they did not find before,
/// amounts that look like slips, and own keywords that new negatives would keep from showing.
/// </summary>
internal static class StepWarnings
{
    /// <summary>Most that are named.</summary>
    public const int Most = 50;

    public static async Task<IReadOnlyList<StepWarning>> FindAsync(
        StepContext context,
        IReadOnlyList<ItemChange> changes
    )
    {
        var warnings = new List<StepWarning>();
        warnings.AddRange(OfItems(context.Account, changes));
        warnings.AddRange(OfBudgets(context.Account, changes));
        warnings.AddRange(await OfBidsAsync(context, changes));
        warnings.AddRange(await OfNegativesAsync(context, changes));
        return [.. warnings.OrderByDescending(warning => warning.Weight).Take(Most)];
    }

    private static string NameOf(ItemChange change) =>
        FieldDifferences.NameOf(ItemTypes.Of(change.Kind), change.After!.Value);

    /// <summary>What the checks of single items say of them now and did not say before.</summary>
    private static IEnumerable<StepWarning> OfItems(AccountFacts account, IEnumerable<ItemChange> changes) =>
        from change in changes
        where change.After is not null
        let before = Findings(account, change, change.Before).Select(finding => finding.Message).ToHashSet()
        from finding in Findings(account, change, change.After)
        where finding.Weight >= Weight.Caution && !before.Contains(finding.Message)
        select new StepWarning(finding.Weight, change.Kind, change.Id, NameOf(change), finding.Detail);

    private static IEnumerable<Finding> Findings(
        AccountFacts account,
        ItemChange change,
        System.Text.Json.JsonElement? item
    ) =>
        item is { } whole
            ? ItemTypes
                .Of(change.Kind)
                .Check(
                    ItemValues.ReadStored(ItemTypes.Of(change.Kind), whole),
                    new CheckReport(change.Kind, change.Id, account.Network, account.Currency)
                )
            : [];

    private static decimal? Amount(System.Text.Json.JsonElement? item, string field) =>
        item is { } whole
        && whole.TryGetProperty(field, out var value)
        && value.ValueKind == System.Text.Json.JsonValueKind.Number
            ? value.GetDecimal()
            : null;

    private static IEnumerable<StepWarning> OfBudgets(AccountFacts account, IEnumerable<ItemChange> changes) =>
        from change in changes
        where change is { Kind: ItemKind.Campaign, After: not null }
        let message = UnusualAmounts.OfBudget(
            Amount(change.After, "dailyBudget"),
            Amount(change.Before, "dailyBudget"),
            account.Currency
        )
        where message is not null
        select new StepWarning(Weight.Caution, change.Kind, change.Id, NameOf(change), message);

    private static async Task<IEnumerable<StepWarning>> OfBidsAsync(
        StepContext context,
        IReadOnlyList<ItemChange> changes
    )
    {
        ItemChange[] bids =
        [
            .. changes.Where(change =>
                change.Kind is ItemKind.Keyword or ItemKind.AdGroup
                && change.After is not null
                && Amount(change.After, "maxCpc") is { } bid
                && bid != Amount(change.Before, "maxCpc")
            ),
        ];
        if (bids.Length == 0)
        {
            return [];
        }

        var around = (
            await context.QueryAsync<(short Kind, long Id, decimal? AdGroup, decimal? Budget)>(
                $"""
                select {(int)
                    ItemKind.Keyword}::smallint, k.id, g.max_cpc, c.daily_budget from keyword k join ad_group g on g.id = k.ad_group_id join campaign c on c.id = g.campaign_id where k.id = any(@keywords)
                union all
                select {(int)
                    ItemKind.AdGroup}::smallint, g.id, null, c.daily_budget from ad_group g join campaign c on c.id = g.campaign_id where g.id = any(@groups)
                """,
                new
                {
                    keywords = bids.Where(bid => bid.Kind == ItemKind.Keyword).Select(bid => bid.Id).ToArray(),
                    groups = bids.Where(bid => bid.Kind == ItemKind.AdGroup).Select(bid => bid.Id).ToArray(),
                }
            )
        ).ToDictionary(row => ((ItemKind)row.Kind, row.Id));
        return from bid in bids
            let place = around.GetValueOrDefault((bid.Kind, bid.Id))
            let message = UnusualAmounts.OfBid(
                Amount(bid.After, "maxCpc"),
                place.AdGroup,
                place.Budget,
                context.Account.Currency
            )
            where message is not null
            select new StepWarning(Weight.Caution, bid.Kind, bid.Id, NameOf(bid), message);
    }

    /// <summary>Own keywords that the negatives of the step would keep from showing.</summary>
    private static async Task<IEnumerable<StepWarning>> OfNegativesAsync(
        StepContext context,
        IReadOnlyList<ItemChange> changes
    )
    {
        if (
            !changes.Any(change =>
                change is { Kind: ItemKind.NegativeKeyword or ItemKind.NegativeList, After: not null }
            )
        )
        {
            return [];
        }

        var moved = (
            await context.QueryAsync<long>(
                $"""
                select n.id from negative_keyword n where not n.removed and n.account_id = @account and (n.changed_by = @step
                  or n.list_id in (select l.id from negative_list l where l.changed_by = @step))
                """,
                new { account = context.Account.Id, step = context.StepId }
            )
        ).ToHashSet();
        var index = PlacedNegatives.Index(
            (await PlacedNegatives.LoadAsync(context.Connection, context.Account.Id)).Where(each =>
                moved.Contains(each.Negative.Id)
            ),
            context.Account.Network
        );
        if (index.Count == 0)
        {
            return [];
        }

        var blocked =
            new Dictionary<long, (PlacedNegative Negative, List<(long Id, string Text)> Keywords, int Count)>();
        var keywords = PlacedKeywords.ReadAsync(context.Connection, context.Account.Id);
        await foreach (var keyword in keywords.WithCancellation(context.Cancellation))
        {
            foreach (var (found, _) in index.BlockingOf(keyword).Where(found => found.Blocking == Blocking.Wholly))
            {
                var known = blocked.GetValueOrDefault(found.Negative.Id, (found, [], 0));
                if (known.Item2.Count < 3)
                {
                    known.Item2.Add((keyword.Id, keyword.Text));
                }

                blocked[found.Negative.Id] = (found, known.Item2, known.Item3 + 1);
            }
        }

        return blocked
            .Values.OrderByDescending(each => each.Count)
            .Select(each => new StepWarning(
                Weight.Caution,
                ItemKind.NegativeKeyword,
                each.Negative.Negative.Id,
                KeywordNotation.Write(each.Negative.Negative.Text, each.Negative.Negative.Match, negative: true),
                $"keeps {(each.Count == 1 ? "one of your own keywords" : $"{each.Count:N0} of your own keywords")} from showing: {string.Join(", ", each.Keywords.Select(keyword => $"“{keyword.Text}”"))}{(each.Count > each.Keywords.Count ? " …" : "")}."
            ));
    }
}
