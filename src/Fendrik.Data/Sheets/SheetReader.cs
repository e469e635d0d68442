using Dapper;
using Fendrik.Core.Checks;
using Fendrik.Core.Reporting;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets.Conditions;
using Npgsql;

namespace Fendrik.Data.Sheets;

/// <summary>What a reading of the sheet rests on: the account at one revision.</summary>
internal sealed record SheetGround(int AccountId, long Revision, long ReportRevision, FigurePeriod Figures);

/// <summary>
/// Reads windows of the sheet. The first rows come straight from the database; for rows further down, the order of all
/// is found once for each revision of the account, so that any place of it is as near as the first.
/// </summary>
public sealed class SheetReader(NpgsqlDataSource source) : IDisposable
{
    /// <summary>Most rows in one window.</summary>
    public const int LargestWindow = 500;

    /// <summary>Most days whose figures can stand beside the rows.</summary>
    private const int MostFigureDays = 800;

    private readonly SheetMemory _memory = new();

    public async Task<SheetPage> ReadAsync(int accountId, SheetRequest request, CancellationToken cancellation)
    {
        await using var reading = await OpenAsync(accountId, request, cancellation);
        return await ReadAsync(reading, accountId, request, cancellation);
    }

    internal async Task<SheetPage> ReadAsync(
        SheetReading reading,
        int accountId,
        SheetRequest request,
        CancellationToken cancellation
    )
    {
        request = request with
        {
            Limit = Math.Clamp(request.Limit, 1, LargestWindow),
            Offset = Math.Max(0, request.Offset),
        };
        var (connection, ground, memory) = (reading.Connection, reading.Ground, reading.Memory);
        return await SearchLimit.RunAsync(
            connection,
            request,
            async () =>
            {
                var (total, rows, counts) = request.Kind is null
                    ? await new Outline(connection, ground, request).ReadAsync(MemoryOf(memory, ground, request))
                    : await new FlatSheet(connection, ground, request, memory).ReadAsync(cancellation);
                if (memory == _memory && request.Kind is { } kind && FlatSheet.IsWalked(request, ItemTable.Of(kind)))
                {
                    FindOrderAhead(ground, request);
                }

                await AddNeedsAsync(connection, accountId, rows, cancellation);
                await AddFiguresAsync(connection, ground, rows, cancellation);
                await AddRemovalsAsync(connection, accountId, rows, cancellation);
                reading.Mark(rows);
                return new SheetPage(total, rows, counts);
            }
        );
    }

    /// <summary>How many rows a sheet has.</summary>
    public async Task<SheetCount> CountAsync(int accountId, SheetRequest request, CancellationToken cancellation)
    {
        await using var reading = await OpenAsync(accountId, request, cancellation);
        return await CountAsync(reading, request);
    }

    internal static async Task<SheetCount> CountAsync(SheetReading reading, SheetRequest request)
    {
        var (connection, ground, memory) = (reading.Connection, reading.Ground, reading.Memory);
        return await SearchLimit.RunAsync(
            connection,
            request,
            () =>
                request.Kind is null
                    ? new Outline(connection, ground, request).CountAsync(MemoryOf(memory, ground, request))
                    : new FlatSheet(connection, ground, request, memory).CountAsync()
        );
    }

    /// <summary>Adds up the figures of the usual days after a report, so that the first list by figures does not wait for it.</summary>
    public async Task AddUpFiguresAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        foreach (var type in ItemTypes.All.Where(type => type.FigureColumn is not null))
        {
            await GroundAsync(connection, accountId, new SheetRequest { Kind = type.Kind, Sort = "cost" });
        }
    }

    /// <summary>Which items of its kind a filter lets through, wherever they stand.</summary>
    public async Task<IReadOnlyList<long>> IdsAsync(
        int accountId,
        SheetRequest request,
        int most,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var ground = await GroundAsync(connection, accountId, request);
        var table = ItemTable.Of(request.Kind ?? ItemKind.Campaign);
        return await SearchLimit.RunAsync(
            connection,
            request,
            async () =>
                (
                    await connection.QueryAsync<long>(
                        new CommandDefinition(
                            $"select i.id from {SheetSql.From(request, table)} where {SheetSql.Where(request, table)} limit {most}",
                            SheetSql.Parameters(request, ground),
                            cancellationToken: cancellation
                        )
                    )
                ).AsList()
        );
    }

    /// <summary>Sums for all that a filter lets through.</summary>
    public async Task<SheetTotals> TotalsAsync(int accountId, SheetRequest request, CancellationToken cancellation)
    {
        await using var reading = await OpenAsync(accountId, request, cancellation);
        return await TotalsAsync(reading, request);
    }

    internal static async Task<SheetTotals> TotalsAsync(SheetReading reading, SheetRequest request)
    {
        var (connection, ground) = (reading.Connection, reading.Ground);
        return await SearchLimit.RunAsync(
            connection,
            request,
            () =>
                reading.Memory.KeptAsync(
                    ground,
                    request with
                    {
                        Sort = null,
                    },
                    "totals",
                    _ => 200,
                    () => SheetTotals.OfFilterAsync(connection, ground, request)
                )
        );
    }

    /// <summary>Sums for chosen items.</summary>
    public async Task<SheetTotals> TotalsAsync(
        int accountId,
        IReadOnlyList<ItemReference> items,
        SheetRequest period,
        CancellationToken cancellation
    )
    {
        await using var reading = await OpenAsync(accountId, period, cancellation);
        return await SheetTotals.OfItemsAsync(reading.Connection, reading.Ground, items);
    }

    /// <summary>The place of an item in the sheet, or none where the filter hides it.</summary>
    public async Task<long?> PlaceAsync(
        int accountId,
        SheetRequest request,
        ItemReference item,
        CancellationToken cancellation
    )
    {
        await using var reading = await OpenAsync(accountId, request, cancellation);
        return await PlaceAsync(reading, request, item);
    }

    internal static async Task<long?> PlaceAsync(SheetReading reading, SheetRequest request, ItemReference item)
    {
        var (connection, ground, memory) = (reading.Connection, reading.Ground, reading.Memory);
        return await SearchLimit.RunAsync(
            connection,
            request,
            async () =>
            {
                if (request.Kind is null)
                {
                    return await new Outline(connection, ground, request).PlaceAsync(
                        item,
                        MemoryOf(memory, ground, request)
                    );
                }

                if (item.Kind != request.Kind)
                {
                    return null;
                }

                return await new FlatSheet(connection, ground, request, memory).PlaceAsync(item.Id);
            }
        );
    }

    public void Dispose() => _memory.Dispose();

    /// <summary>What a reading rests on; with it, the sums of the figures that it reads are there.</summary>
    internal static async Task<SheetGround> GroundAsync(
        NpgsqlConnection connection,
        int accountId,
        SheetRequest request
    )
    {
        var (revision, reports, reportedTo) = await connection.QuerySingleAsync<(long, long, DateOnly?)>(
            "select revision, report_revision, reported_to from account where id = @accountId",
            new { accountId }
        );
        var to = request.FiguresTo ?? reportedTo ?? DateOnly.MinValue;
        var days = Math.Clamp(request.FigureDays, 1, MostFigureDays);
        var from = request.FiguresFrom ?? (to.DayNumber < days ? to : to.AddDays(1 - days));
        var ground = new SheetGround(accountId, revision, reports, new FigurePeriod(from, to));
        await SheetFigures.EnsureAsync(connection, ground, request);
        return ground;
    }

    /// <summary>Whoever went to one place will go to another: the order of all rows is found while the rows of this one are read.</summary>
    private void FindOrderAhead(SheetGround ground, SheetRequest request) =>
        _ = Task.Run(async () =>
        {
            try
            {
                await using var connection = await source.OpenConnectionAsync();
                var sheet = new FlatSheet(connection, ground, request, _memory);
                if (!sheet.IsOrderKnown)
                {
                    await sheet.FindOrderAsync();
                }
            }
            catch (Exception error) when (error is NpgsqlException or ObjectDisposedException)
            {
                // The next jump finds it itself, and tells what is wrong.
            }
        });

    private async Task<SheetReading> OpenAsync(int accountId, SheetRequest request, CancellationToken cancellation)
    {
        var connection = await source.OpenConnectionAsync(cancellation);
        try
        {
            return new SheetReading(connection, await GroundAsync(connection, accountId, request), _memory);
        }
        catch
        {
            await connection.DisposeAsync();
            throw;
        }
    }

    private static OutlineMemory MemoryOf(SheetMemory memory, SheetGround ground, SheetRequest request) =>
        new(
            find => memory.KeptAsync(ground, WithoutFolds(request), "outline", counts => counts.Size, find),
            find => memory.KeptAsync(ground, request, "layout", layout => layout.Size, find)
        );

    private static SheetRequest WithoutFolds(SheetRequest request) =>
        request with
        {
            FoldedCampaigns = [],
            FoldedAdGroups = [],
            FoldedBesides = [],
        };

    private static async Task AddNeedsAsync(
        NpgsqlConnection connection,
        int accountId,
        List<SheetRow> rows,
        CancellationToken cancellation
    )
    {
        var findings = await connection.QueryAsync<(
            short Kind,
            long ItemId,
            short Weight,
            string Message,
            string Detail,
            string? Field
        )>(
            new CommandDefinition(
                """
                select f.kind, f.item_id, f.weight, f.message, f.detail, f.field
                from unnest(@kinds, @ids) as r(kind, id) join finding f on f.account_id = @accountId and f.kind = r.kind and f.item_id = r.id
                order by f.weight desc, f.id
                """,
                new
                {
                    accountId,
                    kinds = rows.Select(row => (short)row.Kind).ToArray(),
                    ids = rows.Select(row => row.Id).ToArray(),
                },
                cancellationToken: cancellation
            )
        );
        var needs = findings.ToLookup(finding => ((ItemKind)finding.Kind, finding.ItemId));
        foreach (var row in rows)
        {
            row.Needs =
            [
                .. needs[(row.Kind, row.Id)]
                    .Select(need => new RowNeed((Weight)need.Weight, need.Message, need.Detail, need.Field)),
            ];
        }
    }

    private static async Task AddRemovalsAsync(
        NpgsqlConnection connection,
        int accountId,
        List<SheetRow> rows,
        CancellationToken cancellation
    )
    {
        var removed = rows.Where(row => row.Change == RowChange.Removed).ToArray();
        if (removed.Length == 0)
        {
            return;
        }

        var steps = await connection.QueryAsync<(long Id, string Label, string Person, DateTimeOffset MadeAt)>(
            new CommandDefinition(
                """
                select s.id, s.label, coalesce(p.display_name, '') as person, s.made_at from step s left join "AspNetUsers" p on p.id = s.person_id
                where s.id = any(@ids) and s.account_id = @accountId
                """,
                new { accountId, ids = removed.Select(row => row.Version).Distinct().ToArray() },
                cancellationToken: cancellation
            )
        );
        var byId = steps.ToDictionary(step => step.Id);
        foreach (var row in removed)
        {
            row.Removal = byId.TryGetValue(row.Version, out var step)
                ? new RowRemoval(step.Id, step.Label, step.Person, step.MadeAt)
                : null;
        }
    }

    private static async Task AddFiguresAsync(
        NpgsqlConnection connection,
        SheetGround ground,
        List<SheetRow> rows,
        CancellationToken cancellation
    )
    {
        foreach (var type in ItemTypes.All.Where(type => type.FigureColumn is not null))
        {
            var column = type.FigureColumn;
            var mine = rows.Where(row => row.Kind == type.Kind).ToDictionary(row => row.Id);
            if (mine.Count == 0)
            {
                continue;
            }

            var figures = await connection.QueryAsync<(
                long Id,
                long Impressions,
                long Clicks,
                decimal Cost,
                decimal Conversions,
                decimal Value
            )>(
                new CommandDefinition(
                    $"""
                    select {column}, sum(impressions)::bigint, sum(clicks)::bigint, sum(cost), sum(conversions), sum(value) from performance_day
                    where account_id = @AccountId and {column} = any(@ids) and day between @From and @To
                    group by {column}
                    """,
                    new
                    {
                        ground.AccountId,
                        ids = mine.Keys.ToArray(),
                        ground.Figures.From,
                        ground.Figures.To,
                    },
                    cancellationToken: cancellation
                )
            );
            foreach (var figure in figures)
            {
                mine[figure.Id].Figures = RowFigures.Of(
                    new Figures(figure.Impressions, figure.Clicks, figure.Cost, figure.Conversions, figure.Value)
                );
            }
        }
    }
}
