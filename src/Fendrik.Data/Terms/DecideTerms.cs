using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;
using Fendrik.Core.Reporting;
using Fendrik.Core.Searches;
using Fendrik.Data.Accounts;
using Fendrik.Data.Commands;
using Fendrik.Data.Commands.Words;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Terms;

/// <summary>Search terms that become keywords of an ad group.</summary>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="Terms">The terms.</param>
public sealed record TermsForGroup(long AdGroupId, IReadOnlyList<string> Terms);

/// <summary>
/// Decides what becomes of search terms: keywords, each in its ad group; negatives that keep them away; or nothing. What was decided is remembered as long
/// as the step stands.
/// </summary>
/// <param name="Decision">What becomes of them.</param>
/// <param name="Terms">The terms, as they were typed.</param>
public sealed record DecideTerms(TermDecision Decision, IReadOnlyList<string> Terms) : IWorkingCopyChange
{
    private const int MostTerms = 500;
    private const int LongestTerm = 400;

    /// <summary>Terms of so many days are decided with a negative that keeps them away.</summary>
    private const int DaysBack = 13 * 7;

    /// <summary>Where the terms become keywords.</summary>
    public IReadOnlyList<TermsForGroup> Keywords { get; init; } = [];

    /// <summary>Match type of the keywords, or of negatives that are bare words.</summary>
    public MatchType Match { get; init; } = MatchType.Exact;

    /// <summary>What else is said of the keywords, such as a max CPC.</summary>
    public IReadOnlyDictionary<string, FieldInput>? Values { get; init; }

    /// <summary>The negatives, one on each line, in the trade's notation.</summary>
    public string Negatives { get; init; } = "";

    /// <summary>Where the negatives are to stand.</summary>
    public ItemPlaces Places { get; init; } = new();

    /// <summary>The newest step when the terms were looked at: what somebody else decided since is told, not passed over. None for whoever did not look.</summary>
    public long? AsOf { get; init; }

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        string[] terms = [.. Terms.Where(term => !string.IsNullOrWhiteSpace(term)).Distinct(StringComparer.Ordinal)];
        if (terms.Length is 0 or > MostTerms || Array.Exists(terms, term => term.Length > LongestTerm))
        {
            throw new InvalidChangeException(
                "terms",
                terms.Length == 0
                    ? "Choose search terms."
                    : $"At most {MostTerms} search terms of {LongestTerm} characters at once."
            );
        }

        await RefuseDecidedAsync(context, terms);
        var (added, said) = Decision switch
        {
            TermDecision.Keyword => await AddKeywordsAsync(context, terms),
            TermDecision.Negative => await AddNegativesAsync(context, terms),
            TermDecision.Leave => (0, terms.ToDictionary(term => term, term => "leave", StringComparer.Ordinal)),
        };
        await context.ExecuteAsync(
            """
            insert into term_decision (account_id, term, step_id, decision, said, reported_to)
            select @account, t.term, @StepId, @decision, t.said, a.reported_to
            from unnest(@terms, @said) as t(term, said), account a where a.id = @account
            """,
            new
            {
                account = context.Account.Id,
                context.StepId,
                decision = (short)Decision,
                terms = said.Keys.ToArray(),
                said = said.Values.ToArray(),
            }
        );
        var count = said.Count == 1 ? "1 search term" : $"{said.Count:N0} search terms";
        return new StepOutcome(
            Decision switch
            {
                TermDecision.Keyword => $"Add {ItemTypes.Count(added, [ItemKind.Keyword])} from {count}",
                TermDecision.Negative => $"Add {ItemTypes.Count(added, [ItemKind.NegativeKeyword])} for {count}",
                TermDecision.Leave => $"Leave {count}",
            },
            added + said.Count
        );
    }

    private async Task<(int Added, Dictionary<string, string> Said)> AddKeywordsAsync(
        StepContext context,
        string[] terms
    )
    {
        var table = ItemTable.Of(ItemKind.Keyword);
        var names = (
            await context.QueryAsync<(long Id, string Name)>(
                "select id, name from ad_group where account_id = @account and not removed and id = any(@ids)",
                new { account = context.Account.Id, ids = Keywords.Select(each => each.AdGroupId).ToArray() }
            )
        ).ToDictionary(row => row.Id, row => row.Name);
        var homes = Keywords
            .SelectMany(group => group.Terms.Select(term => (term, group.AdGroupId)))
            .GroupBy(each => each.term, each => each.AdGroupId, StringComparer.Ordinal)
            .ToDictionary(group => group.Key, group => group.First(), StringComparer.Ordinal);
        if (
            Array.Find(terms, term => !homes.TryGetValue(term, out var home) || !names.ContainsKey(home)) is
            { } homeless
        )
        {
            throw new InvalidChangeException(
                "keywords",
                $"“{homeless}” has no ad group to go to, or it is not there any more. Choose one; nothing was changed."
            );
        }

        foreach (var term in terms)
        {
            RefuseUnfit(context, term);
        }

        var added = 0;
        foreach (var group in terms.GroupBy(term => homes[term]))
        {
            added += await MadeWords.AddAsync(
                context,
                table,
                WordLines.Read(
                    table.Type,
                    string.Join('\n', group.Select(Plain)),
                    Match,
                    context.Account.Ground,
                    matchForAll: true
                ),
                new ItemPlaces(AdGroupIds: [group.Key]),
                Values
            );
        }

        return (
            added,
            terms.ToDictionary(term => term, term => $"keyword in {names[homes[term]]}", StringComparer.Ordinal)
        );
    }

    private async Task<(int Added, Dictionary<string, string> Said)> AddNegativesAsync(
        StepContext context,
        string[] terms
    )
    {
        var table = ItemTable.Of(ItemKind.NegativeKeyword);
        Places.Check(table.Type);
        var lines = WordLines.Read(table.Type, Negatives, Match, context.Account.Ground);
        var added = await MadeWords.AddAsync(context, table, lines, Places);
        return added == 0 && context.Refused.Count == 0
            ? throw new InvalidChangeException("places", "The places are gone. Choose others; nothing was changed.")
            : (added, await SaidAsync(context, terms, lines));
    }

    /// <summary>
    /// What is decided with negatives: the chosen terms that they keep away (a line that somebody changed may let one through), and whatever else people
    /// typed in the last weeks that they keep away wherever it came through.
    /// </summary>
    private async Task<Dictionary<string, string>> SaidAsync(StepContext context, string[] terms, WordLines lines)
    {
        (string Text, MatchType Match)[] written =
        [
            .. lines.Texts.Select((text, at) => (text, (MatchType)lines.Matches[at])),
        ];
        var index = PlacedNegatives.Index(
            await PlannedNegatives.PlaceAsync(
                context.Connection,
                context.Account,
                written,
                Places,
                context.Cancellation
            ),
            context.Account.Network
        );
        var chosen = terms
            .Select(term => (term, By: index.Find(term).Find(_ => true)))
            .Where(each => each.By is not null)
            .ToDictionary(each => each.term, each => Said(each.By!), StringComparer.Ordinal);
        var last = await context.ScalarAsync<DateOnly?>(
            "select reported_to from account where id = @Id",
            new { context.Account.Id }
        );
        if (last is not { } day)
        {
            return chosen;
        }

        var (said, through) = (
            new Dictionary<string, string>(StringComparer.Ordinal),
            new HashSet<string>(StringComparer.Ordinal)
        );
        var days = new Period(day.AddDays(1 - DaysBack), day);
        await foreach (
            var part in TermThrough
                .OfDays(context.Connection, context.Account.Id, days)
                .WithCancellation(context.Cancellation)
        )
        {
            if (index.Find(part.Term).Find(each => each.Reaches(part.CampaignId, part.AdGroupId)) is { } by)
            {
                said.TryAdd(part.Term, Said(by));
            }
            else
            {
                through.Add(part.Term);
            }
        }

        // What was decided otherwise stays as it was decided.
        through.UnionWith(
            await context.QueryAsync<string>(
                """
                select distinct d.term from term_decision d join step s on s.id = d.step_id and s.reverted_by is null
                where d.account_id = @account and d.term = any(@terms)
                """,
                new { account = context.Account.Id, terms = said.Keys.ToArray() }
            )
        );
        foreach (var term in through)
        {
            said.Remove(term);
        }

        foreach (var (term, how) in chosen)
        {
            said[term] = how;
        }

        return said;
    }

    /// <summary>Two who go through the terms at once do not decide the same one differently without a word.</summary>
    private async Task RefuseDecidedAsync(StepContext context, string[] terms)
    {
        if (AsOf is not { } asOf)
        {
            return;
        }

        var other = (
            await context.QueryAsync<(string Term, string Said, string Person)>(
                """
                select d.term, d.said, coalesce(p.display_name, 'Someone') from term_decision d join step s on s.id = d.step_id and s.reverted_by is null
                join step own on own.id = @StepId and own.person_id <> s.person_id left join "AspNetUsers" p on p.id = s.person_id
                where d.account_id = @account and d.term = any(@terms) and d.step_id > @asOf order by d.step_id desc limit 1
                """,
                new
                {
                    account = context.Account.Id,
                    context.StepId,
                    terms,
                    asOf,
                }
            )
        ).ToArray();
        if (other is [var (term, said, person)])
        {
            throw new InvalidChangeException(
                "terms",
                $"{person} decided “{Reading.Shortened(term)}” meanwhile: {said}. Nothing was changed; the list shows it as it is now."
            );
        }
    }

    private static string Said(PlacedNegative by) => $"negative “{by.Negative.Text}”";

    /// <summary>What people type can be longer than a keyword may be: the term is named.</summary>
    private static void RefuseUnfit(StepContext context, string term)
    {
        var plain = Plain(term);
        var problem =
            plain.Length == 0
                ? "it has no words"
                : ItemTypes.Of(ItemKind.Keyword)["text"].Type.Read(plain, context.Account.Ground).Problem;
        if (problem is not null)
        {
            throw new InvalidChangeException(
                "keywords",
                $"“{Reading.Shortened(term)}” cannot be a keyword: {problem}. Leave it out; nothing was changed."
            );
        }
    }

    /// <summary>A term as it was typed; as bare words where it has signs that mean something in a list.</summary>
    private static string Plain(string term) =>
        KeywordNotation.IsPlain(term) && Words.Of(term).Count > 0 ? term : string.Join(' ', Words.Of(term));
}
