using Fendrik.Network.Simulation;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Network.Serving;

/// <summary>Writes down what was counted of visits, and the calls that came of them.</summary>
internal static class KeptConversions
{
    public static async Task WriteAsync(
        NpgsqlConnection connection,
        string accountId,
        IReadOnlyList<HourKept> hours,
        CancellationToken cancellation
    )
    {
        await using (
            var copy = await connection.BeginBinaryImportAsync(
                """
                copy conversion (account_id, day, hour, search, campaign_id, ad_group_id, keyword_id, ad_id, device, site, term, clicked_at, action_id, at, told, value, counts, steers)
                from stdin (format binary)
                """,
                cancellation
            )
        )
        {
            foreach (var visit in hours.SelectMany(hour => hour.Visits))
            {
                foreach (var each in visit.Conversions)
                {
                    Begin(copy, accountId, visit);
                    copy.Write(each.ActionId);
                    copy.Write(each.At.ToUniversalTime(), NpgsqlDbType.TimestampTz);
                    copy.Write(each.Told.ToUniversalTime(), NpgsqlDbType.TimestampTz);
                    copy.Write(each.Value);
                    copy.Write(each.Counts);
                    copy.Write(each.Steers);
                }
            }

            await copy.CompleteAsync(cancellation);
        }

        await using var calls = await connection.BeginBinaryImportAsync(
            """
            copy phone_call (account_id, day, hour, search, campaign_id, ad_group_id, keyword_id, ad_id, device, site, term, clicked_at, at, rang, talked, call_end, from_ad, from_place, price)
            from stdin (format binary)
            """,
            cancellation
        );
        foreach (var visit in hours.SelectMany(hour => hour.Visits))
        {
            foreach (var call in visit.Calls)
            {
                Begin(calls, accountId, visit);
                calls.Write(call.At.ToUniversalTime(), NpgsqlDbType.TimestampTz);
                calls.Write(call.Rang);
                calls.Write(call.Talked);
                calls.Write((short)call.End);
                calls.Write(visit.Shown.Click == ClickKind.Call);
                calls.Write((short)visit.Shown.From);
                calls.Write(visit.Shown.Price);
            }
        }

        await calls.CompleteAsync(cancellation);
    }

    private static void Begin(NpgsqlBinaryImporter copy, string accountId, in Visited visit)
    {
        copy.StartRow();
        copy.Write(accountId);
        copy.Write(visit.Shown.Day);
        copy.Write((short)visit.Shown.Hour);
        copy.Write((long)visit.Shown.Search);
        KeptRows.Write(copy, visit.Shown.Spot);
        copy.Write(visit.Shown.AdId);
        copy.Write((short)visit.Shown.Device);
        copy.Write((short)visit.Shown.Site);
        copy.Write(visit.Term);
        copy.Write(DateTimeOffset.FromUnixTimeSeconds(visit.Shown.At).ToUniversalTime(), NpgsqlDbType.TimestampTz);
    }
}
