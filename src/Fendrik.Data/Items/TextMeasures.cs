using System.Globalization;
using System.Text;
using Dapper;
using Fendrik.Core.Matching;
using Npgsql;

namespace Fendrik.Data.Items;

/// <summary>
/// What Core makes of texts as functions of the database: their normalised form, their number of words and of characters. They
/// are made from what Core goes by; most texts are plain and take the short way. Property tests hold them to Core.
/// </summary>
/// <remarks>
/// Those in SQL are not declared strict: so they are written into the query that calls them, and a million calls cost no more
/// than what they do.
/// </remarks>
internal static class TextMeasures
{
    private static readonly string Mark =
        $"{Environment.Version} {typeof(TextMeasures).Module.ModuleVersionId} {typeof(Words).Module.ModuleVersionId}";

    /// <summary>The text by which items are the same or not, as SQL.</summary>
    public static string KeyOf(string text) => $"text_key({text})";

    /// <summary>The number of words, as SQL.</summary>
    public static string WordsOf(string text) => $"count_words({text})";

    /// <summary>The number of characters as people count them, as SQL.</summary>
    public static string CharactersOf(string text) =>
        $"(case when octet_length({text}) = char_length({text}) and {text} !~ '\r' then char_length({text}) else count_characters({text}) end)";

    /// <summary>Makes the functions anew when another version of Core or of Unicode made those that are there.</summary>
    public static async Task EnsureAsync(NpgsqlConnection connection)
    {
        const string known =
            "select obj_description(to_regprocedure('count_characters(text)'), 'pg_proc') is not distinct from @Mark";
        if (await connection.ExecuteScalarAsync<bool>(known, new { Mark }))
        {
            return;
        }

        await using var transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select pg_advisory_xact_lock(7005)");
        await connection.ExecuteAsync(
            $"{await TextKeyAsync(connection)}; {CountWords()}; {CountCharacters()}; comment on function count_characters(text) is '{Mark}'"
        );
        await transaction.CommitAsync();
    }

    /// <summary>
    /// <see cref="TextIdentity.Of(string)"/>. Where the database has other small letters than .NET, letters pass under marks that
    /// no text has.
    /// </summary>
    private static async Task<string> TextKeyAsync(NpgsqlConnection connection)
    {
        var small = Enumerable
            .Range(1, char.MaxValue)
            .Where(value => !char.IsSurrogate((char)value))
            .ToDictionary(value => value, value => (int)char.ToLowerInvariant((char)value));
        int[] other =
        [
            .. await connection.QueryAsync<int>(
                "select c from unnest(@letters, @small) as l(c, s) where lower(chr(c)) <> chr(s)",
                new { letters = small.Keys.ToArray(), small = small.Values.ToArray() }
            ),
        ];
        var spaces = small.Keys.Where(value => char.IsWhiteSpace((char)value)).ToArray();
        string Written(IEnumerable<int> letters) =>
            string.Concat(letters.Select(letter => string.Create(CultureInfo.InvariantCulture, $"\\U{letter:x8}")));
        const int marks = 0xF0000;
        var passing = Written(Enumerable.Range(marks, other.Length));
        return $"""
            create or replace function text_key(t text) returns text language sql immutable parallel safe as $key$
              select case when octet_length(t) = char_length(t) and t !~ '^ |  | $|[\t-\r]' then lower(t)
                else btrim(regexp_replace(translate(lower(translate(normalize(t, nfc), E'{Written(other)}{Written(
                spaces
            )}', E'{passing}{new string(' ', spaces.Length)}')),
                  E'{passing}', E'{Written(other.Select(letter => small[letter]))}'), ' +', ' ', 'g'), ' ') end
            $key$
            """;
    }

    private static string CountWords()
    {
        var part = RuneClass.Of(Words.IsPartOfWord);
        var dropped = Words.Dropped.Replace("'", "''", StringComparison.Ordinal);
        return $"""
            create or replace function count_words(t text) returns integer language sql immutable parallel safe as $count$
              select case when t ~ '^[a-z0-9]+( [a-z0-9]+)*$' then length(t) - length(replace(t, ' ', '')) + 1
                else cardinality(array_remove(regexp_split_to_array(translate(normalize(t, nfc), '{dropped}', ''), '[^{part}]+'), '')) end
            $count$
            """;
    }

    /// <summary>
    /// The rules of UAX #29 by which characters belong together, with the classes of the version that Core counts by. Each rule
    /// takes away what belongs to its neighbour; what is left is counted.
    /// </summary>
    private static string CountCharacters()
    {
        // Takes its place in one with the letter before it, or with the one behind it.
        var extending = RuneClass.Of(rune => AreOne("a" + rune));
        var extendingSigns = RuneClass.Of(rune => AreOne("a" + rune) && AreOne("👩" + rune + "\u200d👩"));
        var leading = RuneClass.Of(rune => AreOne(rune + "a"));
        var pictures = RuneClass.Of(rune => !AreOne("a" + rune) && AreOne("👩\u200d" + rune));
        var controls = RuneClass.Of(rune => !AreOne(rune + "\u0301"));
        var flags = RuneClass.Of(rune => AreOne("🇬" + rune) && !AreOne("a" + rune));
        // Parts of Korean syllables.
        var first = RuneClass.Of(rune => AreOne(rune + "각") && !AreOne(rune + "a"));
        var middle = RuneClass.Of(rune => AreOne("가" + rune) && AreOne(rune + "ᅡ") && !AreOne("a" + rune));
        var last = RuneClass.Of(rune => AreOne("각" + rune) && !AreOne("a" + rune));
        var syllables = RuneClass.Of(rune =>
            AreOne("ᄀ" + rune) && AreOne(rune + "ᆨ") && !AreOne(rune + "ᅡ") && !AreOne("a" + rune)
        );
        var open = RuneClass.Of(rune =>
            AreOne("ᄀ" + rune) && AreOne(rune + "ᅡ") && !AreOne(rune + "a") && !AreOne(rune + "각")
        );
        string[] steps =
        [
            Replaced($"(^|[{controls}])[{extending}]", "\\1x"),
            Replaced($"[{leading}](?=[{extending}])", "x"),
            Replaced($"[{pictures}][{extendingSigns}]*(\\u200d[{pictures}][{extendingSigns}]*)+", "x"),
            Replaced($"[{flags}][{flags}]", "x"),
            Replaced($"(?<=[{open}{middle}])[{middle}]", ""),
            Replaced($"(?<=[{syllables}{open}{middle}{last}])[{last}]", ""),
            Replaced($"[{first}](?=[{first}{middle}{syllables}{open}])", ""),
            Replaced($"[{leading}](?=[^{controls}])", ""),
            Replaced($"[{extending}]", ""),
        ];
        return $"""
            create or replace function count_characters(t text) returns integer language plpgsql immutable parallel safe strict as $count$
            begin
              t := replace(t, E'\r\n', E'\n');
              if octet_length(t) = char_length(t) then
                return char_length(t);
              end if;
              {string.Join("\n  ", steps)}
              return char_length(t);
            end $count$
            """;
    }

    private static string Replaced(string pattern, string by) => $"t := regexp_replace(t, '{pattern}', '{by}', 'g');";

    private static bool AreOne(string text) => StringInfo.GetNextTextElementLength(text) == text.Length;
}
