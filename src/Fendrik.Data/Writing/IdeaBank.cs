using System.Text;
using Dapper;
using Fendrik.Core.AdText;
using Fendrik.Core.AdText.Insertion;
using Fendrik.Core.Items;
using Fendrik.Core.Reporting;
using Fendrik.Core.Serving;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Writing;

/// <summary>A phrase of one's own: kept, used in ads, or both.</summary>
/// <param name="Id">The kept phrase; none for one that is only used.</param>
/// <param name="Text">The phrase.</param>
/// <param name="Kind">What it does.</param>
/// <param name="AsHeadline">Ads that have it as a headline.</param>
/// <param name="AsDescription">Ads that have it as a description.</param>
/// <param name="AdGroups">Ad groups of these ads.</param>
/// <param name="Figures">What the ads brought in the last weeks; a responsive ad counts where the phrase showed.</param>
public sealed record OwnPhrase(
    long? Id,
    string Text,
    PhraseKind Kind,
    int AsHeadline,
    int AsDescription,
    int AdGroups,
    Figures Figures
);

/// <summary>What a rival was seen to say.</summary>
/// <param name="Rival">Who.</param>
/// <param name="Headline">Its headline.</param>
/// <param name="Description">Its description.</param>
/// <param name="Kinds">What the two do.</param>
/// <param name="LastSeen">When it was seen last.</param>
/// <param name="Searches">In how many traced searches.</param>
public sealed record RivalText(
    string Rival,
    string Headline,
    string Description,
    IReadOnlyList<PhraseKind> Kinds,
    DateTimeOffset LastSeen,
    int Searches
);

/// <summary>Phrases for ads: one's own with where each is used and how it did, and those of rivals to differ from.</summary>
public sealed class IdeaBank(NpgsqlDataSource source, TimeProvider clock)
{
    /// <summary>Most phrases that are kept of an account.</summary>
    public const int MostKept = 2_000;

    /// <summary>Longest phrase.</summary>
    public const int Longest = 400;

    /// <summary>Longest text of another that is remembered.</summary>
    private const int LongestSeen = 200;

    private const int MostShown = 400;
    private const int Days = 28;

    /// <summary>One's own phrases, the most used first, as far as one is looking.</summary>
    public async Task<IReadOnlyList<OwnPhrase>> OwnAsync(
        int accountId,
        long? campaignId,
        long? adGroupId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var asked = new
        {
            accountId,
            campaignId,
            adGroupId,
            Days,
            MostShown,
            Notation = PlacedLine.AtTheEnd,
        };
        var used = await connection.QueryAsync<UsedRow>(
            new CommandDefinition(
                $"""
                with ad as (
                  select a.kind, a.id, a.ad_group_id, a.headlines, a.descriptions from ({AdTables.Where(
                    "account_id = @accountId and not removed"
                )}) a join ad_group g on g.id = a.ad_group_id
                  where (@campaignId::bigint is null or g.campaign_id = @campaignId) and (@adGroupId::bigint is null or g.id = @adGroupId)
                ), line as (
                  select ad.id, ad.kind, ad.ad_group_id, false as is_description, unnest(ad.headlines) as written from ad
                  union all select ad.id, ad.kind, ad.ad_group_id, true, unnest(ad.descriptions) from ad
                ), figure as (
                  select p.ad_id, sum(p.impressions) as impressions, sum(p.clicks) as clicks, sum(p.cost) as cost, sum(p.conversions) as conversions, sum(p.value) as value
                  from performance_day p join account a on a.id = p.account_id where p.account_id = @accountId and p.day > a.reported_to - @Days group by p.ad_id
                ), shown as (
                  select c.ad_id, l.is_description, l.written, sum(c.impressions) as impressions, sum(c.clicks) as clicks, sum(c.cost) as cost, sum(c.conversions) as conversions, sum(c.value) as value
                  from combination_day c join account a on a.id = c.account_id
                  cross join lateral (select false as is_description, unnest(c.headlines) as written union all select true, unnest(c.descriptions)) l
                  where c.account_id = @accountId and c.day > a.reported_to - @Days group by 1, 2, 3
                )
                select min(line.written) as written, count(*) filter (where not line.is_description)::int as as_headline, count(*) filter (where line.is_description)::int as as_description,
                  count(distinct line.ad_group_id)::int as ad_groups, coalesce(sum(coalesce(s.impressions, f.impressions)), 0)::bigint as impressions,
                  coalesce(sum(coalesce(s.clicks, f.clicks)), 0)::bigint as clicks, coalesce(sum(coalesce(s.cost, f.cost)), 0) as cost,
                  coalesce(sum(coalesce(s.conversions, f.conversions)), 0) as conversions, coalesce(sum(coalesce(s.value, f.value)), 0) as value
                from line
                left join figure f on f.ad_id = line.id and line.kind <> {(int)ItemKind.ResponsiveAd}
                left join shown s on s.ad_id = line.id and s.is_description = line.is_description and s.written = line.written and line.kind = {(int)
                    ItemKind.ResponsiveAd}
                group by {TextMeasures.KeyOf("regexp_replace(line.written, @Notation, '')")} order by count(*) desc, min(line.written) limit @MostShown
                """,
                asked,
                cancellationToken: cancellation
            )
        );
        var kept = await connection.QueryAsync<(long Id, string Text)>(
            new CommandDefinition(
                "select id, text from idea where account_id = @accountId order by id desc",
                asked,
                cancellationToken: cancellation
            )
        );
        var phrases = new Dictionary<string, OwnPhrase>();
        foreach (var row in used)
        {
            // Lines that are kept to a place, and those that are not, say the same.
            var text = AdLine.InWords(PlacedLine.Of(row.Written).Text);
            var key = TextIdentity.Of(text);
            var before = phrases.GetValueOrDefault(key);
            phrases[key] = new OwnPhrase(
                null,
                before?.Text ?? text,
                Phrases.Of(text),
                row.AsHeadline + (before?.AsHeadline ?? 0),
                row.AsDescription + (before?.AsDescription ?? 0),
                Math.Max(row.AdGroups, before?.AdGroups ?? 0),
                new Figures(row.Impressions, row.Clicks, row.Cost, row.Conversions, row.Value)
                    + (before?.Figures ?? Figures.Zero)
            );
        }

        foreach (var (id, text) in kept)
        {
            var key = TextIdentity.Of(text);
            phrases[key] = phrases.TryGetValue(key, out var own)
                ? own with
                {
                    Id = id,
                }
                : new OwnPhrase(id, text, Phrases.Of(text), 0, 0, 0, Figures.Zero);
        }

        return
        [
            .. phrases
                .Values.OrderByDescending(each => each.AsHeadline + each.AsDescription)
                .ThenBy(each => each.Text, StringComparer.Ordinal),
        ];
    }

    /// <summary>Keeps a phrase; one that is kept already stays.</summary>
    /// <exception cref="InvalidChangeException">It is empty or too long, or there are too many.</exception>
    public async Task KeepAsync(int accountId, string personId, string text, CancellationToken cancellation)
    {
        var phrase = string.Join(
            ' ',
            text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
        );
        if (phrase.Length is 0 or > Longest || phrase.Any(char.IsControl))
        {
            throw new InvalidChangeException("text", $"A phrase has 1 to {Longest} characters.");
        }

        await using var connection = await source.OpenConnectionAsync(cancellation);
        var done = await connection.ExecuteScalarAsync<bool>(
            new CommandDefinition(
                """
                with kept as (
                  insert into idea (account_id, text, text_key, person_id, made_at) select @accountId, @phrase, @key, @personId, @now
                  where (select count(*) from idea where account_id = @accountId) < @MostKept
                  on conflict (account_id, text_key) do nothing returning id)
                select exists (select from kept) or exists (select from idea where account_id = @accountId and text_key = @key)
                """,
                new
                {
                    accountId,
                    phrase,
                    key = TextIdentity.Of(phrase),
                    personId,
                    now = clock.GetUtcNow(),
                    MostKept,
                },
                cancellationToken: cancellation
            )
        );
        if (!done)
        {
            throw new InvalidChangeException("text", $"At most {MostKept:N0} phrases are kept. Let some go.");
        }
    }

    /// <summary>Lets a kept phrase go. Ads that use it keep it.</summary>
    public async Task LetGoAsync(int accountId, long id, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "delete from idea where id = @id and account_id = @accountId",
                new { id, accountId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>What rivals were seen to say, those seen most first.</summary>
    public async Task<IReadOnlyList<RivalText>> RivalsAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<(
            string Rival,
            string Headline,
            string Description,
            DateTime LastSeen,
            int Searches
        )>(
            new CommandDefinition(
                "select rival, headline, description, last_seen, searches from rival_text where account_id = @accountId order by searches desc, rival limit @MostShown",
                new { accountId, MostShown },
                cancellationToken: cancellation
            )
        );
        return
        [
            .. rows.Select(row => new RivalText(
                row.Rival,
                row.Headline,
                row.Description,
                [.. new[] { Phrases.Of(row.Headline), Phrases.Of(row.Description) }.Distinct()],
                row.LastSeen,
                row.Searches
            )),
        ];
    }

    /// <summary>Remembers what rivals say in a traced search: those whose ads showed.</summary>
    public async Task NoteAsync(int accountId, SearchTrace trace, CancellationToken cancellation)
    {
        var seen = (trace.Auction?.Ladder ?? [])
            .Where(each => each is { IsOwn: false, Place: not null, Headline.Length: > 0 })
            .Select(each =>
                (Name: Kept(each.Name), Headline: Kept(each.Headline!), Description: Kept(each.Description ?? ""))
            )
            .Distinct()
            .OrderBy(each => each)
            .ToArray();
        if (seen.Length == 0)
        {
            return;
        }

        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                insert into rival_text (account_id, rival, headline, description, first_seen, last_seen, searches)
                select @accountId, r, h, d, @now, @now, 1 from unnest(@rivals, @headlines, @descriptions) t(r, h, d)
                on conflict (account_id, rival, headline, description) do update set last_seen = excluded.last_seen, searches = rival_text.searches + 1
                """,
                new
                {
                    accountId,
                    now = clock.GetUtcNow(),
                    rivals = seen.Select(each => each.Name).ToArray(),
                    headlines = seen.Select(each => each.Headline).ToArray(),
                    descriptions = seen.Select(each => each.Description).ToArray(),
                },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>What a network tells of others is kept within bounds: no control characters, and not more than a phrase has.</summary>
    private static string Kept(string text) =>
        string.Concat(text.EnumerateRunes().Where(rune => !Rune.IsControl(rune)).Take(LongestSeen));

    private sealed record UsedRow
    {
        public required string Written { get; init; }
        public int AsHeadline { get; init; }
        public int AsDescription { get; init; }
        public int AdGroups { get; init; }
        public long Impressions { get; init; }
        public long Clicks { get; init; }
        public decimal Cost { get; init; }
        public decimal Conversions { get; init; }
        public decimal Value { get; init; }
    }
}
