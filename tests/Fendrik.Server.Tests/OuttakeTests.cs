using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.Json;
using Dapper;
using Fendrik.Tests.Shared;
using Npgsql;

namespace Fendrik.Server.Tests;

[Collection(nameof(ServerFixture))]
public class OuttakeTests(ServerFixture fixture)
{
    private const string List =
        "campaign,daily budget,ad group,keyword,match type,max cpc\nNorth,25,Tuning,piano tuning,exact,1.30\n";

    private async Task<(Visitor Visitor, string Path)> AccountAsync()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        var path = $"/api/accounts/{account}";
        await BringInAsync(visitor, path, account, Encoding.UTF8.GetBytes(List));
        return (visitor, path);
    }

    private static async Task BringInAsync(Visitor visitor, string path, int account, byte[] file)
    {
        var intake = await visitor.UploadAsync($"{path}/intakes", file);
        await visitor.JobAsync(account, intake.GetProperty("job"));
        await visitor.JobAsync(
            account,
            await visitor.PostAsync($"{path}/intakes/{intake.GetProperty("intakeId").GetInt64()}/keep")
        );
    }

    [Fact]
    public async Task A_file_that_was_asked_for_is_fetched_as_a_download_and_brought_into_another_account()
    {
        var (visitor, path) = await AccountAsync();
        var asked = await visitor.PostAsync($"{path}/outtakes", new { form = "json" });

        using var response = await visitor.GetAsync($"{path}/outtakes/{asked.GetProperty("id").GetGuid()}/file");
        response.Content.Headers.ContentDisposition!.DispositionType.ShouldBe("attachment");
        response
            .Content.Headers.ContentDisposition.FileNameStar.ShouldNotBeNull()
            .ShouldStartWith("Tarn Fell Pianos 20");
        var file = await response.Content.ReadAsByteArrayAsync();

        var (other, otherVisitor, _) = await fixture.Host.NewAccountAsync();
        await BringInAsync(otherVisitor, $"/api/accounts/{other}", other, file);
        var sheet = await otherVisitor.PostAsync($"/api/accounts/{other}/sheet", new { kind = "keyword" });
        sheet.GetProperty("rows")[0].GetProperty("values").GetProperty("maxCpc").GetDecimal().ShouldBe(1.30m);
    }

    [Fact]
    public async Task A_part_is_taken_out_by_the_filter_of_the_sheet()
    {
        var (visitor, path) = await AccountAsync();
        var asked = await visitor.PostAsync(
            $"{path}/outtakes",
            new { form = "csv", where = new { kind = "campaign", text = "nor" } }
        );

        var text = await (
            await visitor.GetAsync($"{path}/outtakes/{asked.GetProperty("id").GetGuid()}/file")
        ).Content.ReadAsStringAsync();

        text.Split("\r\n", StringSplitOptions.RemoveEmptyEntries).Length.ShouldBe(2);
    }

    [Fact]
    public async Task Nobody_else_fetches_what_somebody_asked_for()
    {
        var (visitor, path) = await AccountAsync();
        var asked = await visitor.PostAsync($"{path}/outtakes", new { form = "csv" });
        var (other, stranger, _) = await fixture.Host.NewAccountAsync();

        using var mine = await stranger.GetAsync($"{path}/outtakes/{asked.GetProperty("id").GetGuid()}/file");
        using var theirs = await stranger.GetAsync(
            $"/api/accounts/{other}/outtakes/{asked.GetProperty("id").GetGuid()}/file"
        );

        mine.StatusCode.ShouldBeOneOf(HttpStatusCode.Forbidden, HttpStatusCode.NotFound);
        theirs.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Nothing_that_matches_is_said_before_a_file_begins()
    {
        var (visitor, path) = await AccountAsync();
        var asked = await visitor.PostAsync(
            $"{path}/outtakes",
            new { form = "xlsx", where = new { kind = "keyword", text = "no such words" } }
        );

        using var response = await visitor.GetAsync($"{path}/outtakes/{asked.GetProperty("id").GetGuid()}/file");

        ((int)response.StatusCode).ShouldBeInRange(400, 499);
        (await response.Content.ReadAsStringAsync()).ShouldContain("None of the selected items");
    }

    [Fact]
    public async Task The_template_is_a_workbook()
    {
        var (visitor, path) = await AccountAsync();

        var file = await (await visitor.GetAsync($"{path}/intakes/template")).Content.ReadAsByteArrayAsync();

        using var archive = new ZipArchive(new MemoryStream(file));
        archive.Entries.ShouldContain(entry => entry.FullName == "xl/workbook.xml");
    }

    [Fact]
    public async Task A_command_is_done_once_however_often_it_is_sent_under_one_name()
    {
        var (visitor, path) = await AccountAsync();
        var name = Guid.NewGuid();

        var first = await SendAsync(visitor, path, name);
        var second = await SendAsync(visitor, path, name);

        second.GetProperty("stepId").GetInt64().ShouldBe(first.GetProperty("stepId").GetInt64());
        var sheet = await visitor.PostAsync($"{path}/sheet", new { kind = "keyword" });
        sheet.GetProperty("rows")[0].GetProperty("values").GetProperty("maxCpc").GetDecimal().ShouldBe(1.43m);
    }

    [Fact]
    public async Task What_became_of_a_command_can_be_asked_afterwards()
    {
        var (visitor, path) = await AccountAsync();
        var name = Guid.NewGuid();
        (await visitor.GetAsync($"{path}/commands/{name}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        await SendAsync(visitor, path, name);

        (await visitor.ReadAsync($"{path}/commands/{name}"))
            .GetProperty("label")
            .GetString()
            .ShouldBe("Raise max CPC by 10% on 1 keyword");
    }

    [Fact]
    public async Task A_list_being_brought_in_when_the_server_stops_comes_in_once_after_the_restart()
    {
        await using var host = await ServerHost.StartAsync();
        var (account, visitor, _) = await host.NewAccountAsync();
        var path = $"/api/accounts/{account}";
        var intake = await visitor.UploadAsync($"{path}/intakes", Encoding.UTF8.GetBytes(List));
        await visitor.JobAsync(account, intake.GetProperty("job"));
        JsonElement job;
        await using (var connection = new NpgsqlConnection(host.Database))
        {
            // Whoever holds the account makes the intake wait in its middle.
            await connection.OpenAsync();
            await using var held = await connection.BeginTransactionAsync();
            await connection.ExecuteAsync("select from account where id = @account for update", new { account });
            job = await visitor.PostAsync($"{path}/intakes/{intake.GetProperty("intakeId").GetInt64()}/keep");
            await WaitForLockAsync(host);

            await host.RestartAsync();
        }

        using var after = new Visitor(host.Address, visitor.Email);
        (await after.SignInAsync(ServerHost.Password)).ShouldBe(HttpStatusCode.NoContent);
        var ended = await after.JobAsync(account, job);
        ended.GetProperty("state").GetString().ShouldBe("done");
        ended.GetProperty("message").GetString().ShouldBe("Bring in 3 items from pasted list");
        (await after.ReadAsync($"{path}/history")).GetArrayLength().ShouldBe(1);
    }

    private static async Task WaitForLockAsync(ServerHost host)
    {
        for (var look = 0; look < 200; look++)
        {
            if (
                await host.QueryAsync<bool>(
                    "select exists (select from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock')"
                )
            )
            {
                return;
            }

            await Task.Delay(25);
        }

        throw new TimeoutException("Nobody waits.");
    }

    private static Task<JsonElement> SendAsync(Visitor visitor, string path, Guid name) =>
        visitor.PostAsync(
            $"{path}/commands",
            new
            {
                type = "setFields",
                where = new { kind = "keyword" },
                values = new { maxCpc = "+10%" },
            },
            name
        );
}
