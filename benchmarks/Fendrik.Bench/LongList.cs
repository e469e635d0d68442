using Dapper;
using Fendrik.Data.Intakes;
using Fendrik.Data.Steps;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Bench;

/// <summary>A list of any number of keywords, fifty to an ad group, and the two ways into the database that are compared.</summary>
internal sealed class LongList(NpgsqlDataSource source, int keywords)
{
    private const int PerGroup = 50;

    private readonly WorkingCopy _workingCopy = new(source, TimeProvider.System);

    /// <summary>The list as a CSV file, on the disk so that memory is measured without it.</summary>
    /// <returns>Its path.</returns>
    public string File()
    {
        var path = Path.Combine(Path.GetTempPath(), $"fendrik-bench-{keywords}.csv");
        using var text = new StreamWriter(path);
        text.Write("Campaign,Ad group,Ad group max CPC,Keyword,Match type,Max CPC,Final URL\n");
        for (var row = 0; row < keywords; row++)
        {
            var group = row / PerGroup;
            text.Write(
                $"Campaign {group / 100},Ad group {group},1.10,piano tuning number {row},{(row % 2 == 0 ? "exact" : "phrase")},{1 + row % 100 / 100m:0.00},https://tarnandfell.example/page/{row % 20}\n"
            );
        }

        return path;
    }

    private async Task<int> AccountAsync()
    {
        await using var connection = await source.OpenConnectionAsync();
        return await connection.ExecuteScalarAsync<int>(
            "insert into account (name, currency, time_zone, network_id, last_step_id) values ('bench', 'GBP', 'Europe/London', 'ostrel', 0) returning id"
        );
    }

    /// <summary>From the file to the working copy, as a person brings it in.</summary>
    public async Task<int> BringInAsync(string path)
    {
        await using var file = System.IO.File.OpenRead(path);
        var account = await AccountAsync();
        var intake = await new IntakeDesk(source, TimeProvider.System).BeginAsync(
            account,
            "bench",
            "bench.csv",
            file,
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
        if (result.Items != keywords + keywords / PerGroup + keywords / PerGroup / 100)
        {
            throw new InvalidOperationException($"{result.Items} items came in.");
        }

        return account;
    }

    /// <summary>The same rows into the same table with the same indexes, keys and triggers, by binary COPY.</summary>
    public async Task CopyAsync()
    {
        var account = await AccountAsync();
        await using var connection = await source.OpenConnectionAsync();
        await using var transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select set_config('fendrik.step', '0', true)");
        var campaign = await connection.ExecuteScalarAsync<long>(
            "insert into campaign (account_id, name, name_key, state, rotation, delivery, people, strategy, objective, networks, removed, is_live, review) values (@account, 'c', 'c', 1, 1, 1, 1, 1, 1, 1, false, false, 0) returning id",
            new { account }
        );
        var groups = (
            await connection.QueryAsync<long>(
                "insert into ad_group (account_id, campaign_id, name, name_key, state, removed, is_live, review) select @account, @campaign, 'g' || n, 'g' || n, 1, false, false, 0 from generate_series(1, @groups) n returning id",
                new
                {
                    account,
                    campaign,
                    groups = keywords / PerGroup,
                }
            )
        ).ToArray();
        await using (
            var importer = await connection.BeginBinaryImportAsync(
                "copy keyword (account_id, ad_group_id, text, text_key, match_type, state, max_cpc, landing_page, removed, is_live, review) from stdin (format binary)"
            )
        )
        {
            for (var row = 0; row < keywords; row++)
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
}
