using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests;

/// <summary>Hours and modifiers through the API, as the front end asks for them.</summary>
[Collection(nameof(ServerFixture))]
public class PricingTests(ServerFixture fixture)
{
    private static string Of(int account, string path) => $"/api/accounts/{account}/{path}";

    private async Task<(int Account, Visitor Visitor, long Campaign)> WithHoursAsync()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        await visitor.PostAsync(
            Of(account, "commands"),
            new
            {
                type = "put",
                kind = "campaign",
                values = new
                {
                    name = "North",
                    dailyBudget = 25m,
                    hours = "Mon-Fri 08:00-18:00 +20%",
                },
                place = new { },
            }
        );
        var page = await visitor.PostAsync(Of(account, "sheet"), new { offset = 0, limit = 100 });
        return (account, visitor, page.GetProperty("rows")[0].GetProperty("id").GetInt64());
    }

    private static async Task<(HttpStatusCode Status, string Text)> AnswerAsync(HttpResponseMessage response) =>
        (response.StatusCode, await response.Content.ReadAsStringAsync());

    [Fact]
    public async Task The_week_of_a_campaign_has_168_hours_with_what_shows_in_each()
    {
        var (account, visitor, campaign) = await WithHoursAsync();
        using var _ = visitor;

        var hours = await visitor.PostAsync(Of(account, "hours"), new { campaigns = new[] { campaign }, weeks = 8 });

        var week = hours.GetProperty("week").EnumerateArray().ToArray();
        week.Length.ShouldBe(168);
        (week[8].GetProperty("day").GetString(), week[8].GetProperty("says").GetString()).ShouldBe(
            ("monday", "shows, bid +20%")
        );
        week[7].GetProperty("says").GetString().ShouldBe("does not show");
        hours.GetProperty("campaigns")[0].GetProperty("hours").GetDecimal().ShouldBe(50);
        hours.GetProperty("oddDays").GetArrayLength().ShouldBe(2);
    }

    [Theory]
    [InlineData("GET", "bids/campaigns?weeks=99", "weeks")]
    [InlineData("GET", "bids/campaigns/{0}?half=5&nineTenths=4", "half")]
    public async Task What_cannot_be_asked_names_the_field(string method, string path, string field)
    {
        var (account, visitor, campaign) = await WithHoursAsync();
        using var _ = visitor;

        using var response = await visitor.SendAsync(
            new HttpMethod(method),
            Of(account, string.Format(path, campaign))
        );

        var (status, text) = await AnswerAsync(response);
        status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        text.ShouldContain($"\"{field}\"");
    }

    [Theory]
    [InlineData(485, 600, null)]
    [InlineData(480, 480, null)]
    [InlineData(480, 600, "much")]
    public async Task A_part_of_the_week_that_cannot_be_is_refused(int from, int to, string? modifier)
    {
        var (account, visitor, campaign) = await WithHoursAsync();
        using var _ = visitor;

        using var response = await visitor.SendAsync(
            HttpMethod.Post,
            Of(account, "hours/part"),
            new
            {
                campaigns = new[] { campaign },
                weeks = 8,
                spans = new[]
                {
                    new
                    {
                        day = "monday",
                        from,
                        to,
                    },
                },
                modifier,
                target = (string?)null,
            }
        );

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task Hours_go_out_as_a_calendar_and_come_back_the_same()
    {
        var (account, visitor, campaign) = await WithHoursAsync();
        using var _ = visitor;
        using var response = await visitor.SendAsync(HttpMethod.Get, Of(account, $"hours/{campaign}.ics"));
        response.Content.Headers.ContentType!.MediaType.ShouldBe("text/calendar");

        var read = await visitor.PostAsync(
            Of(account, "hours/calendar"),
            new { text = await response.Content.ReadAsStringAsync() }
        );

        read.GetProperty("plan").GetString().ShouldBe("Mon-Fri 08:00-18:00 +20%");
    }

    [Fact]
    public async Task Money_moves_to_an_account_of_the_same_person_and_to_no_other()
    {
        var (account, visitor, campaign) = await WithHoursAsync();
        var (others, stranger, theirs) = await WithHoursAsync();
        using var _ = visitor;
        using var __ = stranger;
        var plan = new
        {
            weeks = 8,
            budgets = new[] { new { campaignId = campaign, budget = "20" } },
            keepsSum = true,
            proposes = false,
            otherAccountId = others,
        };
        var move = new
        {
            type = "moveMoney",
            budgets = plan.budgets,
            keepsSum = true,
            with = new
            {
                accountId = others,
                budgets = new[] { new { campaignId = theirs, budget = "30" } },
                seen = Array.Empty<object>(),
            },
        };
        foreach (var (path, body) in new (string, object)[] { ("budgets/plan", plan), ("commands", move) })
        {
            using var refused = await visitor.SendAsync(HttpMethod.Post, Of(account, path), body);
            var (status, text) = await AnswerAsync(refused);
            status.ShouldBe(HttpStatusCode.UnprocessableEntity);
            text.ShouldContain("There is no such account, or it is not yours.");
        }

        using var both = await fixture.Host.AddPersonAsync(account, more: others);
        var planned = await both.PostAsync(Of(account, "budgets/plan"), plan);
        planned
            .GetProperty("budgets")
            .EnumerateArray()
            .Select(budget => budget.GetProperty("then").GetString())
            .ShouldBe(["20.00", "30.00"]);
        (await both.PostAsync(Of(account, "commands"), move))
            .GetProperty("label")
            .GetString()
            .ShouldStartWith("Give £5.00 a day to ");
    }

    [Fact]
    public async Task A_campaign_of_another_account_has_no_segments_and_no_calendar_here()
    {
        var (_, other, campaign) = await WithHoursAsync();
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        foreach (var path in new[] { $"bids/campaigns/{campaign}", $"hours/{campaign}.ics" })
        {
            using var response = await visitor.SendAsync(HttpMethod.Get, Of(account, path));
            response.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        }

        (await visitor.PostAsync(Of(account, "hours"), new { campaigns = new[] { campaign }, weeks = 8 }))
            .GetProperty("campaigns")
            .GetArrayLength()
            .ShouldBe(0);
        other.Dispose();
        visitor.Dispose();
    }

    [Fact]
    public async Task A_plan_keeps_the_sum_and_says_when_it_cannot()
    {
        var (account, visitor, north) = await WithHoursAsync();
        using var _ = visitor;
        await visitor.PostAsync(
            Of(account, "commands"),
            new
            {
                type = "put",
                kind = "campaign",
                values = new { name = "South", dailyBudget = 20m },
                place = new { },
            }
        );
        var budgets = (await visitor.ReadAsync(Of(account, "budgets"))).GetProperty("campaigns").EnumerateArray();
        var south = budgets.Single(row => row.GetProperty("name").GetString() == "South").GetProperty("id").GetInt64();
        async Task<JsonElement> PlanAsync(string? forNorth, string? forSouth, bool keepsSum = true) =>
            await visitor.PostAsync(
                Of(account, "budgets/plan"),
                new
                {
                    weeks = 4,
                    budgets = new[]
                    {
                        new { campaignId = north, budget = forNorth },
                        new { campaignId = south, budget = forSouth },
                    },
                    keepsSum,
                    proposes = false,
                }
            );
        static string?[] Then(JsonElement plan) =>
            [.. plan.GetProperty("budgets").EnumerateArray().Select(row => row.GetProperty("then").GetString())];
        static string? Problem(JsonElement plan) => plan.GetProperty("problem").GetString();

        Then(await PlanAsync("30", null)).ShouldBe(["30.00", "15.00"]);
        Problem(await PlanAsync("50", null))!.ShouldStartWith("The others cannot give as much");
        Problem(await PlanAsync("30", "20"))!.ShouldStartWith("£5.00 a day is more than there is");
        Problem(await PlanAsync("30", "20", keepsSum: false)).ShouldBeNull();
        Problem(await PlanAsync("much", null))!.ShouldStartWith("North: Daily budget");
        // Nothing was reported yet: nothing is known of what it changes, which is not that it changes nothing.
        (await PlanAsync("30", null))
            .GetProperty("effect")
            .ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Theory]
    [InlineData("GET", "budgets?weeks=0", "weeks")]
    [InlineData("GET", "budgets/campaigns/{0}?weeks=99", "weeks")]
    public async Task Budgets_that_cannot_be_asked_for_name_the_field(string method, string path, string field) =>
        await What_cannot_be_asked_names_the_field(method, path, field);

    [Fact]
    public async Task Nobody_reads_or_plans_the_budgets_of_others()
    {
        var (account, visitor, campaign) = await WithHoursAsync();
        var (other, stranger, _) = await fixture.Host.NewAccountAsync("Another");
        using var mine = visitor;
        using var theirs = stranger;

        using var read = await stranger.GetAsync(Of(other, $"budgets/campaigns/{campaign}"));
        read.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        using var planned = await stranger.SendAsync(
            HttpMethod.Post,
            Of(other, "budgets/plan"),
            new
            {
                weeks = 4,
                budgets = new[] { new { campaignId = campaign, budget = "30" } },
                keepsSum = false,
                proposes = false,
            }
        );
        planned.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }
}
