using System.Net;
using System.Text.Json;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests;

/// <summary>The working copy through the API, as the front end uses it.</summary>
[Collection(nameof(ServerFixture))]
public class CommandTests(ServerFixture fixture)
{
    private static string Of(int account, string path) => $"/api/accounts/{account}/{path}";

    private static async Task<JsonElement> RowAsync(int account, Visitor visitor, string name)
    {
        var page = await visitor.PostAsync(Of(account, "sheet"), new { offset = 0, limit = 100 });
        return page.GetProperty("rows").EnumerateArray().First(row => row.GetProperty("name").GetString() == name);
    }

    private async Task<(int Account, Visitor Visitor)> WithCampaignAsync()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        await visitor.PostAsync(
            Of(account, "commands"),
            new
            {
                type = "put",
                kind = "campaign",
                values = new { name = "North", dailyBudget = 25m },
                place = new { },
            }
        );
        return (account, visitor);
    }

    private static object SetBudget(JsonElement row, string value) =>
        new
        {
            type = "setFields",
            items = new[] { new { kind = "campaign", id = row.GetProperty("id").GetInt64() } },
            values = new { dailyBudget = value },
        };

    [Fact]
    public async Task Previews_a_command_and_then_does_it()
    {
        var (account, visitor) = await WithCampaignAsync();
        var row = await RowAsync(account, visitor, "North");

        var preview = await visitor.PostAsync(Of(account, "commands?preview=true"), SetBudget(row, "40"));

        preview.GetProperty("stepId").ValueKind.ShouldBe(JsonValueKind.Null);
        var difference = preview.GetProperty("changes")[0].GetProperty("differences")[0];
        (
            difference.GetProperty("field").GetString(),
            difference.GetProperty("before").GetString(),
            difference.GetProperty("after").GetString()
        ).ShouldBe(("Daily budget", "£25.00", "£40.00"));
        (await RowAsync(account, visitor, "North"))
            .GetProperty("values")
            .GetProperty("dailyBudget")
            .GetDecimal()
            .ShouldBe(25m);
        await visitor.PostAsync(Of(account, "commands"), SetBudget(row, "40"));
        (await RowAsync(account, visitor, "North"))
            .GetProperty("values")
            .GetProperty("dailyBudget")
            .GetDecimal()
            .ShouldBe(40m);
        visitor.Dispose();
    }

    [Fact]
    public async Task Names_the_field_that_is_wrong()
    {
        var (account, visitor) = await WithCampaignAsync();

        using var response = await visitor.SendAsync(
            HttpMethod.Post,
            Of(account, "commands"),
            SetBudget(await RowAsync(account, visitor, "North"), "nothing much")
        );

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        response.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json"); // RFC 9457
        var problem = JsonDocument.Parse(await response.Content.ReadAsStringAsync()).RootElement;
        problem
            .GetProperty("errors")
            .GetProperty("dailyBudget")[0]
            .GetString()
            .ShouldBe("Daily budget “nothing much” is not an amount in GBP; write it like 1.20.");
        visitor.Dispose();
    }

    [Theory]
    [InlineData("""{"type":"explode"}""")]
    [InlineData("""{"type":"remove","items":"all"}""")]
    [InlineData("""not json""")]
    public async Task Answers_a_command_that_it_cannot_read_as_a_bad_request(string body)
    {
        var (account, visitor) = await WithCampaignAsync();

        using var response = await visitor.PostTextAsync(Of(account, "commands"), body);

        response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        visitor.Dispose();
    }

    [Fact]
    public async Task Undoes_and_redoes_and_says_what()
    {
        var (account, visitor) = await WithCampaignAsync();
        (await visitor.ReadAsync(Of(account, "status")))
            .GetProperty("undoLabel")
            .GetString()
            .ShouldBe("Add campaign “North”");

        await visitor.PostAsync(Of(account, "undo"));

        var status = await visitor.ReadAsync(Of(account, "status"));
        (status.GetProperty("undoLabel").GetString(), status.GetProperty("redoLabel").GetString()).ShouldBe(
            (null, "Add campaign “North”")
        );
        await visitor.PostAsync(Of(account, "redo"));
        (await visitor.StatusAsync(account)).GetProperty("changes").GetInt64().ShouldBe(1);
        visitor.Dispose();
    }

    [Fact]
    public async Task Lists_what_is_pending_and_each_step_in_words()
    {
        var (account, visitor) = await WithCampaignAsync();

        var pending = await visitor.ReadAsync(Of(account, "pending"));
        pending.GetProperty("lines")[0].GetProperty("change").GetString().ShouldBe("new");
        var history = await visitor.ReadAsync(Of(account, "history"));
        history[0].GetProperty("person").GetString().ShouldBe("Morag Kerr");
        var step = await visitor.ReadAsync(Of(account, $"history/{history[0].GetProperty("id").GetInt64()}"));
        step[0].GetProperty("name").GetString().ShouldBe("North");
        visitor.Dispose();
    }

    [Fact]
    public async Task Finds_campaigns_ad_groups_and_keywords_by_a_part_of_their_name()
    {
        var (account, visitor) = await WithCampaignAsync();
        var campaign = (await RowAsync(account, visitor, "North")).GetProperty("id").GetInt64();
        await visitor.PostAsync(
            Of(account, "commands"),
            new
            {
                type = "put",
                kind = "adGroup",
                values = new { name = "Northern tuning", maxCpc = "1.10" },
                place = new { campaignIds = new[] { campaign } },
            }
        );

        var found = await visitor.ReadAsync(Of(account, "find?words=NORTH"));

        found.EnumerateArray().Select(place => place.GetProperty("kind").GetString()).ShouldBe(["campaign", "adGroup"]);
        (await visitor.ReadAsync(Of(account, "find?words=%25"))).GetArrayLength().ShouldBe(0);
        visitor.Dispose();
    }

    [Fact]
    public async Task Refuses_a_file_that_is_empty()
    {
        var (account, visitor) = await WithCampaignAsync();

        using var response = await visitor.PostBytesAsync(Of(account, "intakes?fileName=empty.csv"), []);

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await response.Content.ReadAsStringAsync()).ShouldContain("The file is empty");
        visitor.Dispose();
    }

    [Fact]
    public async Task Keeps_nothing_staged_of_an_intake_that_came_in()
    {
        var (account, visitor) = await WithCampaignAsync();
        var begun = await visitor.UploadAsync(
            Of(account, "intakes"),
            "campaign,ad group,keyword\nNorth,Tuning,piano\n"u8.ToArray()
        );
        await visitor.JobAsync(account, begun.GetProperty("job"));
        var intake = begun.GetProperty("intakeId").GetInt64();

        await visitor.JobAsync(account, await visitor.PostAsync(Of(account, $"intakes/{intake}/keep")));

        (
            await fixture.Host.QueryAsync<int>(
                "select count(*) from intake_row where intake_id = @intake",
                new { intake }
            )
        ).ShouldBe(0);
        (await visitor.StatusAsync(account)).GetProperty("changes").GetInt64().ShouldBe(3);
        visitor.Dispose();
    }

    [Fact]
    public async Task Forgets_an_intake_that_is_left()
    {
        var (account, visitor) = await WithCampaignAsync();
        var begun = await visitor.UploadAsync(
            Of(account, "intakes"),
            "campaign,ad group,keyword\nNorth,Tuning,piano\n"u8.ToArray()
        );
        await visitor.JobAsync(account, begun.GetProperty("job"));
        var intake = begun.GetProperty("intakeId").GetInt64();

        (await visitor.SendAsync(HttpMethod.Delete, Of(account, $"intakes/{intake}"))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );

        (await visitor.ReadAsync(Of(account, "intakes/open")))
            .GetProperty("intakeId")
            .ValueKind.ShouldBe(JsonValueKind.Null);
        (
            await fixture.Host.QueryAsync<int>(
                "select count(*) from intake_row where intake_id = @intake",
                new { intake }
            )
        ).ShouldBe(0);
        visitor.Dispose();
    }

    [Theory]
    [InlineData("""{"type":"put","kind":"campaign","values":{"name":"x"},"place":{"campaignIds":[null]}}""", "place")]
    [InlineData("""{"type":"put","kind":"planet","values":{},"place":{}}""", "kind")]
    [InlineData("""{"type":"setFields","values":null}""", "values")]
    [InlineData("""{"type":"put","kind":"campaign","values":{"name":"half \ud83d"},"place":{}}""", "values.name")]
    public async Task A_body_that_cannot_be_read_names_the_place_in_it(string body, string place)
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();

        using var response = await visitor.SendRawAsync(
            HttpMethod.Post,
            $"/api/accounts/{account}/commands",
            body,
            CancellationToken.None
        );

        response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var problem = JsonDocument.Parse(await response.Content.ReadAsStringAsync()).RootElement;
        problem.GetProperty("errors").EnumerateObject().Single().Name.ShouldStartWith(place);
        visitor.Dispose();
    }
}
