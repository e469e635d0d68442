using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Intakes;

/// <summary>Two rows of a list that say different things of one campaign, ad group or list: the first holds, and both are named.</summary>
/// <param name="Kind">What they are about.</param>
/// <param name="Name">Its name.</param>
/// <param name="Field">What they say of it.</param>
/// <param name="FirstRow">The row that holds.</param>
/// <param name="First">What it says.</param>
/// <param name="OtherRow">The row that says otherwise.</param>
/// <param name="Other">What that one says.</param>
public sealed record IntakeContradiction(
    ItemKind Kind,
    string Name,
    string Field,
    int FirstRow,
    string First,
    int OtherRow,
    string Other
);

/// <summary>Finds rows that contradict each other.</summary>
internal static class IntakeContradictions
{
    private const int Most = 100;

    public static async Task<IReadOnlyList<IntakeContradiction>> FindAsync(
        NpgsqlConnection connection,
        long intakeId,
        Currency currency
    )
    {
        var found = new List<IntakeContradiction>();
        foreach (var holder in Staging.Holders)
        {
            foreach (var field in Staging.FieldsOf(holder.Type).Where(field => field.Type.Storage != Storage.Texts))
            {
                var rows = await connection.QueryAsync<(
                    string Name,
                    int FirstRow,
                    string First,
                    int OtherRow,
                    string Other
                )>(Query(holder, field), new { intakeId, Most });
                found.AddRange(
                    rows.Select(row => new IntakeContradiction(
                        holder.Kind,
                        row.Name,
                        field.LowLabel,
                        row.FirstRow,
                        InWords(field, row.First, currency),
                        row.OtherRow,
                        InWords(field, row.Other, currency)
                    ))
                );
            }
        }

        return [.. found.OrderBy(each => each.OtherRow).Take(Most)];
    }

    private static string Query(ItemTable holder, Field field)
    {
        var level = holder.Type.Holds!.Value;
        var key = Staging.KeyOf(level);
        var keys = level == Level.AdGroup ? $"campaign_key, {key}" : key;
        var source = field.IsSaidInside ? Staging.SaidOf(field) : field.Column;
        var mine = field.IsSaidInside ? "" : $"and kind = {holder.Number}";
        return $"""
            with said as (
              select {keys}, {Staging.NameOf(level)} as name, row_number, {source} as value from intake_row
              where intake_id = @intakeId and problem is null and intent <> 4 and {key} <> '' and {source} is not null {mine}),
            first as (select distinct on ({keys}) {keys}, row_number, value from said order by {keys}, row_number)
            select s.name, f.row_number, f.value::text, s.row_number, s.value::text
            from said s join first f using ({keys}) where s.value is distinct from f.value order by s.row_number limit @Most
            """;
    }

    private static string InWords(Field field, string stored, Currency currency) =>
        field.Type is AmountValue
        && decimal.TryParse(stored, System.Globalization.CultureInfo.InvariantCulture, out var amount)
            ? field.Type.InWords(amount, currency) ?? stored
        : field.Type.Choices is { Count: > 0 } choices
        && short.TryParse(stored, System.Globalization.CultureInfo.InvariantCulture, out var number)
            ? choices.FirstOrDefault(choice => choice.Number == number)?.Name ?? stored
        : stored;
}
