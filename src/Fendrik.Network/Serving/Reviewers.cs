using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>People who read ads and keywords in working hours, Monday to Friday, and refuse some wordings.</summary>
public static class Reviewers
{
    /// <summary>The moment at which something sent now will have been read.</summary>
    public static DateTimeOffset DueAt(DateTimeOffset sent, AccountDay days, NetworkProfile profile)
    {
        var moment = sent;
        var left = profile.ReviewHours;
        while (left > 0)
        {
            moment = moment.AddHours(1);
            var (day, hour) = days.At(moment.AddMinutes(-1));
            if (
                day.DayOfWeek is not (DayOfWeek.Saturday or DayOfWeek.Sunday)
                && hour >= profile.ReviewFromHour
                && hour < profile.ReviewToHour
            )
            {
                left--;
            }
        }

        return moment;
    }

    /// <summary>Reads what is due by now. Answers the number of items read.</summary>
    public static async Task<int> ReadAsync(NpgsqlConnection connection, NetworkAccount account, DateTimeOffset now)
    {
        var due = (
            await connection.QueryAsync<(short Kind, long Id, string Item)>(
                "select kind, item_id, item::text from item where account_id = @Id and review_due <= @now",
                new { account.Id, now }
            )
        ).AsList();
        if (due.Count == 0)
        {
            return 0;
        }

        var profile = NetworkProfile.Of(account.Network);
        var refusals = due.Select(item => profile.RefusedWordingIn(TextOf((ItemKind)item.Kind, item.Item))).ToArray();
        await connection.ExecuteAsync(
            """
            update item i set review = r.state, review_reason = r.reason, review_due = null, review_number = nextval('review_number')
            from unnest(@kinds, @ids, @states, @reasons) as r(kind, id, state, reason)
            where i.account_id = @Id and i.kind = r.kind and i.item_id = r.id
            """,
            new
            {
                account.Id,
                kinds = due.Select(item => item.Kind).ToArray(),
                ids = due.Select(item => item.Id).ToArray(),
                states = refusals
                    .Select(wording => (short)(wording is null ? ReviewState.Approved : ReviewState.Refused))
                    .ToArray(),
                reasons = refusals
                    .Select(wording => wording is null ? null : $"The wording “{wording}” is not allowed.")
                    .ToArray(),
            }
        );
        return due.Count;
    }

    /// <summary>All that people see or search for in an item.</summary>
    private static string TextOf(ItemKind kind, string item) =>
        string.Join(
            " . ",
            Wordings.TextsOf(ItemValues.ReadStored(ItemTypes.Of(kind), JsonDocument.Parse(item).RootElement))
        );
}
