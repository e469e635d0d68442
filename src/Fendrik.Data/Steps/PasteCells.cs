using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Intake;
using Fendrik.Core.Matching;

namespace Fendrik.Data.Steps;

/// <summary>A cell with what is put into it, as a person would type it.</summary>
/// <param name="Item">The row.</param>
/// <param name="Field">name, match, state, maxCpc, dailyBudget, finalUrl, startDate, endDate or labels.</param>
/// <param name="Text">The value; empty takes away what may be missing.</param>
public sealed record CellEdit(ItemReference Item, string Field, string Text);

/// <summary>
/// Puts values into cells: a block from a spreadsheet, or one value into many. Every cell is read as the intake reads
/// one; a cell that cannot be read leaves everything as it was and is named.
/// </summary>
public sealed record PasteCells(IReadOnlyList<CellEdit> Cells) : IWorkingCopyChange
{
    /// <summary>Most cells in one paste.</summary>
    public const int MostCells = 200_000;

    private sealed record Value(
        long Id,
        string Column,
        string? Text,
        decimal? Number,
        DateOnly? Date,
        string[]? Labels
    );

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (Cells.Count is 0 or > MostCells)
        {
            throw new InvalidChangeException(
                "cells",
                Cells.Count == 0
                    ? "There is nothing to paste. Copy some cells first."
                    : $"These are {Cells.Count:N0} cells; {MostCells:N0} at most. Bring longer lists in through Intake."
            );
        }

        var changed = 0;
        foreach (var kind in Cells.GroupBy(cell => cell.Item.Kind).OrderBy(group => group.Key))
        {
            changed += await ApplyAsync(context, ItemTable.Of(kind.Key), [.. kind]);
        }

        return new StepOutcome(
            $"Paste into {ItemSelection.Describe(changed, Cells.Select(cell => cell.Item.Kind))}",
            changed
        );
    }

    private static async Task<int> ApplyAsync(StepContext context, ItemTable table, CellEdit[] cells)
    {
        var values = cells
            .Select((cell, place) => Read(context, table, cell, place))
            .SelectMany(each => each)
            .ToArray();
        var columns = values.Select(value => value.Column).Distinct().ToArray();

        // Each row is written once, with the columns that were pasted; the others stay.
        var last = values
            .GroupBy(value => (value.Id, value.Column))
            .ToDictionary(group => group.Key, group => group.Last());
        var ids = values.Select(value => value.Id).Distinct().ToArray();
        T[] Column<T>(string column, Func<Value?, T> pick) =>
            [.. ids.Select(id => pick(last.GetValueOrDefault((id, column))))];
        var parameters = new Dapper.DynamicParameters(new { ids, account = context.Account.Id });
        var unnest = new List<string> { "@ids" };
        var names = new List<string> { "id" };
        var set = new List<string>();
        foreach (var column in columns)
        {
            var type = TypeOf(column);
            parameters.Add($"has_{column}", Column(column, value => value is not null));
            parameters.Add(
                column,
                type switch
                {
                    "numeric" => Column(column, value => value?.Number),
                    "date" => Column(
                        column,
                        value => value?.Date?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)
                    ),
                    "smallint" => Column(column, value => (short?)value?.Number),
                    "text[]" => Column(
                        column,
                        value => value?.Labels is { } labels ? string.Join('\u001f', labels) : null
                    ),
                    _ => Column(column, value => value?.Text),
                }
            );
            unnest.AddRange([$"@has_{column}", type is "date" ? $"@{column}::date[]" : $"@{column}"]);
            names.AddRange([$"has_{column}", column]);
            var value =
                type == "text[]"
                    ? $"coalesce(string_to_array(nullif(v.{column}, ''), chr(31)), '{{}}')"
                    : $"v.{column}";
            set.Add($"{column} = case when v.has_{column} then {value} else i.{column} end");
        }

        await RefuseTwinsAsync(context, table, ids, last.Values);
        var differs = string.Join(
            " or ",
            columns.Select(column =>
                TypeOf(column) == "text[]"
                    ? $"v.has_{column} and i.{column} is distinct from coalesce(string_to_array(nullif(v.{column}, ''), chr(31)), '{{}}')"
                    : $"v.has_{column} and i.{column} is distinct from v.{column}"
            )
        );
        var changed = await context.ExecuteAsync(
            $"""
            update {table.Name} i set {string.Join(", ", set)}, {ItemTable.KeepLive}
            from unnest({string.Join(", ", unnest)}) as v({string.Join(", ", names)})
            where i.id = v.id and i.account_id = @account and not i.removed and ({differs})
            """,
            parameters
        );
        return changed;
    }

    private static string TypeOf(string column) =>
        column switch
        {
            "max_cpc" or "daily_budget" => "numeric",
            "start_date" or "end_date" => "date",
            "match_type" or "state" or "device_preference" => "smallint",
            "labels" => "text[]",
            _ => "text",
        };

    private static IEnumerable<Value> Read(StepContext context, ItemTable table, CellEdit cell, int place)
    {
        var text = cell.Text.Trim();
        InvalidChangeException Wrong(string what) =>
            new("cells", $"Cell {place + 1}, “{(text.Length > 40 ? text[..40] + "…" : text)}”: {what}");
        Value Of(
            string column,
            string? value = null,
            decimal? number = null,
            DateOnly? date = null,
            string[]? labels = null
        ) => new(cell.Item.Id, column, value, number, date, labels);
        if (text.Length > RowReader.LongestCell || text.Any(char.IsControl))
        {
            throw Wrong("it is too long or has control characters.");
        }

        switch (cell.Field, table.Kind)
        {
            case ("name", ItemKind.Campaign or ItemKind.AdGroup or ItemKind.NegativeList):
                var name = Texts.Checked("cells", text, "The name");
                return [Of("name", name), Of("name_key", TextIdentity.Of(name))];
            case ("name", ItemKind.Keyword or ItemKind.NegativeKeyword):
                var noted = KeywordNotation.Read(text);
                if (noted.Problem is { } problem)
                {
                    throw Wrong($"{problem}.");
                }

                Texts.Check("cells", noted.Text, "The keyword");
                Value[] words = [Of("text", noted.Text), Of("text_key", TextIdentity.Of(noted.Text))];
                return noted.Match is { } said ? [.. words, Of("match_type", number: (int)said)] : words;
            case ("match", ItemKind.Keyword or ItemKind.NegativeKeyword):
                return CellValues.TryMatchType(text, out var match, out _)
                    ? [Of("match_type", number: (int)match)]
                    : throw Wrong("it is none of exact, phrase, all words, broad.");
            case ("state", not (ItemKind.NegativeKeyword or ItemKind.NegativeList)):
                return text.Length == 0 ? [Of("state", number: (int)ItemState.Running)]
                    : CellValues.TryState(text, out var state) ? [Of("state", number: (int)state)]
                    : throw Wrong("it is neither running nor paused.");
            case ("maxCpc", ItemKind.Keyword or ItemKind.AdGroup):
                return [Of("max_cpc", number: Amount(context, text, Wrong))];
            case ("dailyBudget", ItemKind.Campaign):
                return [Of("daily_budget", number: Amount(context, text, Wrong))];
            case ("finalUrl", ItemKind.Keyword):
                return text.Length == 0 ? [Of("final_url")]
                    : Core.AdText.FinalUrl.IsValid(text) ? [Of("final_url", text)]
                    : throw Wrong("it is no web address. Begin with https:// or a domain.");
            case ("startDate" or "endDate", ItemKind.Campaign):
                var column = cell.Field == "startDate" ? "start_date" : "end_date";
                return text.Length == 0 ? [Of(column)]
                    : CellValues.TryDate(text, out var date) ? [Of(column, date: date)]
                    : throw Wrong("it is no date. Write it like 2026-11-25.");
            case ("labels", _):
                return
                [
                    Of(
                        "labels",
                        labels:
                        [
                            .. text.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                                .Select(SetLabels.Checked)
                                .Distinct()
                                .Order(StringComparer.Ordinal),
                        ]
                    ),
                ];
            default:
                throw Wrong(
                    $"{(ItemSelection.Noun(table.Kind) is "ad" or "ad group" ? "an" : "a")} {ItemSelection.Noun(table.Kind)} has no such cell to paste into. Select cells of the right column."
                );
        }
    }

    private static decimal? Amount(StepContext context, string text, Func<string, InvalidChangeException> wrong)
    {
        if (text is "" or "—")
        {
            return null;
        }

        return
            CellValues.TryAmount(text, context.Account.Currency, out var amount)
            && amount is > 0 and <= BidChange.Ceiling
            ? context.Account.Currency.Round(amount)
            : throw wrong("it is no amount above zero. Write it like 1.20.");
    }

    /// <summary>Two rows of one parent must not become the same by a paste; the database would say so without a name.</summary>
    private static async Task RefuseTwinsAsync(
        StepContext context,
        ItemTable table,
        long[] ids,
        IEnumerable<Value> values
    )
    {
        var keys = values.Where(value => value.Column is "name_key" or "text_key").ToArray();
        if (keys.Length == 0)
        {
            return;
        }

        var key = keys[0].Column;
        var match = key == "text_key" ? "and t.match_type = i.match_type" : "";
        var twin = await context.ScalarAsync<string?>(
            $"""
            select v.key from unnest(@ids, @keys) as v(id, key) join {table.Name} i on i.id = v.id and i.account_id = @account
            join {table.Name} t on {table.SameParent} and t.{key} = v.key {match} and not t.removed and t.id <> all(@all)
            limit 1
            """,
            new
            {
                account = context.Account.Id,
                ids = keys.Select(value => value.Id).ToArray(),
                keys = keys.Select(value => value.Text).ToArray(),
                all = ids,
            }
        );
        if (twin is not null)
        {
            throw new InvalidChangeException(
                "cells",
                $"“{twin}” is there already in the same place. Nothing was pasted."
            );
        }
    }
}
