using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Core.Intake;
using Fendrik.Core.Matching;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Data.Steps;

/// <summary>
/// The selected rows of one kind under a text edit. Rows are read in slices, edited here, written to a temporary table
/// in bulk, and taken over from there by one statement.
/// </summary>
internal sealed class EditedTexts(StepContext context, ItemTable table, TextEdit edit, IReadOnlySet<TextField> fields)
{
    private readonly string _edited = $"edited_{table.Name}";

    private sealed record EditedText(long Id, string? Problem, string Text);

    private sealed record EditedAd(
        long Id,
        string? Problem,
        string[] Headlines,
        string[] Descriptions,
        string[] Path,
        string Url,
        string Key
    );

    public async Task<int> ApplyAsync() =>
        table.Kind switch
        {
            ItemKind.TextAd => await OfAdsAsync(),
            ItemKind.Keyword => await OfTextsAsync(TextField.Words, "text", "text_key")
                + await OfTextsAsync(TextField.FinalUrl, "final_url", null),
            ItemKind.NegativeKeyword => await OfTextsAsync(TextField.Words, "text", "text_key"),
            _ => await OfTextsAsync(TextField.Name, "name", "name_key"),
        };

    private async Task<int> OfTextsAsync(TextField field, string column, string? key)
    {
        if (!fields.Contains(field))
        {
            return 0;
        }

        await context.ExecuteAsync(
            $"drop table if exists {_edited}; create temp table {_edited} (id bigint not null, problem text, text text, key text) on commit drop"
        );
        await PipeAsync(
            $"select i.id, i.{column} from {table.Name} i where {ItemSelection.Holds(table.Kind)} and i.{column} is not null",
            "id, problem, text, key",
            reader =>
            {
                var text = reader.GetString(1);
                var next = edit.Apply(text);
                return next == text ? null : new EditedText(reader.GetInt64(0), ProblemOf(field, next), next);
            },
            (importer, row) =>
            {
                importer.Write(row.Id, NpgsqlDbType.Bigint);
                RowPipe.WriteText(importer, row.Problem);
                importer.Write(row.Text, NpgsqlDbType.Text);
                importer.Write(TextIdentity.Of(row.Text), NpgsqlDbType.Text);
            }
        );
        await RefuseProblemsAsync();
        if (key is not null)
        {
            await RefuseTwinsAsync();
        }

        var setKey = key is null ? "" : $"{key} = e.key, ";
        return await context.ExecuteAsync(
            $"update {table.Name} i set {column} = e.text, {setKey}{ItemTable.KeepLive} from {_edited} e where e.id = i.id and e.problem is null"
        );
    }

    private async Task<int> OfAdsAsync()
    {
        await context.ExecuteAsync(
            $"""
            drop table if exists {_edited};
            create temp table {_edited} (id bigint not null, problem text, headlines text[], descriptions text[], path text[], url text, key text) on commit drop
            """
        );
        await PipeAsync(
            $"select i.id, i.headlines, i.descriptions, i.display_path, i.final_url, i.device_preference from text_ad i where {ItemSelection.Holds(ItemKind.TextAd)}",
            "id, problem, headlines, descriptions, path, url, key",
            Edited,
            (importer, ad) =>
            {
                importer.Write(ad.Id, NpgsqlDbType.Bigint);
                RowPipe.WriteText(importer, ad.Problem);
                importer.Write(ad.Headlines, NpgsqlDbType.Array | NpgsqlDbType.Text);
                importer.Write(ad.Descriptions, NpgsqlDbType.Array | NpgsqlDbType.Text);
                importer.Write(ad.Path, NpgsqlDbType.Array | NpgsqlDbType.Text);
                importer.Write(ad.Url, NpgsqlDbType.Text);
                importer.Write(ad.Key, NpgsqlDbType.Text);
            }
        );
        await RefuseProblemsAsync();
        await RefuseTwinsAsync();
        return await context.ExecuteAsync(
            $"""
            update text_ad i set headlines = e.headlines, descriptions = e.descriptions, display_path = e.path, final_url = e.url,
              content_key = e.key, {ItemTable.KeepLive}
            from {_edited} e where e.id = i.id and e.problem is null
            """
        );
    }

    private EditedAd? Edited(NpgsqlDataReader reader)
    {
        var (headlines, descriptions, path, url) = (
            reader.GetFieldValue<string[]>(1),
            reader.GetFieldValue<string[]>(2),
            reader.GetFieldValue<string[]>(3),
            reader.GetString(4)
        );
        var nextHeadlines = Lines(TextField.Headlines, headlines);
        var nextDescriptions = Lines(TextField.Descriptions, descriptions);
        var nextPath = Lines(TextField.DisplayPath, path);
        var nextUrl = fields.Contains(TextField.FinalUrl) ? edit.Apply(url) : url;
        if (
            nextHeadlines.SequenceEqual(headlines)
            && nextDescriptions.SequenceEqual(descriptions)
            && nextPath.SequenceEqual(path)
            && nextUrl == url
        )
        {
            return null;
        }

        var device = reader.IsDBNull(5) ? (Device?)null : (Device)reader.GetInt16(5);
        var problem =
            nextHeadlines.Length == 0 ? "No headline would be left."
            : nextUrl == url ? null
            : ProblemOf(TextField.FinalUrl, nextUrl);
        return new EditedAd(
            reader.GetInt64(0),
            problem,
            nextHeadlines,
            nextDescriptions,
            nextPath,
            nextUrl,
            Texts.Hash(IntakeRow.AdKey(nextHeadlines, nextDescriptions, nextPath, nextUrl, device))
        );
    }

    private string[] Lines(TextField field, string[] lines) =>
        fields.Contains(field) ? [.. lines.Select(edit.Apply).Where(line => line.Length > 0)] : lines;

    private static string? ProblemOf(TextField field, string text) =>
        field switch
        {
            _ when text.Length == 0 => "Nothing would be left of it.",
            _ when text.Length > RowReader.LongestCell => $"It would have {text.Length:N0} characters.",
            TextField.FinalUrl => Core.AdText.FinalUrl.IsValid(text) ? null : $"“{text}” would be no web address.",
            TextField.Words when !KeywordNotation.IsPlain(text) =>
                "It would read as a match type or a negative; change the match type instead.",
            _ when text.Length > RowReader.LongestKeyword =>
                $"It would have {text.Length:N0} characters; {RowReader.LongestKeyword} at most.",
            TextField.Words when Words.Of(text).Count == 0 => "No letters or digits would be left.",
            _ => null,
        };

    private async Task PipeAsync<T>(
        string select,
        string columns,
        Func<NpgsqlDataReader, T?> edited,
        Action<NpgsqlBinaryImporter, T> write
    )
        where T : class
    {
        await RowPipe.RunAsync(context, select, $"{_edited} ({columns})", edited, write);
        await context.ExecuteAsync($"analyze {_edited}");
    }

    private async Task RefuseProblemsAsync()
    {
        var reasons = await context.QueryAsync<string>(
            $"select distinct problem from {_edited} where problem is not null limit 20"
        );
        foreach (var reason in reasons.ToArray())
        {
            await context.RefuseAsync(
                table,
                $"i.id in (select e.id from {_edited} e where e.problem = @reason)",
                reason,
                new { reason }
            );
        }
    }

    /// <summary>
    /// Refuses what would become the twin of a row that stays as it is, or of another edited one with a lower number.
    /// A row whose old text another takes over is refused as well: one more edit does it.
    /// </summary>
    private async Task RefuseTwinsAsync()
    {
        var key = table.Identity[0];
        var match = table.Identity.Count > 1 ? "and t.match_type = i.match_type" : "";
        await context.ExecuteAsync(
            $"""
            update {_edited} e set problem = 'twin' from {table.Name} i join {table.Name} t on {table.SameParent} and not t.removed and t.id <> i.id {match}
            where i.id = e.id and e.problem is null and t.{key} = e.key;
            update {_edited} e set problem = 'twin' from {table.Name} i, {_edited} o, {table.Name} t
            where i.id = e.id and e.problem is null and o.key = e.key and o.id < e.id and t.id = o.id and {table.SameParent} {match}
            """
        );
        await context.RefuseAsync(
            table,
            $"i.id in (select e.id from {_edited} e where e.problem = 'twin')",
            "Its twin is there already, or would come to be.",
            null
        );
    }
}
