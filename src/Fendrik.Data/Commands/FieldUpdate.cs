using Dapper;
using Fendrik.Core.Bidding;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands;

/// <summary>How amounts that change are rounded and held.</summary>
public sealed record AmountBounds(string? RoundTo = null, string? AtLeast = null, string? AtMost = null);

/// <summary>Sets fields of many rows of one kind to the same values, in one statement.</summary>
/// <param name="followHolders">
/// Rows whose amount is that of a holder which changes along with them follow it, and get none of their own.
/// </param>
internal sealed class FieldUpdate(
    ItemTable table,
    IReadOnlyDictionary<Field, object?> said,
    AccountFacts account,
    AmountBounds? bounds = null,
    bool followHolders = false
)
{
    private readonly DynamicParameters _parameters = new();

    /// <summary>Updates the rows that a condition holds for; those that would become twins are refused.</summary>
    public async Task<int> ApplyAsync(StepContext context, string holds, object? parameters = null)
    {
        if (said.Count == 0)
        {
            return 0;
        }

        _parameters.AddDynamicParams(parameters);
        _parameters.Add("account", account.Id);
        var next = new Dictionary<string, string>();
        foreach (var (field, value) in said)
        {
            var (sql, blank) = NextOf(field, value);
            if (blank is not null)
            {
                holds += Followed(field);
            }

            next[field.Column] = sql;
            if (field.KeyColumn is { } key)
            {
                _parameters.Add("n_" + key, TextIdentity.Of((string)value!));
                next[key] = $"@n_{key}";
            }

            if (blank is not null)
            {
                await context.RefuseAsync(
                    table,
                    $"{holds} and i.account_id = @account and not i.removed and {ItemTable.InForce(field, "i")} is null",
                    blank,
                    _parameters
                );
            }
        }

        if (table.Type.IsKnownByContent && said.Keys.Any(field => field.IsIdentity))
        {
            return await new ContentUpdate(context, table, said).ApplyAsync(
                $"{holds} and i.account_id = @account and not i.removed",
                _parameters
            );
        }

        var differs =
            $"({string.Join(", ", next.Keys.Select(column => $"i.{column}"))}) is distinct from ({string.Join(", ", next.Values)})";
        var mine = $"{holds} and i.account_id = @account and not i.removed and {differs}";
        if (table.IdentityColumns.Any(next.ContainsKey))
        {
            mine += await RefuseTwinsAsync(context, mine, next);
        }

        return await context.ExecuteAsync(
            $"update {table.Name} i set {string.Join(", ", next.Select(each => $"{each.Key} = {each.Value}"))}, {table.KeepLive} where {mine}",
            _parameters
        );
    }

    /// <summary>
    /// Of several rows that would come to the same identity one can change; a twin that is there already keeps all back.
    /// </summary>
    private async Task<string> RefuseTwinsAsync(StepContext context, string mine, Dictionary<string, string> next)
    {
        string Next(string row, string column) =>
            next.TryGetValue(column, out var sql)
                ? sql.Replace("i.", $"{row}.", StringComparison.Ordinal)
                : $"{row}.{column}";
        await context.ExecuteAsync("drop table if exists changing");
        await context.ExecuteAsync(
            $"create temp table changing on commit drop as select i.id from {table.Name} i where {mine}",
            _parameters
        );
        await context.ExecuteAsync("create index on changing (id); analyze changing");
        var twins = $"""
            (exists (select from {table.Name} t where {table.SamePlace("t", "i")} and t.id <> i.id and not t.removed
               and {table.SameIdentity(column => $"t.{column}", column => Next("i", column))})
             or exists (select from {table.Name} t join changing x on x.id = t.id where {table.SamePlace(
                "t",
                "i"
            )} and t.id < i.id
               and {table.SameIdentity(column => Next("t", column), column => Next("i", column))}))
            """;
        await context.RefuseAsync(table, $"{mine} and {twins}", table.Type.TwinProblem, _parameters);
        return $" and not {twins}";
    }

    /// <summary>Rows without an amount of their own whose holder is changed as well are left to it.</summary>
    private string Followed(Field field) =>
        followHolders && field.InheritedFrom is { } kind && ItemTable.HolderColumn(table.Type, kind) is { } parent
            ? $" and not (i.{field.Column} is null and i.{parent} in (select s.id from selected s where s.kind = {(int)kind}))"
            : "";

    private (string Sql, string? Blank) NextOf(Field field, object? value)
    {
        if (field.Type is AmountValue && value is BidChange or decimal)
        {
            var change = AmountChanges.Bounded(
                value as BidChange ?? new BidChange(AmountOperation.Set, (decimal)value),
                bounds,
                account
            );
            AmountChanges.AddParameters(_parameters, field, change, account);
            return (
                AmountChanges.Next(
                    field,
                    change,
                    change.Operation == AmountOperation.Set ? $"i.{field.Column}" : ItemTable.InForce(field, "i")
                ),
                change.Operation == AmountOperation.Set ? null : AmountChanges.NothingToChange(field)
            );
        }

        _parameters.Add("n_" + field.Column, StorageSql.ParameterOf(field.OrNothing(value)));
        return ($"@n_{field.Column}::{StorageSql.CastOf(field.Type.Storage)}", null);
    }
}
