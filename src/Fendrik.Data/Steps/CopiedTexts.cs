using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Core.Intake;
using Fendrik.Core.Matching;
using NpgsqlTypes;

namespace Fendrik.Data.Steps;

/// <summary>What a text of a copied item is.</summary>
internal enum TextIs
{
    Name,
    Words,
}

/// <summary>Edits the texts of copies on their way, in the <c>copy_*</c> tables that <see cref="CopiedRows"/> fills.</summary>
internal sealed class CopiedTexts(StepContext context, CopyEdits edits, IReadOnlyList<TextEdit> replacements)
{
    private bool Any => replacements.Count > 0;

    public async Task EditAsync(string table, TextIs what)
    {
        var keyed = what == TextIs.Words ? "text" : "name";
        if (!Any && (what == TextIs.Words || edits.NamePattern is null))
        {
            await context.ExecuteAsync(
                $"update copy_{table} e set key = i.{keyed}_key from {table} i where i.id = e.source_id"
            );
            return;
        }

        // Each text once, however many copies have it. The pattern names what was chosen; what is inside keeps its name.
        var chosen = table == "ad_group" ? "e.parent_id not in (select new_id from copy_campaign)" : "true";
        await context.ExecuteAsync(
            $"create temp table text_{table} (old_text text, chosen boolean, text text, key text, primary key (old_text, chosen)) on commit drop"
        );
        await RowPipe.RunAsync(
            context,
            $"select distinct e.text, {chosen} from copy_{table} e",
            $"text_{table} (old_text, chosen, text, key)",
            reader =>
            {
                var old = reader.GetString(0);
                var next = Edited(old);
                if (what == TextIs.Words && next.Length > 0 && !KeywordNotation.IsPlain(next))
                {
                    throw new InvalidChangeException(
                        "replace",
                        $"“{next}” would read as a match type or a negative. Leave the marks out."
                    );
                }

                return new CopiedText(
                    old,
                    reader.GetBoolean(1),
                    what == TextIs.Name && reader.GetBoolean(1) && edits.NamePattern is { } pattern
                        ? pattern.Replace("{name}", next, StringComparison.Ordinal).Trim()
                        : next
                );
            },
            (importer, row) =>
            {
                importer.Write(row.Old, NpgsqlDbType.Text);
                importer.Write(row.IsChosen, NpgsqlDbType.Boolean);
                importer.Write(row.Text, NpgsqlDbType.Text);
                importer.Write(TextIdentity.Of(row.Text), NpgsqlDbType.Text);
            }
        );
        await context.ExecuteAsync(
            $"update copy_{table} e set text = x.text, key = x.key from text_{table} x where x.old_text = e.text and x.chosen = ({chosen})"
        );
        var wrong = await context.ScalarAsync<string?>(
            $"select old_text from text_{table} where char_length(text) not between 1 and @longest limit 1",
            new { longest = RowReader.LongestKeyword }
        );
        if (wrong is not null)
        {
            throw new InvalidChangeException(
                "replace",
                $"Of “{wrong}” nothing would be left, or it would be longer than {RowReader.LongestKeyword} characters."
            );
        }
    }

    private sealed record CopiedText(string Old, bool IsChosen, string Text);

    public string Edited(string text) => replacements.Aggregate(text, (current, edit) => edit.Apply(current));

    public string[] Edited(string[] lines) => Any ? [.. lines.Select(Edited).Where(line => line.Length > 0)] : lines;
}
