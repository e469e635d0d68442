using System.Net;
using System.Text.Json;
using Fendrik.Core.Networks;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests;

/// <summary>Strategies, bids and estimates through the API, with the real network behind it.</summary>
[Collection(nameof(ServerFixture))]
public class BiddingTests(ServerFixture fixture)
{
    private static string Of(int account, string path) => $"/api/accounts/{account}/{path}";

    private const string List = """
        item,campaign,daily budget,ad group,ad group max cpc,keyword,match,headline 1,headline 2,description 1,landing page
        keyword,Tuning,40,Piano tuning,1.10,piano tuning,phrase,,,,
        keyword,Tuning,40,Piano tuning,1.10,harpsichord plectrum voicing,exact,,,,
        text ad,Tuning,,Piano tuning,,,,Piano Tuning,Same Week,Pay after the last note.,https://tarnandfell.example/tuning
        """;

    private static Task PublishAsync(int account, Visitor visitor) => DoneAsync(account, visitor, "publishes", new { });

    /// <summary>Days go by on the network itself, which takes its time; the last hour and the reports come as a person asks for them.</summary>
    private async Task PassAsync(int account, Visitor visitor, int days)
    {
        await new NetworkVisitor(fixture.Host.Network, $"fendrik-{account}").AdvanceAsync(24 * days - 1);
        await DoneAsync(account, visitor, "clock", new { hours = 1 });
    }

    private static async Task DoneAsync(int account, Visitor visitor, string path, object wish)
    {
        var job = await visitor.JobAsync(account, await visitor.PostAsync(Of(account, path), wish), seconds: 90);
        job.GetProperty("state").GetString().ShouldBe("done", job.ToString());
    }

    /// <summary>A campaign that was published and has run for some days.</summary>
    private async Task<(int Account, Visitor Visitor, long Campaign)> RunningAsync(int days = 14)
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        var begun = await visitor.UploadAsync(
            Of(account, "intakes?fileName=list.csv"),
            System.Text.Encoding.UTF8.GetBytes(List)
        );
        await visitor.JobAsync(account, begun.GetProperty("job"));
        await visitor.JobAsync(
            account,
            await visitor.PostAsync(Of(account, $"intakes/{begun.GetProperty("intakeId").GetInt64()}/keep"))
        );
        await PublishAsync(account, visitor);
        await PassAsync(account, visitor, days);
        var page = await visitor.PostAsync(Of(account, "sheet"), new { kind = "campaign" });
        return (account, visitor, page.GetProperty("rows")[0].GetProperty("id").GetInt64());
    }

    [Fact]
    public async Task A_strategy_is_weighed_played_again_chosen_and_told_of_once_it_runs()
    {
        var (account, visitor, campaign) = await RunningAsync(28);
        using var _ = visitor;
        var path = Of(account, $"bids/campaigns/{campaign}/strategy");

        var thought = await visitor.ReadAsync($"{path}?strategy=maximiseConversions&weeks=4");

        thought.GetProperty("chosen").GetString().ShouldBe("manualCpc");
        thought.GetProperty("points").GetArrayLength().ShouldBeGreaterThan(0);
        var replay = thought.GetProperty("replay");
        replay.GetProperty("weeks").GetArrayLength().ShouldBeInRange(2, 4);
        replay.GetProperty("would").GetProperty("clicks").GetDecimal().ShouldBeGreaterThan(0);
        thought.GetProperty("runs").ValueKind.ShouldBe(JsonValueKind.Null);

        await visitor.PostAsync(
            Of(account, "commands"),
            new
            {
                type = "setFields",
                items = new[] { new { kind = "campaign", id = campaign } },
                values = new { strategy = "maximise conversions" },
            }
        );
        await PublishAsync(account, visitor);
        await PassAsync(account, visitor, 3);

        var runs = (await visitor.ReadAsync(path)).GetProperty("runs");
        runs.GetProperty("name").GetString().ShouldBe("maximise conversions");
        runs.GetProperty("sentences")[1].GetString()!.ShouldStartWith("It is learning:");
    }

    [Theory]
    [InlineData("strategy=targetCpa&targetCpa=-5", "targetCpa")]
    [InlineData("strategy=targetCpa", "targetCpa")]
    [InlineData("strategy=nobody", "strategy")]
    [InlineData("strategy=maximiseClicks&lowestBid=2&highestBid=1", "highestBid")]
    public async Task What_cannot_be_is_told_beside_its_field(string query, string field)
    {
        var (account, visitor, campaign) = await RunningAsync(1);
        using var _ = visitor;

        var answer = await visitor.ReadAsync(Of(account, $"bids/campaigns/{campaign}/strategy?{query}"));

        answer
            .GetProperty("problems")
            .EnumerateArray()
            .Select(problem => problem.GetProperty("field").GetString())
            .ShouldContain(field);
    }

    [Fact]
    public async Task The_network_is_asked_about_all_keywords_and_bids_are_proposed_by_what_it_says()
    {
        var (account, visitor, campaign) = await RunningAsync();
        using var _ = visitor;

        var job = await visitor.PostAsync(Of(account, $"bids/campaigns/{campaign}/estimates"), new { });
        (await visitor.JobAsync(account, job))
            .GetProperty("message")
            .GetString()
            .ShouldBe("Ostrel Search was asked about 2 keywords. It has no estimate for 1 of them.");

        var estimates = await visitor.ReadAsync(Of(account, $"bids/campaigns/{campaign}/estimates"));
        var lines = estimates.GetProperty("keywords").EnumerateArray().ToArray();
        lines[0].GetProperty("network").GetProperty("clicks").GetDecimal().ShouldBeGreaterThan(0);
        lines[0].GetProperty("own").GetProperty("clicks").GetProperty("likely").GetDecimal().ShouldBeGreaterThan(0);
        (lines[1].GetProperty("network").ValueKind, lines[1].GetProperty("networkReason").GetString()).ShouldBe(
            (JsonValueKind.Null, "Too few people search for it to tell.")
        );

        var ids = lines.Select(line => line.GetProperty("id").GetInt64()).ToArray();
        var proposals = await visitor.PostAsync(
            Of(account, $"bids/campaigns/{campaign}/proposals"),
            new
            {
                keywordIds = ids,
                goal = "top",
                ceiling = "0.20",
            }
        );
        var top = proposals.EnumerateArray().Single(each => each.GetProperty("id").GetInt64() == ids[0]);
        top.GetProperty("typed").GetString().ShouldBe("0.20");
        top.GetProperty("why").GetString()!.ShouldContain("the ceiling holds it back");
        proposals
            .EnumerateArray()
            .Single(each => each.GetProperty("id").GetInt64() == ids[1])
            .GetProperty("next")
            .ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task A_planned_change_of_bids_is_estimated_with_its_range()
    {
        var (account, visitor, campaign) = await RunningAsync();
        using var _ = visitor;

        var curve = (
            await visitor.ReadAsync(Of(account, $"bids/campaigns/{campaign}/estimates?change=%2B50%25"))
        ).GetProperty("curve");

        decimal Clicks(string week, string end) =>
            curve.GetProperty(week).GetProperty("clicks").GetProperty(end).GetDecimal();
        Clicks("planned", "likely").ShouldBeGreaterThan(Clicks("now", "likely"));
        Clicks("planned", "low").ShouldBeLessThan(Clicks("planned", "high"));
        (await visitor.ReadAsync(Of(account, $"bids/campaigns/{campaign}/estimates?change=much")))
            .GetProperty("curve")
            .GetProperty("problem")
            .GetString()
            .ShouldNotBeNull();
    }

    [Fact]
    public async Task Estimates_are_held_against_what_came_a_week_later()
    {
        var (account, visitor, campaign) = await RunningAsync();
        using var _ = visitor;
        var job = await visitor.PostAsync(Of(account, $"bids/campaigns/{campaign}/estimates"), new { });
        await visitor.JobAsync(account, job);
        await PassAsync(account, visitor, 9);

        var estimates = await visitor.ReadAsync(Of(account, $"bids/campaigns/{campaign}/estimates"));

        var compared = estimates.GetProperty("compared").EnumerateArray().ToArray();
        var known = compared.Single(each => each.GetProperty("networkClicks").ValueKind == JsonValueKind.Number);
        var came = known.GetProperty("cameClicks").GetDecimal();
        came.ShouldBeGreaterThan(0);
        // Fendrik's own rests on the same people's searches of the weeks before.
        (known.GetProperty("ownClicks").GetDecimal() / came).ShouldBeInRange(0.5m, 2);
        estimates.GetProperty("networkErrs").GetString()!.ShouldContain("1 of the 5 estimates");
    }

    [Theory]
    [InlineData("", "text")]
    [InlineData("-free", "text")]
    [InlineData("piano tuning", "bid")]
    public async Task Planned_keywords_that_cannot_be_asked_about_name_the_field(string text, string field)
    {
        var (account, visitor, campaign) = await RunningAsync(1);
        using var _ = visitor;

        using var response = await visitor.SendAsync(
            HttpMethod.Post,
            Of(account, $"bids/campaigns/{campaign}/estimates/planned"),
            new { text, bid = field == "bid" ? "much" : "1.00" }
        );

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await response.Content.ReadAsStringAsync()).ShouldContain($"\"{field}\"");
    }

    [Fact]
    public async Task More_planned_keywords_than_at_once_are_refused_with_the_number()
    {
        var (account, visitor, campaign) = await RunningAsync(1);
        using var _ = visitor;
        var most = NetworkProfile.Of("ostrel").EstimatesAtOnce;

        using var response = await visitor.SendAsync(
            HttpMethod.Post,
            Of(account, $"bids/campaigns/{campaign}/estimates/planned"),
            new { text = string.Join('\n', Enumerable.Range(0, most + 1).Select(n => $"piano {n}")), bid = "1.00" }
        );

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await response.Content.ReadAsStringAsync()).ShouldContain($"{most} keywords at once; these are {most + 1}");
    }

    [Fact]
    public async Task Planned_keywords_are_estimated_at_the_usual_bid_of_their_match_type_in_their_order()
    {
        var (account, visitor, campaign) = await RunningAsync(8);
        using var _ = visitor;

        var lines = await visitor.PostAsync(
            Of(account, $"bids/campaigns/{campaign}/estimates/planned"),
            new { text = "piano\n\"piano tuning\"\npiano tuner", bid = (string?)null }
        );

        lines
            .EnumerateArray()
            .Select(line => (line.GetProperty("text").GetString(), line.GetProperty("bid").GetDecimal()))
            .ShouldBe([("piano", 0.45m), ("piano tuning", 1.50m), ("piano tuner", 0.45m)]);
    }
}
