using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;
using Fendrik.Network.Simulation;
using Fendrik.Network.Worlds;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>
/// People who read ads, extensions and keywords in working hours, Monday to Friday, and look at the pages that they lead to. What they
/// refuse stands in the network's profile.
/// </summary>
public static class Reviewers
{
    /// <summary>When things that are sent at a moment will have been read: some sooner than others, none after the profile's hours.</summary>
    /// <param name="account">The account.</param>
    /// <param name="profile">The network.</param>
    /// <param name="items">What is sent.</param>
    internal static IReadOnlyList<DateTimeOffset> DueAt(
        NetworkAccount account,
        NetworkProfile profile,
        IEnumerable<(ItemKind Kind, long Id)> items
    )
    {
        var (days, rules) = (new AccountDay(account.TimeZone), profile.Reviewing);
        var known = new Dictionary<int, DateTimeOffset>();
        return
        [
            .. items.Select(item =>
            {
                var luck = new Chance((ulong)account.Seed, ((ulong)item.Kind << 56) | (ulong)item.Id);
                var minutes = (rules.Hours * 60) - (int)(luck.Share(Purpose.Review) * (rules.MinutesEarlier + 1));
                return known.TryGetValue(minutes, out var due)
                    ? due
                    : known[minutes] = After(account.Clock, minutes, days, rules);
            }),
        ];
    }

    /// <summary>The moment by which reviewers will have worked so many minutes.</summary>
    private static DateTimeOffset After(DateTimeOffset sent, int minutes, AccountDay days, ReviewRules rules)
    {
        var (moment, left) = (sent, minutes);
        while (left > 0)
        {
            var (day, hour) = days.At(moment);
            // Zones are apart by quarters of an hour, so within one nobody comes or goes.
            var quarter = 15 - (moment.Minute % 15);
            var step = Math.Min(quarter, left);
            moment = moment.AddMinutes(step);
            if (
                day.DayOfWeek is not (DayOfWeek.Saturday or DayOfWeek.Sunday)
                && hour >= rules.FromHour
                && hour < rules.ToHour
            )
            {
                left -= step;
            }
        }

        return moment;
    }

    /// <summary>When the next item is read; none when nothing waits.</summary>
    public static async Task<DateTimeOffset?> NextDueAsync(NpgsqlConnection connection, string accountId) =>
        await connection.ExecuteScalarAsync<DateTime?>(
            "select min(review_due) at time zone 'UTC' from item where account_id = @accountId and review_due is not null",
            new { accountId }
        )
            is { } due
            ? new DateTimeOffset(DateTime.SpecifyKind(due, DateTimeKind.Utc))
            : null;

    /// <summary>Gives an item to another reader.</summary>
    internal static Task ReadAgainAsync(NpgsqlConnection connection, NetworkAccount account, ItemKind kind, long id) =>
        connection.ExecuteAsync(
            """
            insert into item_was (account_id, kind, item_id, item, review, since, until)
            select account_id, kind, item_id, item, review, since, @now from item
            where account_id = @Id and kind = @kind and item_id = @item and since < @now;
            update item set review = @pending, review_reason = null, review_due = @due, appealed = true, review_number = nextval('review_number'), since = @now
            where account_id = @Id and kind = @kind and item_id = @item
            """,
            new
            {
                account.Id,
                kind = (short)kind,
                item = id,
                now = account.Clock,
                pending = (short)ReviewState.Pending,
                due = DueAt(account, NetworkProfile.Of(account.Network), [(kind, id)])[0],
            }
        );

    /// <summary>Reads what is due by now. Answers the number of items read.</summary>
    public static async Task<int> ReadAsync(NpgsqlConnection connection, NetworkAccount account, DateTimeOffset now)
    {
        var due = (
            await connection.QueryAsync<(short Kind, long Id, string Item, bool Again)>(
                "select kind, item_id, item::text, appealed from item where account_id = @Id and review_due <= @now",
                new { account.Id, now }
            )
        ).AsList();
        if (due.Count == 0)
        {
            return 0;
        }

        var profile = NetworkProfile.Of(account.Network);
        var day = new AccountDay(account.TimeZone).At(now).Day;
        var reasons = due.Select(item => ReasonOf((ItemKind)item.Kind, item.Item, item.Again, profile, day)).ToArray();
        await connection.ExecuteAsync(
            """
            insert into item_was (account_id, kind, item_id, item, review, since, until)
            select i.account_id, i.kind, i.item_id, i.item, i.review, i.since, @now from item i
            where i.account_id = @Id and i.review_due <= @now and i.since < @now;
            update item i set review = r.state, review_reason = r.reason, review_due = null, review_number = nextval('review_number'), since = @now
            from unnest(@kinds, @ids, @states, @reasons) as r(kind, id, state, reason)
            where i.account_id = @Id and i.kind = r.kind and i.item_id = r.id
            """,
            new
            {
                account.Id,
                now,
                kinds = due.Select(item => item.Kind).ToArray(),
                ids = due.Select(item => item.Id).ToArray(),
                states = reasons
                    .Select(reason => (short)(reason is null ? ReviewState.Approved : ReviewState.Refused))
                    .ToArray(),
                reasons,
            }
        );
        return due.Count;
    }

    /// <summary>Why an item is refused: all that its texts and its page are refused for; none when nothing is.</summary>
    private static string? ReasonOf(ItemKind kind, string item, bool again, NetworkProfile profile, DateOnly day)
    {
        var values = ItemValues.ReadStored(ItemTypes.Of(kind), JsonDocument.Parse(item).RootElement);
        var reasons = ReviewedTexts
            .RefusedIn(values, profile.Reviewing)
            // Whoever reads first is in a hurry; whoever reads again goes by the wording, word for word.
            .Concat(again ? [] : ReviewedTexts.MistakenIn(values, profile.Reviewing))
            .Select(refused => refused.Sentence)
            .Concat(
                values
                    .Type.Fields.Where(field => field.IsPublished && field.Type is AddressValue)
                    .Select(field => values[field])
                    .OfType<string>()
                    .Select(address => PageReason(address, day))
                    .OfType<string>()
            )
            .ToArray();
        return reasons.Length == 0 ? null : string.Join('\n', reasons);
    }

    /// <summary>What is wrong with a page; none of a page that the world does not know, which reviewers cannot tell from a good one.</summary>
    private static string? PageReason(string address, DateOnly day)
    {
        if (World.Shipped.PageOf(address) is not { } page)
        {
            return null;
        }

        return page.IsDownOn(day) ? $"The landing page {address} could not be reached."
            : HostOf(page.Address) != HostOf(address)
                ? $"The landing page {address} leads to another domain, {HostOf(page.Address)}."
            : null;
    }

    private static string HostOf(string address) => World.Bare(address).Split('/')[0];
}
