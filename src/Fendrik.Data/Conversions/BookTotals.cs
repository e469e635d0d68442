using Dapper;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Tracking.Books;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Conversions;

/// <summary>Keeps totals of own books beside the figures. A total of the same day and place is replaced: brought in twice it is there once.</summary>
public sealed class BookTotals(NpgsqlDataSource source)
{
    /// <summary>What became of totals.</summary>
    /// <param name="Changed">How many are new or have other figures.</param>
    /// <param name="Known">How many were there just so.</param>
    /// <param name="Problems">Those whose campaign, ad group or keyword the account does not have.</param>
    public sealed record Outcome(int Changed, int Known, IReadOnlyList<BookProblem> Problems);

    /// <summary>Takes totals in, or says what would become of them.</summary>
    public async Task<Outcome> TakeAsync(
        int accountId,
        IReadOnlyList<BookTotal> totals,
        bool isPreview,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        // Names are looked up all at once: what was removed had its days too, and what stands goes first.
        var found = (
            await connection.QueryAsync<(int Row, long? Campaign, long? AdGroup, long? Keyword)>(
                new CommandDefinition(
                    """
                    select t.row, c.id, coalesce(g.id, k.ad_group_id), k.id
                    from unnest(@rows, @campaigns, @groups, @words, @matches) as t(row, campaign, ad_group, words, match)
                    left join lateral (select id from campaign where account_id = @accountId and name_key = t.campaign order by removed, id desc limit 1) c on true
                    left join lateral (select id from ad_group where campaign_id = c.id and t.ad_group <> '' and name_key = t.ad_group order by removed, id desc limit 1) g on true
                    left join lateral (select k.id, k.ad_group_id from keyword k join ad_group h on h.id = k.ad_group_id where k.account_id = @accountId and h.campaign_id = c.id
                      and (g.id is null or k.ad_group_id = g.id) and k.text_key = t.words and (t.match = 0 or k.match_type = t.match) order by k.removed, k.id desc limit 1) k on t.words <> ''
                    """,
                    new
                    {
                        accountId,
                        rows = totals.Select(total => total.Row).ToArray(),
                        campaigns = totals.Select(total => TextIdentity.Of(total.Campaign)).ToArray(),
                        groups = totals.Select(total => TextIdentity.Of(total.AdGroup ?? "")).ToArray(),
                        words = totals.Select(total => TextIdentity.Of(WordsOf(total).Words)).ToArray(),
                        matches = totals.Select(total => (short)(WordsOf(total).Match ?? 0)).ToArray(),
                    },
                    cancellationToken: cancellation
                )
            )
        ).ToDictionary(row => row.Row);
        var problems = new List<BookProblem>();
        var sums = new Dictionary<Place, (decimal Sales, decimal Value)>();
        foreach (var total in totals)
        {
            var (_, campaign, adGroup, keyword) = found[total.Row];
            if (MissingOf(total, campaign, adGroup, keyword) is { } missing)
            {
                problems.Add(missing);
                continue;
            }

            // Two rows may name one keyword in two ways.
            var place = new Place(total.Day, campaign!.Value, adGroup ?? 0, keyword ?? 0, (short)(total.Device ?? 0));
            var (sales, value) = sums.GetValueOrDefault(place);
            sums[place] = (sales + total.Sales, value + total.Value);
        }

        var changed = (
            await connection.QueryAsync<int>(
                new CommandDefinition(
                    """
                    insert into book_total (account_id, day, campaign_id, ad_group_id, keyword_id, device, sales, value)
                    select @accountId, t.* from unnest(@days, @campaigns, @groups, @keywords, @devices, @sales, @values) t
                    on conflict (account_id, day, campaign_id, ad_group_id, keyword_id, device) do update set sales = excluded.sales, value = excluded.value
                    where (book_total.sales, book_total.value) is distinct from (excluded.sales, excluded.value) returning 1
                    """,
                    new
                    {
                        accountId,
                        days = sums.Keys.Select(place => place.Day).ToArray(),
                        campaigns = sums.Keys.Select(place => place.Campaign).ToArray(),
                        groups = sums.Keys.Select(place => place.AdGroup).ToArray(),
                        keywords = sums.Keys.Select(place => place.Keyword).ToArray(),
                        devices = sums.Keys.Select(place => place.Device).ToArray(),
                        sales = sums.Values.Select(sum => sum.Sales).ToArray(),
                        values = sums.Values.Select(sum => sum.Value).ToArray(),
                    },
                    cancellationToken: cancellation
                )
            )
        ).Count();
        if (isPreview)
        {
            await transaction.RollbackAsync(cancellation);
        }
        else
        {
            await transaction.CommitAsync(cancellation);
        }

        return new Outcome(changed, sums.Count - changed, problems);
    }

    private readonly record struct Place(DateOnly Day, long Campaign, long AdGroup, long Keyword, short Device);

    private static BookProblem? MissingOf(BookTotal total, long? campaign, long? adGroup, long? keyword)
    {
        BookProblem Wrong(string field, string name) =>
            new(
                total.Row,
                field,
                $"Row {total.Row}, {field}: the account has no “{Reading.Shortened(name)}” there. Look how it is written."
            );
        return campaign is null ? Wrong("campaign", total.Campaign)
            : total.AdGroup is { } group && adGroup is null ? Wrong("ad group", group)
            : total.Keyword is { } words && keyword is null ? Wrong("keyword", words)
            : null;
    }

    /// <summary>A keyword may come with the notation of its match type.</summary>
    private static (string Words, MatchType? Match) WordsOf(BookTotal total)
    {
        if (total.Keyword is not { } text)
        {
            return ("", null);
        }

        var read = Core.Matching.KeywordNotation.Read(text);
        return (read.Text, total.Match ?? (read.Text == text ? null : read.Match));
    }
}
