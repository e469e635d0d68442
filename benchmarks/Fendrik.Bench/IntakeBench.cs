using System.Diagnostics;
using System.Text;
using Dapper;
using Fendrik.Data.Intakes;
using Fendrik.Data.Model;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Bench;

/// <summary>Intake of 100,000 keywords from file to kept against COPY; first pages of the sheet against bare SQL.</summary>
internal sealed class IntakeBench(NpgsqlDataSource source)
{
    private const int Keywords = 100_000;
    private const int PerGroup = 50;
    private const int Runs = 3;

    private readonly WorkingCopy _workingCopy = new(source, TimeProvider.System);

    public async Task RunAsync()
    {
        var file = File();
        var intake = await Measure.MedianAsync(Runs, async () => await BringInAsync(await AccountAsync(), file));
        var copy = await Measure.MedianAsync(Runs, CopyAsync);
        Measure.Print(
            $"intake of {Keywords:N0} keywords, from CSV to kept (baseline: COPY)",
            intake,
            copy,
            "at most 4 ×"
        );
        Console.WriteLine(
            $"  peak memory of this process: {Process.GetCurrentProcess().PeakWorkingSet64 / (1 << 20):N0} MB (goal: under 400 MB)"
        );
        await SheetAsync();
    }

    private static byte[] File()
    {
        var text = new StringBuilder("Campaign,Ad group,Ad group max CPC,Keyword,Match type,Max CPC,Final URL\n");
        for (var row = 0; row < Keywords; row++)
        {
            var group = row / PerGroup;
            text.Append(
                $"Campaign {group / 100},Ad group {group},1.10,piano tuning number {row},{(row % 2 == 0 ? "exact" : "phrase")},{1 + row % 100 / 100m:0.00},https://tarnandfell.example/page/{row % 20}\n"
            );
        }

        return Encoding.UTF8.GetBytes(text.ToString());
    }

    private async Task<int> AccountAsync()
    {
        await using var connection = await source.OpenConnectionAsync();
        return await connection.ExecuteScalarAsync<int>(
            "insert into account (name, currency, time_zone, network_id, last_step_id) values ('bench', 'GBP', 'Europe/London', 'ostrel', 0) returning id"
        );
    }

    private async Task BringInAsync(int account, byte[] file)
    {
        var intake = await new IntakeDesk(source, TimeProvider.System).BeginAsync(
            account,
            "bench",
            "bench.csv",
            new MemoryStream(file),
            CancellationToken.None
        );
        await new IntakeReading(source, _workingCopy).ReadAsync(
            intake,
            _ => Task.CompletedTask,
            CancellationToken.None
        );
        var result = await _workingCopy.ApplyAsync(
            account,
            "bench",
            new KeepIntake(intake),
            preview: false,
            CancellationToken.None
        );
        if (result.Items != Keywords + Keywords / PerGroup + Keywords / PerGroup / 100)
        {
            throw new InvalidOperationException($"{result.Items} items came in.");
        }
    }

    /// <summary>The same rows into the same table with the same indexes, keys and triggers, by binary COPY.</summary>
    private async Task CopyAsync()
    {
        var account = await AccountAsync();
        await using var connection = await source.OpenConnectionAsync();
        await using var transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select set_config('fendrik.step', '0', true)");
        var campaign = await connection.ExecuteScalarAsync<long>(
            "insert into campaign (account_id, name, name_key, state, networks, removed, is_live, review) values (@account, 'c', 'c', 1, 1, false, false, 0) returning id",
            new { account }
        );
        var groups = (
            await connection.QueryAsync<long>(
                "insert into ad_group (account_id, campaign_id, name, name_key, state, removed, is_live, review) select @account, @campaign, 'g' || n, 'g' || n, 1, false, false, 0 from generate_series(1, @groups) n returning id",
                new
                {
                    account,
                    campaign,
                    groups = Keywords / PerGroup,
                }
            )
        ).ToArray();
        await using (
            var importer = await connection.BeginBinaryImportAsync(
                "copy keyword (account_id, ad_group_id, text, text_key, match_type, state, max_cpc, final_url, removed, is_live, review) from stdin (format binary)"
            )
        )
        {
            for (var row = 0; row < Keywords; row++)
            {
                await importer.StartRowAsync();
                await importer.WriteAsync(account, NpgsqlDbType.Integer);
                await importer.WriteAsync(groups[row / PerGroup], NpgsqlDbType.Bigint);
                await importer.WriteAsync($"piano tuning number {row}", NpgsqlDbType.Text);
                await importer.WriteAsync($"piano tuning number {row}", NpgsqlDbType.Text);
                await importer.WriteAsync((short)(1 + row % 2), NpgsqlDbType.Smallint);
                await importer.WriteAsync((short)1, NpgsqlDbType.Smallint);
                await importer.WriteAsync(1 + row % 100 / 100m, NpgsqlDbType.Numeric);
                await importer.WriteAsync($"https://tarnandfell.example/page/{row % 20}", NpgsqlDbType.Text);
                await importer.WriteAsync(false, NpgsqlDbType.Boolean);
                await importer.WriteAsync(false, NpgsqlDbType.Boolean);
                await importer.WriteAsync((short)0, NpgsqlDbType.Smallint);
            }

            await importer.CompleteAsync();
        }

        await transaction.CommitAsync();
    }

    /// <summary>A first reading after a change: nothing of it is remembered.</summary>
    private async Task AfreshAsync(SheetReader reader, int account, SheetRequest request)
    {
        await using (var connection = await source.OpenConnectionAsync())
        {
            await connection.ExecuteAsync("select account_moved(@account)", new { account });
        }

        await reader.ReadAsync(account, request, CancellationToken.None);
    }

    private async Task SheetAsync()
    {
        var account = await AccountAsync();
        await BringInAsync(account, File());
        await using var connection = await source.OpenConnectionAsync();
        await connection.ExecuteAsync("vacuum analyze");
        var reader = new SheetReader(source);
        foreach (
            var (sort, order) in new[]
            {
                ("name", "k.text_key, k.id"),
                ("match", "k.match_type, k.id"),
                ("state", "k.state, k.id"),
                ("maxCpc", "coalesce(k.max_cpc, g.max_cpc), k.id"),
                ("finalUrl", "k.final_url, k.id"),
                ("campaign", "c.name_key, k.id"),
                ("adGroup", "g.name_key, k.id"),
            }
        )
        {
            var request = new SheetRequest { View = SheetView.Keywords, Sort = sort };
            var sheet = await Measure.MedianAsync(7, () => AfreshAsync(reader, account, request));
            var sql = await Measure.MedianAsync(
                7,
                async () =>
                {
                    await using var bare = await source.OpenConnectionAsync();
                    await bare.QueryAsync<SheetRow>(
                        $"""
                        select k.id, k.text as name, k.match_type as match, k.state, k.max_cpc, k.final_url, g.name as ad_group, c.name as campaign
                        from keyword k join ad_group g on g.id = k.ad_group_id join campaign c on c.id = g.campaign_id
                        where k.account_id = @account and not k.removed order by {order} limit 100
                        """,
                        new { account }
                    );
                    await bare.ExecuteScalarAsync<long>(
                        "select count(*) from keyword where account_id = @account and not removed",
                        new { account }
                    );
                }
            );
            Measure.Print(
                $"first page of {Keywords:N0} keywords by {sort} (baseline: bare SQL, with its count)",
                sheet,
                sql,
                "at most 1.5 ×"
            );
        }

        var outline = await Measure.MedianAsync(
            7,
            () => AfreshAsync(reader, account, new SheetRequest { Offset = 50_000 })
        );
        var counting = await Measure.MedianAsync(
            7,
            async () =>
            {
                await using var bare = await source.OpenConnectionAsync();
                await bare.QueryAsync(
                    "select ad_group_id, count(*) from keyword where account_id = @account group by 1",
                    new { account }
                );
            }
        );
        Measure.Print("outline from row 50,000 (baseline: counting keywords by ad group)", outline, counting, "");
    }
}
