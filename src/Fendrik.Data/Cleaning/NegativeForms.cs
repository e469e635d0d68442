using Dapper;
using Fendrik.Core.Matching;
using Fendrik.Data.Accounts;
using Npgsql;

namespace Fendrik.Data.Cleaning;

/// <summary>A negative that would hold back what one beside it lets through.</summary>
/// <param name="Of">The line that it is near.</param>
/// <param name="Text">The line to add, in notation like that one.</param>
/// <param name="Form">How it is near.</param>
/// <param name="Clicks">Clicks by searches with this word in the last days; none when nobody typed it.</param>
public sealed record NegativeForm(string Of, string Text, NearForm Form, long? Clicks);

/// <summary>
/// Offers, for negatives before they go in, the singular or plural and the misspellings that people really typed.
/// </summary>
public sealed class NegativeForms(NpgsqlDataSource source)
{
    /// <summary>Most lines that are looked at; longer lists are looked through by people.</summary>
    private const int MostLines = 500;

    private const int MostForms = 60;
    private const int MostTyped = 50_000;
    private const int Days = 90;

    public async Task<IReadOnlyList<NegativeForm>> FindAsync(
        int accountId,
        string lines,
        CancellationToken cancellation
    )
    {
        var written = lines
            .Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
            .Take(MostLines)
            .Distinct(StringComparer.OrdinalIgnoreCase)
            .Select(line => (Line: line, Notation: KeywordNotation.Read(line)))
            .Where(line => line.Notation.Problem is null)
            .Select(line => (line.Line, line.Notation, Words: Words.Of(line.Notation.Text)))
            .Where(line => line.Words.Count > 0)
            .ToArray();
        if (written.Length == 0)
        {
            return [];
        }

        var typed = await TypedAsync(accountId, cancellation);
        var there = written.Select(line => string.Join(' ', line.Words)).ToHashSet(StringComparer.Ordinal);
        var forms = new List<NegativeForm>();
        foreach (var line in written)
        {
            for (var place = 0; place < line.Words.Count; place++)
            {
                foreach (var (word, form, clicks) in Near(line.Words[place], typed))
                {
                    string[] words = [.. line.Words];
                    words[place] = word;
                    var text = string.Join(' ', words);
                    if (there.Add(text))
                    {
                        forms.Add(
                            new NegativeForm(
                                line.Line,
                                line.Notation.Match is { } match ? KeywordNotation.Write(text, match) : text,
                                form,
                                clicks
                            )
                        );
                    }
                }
            }
        }

        return
        [
            .. forms
                .OrderByDescending(form => form.Clicks ?? -1)
                .ThenBy(form => form.Text, StringComparer.Ordinal)
                .Take(MostForms),
        ];
    }

    private static IEnumerable<(string Word, NearForm Form, long? Clicks)> Near(
        string word,
        Dictionary<string, long> typed
    )
    {
        foreach (var (other, clicks) in typed)
        {
            if (NearForms.Of(word, other) is { } form)
            {
                yield return (other, form, clicks);
            }
        }

        // Where people typed the word but never its other form, that form is most likely no word at all.
        if (
            !typed.ContainsKey(word)
            && NearForms.Counterpart(word) is { } counterpart
            && !typed.ContainsKey(counterpart.Text)
        )
        {
            yield return (counterpart.Text, counterpart.Form, null);
        }
    }

    /// <summary>The words that people typed of late, with the clicks of the searches that they are in.</summary>
    private async Task<Dictionary<string, long>> TypedAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var terms = await connection.QueryAsync<(string Term, long Clicks)>(
            new CommandDefinition(
                """
                select term, sum(clicks)::bigint from search_term_day s join account a on a.id = s.account_id
                where s.account_id = @accountId and s.day > a.reported_to - @Days group by term order by sum(clicks) desc, term limit @MostTyped
                """,
                new
                {
                    accountId,
                    Days,
                    MostTyped,
                },
                cancellationToken: cancellation
            )
        );
        var words = new Dictionary<string, long>(StringComparer.Ordinal);
        foreach (var (term, clicks) in terms)
        {
            foreach (var word in Words.Of(term).Distinct())
            {
                words[word] = words.GetValueOrDefault(word) + clicks;
            }
        }

        return words;
    }
}
