using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Npgsql;

namespace Fendrik.Data.Sheets;

/// <summary>How a sheet looks: what it shows, in which order, with which columns.</summary>
/// <param name="Request">Filter and order.</param>
/// <param name="Columns">Keys of the columns in their order.</param>
/// <param name="Results">What stands in the address of Results where it was saved there; none for a sheet.</param>
public sealed record SheetLook(
    SheetRequest Request,
    IReadOnlyList<string> Columns,
    IReadOnlyDictionary<string, string>? Results = null
);

/// <summary>A look with the name that a person gave it.</summary>
public sealed record NamedView(string Name, SheetLook Look);

/// <summary>Keeps each person's looks at an account.</summary>
public sealed class SavedViews(NpgsqlDataSource source)
{
    private const int LongestName = 80;
    private const int MostViews = 100;
    private const int MostParts = 30;
    private const int LongestPart = 1_000;

    public async Task<IReadOnlyList<NamedView>> ListAsync(
        int accountId,
        string personId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<(string Name, string Body)>(
            new CommandDefinition(
                "select name, body::text from saved_view where account_id = @accountId and person_id = @personId order by lower(name)",
                new { accountId, personId },
                cancellationToken: cancellation
            )
        );
        return
        [
            .. rows.Select(row => new NamedView(
                row.Name,
                JsonSerializer.Deserialize<SheetLook>(row.Body, StoredJson.Options)!
            )),
        ];
    }

    public async Task SaveAsync(
        int accountId,
        string personId,
        string name,
        SheetLook look,
        CancellationToken cancellation
    )
    {
        var reading = new TextValue(LongestName).Read(name, ReadingGround.Plain(Currency.Of("GBP")));
        if (reading.Problem is not null || string.IsNullOrWhiteSpace(name))
        {
            throw new InvalidChangeException("name", $"The name of the view {reading.Problem ?? "is missing"}.");
        }

        var checkedName = (string)reading.Value!;
        if (look.Columns.Count > 60)
        {
            throw new InvalidChangeException("columns", "A view has at most 60 columns.");
        }

        if (
            look.Results is { } address
            && (address.Count > MostParts || address.Any(part => part.Key.Length + part.Value.Length > LongestPart))
        )
        {
            throw new InvalidChangeException("results", "That is no address of results.");
        }

        // A filter that cannot be read is told now, not when the view is opened.
        _ = SheetSql.Parameters(look.Request, new SheetGround(accountId, 0, 0, default));
        await using var connection = await source.OpenConnectionAsync(cancellation);
        if (
            await connection.ExecuteScalarAsync<int>(
                new CommandDefinition(
                    "select count(*) from saved_view where account_id = @accountId and person_id = @personId and name <> @checkedName",
                    new
                    {
                        accountId,
                        personId,
                        checkedName,
                    },
                    cancellationToken: cancellation
                )
            ) >= MostViews
        )
        {
            throw new InvalidChangeException("name", $"There are {MostViews} views already. Remove one first.");
        }

        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                insert into saved_view (account_id, person_id, name, body) values (@accountId, @personId, @checkedName, @body::jsonb)
                on conflict (account_id, person_id, name) do update set body = excluded.body
                """,
                new
                {
                    accountId,
                    personId,
                    checkedName,
                    body = JsonSerializer.Serialize(
                        look with
                        {
                            Request = look.Request with { Offset = 0, Limit = 100 },
                        },
                        StoredJson.Options
                    ),
                },
                cancellationToken: cancellation
            )
        );
    }

    public async Task<bool> RemoveAsync(int accountId, string personId, string name, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteAsync(
                new CommandDefinition(
                    "delete from saved_view where account_id = @accountId and person_id = @personId and name = @name",
                    new
                    {
                        accountId,
                        personId,
                        name,
                    },
                    cancellationToken: cancellation
                )
            ) > 0;
    }

    /// <summary>The labels in use, with the number of items that have each.</summary>
    public async Task<IReadOnlyList<(string Label, long Items)>> LabelsAsync(
        int accountId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var labels = await connection.QueryAsync<(string, long)>(
            new CommandDefinition(
                $"""
            select label, count(*) from ({string.Join(
                " union all ",
                ItemTable.All.Select(table =>
                    $"select unnest(labels) as label from {table.Name} where account_id = @accountId and labels <> '{{}}' and not removed"
                )
            )}) l group by label order by count(*) desc, label limit 200
            """,
                new { accountId },
                cancellationToken: cancellation
            )
        );
        return [.. labels];
    }
}
