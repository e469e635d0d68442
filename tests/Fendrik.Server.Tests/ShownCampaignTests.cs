using System.Net;
using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests;

/// <summary>A campaign is shown to colleagues: all say what they think and propose, and who changes the working copy takes it over.</summary>
[Collection(nameof(ServerFixture))]
public class ShownCampaignTests(ServerFixture fixture)
{
    private sealed record Story(int Account, Visitor Owner, Visitor Reader, long Campaign, long Look) : IDisposable
    {
        public string Path => $"/api/accounts/{Account}";

        public string LookPath => $"{Path}/looks/{Look}";

        public Task<JsonElement> ReadAsync() => Owner.ReadAsync(LookPath);

        public Task<HttpResponseMessage> ProposeAsync(Visitor visitor, object command) =>
            visitor.SendAsync(HttpMethod.Post, $"{LookPath}/proposals", command);

        public object Budget(string amount) =>
            new
            {
                type = "setFields",
                items = new[] { new { kind = "campaign", id = Campaign } },
                values = new { dailyBudget = amount },
            };

        public void Dispose()
        {
            Owner.Dispose();
            Reader.Dispose();
        }
    }

    private async Task<Story> BeginAsync()
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        var reader = await fixture.Host.AddPersonAsync(AccountRole.Reader, account, "Isla Reid");
        await owner.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "put",
                kind = "campaign",
                values = new { name = "North", dailyBudget = "20" },
            }
        );
        var campaign = (await owner.ReadAsync($"/api/accounts/{account}/campaigns"))[0].GetProperty("id").GetInt64();
        var look = await owner.PostAsync(
            $"/api/accounts/{account}/looks/campaign",
            new { campaignId = campaign, note = "Is the budget right?" }
        );
        return new Story(account, owner, reader, campaign, look.GetProperty("id").GetInt64());
    }

    private static JsonElement[] Proposals(JsonElement read) => [.. read.GetProperty("proposals").EnumerateArray()];

    private async Task<decimal> BudgetAsync(Story story, long? variant)
    {
        var sheet = await story.Owner.PostAsync($"{story.Path}/sheet", new { kind = "campaign", variant });
        return sheet.GetProperty("rows")[0].GetProperty("values").GetProperty("dailyBudget").GetDecimal();
    }

    [Fact]
    public async Task A_reader_proposes_and_an_owner_takes_it_over()
    {
        using var story = await BeginAsync();

        (await story.ProposeAsync(story.Reader, story.Budget("35"))).EnsureSuccessStatusCode();

        ((await BudgetAsync(story, null)), (await BudgetAsync(story, story.Look))).ShouldBe((20m, 35m));
        var proposal = Proposals(await story.ReadAsync()).ShouldHaveSingleItem();
        proposal.GetProperty("person").GetString().ShouldBe("Isla Reid");
        var said = proposal.GetProperty("line").GetProperty("differences")[0];
        (said.GetProperty("before").GetString(), said.GetProperty("after").GetString()).ShouldBe(("£20.00", "£35.00"));

        await story.Owner.PostAsync(
            $"{story.LookPath}/proposals/take",
            new { proposals = new[] { proposal.GetProperty("id").GetInt64() } }
        );

        (await BudgetAsync(story, null)).ShouldBe(35m);
        var taken = Proposals(await story.ReadAsync()).ShouldHaveSingleItem();
        taken.GetProperty("state").GetString().ShouldBe("taken");
    }

    [Fact]
    public async Task A_reader_takes_nothing_over_and_leaves_nothing()
    {
        using var story = await BeginAsync();
        (await story.ProposeAsync(story.Reader, story.Budget("35"))).EnsureSuccessStatusCode();
        var proposals = new[] { Proposals(await story.ReadAsync())[0].GetProperty("id").GetInt64() };

        foreach (var what in new[] { "take", "leave" })
        {
            using var response = await story.Reader.SendAsync(
                HttpMethod.Post,
                $"{story.LookPath}/proposals/{what}",
                new { proposals }
            );
            response.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        }

        (await BudgetAsync(story, null)).ShouldBe(20m);
    }

    [Fact]
    public async Task A_remark_of_a_reader_hangs_on_what_it_is_about()
    {
        using var story = await BeginAsync();

        (
            await story.Reader.SendAsync(
                HttpMethod.Post,
                $"{story.LookPath}/remarks",
                new { text = "Thirty would do.", about = new { kind = "campaign", id = story.Campaign } }
            )
        ).EnsureSuccessStatusCode();

        var remark = (await story.ReadAsync()).GetProperty("remarks")[0];
        (remark.GetProperty("name").GetString(), remark.GetProperty("person").GetString()).ShouldBe(
            ("North", "Isla Reid")
        );
    }

    [Fact]
    public async Task What_is_no_matter_of_a_campaign_is_not_proposed()
    {
        using var story = await BeginAsync();

        using var response = await story.ProposeAsync(
            story.Reader,
            new
            {
                type = "decideLive",
                items = Array.Empty<object>(),
                takeTheirs = true,
            }
        );

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await response.Content.ReadAsStringAsync()).ShouldContain("decided by whoever works here");
    }

    [Fact]
    public async Task Whoever_shows_a_campaign_ends_it_and_shows_it_again_with_all_that_was_said()
    {
        using var story = await BeginAsync();
        (await story.ProposeAsync(story.Reader, story.Budget("35"))).EnsureSuccessStatusCode();
        (await story.Owner.SendAsync(HttpMethod.Post, $"{story.LookPath}/withdraw")).EnsureSuccessStatusCode();

        (await story.ReadAsync()).GetProperty("look").GetProperty("state").GetString().ShouldBe("closed");
        (await story.ProposeAsync(story.Reader, story.Budget("36"))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );

        (await story.Owner.SendAsync(HttpMethod.Post, $"{story.LookPath}/again")).EnsureSuccessStatusCode();
        Proposals(await story.ReadAsync()).Length.ShouldBe(1);
    }

    [Fact]
    public async Task A_shown_campaign_is_neither_published_nor_returned()
    {
        using var story = await BeginAsync();

        foreach (
            var (what, body) in new (string, object)[]
            {
                ("publish", new { shown = new { asOf = 1, items = 1 } }),
                ("return", new { text = "No." }),
            }
        )
        {
            using var response = await story.Owner.SendAsync(HttpMethod.Post, $"{story.LookPath}/{what}", body);
            response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        }

        (await story.ReadAsync()).GetProperty("remarks").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task What_several_propose_at_the_same_time_is_all_kept_while_the_sheet_is_read()
    {
        using var story = await BeginAsync();

        await Task.WhenAll(
            Enumerable
                .Range(0, 12)
                .Select(async place =>
                {
                    var visitor = place % 2 == 0 ? story.Owner : story.Reader;
                    (
                        await story.ProposeAsync(
                            visitor,
                            new
                            {
                                type = "put",
                                kind = "adGroup",
                                values = new { name = $"Group {place}", maxCpc = "1" },
                                place = new { campaignIds = new[] { story.Campaign } },
                            }
                        )
                    ).EnsureSuccessStatusCode();
                    await visitor.PostAsync($"{story.Path}/sheet", new { kind = "adGroup", variant = story.Look });
                })
        );

        Proposals(await story.ReadAsync()).Length.ShouldBe(12);
        (await story.Owner.PostAsync($"{story.Path}/sheet", new { kind = "adGroup", variant = story.Look }))
            .GetProperty("rows")
            .GetArrayLength()
            .ShouldBe(12);
    }
}
