using System.Diagnostics;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.AdText.Combining;
using Fendrik.Core.AdText.Patterns;
using Fendrik.Core.Checks;
using Fendrik.Core.Items;
using Fendrik.Core.Networks;
using Fendrik.Data.Commands;
using Fendrik.Data.Commands.Patterns;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Bench;

/// <summary>Writing ads: all combinations of a long responsive ad, the rules over many ads, a pattern over many ad groups.</summary>
internal sealed class WritingBench(NpgsqlDataSource source)
{
    private const int Ads = 200_000;
    private const int AdGroups = 5_000;

    private static readonly NetworkProfile Ostrel = NetworkProfile.Of("ostrel");

    public async Task RunAsync()
    {
        await CombinationsAsync();
        await RulesAsync();
        await PatternAsync();
    }

    /// <summary>12 headlines, two of them kept to a place, by 5 descriptions; against nested loops that only count.</summary>
    private static async Task CombinationsAsync()
    {
        string[] headlines =
        [
            .. Enumerable.Range(0, 10).Select(number => $"Headline About {(char)('A' + number)}{number} Pianos"),
            "Tuned At Home [1]",
            "Tuned In Your Home [2]",
        ];
        string[] descriptions = [.. Enumerable.Range(0, 5).Select(number => $"Description number {number} of it.")];
        ArrangedPage? page = null;
        var listed = await Measure.MedianAsync(
            5,
            () =>
            {
                page = ArrangedAds.List(
                    headlines,
                    descriptions,
                    "Tuned At Home | Tuned In Your Home",
                    Ostrel,
                    Device.Desktop,
                    ArrangedFilter.All,
                    [],
                    60
                );
                return Task.CompletedTask;
            }
        );
        long counted = 0;
        var looped = await Measure.MedianAsync(
            5,
            () =>
            {
                counted = 0;
                for (var third = 0; third < 10; third++)
                {
                    for (var fourth = 0; fourth < 10; fourth++)
                    {
                        for (var first = 0; first < 5; first++)
                        {
                            for (var second = 0; second < 5; second++)
                            {
                                counted += third != fourth && first != second ? 1 : 0;
                            }
                        }
                    }
                }

                return Task.CompletedTask;
            }
        );
        Measure.Print(
            $"all {page!.Count:N0} combinations of 12 × 5 lines with places ({counted:N0} counted)",
            listed,
            Math.Max(looped, 0.01),
            "under 1,000 ms"
        );
        var free = await Measure.MedianAsync(
            3,
            () =>
            {
                page = ArrangedAds.List(
                    [.. headlines.Select(line => line.Replace(" [1]", "").Replace(" [2]", ""))],
                    descriptions,
                    "Tuned At Home | Tuned In Your Home",
                    Ostrel,
                    Device.Desktop,
                    ArrangedFilter.Marked,
                    [],
                    60
                );
                return Task.CompletedTask;
            }
        );
        Measure.Print($"all {page!.Count:N0} combinations of 12 × 5 free lines", free, listed, "under 1,000 ms");
    }

    /// <summary>The rules of a network over 200,000 ads that were read, against reading them.</summary>
    private async Task RulesAsync()
    {
        await using var connection = await source.OpenConnectionAsync();
        await connection.ExecuteAsync(
            """
            create temp table written_ad as select n as id,
              array['Piano Tuning ' || n % 977, case when n % 50 = 0 then 'CLICK HERE!!' else 'Same-Week Visits' end, 'Ask For A Price'] as headlines,
              array['Concert-trained tuners, same-week visits ' || n % 31 || '.', 'Pay after the last note.'] as descriptions,
              array['tuning'] as path, 'https://tarnandfell.example/page/' || n as page from generate_series(1, @Ads) n
            """,
            new { Ads }
        );
        var type = ItemTypes.Of(ItemKind.TextAd);
        var pounds = Currency.Of("GBP");
        async Task<int> ReadAsync(bool checks)
        {
            var findings = 0;
            await using var command = new NpgsqlCommand(
                "select id, headlines, descriptions, path, page from written_ad",
                connection
            );
            await using var reader = await command.ExecuteReaderAsync();
            while (await reader.ReadAsync())
            {
                var values = new ItemValues(type)
                {
                    ["state"] = (short)1,
                    ["headlines"] = reader.GetFieldValue<string[]>(1),
                    ["descriptions"] = reader.GetFieldValue<string[]>(2),
                    ["displayPath"] = reader.GetFieldValue<string[]>(3),
                    ["landingPage"] = reader.GetString(4),
                };
                findings +=
                    checks ? type.Check(values, new CheckReport(type.Kind, reader.GetInt32(0), Ostrel, pounds)).Count
                    : values.Lines("headlines").Count == 0 ? 1
                    : 0;
            }

            return findings;
        }

        var found = 0;
        var read = await Measure.MedianAsync(7, async () => _ = await ReadAsync(false));
        var looked = await Measure.MedianAsync(7, async () => found = await ReadAsync(true));
        Measure.Print($"rules over {Ads:N0} ads ({found:N0} findings), reading with it", looked, read, "at most 2 ×");
    }

    /// <summary>A pattern over 5,000 ad groups of ten keywords each, against one statement that puts the same texts together.</summary>
    private async Task PatternAsync()
    {
        var account = await AccountAsync();
        var workingCopy = new WorkingCopy(source, TimeProvider.System);
        var pattern = new AddFromPattern(
            new AdPattern(
                ItemKind.TextAd,
                new Dictionary<string, IReadOnlyList<IReadOnlyList<string>>>
                {
                    ["headlines"] =
                    [
                        ["[Theme] In The North Of England", "[Theme]"],
                        ["Book Today"],
                    ],
                    ["descriptions"] =
                    [
                        ["We look after your [keyword]."],
                    ],
                    ["landingPage"] =
                    [
                        ["https://tarnandfell.example/tuning"],
                    ],
                }
            ),
            new PatternPlaces(null, null, false, null)
        );
        var watch = Stopwatch.StartNew();
        var made = await workingCopy.ApplyAsync(account, "bench", pattern, preview: false, CancellationToken.None);
        var taken = watch.Elapsed.TotalMilliseconds;
        await using var connection = await source.OpenConnectionAsync();
        await using var transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select set_config('fendrik.step', '0', true)");
        watch.Restart();
        var rows = await connection.ExecuteAsync(
            """
            insert into text_ad (account_id, ad_group_id, state, headlines, descriptions, display_path, landing_page, content_key, removed, is_live, review)
            select @account, g.id, 1, array[initcap(g.name), 'Book Now'], array['We look after your ' || k.text || '.'], '{}', 'https://tarnandfell.example/tuning',
              encode(sha256(convert_to(g.name || k.text, 'UTF8')), 'hex'), false, false, 0
            from ad_group g join lateral (select text from keyword k where k.ad_group_id = g.id order by char_length(text), text limit 1) k on true where g.account_id = @account
            """,
            new { account }
        );
        Measure.Print(
            $"a pattern over {made.Items:N0} ad groups, a step that can be undone ({rows:N0} by hand)",
            taken,
            watch.Elapsed.TotalMilliseconds,
            "under 3,000 ms"
        );
    }

    private async Task<int> AccountAsync()
    {
        await using var connection = await source.OpenConnectionAsync();
        await using var transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select set_config('fendrik.step', '0', true)");
        var account = await connection.ExecuteScalarAsync<int>(
            """
            with a as (insert into account (name, currency, time_zone, network_id, last_step_id, reported_to, payer)
                values ('pattern', 'GBP', 'Europe/London', 'ostrel', 0, '2026-11-20', 'pattern') returning id),
              c as (insert into campaign (account_id, name, name_key, state, rotation, delivery, people, strategy, objective, daily_budget, networks, removed, is_live, review)
                select id, 'North', 'north', 1, 1, 1, 1, 1, 1, 25, 1, false, true, 0 from a returning account_id, id),
              g as (insert into ad_group (account_id, campaign_id, name, name_key, state, max_cpc, removed, is_live, review)
                select account_id, id, 'piano tuning ' || n, 'piano tuning ' || n, 1, 1.10, false, true, 0 from c, generate_series(1, @AdGroups) n returning account_id, id, name),
              k as (insert into keyword (account_id, ad_group_id, text, text_key, match_type, state, removed, is_live, review)
                select account_id, id, name || ' ' || n, name || ' ' || n, 1, 1, false, true, 2 from g, generate_series(1, 10) n returning 1)
            select id from a
            """,
            new { AdGroups }
        );
        await transaction.CommitAsync();
        return account;
    }
}
