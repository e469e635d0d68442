using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;
using Fendrik.Network.Simulation;
using Fendrik.Network.Simulation.People;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Network.Serving;

/// <summary>Writes down what hours left behind, and reads what is needed to go on from there.</summary>
internal static class KeptRows
{
    /// <summary>Days for which each ad shown is kept.</summary>
    public const int DaysOfShown = 90;

    public static async Task WriteAsync(
        NpgsqlConnection connection,
        string accountId,
        IReadOnlyList<HourKept> hours,
        IReadOnlyList<CampaignHour> campaigns,
        IReadOnlyList<KeywordQuality> qualities,
        Func<int, string> rivalName,
        CancellationToken cancellation
    )
    {
        await ShownAsync(connection, accountId, hours, cancellation);
        await VisitsAsync(connection, accountId, hours, cancellation);
        await KeptConversions.WriteAsync(connection, accountId, hours, cancellation);
        await StandingsAsync(connection, accountId, hours, rivalName, cancellation);
        await KeptTallies.BesideAsync(connection, accountId, hours, cancellation);
        await KeptTallies.CombinationsAsync(connection, accountId, hours, cancellation);
        await KeptTallies.ReachedAsync(connection, accountId, hours, cancellation);
        await using (
            var copy = await connection.BeginBinaryImportAsync(
                "copy campaign_hour (account_id, hour, campaign_id, spent_before, rate, stopped_at, spent, budget, strategy, level, units) from stdin (format binary)",
                cancellation
            )
        )
        {
            foreach (var each in campaigns)
            {
                copy.StartRow();
                copy.Write(accountId);
                copy.Write(each.Hour);
                copy.Write(each.CampaignId);
                copy.Write(each.SpentBefore);
                copy.Write(each.Rate);
                if (each.StoppedAt is { } second)
                {
                    copy.Write(second);
                }
                else
                {
                    copy.WriteNull();
                }

                copy.Write(each.Spent);
                if (each.Budget is { } budget)
                {
                    copy.Write(budget);
                }
                else
                {
                    copy.WriteNull();
                }

                copy.Write((short)each.Strategy);
                if (each.Level is { } level)
                {
                    copy.Write(level);
                }
                else
                {
                    copy.WriteNull();
                }

                copy.Write(each.Units);
            }

            await copy.CompleteAsync(cancellation);
        }

        await connection.ExecuteAsync(
            """
            insert into quality_day (account_id, keyword_id, day, made, expected, text_sum, shown, score, likelihood, text_fit, page_fit)
            select @accountId, * from unnest(@keywords, @days, @made, @expected, @texts, @shown, @scores, @likelihoods, @textFits, @pageFits)
            on conflict (account_id, keyword_id, day) do update set made = excluded.made, expected = excluded.expected, text_sum = excluded.text_sum,
              shown = excluded.shown, score = excluded.score, likelihood = excluded.likelihood, text_fit = excluded.text_fit, page_fit = excluded.page_fit
            """,
            new
            {
                accountId,
                keywords = qualities.Select(each => each.KeywordId).ToArray(),
                days = qualities.Select(each => each.Day).ToArray(),
                made = qualities.Select(each => each.Clicks.Made).ToArray(),
                expected = qualities.Select(each => each.Clicks.Expected).ToArray(),
                texts = qualities.Select(each => each.TextSum).ToArray(),
                shown = qualities.Select(each => each.Shown).ToArray(),
                scores = qualities.Select(each => (short)each.Score).ToArray(),
                likelihoods = qualities.Select(each => each.Likelihood).ToArray(),
                textFits = qualities.Select(each => each.TextFit).ToArray(),
                pageFits = qualities.Select(each => each.PageFit).ToArray(),
            }
        );
    }

    private static async Task ShownAsync(
        NpgsqlConnection connection,
        string accountId,
        IReadOnlyList<HourKept> hours,
        CancellationToken cancellation
    )
    {
        await using var copy = await connection.BeginBinaryImportAsync(
            """
            copy shown (account_id, day, search, hour, at, campaign_id, ad_group_id, keyword_id, ad_id, device, site, place, is_top, price, quality, set_by,
              click, from_place, age, gender, expected, fit, term) from stdin (format binary)
            """,
            cancellation
        );
        foreach (var hour in hours)
        {
            for (var at = 0; at < hour.Shown.Count; at++)
            {
                var row = hour.Shown[at];
                copy.StartRow();
                copy.Write(accountId);
                copy.Write(row.Day);
                copy.Write((long)row.Search);
                copy.Write((short)row.Hour);
                copy.Write(row.At);
                Write(copy, row.Spot);
                copy.Write(row.AdId);
                copy.Write((short)row.Device);
                copy.Write((short)row.Site);
                copy.Write((short)row.Place);
                copy.Write(row.IsTop);
                copy.Write(row.Price);
                copy.Write((short)row.Quality);
                copy.Write(row.SetBy);
                copy.Write((short)row.Click);
                copy.Write((short)row.From);
                copy.Write((short)row.Age);
                copy.Write((short)row.Gender);
                copy.Write(row.Expected);
                copy.Write(row.Fit);
                copy.Write(hour.Terms[at]);
            }
        }

        await copy.CompleteAsync(cancellation);
    }

    private static async Task VisitsAsync(
        NpgsqlConnection connection,
        string accountId,
        IReadOnlyList<HourKept> hours,
        CancellationToken cancellation
    )
    {
        await using var copy = await connection.BeginBinaryImportAsync(
            """
            copy visit (account_id, day, hour, search, campaign_id, ad_group_id, keyword_id, ad_id, device, site, term, outcome, way, at, seconds, value, told, beside_kinds, beside_ids, headlines, descriptions, reached_by, reached, strategy, bid, units)
            from stdin (format binary)
            """,
            cancellation
        );
        foreach (var visit in hours.SelectMany(hour => hour.Visits))
        {
            copy.StartRow();
            copy.Write(accountId);
            copy.Write(visit.Shown.Day);
            copy.Write((short)visit.Shown.Hour);
            copy.Write((long)visit.Shown.Search);
            Write(copy, visit.Shown.Spot);
            copy.Write(visit.Shown.AdId);
            copy.Write((short)visit.Shown.Device);
            copy.Write((short)visit.Shown.Site);
            copy.Write(visit.Term);
            copy.Write((short)visit.Result.End);
            if (visit.Result.Way is { } way)
            {
                copy.Write((short)way);
            }
            else
            {
                copy.WriteNull();
            }

            copy.Write(visit.Result.At.ToUniversalTime(), NpgsqlDbType.TimestampTz);
            copy.Write(visit.Result.Seconds);
            copy.Write(visit.Value);
            copy.Write(visit.Result.Told.ToUniversalTime(), NpgsqlDbType.TimestampTz);
            copy.Write(visit.Beside.Shown.Select(each => (short)each.Kind).ToArray());
            copy.Write(visit.Beside.Shown.Select(each => each.Extension.Id).ToArray());
            copy.Write(visit.Combination.Headlines);
            copy.Write(visit.Combination.Descriptions);
            copy.Write(visit.Reached.Select(each => (short)each.By).ToArray());
            copy.Write(visit.Reached.Select(each => each.Name).ToArray());
            if (visit.Bought is { } bought)
            {
                copy.Write((short)bought.Strategy);
                copy.Write(bought.Bid);
                copy.Write(bought.Units);
            }
            else
            {
                copy.WriteNull();
                copy.WriteNull();
                copy.WriteNull();
            }
        }

        await copy.CompleteAsync(cancellation);
    }

    /// <summary>
    /// Reports are added up from the ads shown. Before these go, after so many days, their sums are written down: the figures stay,
    /// the single searches do not.
    /// </summary>
    public static Task RollUpAsync(
        NpgsqlConnection connection,
        string accountId,
        DateOnly today,
        Currency currency,
        CancellationToken cancellation
    ) =>
        connection.ExecuteAsync(
            new CommandDefinition(
                """
                with gone as (delete from shown where account_id = @accountId and day < @before returning *),
                  figures as (
                    insert into performance (account_id, day, hour, campaign_id, ad_group_id, keyword_id, ad_id, device, site, impressions, clicks, cost, conversions, value)
                    select account_id, day, hour, campaign_id, ad_group_id, keyword_id, ad_id, device, site, count(*), count(*) filter (where click <> 0),
                      coalesce(sum(price) filter (where click <> 0), 0) * @unit, 0, 0 from gone group by 1, 2, 3, 4, 5, 6, 7, 8, 9
                  )
                insert into search_term (account_id, day, term, campaign_id, ad_group_id, keyword_id, impressions, clicks, cost, conversions, value)
                select account_id, day, term, campaign_id, ad_group_id, keyword_id, count(*), count(*) filter (where click <> 0),
                  coalesce(sum(price) filter (where click <> 0), 0) * @unit, 0, 0 from gone group by 1, 2, 3, 4, 5, 6
                """,
                new
                {
                    accountId,
                    before = today.AddDays(-DaysOfShown),
                    unit = currency.FromMinor(1),
                },
                cancellationToken: cancellation
            )
        );

    private static async Task StandingsAsync(
        NpgsqlConnection connection,
        string accountId,
        IReadOnlyList<HourKept> hours,
        Func<int, string> rivalName,
        CancellationToken cancellation
    )
    {
        await using (
            var copy = await connection.BeginBinaryImportAsync(
                """
                copy standing (account_id, day, hour, campaign_id, ad_group_id, keyword_id, impressions, top, first, places, lost_to_rank, lost_to_budget)
                from stdin (format binary)
                """,
                cancellation
            )
        )
        {
            foreach (var ((day, hour, spot), standing) in hours.SelectMany(hour => hour.Standings))
            {
                copy.StartRow();
                copy.Write(accountId);
                copy.Write(day);
                copy.Write((short)hour);
                Write(copy, spot);
                copy.Write(standing.Impressions);
                copy.Write(standing.Top);
                copy.Write(standing.First);
                copy.Write(standing.Places);
                copy.Write(standing.LostToRank);
                copy.Write(standing.LostToBudget);
            }

            await copy.CompleteAsync(cancellation);
        }

        var rivals = hours
            .SelectMany(hour => hour.Rivals)
            .GroupBy(each => each.Key)
            .Select(same =>
                (same.Key, With: same.Sum(each => each.Value.With), Above: same.Sum(each => each.Value.Above))
            );
        await using var rows = await connection.BeginBinaryImportAsync(
            "copy rival_day (account_id, day, campaign_id, ad_group_id, keyword_id, rival, shown_with, above_us) from stdin (format binary)",
            cancellation
        );
        foreach (var ((day, spot, rival), with, above) in rivals)
        {
            rows.StartRow();
            rows.Write(accountId);
            rows.Write(day);
            Write(rows, spot);
            rows.Write(rivalName(rival));
            rows.Write(with);
            rows.Write(above);
        }

        await rows.CompleteAsync(cancellation);
    }

    internal static void Write(NpgsqlBinaryImporter copy, Spot spot)
    {
        copy.Write(spot.CampaignId);
        copy.Write(spot.AdGroupId);
        copy.Write(spot.KeywordId);
    }
}
