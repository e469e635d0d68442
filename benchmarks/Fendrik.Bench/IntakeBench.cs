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
    private const int Runs = 3;

    private readonly WorkingCopy _workingCopy = new(source, TimeProvider.System);

    public async Task RunAsync()
    {
        var list = new LongList(source, Keywords);
        var file = list.File();
        var intake = await Measure.MedianAsync(Runs, async () => await list.BringInAsync(file));
        var copy = await Measure.MedianAsync(Runs, list.CopyAsync);
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

    /// <summary>A first reading after a change: nothing of it is remembered.</summary>
    private async Task AfreshAsync(SheetReader reader, int account, SheetRequest request)
    {
        await using (var connection = await source.OpenConnectionAsync())
        {
            await connection.ExecuteAsync("select account_moved(@account)", new { account });
        }

        await reader.ReadAsync(account, request, CancellationToken.None);
        await reader.CountAsync(account, request, CancellationToken.None);
    }

    private async Task SheetAsync()
    {
        var list = new LongList(source, Keywords);
        var account = await list.BringInAsync(list.File());
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
                ("landingPage", "k.landing_page, k.id"),
                ("campaign", "c.name_key, k.id"),
                ("adGroup", "g.name_key, k.id"),
            }
        )
        {
            var request = new SheetRequest { Kind = ItemKind.Keyword, Sort = sort };
            var sheet = await Measure.MedianAsync(7, () => AfreshAsync(reader, account, request));
            var sql = await Measure.MedianAsync(
                7,
                async () =>
                {
                    await using var bare = await source.OpenConnectionAsync();
                    await bare.QueryAsync<SheetRow>(
                        $"""
                        select k.id, k.text as name, k.match_type as match, k.state, k.max_cpc, k.landing_page, g.name as ad_group, c.name as campaign
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
                $"first page and count of {Keywords:N0} keywords by {sort} (baseline: bare SQL of both)",
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
