using System.Net;
using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests;

/// <summary>Second looks: an editor asks, a publisher sees just these changes, and publishes or returns them.</summary>
[Collection(nameof(ServerFixture))]
public class LookTests(ServerFixture fixture)
{
    private sealed record Story(int Account, Visitor Owner, Visitor Editor, JsonElement[] Lines) : IDisposable
    {
        public string Path => $"/api/accounts/{Account}";

        public void Dispose()
        {
            Owner.Dispose();
            Editor.Dispose();
        }
    }

    /// <summary>Three new campaigns that an editor has made.</summary>
    private async Task<Story> BeginAsync()
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        var editor = await fixture.Host.AddPersonAsync(AccountRole.Editor, account, "Isla Reid");
        foreach (var name in new[] { "North", "South", "West" })
        {
            await editor.PostAsync(
                $"/api/accounts/{account}/commands",
                new
                {
                    type = "put",
                    kind = "campaign",
                    values = new { name, dailyBudget = "20" },
                }
            );
        }

        var pending = await editor.ReadAsync($"/api/accounts/{account}/pending");
        return new Story(
            account,
            owner,
            editor,
            [
                .. pending
                    .GetProperty("lines")
                    .EnumerateArray()
                    .Where(line => line.GetProperty("kind").GetString() == "campaign"),
            ]
        );
    }

    private static object Of(JsonElement line) =>
        new { kind = line.GetProperty("kind").GetString(), id = line.GetProperty("id").GetInt64() };

    private static async Task<long> AskAsync(Story story, params JsonElement[] lines) =>
        (
            await story.Editor.PostAsync(
                $"{story.Path}/looks",
                new { items = lines.Select(Of).ToArray(), note = "Are the budgets right?" }
            )
        )
            .GetProperty("id")
            .GetInt64();

    private static async Task<string> StateAsync(Story story, long look) =>
        (await story.Editor.ReadAsync($"{story.Path}/looks/{look}"))
            .GetProperty("look")
            .GetProperty("state")
            .GetString()!;

    [Fact]
    public async Task A_publisher_sees_just_what_was_asked_about_and_publishes_just_that()
    {
        using var story = await BeginAsync();
        var look = await AskAsync(story, story.Lines[0], story.Lines[1]);

        var read = await story.Owner.ReadAsync($"{story.Path}/looks/{look}");
        read.GetProperty("lines").GetArrayLength().ShouldBe(2);
        read.GetProperty("look").GetProperty("note").GetString().ShouldBe("Are the budgets right?");
        await story.Owner.PostAsync(
            $"{story.Path}/looks/{look}/publish",
            new { shown = new { asOf = read.GetProperty("asOf").GetInt64(), items = 2 } }
        );

        (await StateAsync(story, look)).ShouldBe("published");
        for (var times = 0; times < 100 && await WaitingAsync() != 1; times++)
        {
            await Task.Delay(100);
        }

        (await WaitingAsync()).ShouldBe(1);

        async Task<int> WaitingAsync() =>
            (await story.Owner.ReadAsync($"{story.Path}/pending"))
                .GetProperty("lines")
                .EnumerateArray()
                .Count(line => line.GetProperty("kind").GetString() == "campaign");
    }

    [Fact]
    public async Task A_look_comes_back_with_words_is_asked_for_once_more_and_is_taken_back()
    {
        using var story = await BeginAsync();
        var look = await AskAsync(story, story.Lines[0]);

        using var without = await story.Owner.SendAsync(
            HttpMethod.Post,
            $"{story.Path}/looks/{look}/return",
            new { text = " " }
        );
        without.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (
            await story.Owner.SendAsync(
                HttpMethod.Post,
                $"{story.Path}/looks/{look}/return",
                new { text = "30 rather than 20.", about = Of(story.Lines[0]) }
            )
        ).EnsureSuccessStatusCode();

        (await StateAsync(story, look)).ShouldBe("returned");
        var remark = (await story.Editor.ReadAsync($"{story.Path}/looks/{look}"))
            .GetProperty("remarks")
            .EnumerateArray()
            .Single();
        remark.GetProperty("itemId").GetInt64().ShouldBe(story.Lines[0].GetProperty("id").GetInt64());
        (await story.Editor.SendAsync(HttpMethod.Post, $"{story.Path}/looks/{look}/again")).EnsureSuccessStatusCode();
        (await StateAsync(story, look)).ShouldBe("open");
        (
            await story.Editor.SendAsync(HttpMethod.Post, $"{story.Path}/looks/{look}/withdraw")
        ).EnsureSuccessStatusCode();
        (await StateAsync(story, look)).ShouldBe("withdrawn");
    }

    [Fact]
    public async Task What_was_changed_since_it_was_shown_is_not_published_unseen()
    {
        using var story = await BeginAsync();
        var look = await AskAsync(story, story.Lines[0]);
        var read = await story.Owner.ReadAsync($"{story.Path}/looks/{look}");
        await story.Editor.PostAsync(
            $"{story.Path}/commands",
            new
            {
                type = "setFields",
                where = new { kind = "campaign" },
                values = new { dailyBudget = "2000" },
            }
        );

        using var response = await story.Owner.SendAsync(
            HttpMethod.Post,
            $"{story.Path}/looks/{look}/publish",
            new { shown = new { asOf = read.GetProperty("asOf").GetInt64(), items = 1 } }
        );

        response.StatusCode.ShouldBe(HttpStatusCode.PreconditionFailed);
        (await StateAsync(story, look)).ShouldBe("open");
    }

    /// <summary>What is new around it goes out with it, so it is looked at with it.</summary>
    [Fact]
    public async Task Whoever_looks_sees_all_that_would_go_out()
    {
        using var story = await BeginAsync();
        await story.Editor.PostAsync(
            $"{story.Path}/commands",
            new
            {
                type = "put",
                kind = "adGroup",
                values = new { name = "Tuning", maxCpc = "0.90" },
                place = new { campaignIds = new[] { story.Lines[0].GetProperty("id").GetInt64() } },
            }
        );
        var group = (await story.Editor.ReadAsync($"{story.Path}/pending"))
            .GetProperty("lines")
            .EnumerateArray()
            .Single(line => line.GetProperty("kind").GetString() == "adGroup");

        var look = await AskAsync(story, group);

        (await story.Owner.ReadAsync($"{story.Path}/looks/{look}"))
            .GetProperty("lines")
            .EnumerateArray()
            .Select(line => line.GetProperty("name").GetString())
            .ShouldBe([story.Lines[0].GetProperty("name").GetString(), "Tuning"], ignoreOrder: true);
    }

    [Fact]
    public async Task What_was_changed_since_it_was_asked_for_is_named_until_it_is_asked_for_once_more()
    {
        using var story = await BeginAsync();
        var look = await AskAsync(story, story.Lines[0], story.Lines[1]);
        await story.Editor.PostAsync(
            $"{story.Path}/commands",
            new
            {
                type = "setFields",
                items = new[] { Of(story.Lines[0]) },
                values = new { dailyBudget = "31" },
            }
        );
        async Task<long[]> ChangedAsync() =>
            [
                .. (await story.Owner.ReadAsync($"{story.Path}/looks/{look}"))
                    .GetProperty("changedSince")
                    .EnumerateArray()
                    .Select(item => item.GetProperty("id").GetInt64()),
            ];

        (await ChangedAsync()).ShouldBe([story.Lines[0].GetProperty("id").GetInt64()]);
        (
            await story.Owner.SendAsync(HttpMethod.Post, $"{story.Path}/looks/{look}/return", new { text = "Why 31?" })
        ).EnsureSuccessStatusCode();
        (await story.Editor.SendAsync(HttpMethod.Post, $"{story.Path}/looks/{look}/again")).EnsureSuccessStatusCode();
        (await ChangedAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task An_editor_does_not_stop_a_publish()
    {
        using var story = await BeginAsync();
        var job = await story.Owner.PostAsync($"{story.Path}/publishes", new { });

        using var response = await story.Editor.SendAsync(
            HttpMethod.Post,
            $"{story.Path}/jobs/{job.GetProperty("id").GetInt64()}/cancel"
        );

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await response.Content.ReadAsStringAsync()).ShouldContain("you may change the working copy, and not publish");
    }

    [Fact]
    public async Task Only_whoever_asked_takes_it_back()
    {
        using var story = await BeginAsync();
        var look = await AskAsync(story, story.Lines[0]);

        using var response = await story.Owner.SendAsync(HttpMethod.Post, $"{story.Path}/looks/{look}/withdraw");

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task Nothing_of_another_account_is_asked_about()
    {
        using var story = await BeginAsync();
        using var other = await BeginAsync();

        using var response = await story.Editor.SendAsync(
            HttpMethod.Post,
            $"{story.Path}/looks",
            new { items = new[] { Of(other.Lines[0]) } }
        );

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await story.Editor.ReadAsync($"{story.Path}/looks")).GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task A_remark_hangs_on_an_item_of_the_look_only()
    {
        using var story = await BeginAsync();
        var look = await AskAsync(story, story.Lines[0]);

        using var response = await story.Owner.SendAsync(
            HttpMethod.Post,
            $"{story.Path}/looks/{look}/remarks",
            new { text = "This one?", about = Of(story.Lines[1]) }
        );

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }
}
