using System.Globalization;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;
using Fendrik.Data.Accounts;
using Fendrik.Data.Extensions;
using Npgsql;

namespace Fendrik.Data.Tracing;

/// <summary>
/// Says what would happen to a search by the working copy: everything up to the auction, by the rules that the network goes by.
/// What the network alone knows is said to be unknown.
/// </summary>
public sealed class WorkingCopyTrace(NpgsqlDataSource source, KeywordMemory memory)
{
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
        return await memory.AskAsync(
            connection,
            account,
            async index =>
            {
                var reached = await ReachedAccount.OpenAsync(connection, account, index);
                await reached.ReachAsync([wish.Text], cancellation);
                const int MinutesOfHour = 60;
                var minute =
                    wish.Hour * MinutesOfHour ?? await AccountToday.MinuteAsync(connection, account.Id, cancellation);
                var search = new Search(
                    wish.Text,
                    wish.Device,
                    wish.Site,
                    day,
                    minute,
                    wish.Place,
                    wish.Page,
                    wish.Audiences,
                    Language: wish.Tag
                );
                var answer = reached.Answer(search);
                var trace = SearchTrace.Of(search, answer, reached.Campaigns, reached.Served);
                if (answer.Chosen is { Ad.Calls: null } chosen)
                {
                    trace = trace.WithBeside(
                        await PlacedExtensionReader.ConsiderAsync(
                            connection,
                            account.Id,
                            account.Network,
                            chosen.Keyword.Campaign.Id,
                            chosen.Keyword.AdGroup.Id,
                            new ShownAt(wish.Device, day, minute)
                        )
                    );
                }

                return trace with
                {
                    Keywords =
                    [
                        .. trace.Keywords.Select(keyword =>
                            keyword with
                            {
                                Quality = reached.Scores.TryGetValue(keyword.Id, out var score) ? score : null,
                            }
                        ),
                    ],
                    Notes = await NotesAsync(connection, account, answer, reached.Scores),
                };
            },
            cancellation
        );
    }

    private static async Task<IReadOnlyList<string>> NotesAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        AnswerToSearch answer,
        IReadOnlyDictionary<long, int> scores
    )
    {
        if (answer.Chosen is not { } chosen)
        {
            return [];
        }

        var notes = new List<string>
        {
            $"Who bids for this very search and what its places ask for only {account.Network.Name} knows: trace the live copy for these. What follows is from its reports of the last {DaysOfPrices} days."
                + (
                    answer.Candidates.All(each => scores.ContainsKey(each.Keyword.Keyword.Id))
                        ? ""
                        : $" A keyword without a reported quality score is taken for a {ReachedAccount.MiddlingQuality}."
                ),
        };
        if (chosen.Keyword.Campaign.Strategy != BidStrategy.ManualCpc)
        {
            notes.Add(
                $"What its strategy bids is reckoned as {account.Network.Name} would, from the reports up to the last full day; conversions told since are not in it."
            );
        }

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
                ? $"A click on this keyword cost {Range(new Money(account.Currency.Round(low), account.Currency).ToString(), new Money(account.Currency.Round(high), account.Currency).ToString())}."
                : "There were no clicks on this keyword to tell a price by."
        );
        notes.AddRange(await StandingNotesAsync(connection, account, chosen.Keyword.Keyword.Id));
        return notes;
    }

    /// <summary>From the least day to the most; one figure where all days are the same.</summary>
    private static string Range(string least, string most) => least == most ? least : $"{least} to {most} by day";

    /// <summary>Where the keyword stood, from its worst to its best day, and who stood beside it.</summary>
    private static async Task<IReadOnlyList<string>> StandingNotesAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        long keyword
    )
    {
        const int MostRivals = 4;
        var asked = new
        {
            account.Id,
            keyword,
            DaysOfPrices,
        };
        var (best, worst, least, most) = await connection.QuerySingleAsync<(
            decimal? Best,
            decimal? Worst,
            decimal? Least,
            decimal? Most
        )>(
            """
            select min(places::numeric / nullif(impressions, 0)), max(places::numeric / nullif(impressions, 0)),
              min(impressions::numeric / nullif(impressions + lost_to_rank + lost_to_budget, 0)),
              max(impressions::numeric / nullif(impressions + lost_to_rank + lost_to_budget, 0))
            from standing_day d join account a on a.id = d.account_id
            where d.account_id = @Id and d.keyword_id = @keyword and d.day > a.reported_to - @DaysOfPrices
            """,
            asked
        );
        if (least is not { } low || most is not { } high)
        {
            return [];
        }

        static string Percent(decimal share) => share.ToString("P0", CultureInfo.InvariantCulture);
        static string Place(decimal place) => place.ToString("0.0", CultureInfo.InvariantCulture);
        var rivals = await connection.QueryAsync<(string Rival, decimal Share, decimal Above)>(
            """
            select rival, sum(shown_with) / nullif((select sum(impressions) from standing_day s where s.account_id = @Id and s.keyword_id = @keyword
                and s.day > a.reported_to - @DaysOfPrices), 0), sum(above_us) / nullif(sum(shown_with), 0)
            from rival_day d join account a on a.id = d.account_id
            where d.account_id = @Id and d.keyword_id = @keyword and d.day > a.reported_to - @DaysOfPrices
            group by rival, a.reported_to order by sum(shown_with) desc limit @MostRivals
            """,
            new
            {
                account.Id,
                keyword,
                DaysOfPrices,
                MostRivals,
            }
        );
        var beside = rivals
            .Select(each =>
                $"{each.Rival} in {Percent(each.Share)} of its impressions, above it in {Percent(each.Above)} of those"
            )
            .ToArray();
        return
        [
            $"It showed in {Range(Percent(low), Percent(high))} of the searches that it could answer"
                + (
                    best is { } top && worst is { } bottom
                        ? $", on average in place {Range(Place(top), Place(bottom))}."
                        : "."
                ),
            .. beside.Length > 0 ? [$"Beside it showed {string.Join("; ", beside)}."] : Array.Empty<string>(),
        ];
    }
}
