using Dapper;
using Fendrik.Core.Reporting.Measures;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Results.Own;

/// <summary>The measures of an account: those that everybody has, and those that its people made of them.</summary>
public sealed class MeasureBook(NpgsqlDataSource source)
{
    /// <summary>Most measures that an account's people can make.</summary>
    public const int MostOwn = 50;

    /// <summary>All measures of an account, in their order.</summary>
    public async Task<IReadOnlyList<Measure>> AllAsync(int accountId, CancellationToken cancellation) =>
        [.. ResultMeasures.All, .. (await OwnAsync(accountId, cancellation)).Select(own => own.ToMeasure())];

    /// <summary>The measures that people made, by name.</summary>
    public async Task<IReadOnlyList<OwnMeasure>> OwnAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return
        [
            .. (
                await connection.QueryAsync<(string Name, string Formula, MeasureForm Form)>(
                    new CommandDefinition(
                        "select name, formula, form from own_measure where account_id = @accountId order by lower(name)",
                        new { accountId },
                        cancellationToken: cancellation
                    )
                )
            ).Select(row => new OwnMeasure(row.Name, row.Formula, row.Form)),
        ];
    }

    /// <summary>Keeps a measure; one of its name is replaced.</summary>
    /// <exception cref="InvalidChangeException">Its name or its formula cannot be.</exception>
    public async Task KeepAsync(int accountId, OwnMeasure own, CancellationToken cancellation)
    {
        var kept = own with { Name = CheckedName(own.Name) };
        _ = Checked(kept);
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        // Of two who keep one at once, the second sees the first: there are never more than so many.
        await connection.ExecuteAsync("select 1 from account where id = @accountId for update", new { accountId });
        var others = await connection.ExecuteScalarAsync<int>(
            new CommandDefinition(
                """
                delete from own_measure where account_id = @accountId and lower(name) = lower(@Name);
                select count(*)::int from own_measure where account_id = @accountId
                """,
                new { accountId, kept.Name },
                cancellationToken: cancellation
            )
        );
        if (others >= MostOwn)
        {
            throw new InvalidChangeException(
                "name",
                $"There are {MostOwn} measures of your own already. Remove one first."
            );
        }

        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                insert into own_measure (account_id, name, formula, form) values (@accountId, @Name, @Formula, @form);
                -- Its name may be written otherwise now: alerts go by it all the same.
                update alert set measure = @Key where account_id = @accountId and lower(measure) = lower(@Key)
                """,
                new
                {
                    accountId,
                    kept.Key,
                    kept.Name,
                    kept.Formula,
                    form = (short)kept.Form,
                },
                cancellationToken: cancellation
            )
        );
        await transaction.CommitAsync(cancellation);
    }

    /// <summary>Removes a measure, unless an alert goes by it.</summary>
    /// <returns>False where there was none.</returns>
    /// <exception cref="InvalidChangeException">An alert goes by it.</exception>
    public async Task<bool> RemoveAsync(int accountId, string name, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await connection.ExecuteAsync("select 1 from account where id = @accountId for update", new { accountId });
        if (
            await connection.ExecuteScalarAsync<bool>(
                new CommandDefinition(
                    "select exists (select from alert where account_id = @accountId and lower(measure) = lower(@key))",
                    new { accountId, key = OwnMeasure.KeyPrefix + name },
                    cancellationToken: cancellation
                )
            )
        )
        {
            throw new InvalidChangeException("name", $"An alert goes by “{name}”. Remove the alert first.");
        }

        var removed = await connection.ExecuteAsync(
            new CommandDefinition(
                "delete from own_measure where account_id = @accountId and lower(name) = lower(@name)",
                new { accountId, name },
                cancellationToken: cancellation
            )
        );
        await transaction.CommitAsync(cancellation);
        return removed > 0;
    }

    /// <summary>The measure, ready to be asked.</summary>
    /// <exception cref="InvalidChangeException">Its formula cannot be; the message names the character.</exception>
    public static Measure Checked(OwnMeasure own)
    {
        try
        {
            return own.ToMeasure();
        }
        catch (FormulaException wrong)
        {
            throw Told(wrong);
        }
    }

    /// <summary>What is wrong with a formula, as an error of its field.</summary>
    public static InvalidChangeException Told(FormulaException wrong) =>
        new("formula", wrong.At > 0 ? $"At character {wrong.At}: {wrong.Message}" : wrong.Message);

    private static string CheckedName(string name)
    {
        var trimmed = name.Trim();
        return trimmed.Length is 0 or > OwnMeasure.LongestName
            || trimmed.Any(character => char.IsControl(character) || character is ',' or '/')
                ? throw new InvalidChangeException(
                    "name",
                    $"Give it a name of at most {OwnMeasure.LongestName} characters, without commas and slashes."
                )
            : ResultMeasures.All.Any(known => known.Title.Equals(trimmed, StringComparison.OrdinalIgnoreCase))
                ? throw new InvalidChangeException("name", $"“{trimmed}” is a measure already. Choose another name.")
            : trimmed;
    }
}
