using System.Net;
using System.Net.Http.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Core.Serving;
using Fendrik.Network.Serving;
using Fendrik.Network.Worlds;
using Fendrik.Tests.Shared;

namespace Fendrik.Network.Tests;

public sealed class NetworkFixture : IAsyncLifetime
{
    public NetworkHost Host { get; private set; } = null!;
    public HttpClient Http { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        Host = await NetworkHost.StartAsync();
        Http = Host.Client();
    }

    public ValueTask DisposeAsync() => Host.DisposeAsync();
}

public class NetworkTests(NetworkFixture fixture) : IClassFixture<NetworkFixture>
{
    private static readonly Campaign Tuning = new(
        1,
        "Tuning",
        ItemState.Running,
        40m,
        null,
        null,
        SiteKinds.Search | SiteKinds.Partners
    );
    private static readonly AdGroup Group = new(2, 1, "Piano tuning", ItemState.Running, 1.10m);
    private static readonly Keyword Phrase = new(3, 2, "piano tuning", MatchType.Phrase, ItemState.Running, null, null);
    private static readonly TextAd Ad = new(
        4,
        2,
        ItemState.Running,
        ["Piano Tuning", "Ask For A Price"],
        ["Same-week visits."],
        [],
        "tarnandfell.example/tuning",
        null
    );
    private static readonly DateOnly Tuesday = new(2026, 3, 17);

    private async Task<NetworkVisitor> AccountAsync(long seed = 1)
    {
        var visitor = new NetworkVisitor(fixture.Http, $"test-{Guid.NewGuid():N}");
        await visitor.SetUpAsync(seed);
        return visitor;
    }

    private async Task<List<PerformanceRow>> TuesdayAsync(long seed, params object[] items)
    {
        var visitor = await AccountAsync(seed);
        (await visitor.PutAsync(items)).ShouldAllBe(answer => answer.Verdict == NetworkVerdict.Accepted);
        await visitor.AdvanceAsync(48);
        return await visitor.ReportAsync(Tuesday);
    }

    [Fact]
    public async Task Lets_in_nobody_without_the_key()
    {
        using var stranger = fixture.Host.Client("wrong");

        (await stranger.GetAsync("v1/networks")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task Gives_the_same_figures_for_the_same_seed_and_account() =>
        (await TuesdayAsync(7, Tuning, Group, Phrase, Ad)).ShouldBe(await TuesdayAsync(7, Tuning, Group, Phrase, Ad));

    [Fact]
    public async Task Reviews_but_does_not_serve_what_nobody_pays_for_and_serves_from_the_hour_that_somebody_does()
    {
        var visitor = new NetworkVisitor(fixture.Http, $"test-{Guid.NewGuid():N}");
        await visitor.SetUpAsync(7, payer: null);
        await visitor.PutAsync(Tuning, Group, Phrase, Ad);
        await visitor.AdvanceAsync(48);
        (await visitor.ReviewsAsync()).ShouldContain(review => review.State == ReviewState.Approved);
        (await visitor.ReportAsync(Tuesday)).ShouldBeEmpty();
        (await visitor.StandingsAsync(Tuesday)).ShouldBeEmpty();

        (
            await fixture.Http.PutAsJsonAsync(
                $"v1/accounts/{visitor.AccountId}/payer",
                new AccountPayer("Tarn & Fell Pianos")
            )
        ).EnsureSuccessStatusCode();
        await visitor.AdvanceAsync(24);

        (await visitor.ReportAsync(Tuesday.AddDays(1))).ShouldNotBeEmpty();
    }

    [Fact]
    public async Task Gives_other_figures_for_another_seed() =>
        (await TuesdayAsync(7, Tuning, Group, Phrase, Ad)).ShouldNotBe(
            await TuesdayAsync(8, Tuning, Group, Phrase, Ad)
        );

    [Fact]
    public async Task Charges_no_click_above_the_max_CPC_or_below_the_floor()
    {
        var rows = (await TuesdayAsync(7, Tuning, Group, Phrase, Ad)).Where(row => row.Clicks > 0).ToArray();

        rows.ShouldNotBeEmpty();
        rows.ShouldAllBe(row => row.Cost <= row.Clicks * 1.10m && row.Cost >= row.Clicks * 0.05m);
    }

    [Fact]
    public async Task Spends_no_more_in_a_day_than_the_daily_budget()
    {
        var rows = await TuesdayAsync(7, Tuning with { DailyBudget = 5m }, Group, Phrase, Ad);

        rows.Sum(row => row.Cost).ShouldBeInRange(2m, 5m);
    }

    [Fact]
    public async Task Shows_nothing_of_a_paused_campaign() =>
        (await TuesdayAsync(7, Tuning with { State = ItemState.Paused }, Group, Phrase, Ad)).ShouldBeEmpty();

    [Fact]
    public async Task Shows_nothing_before_the_start_date() =>
        (await TuesdayAsync(7, Tuning with { StartDate = Tuesday.AddDays(1) }, Group, Phrase, Ad)).ShouldBeEmpty();

    [Fact]
    public async Task Shows_on_no_site_that_the_campaign_leaves_out() =>
        (await TuesdayAsync(7, Tuning with { Networks = SiteKinds.Search }, Group, Phrase, Ad)).ShouldAllBe(row =>
            row.Site == SiteKinds.Search
        );

    [Fact]
    public async Task Respects_negatives()
    {
        var without = await TuesdayAsync(7, Tuning, Group, Phrase, Ad);
        var with = await TuesdayAsync(
            7,
            Tuning,
            Group,
            Phrase,
            Ad,
            new NegativeKeyword(5, 1, null, "near me", MatchType.Phrase)
        );

        with.Sum(row => row.Impressions).ShouldBeLessThan(without.Sum(row => row.Impressions));
    }

    private Task<HttpResponseMessage> TraceAsync(NetworkVisitor visitor, string text) =>
        fixture.Http.PostAsJsonAsync(
            $"/v1/accounts/{visitor.AccountId}/traces",
            new TraceWish(text, Device.Phone, SiteKinds.Search)
        );

    private async Task<SearchTrace> TracedAsync(NetworkVisitor visitor, string text)
    {
        using var response = await TraceAsync(visitor, text);
        return (await response.Content.ReadFromJsonAsync<SearchTrace>())!;
    }

    [Fact]
    public async Task Traces_a_search_as_it_would_be_answered_now()
    {
        var visitor = await AccountAsync();
        await visitor.PutAsync([Tuning, Group, Phrase, Ad, new NegativeKeyword(5, 1, null, "app", MatchType.Phrase)]);

        (await TracedAsync(visitor, "piano tuning york"))
            .Keywords.ShouldHaveSingleItem()
            .Hindrance!.Kind.ShouldBe(HindranceKind.KeywordInReview);
        await visitor.AdvanceAsync(48);

        var trace = await TracedAsync(visitor, "piano tuning york");
        var own = trace.Auction!.Ladder.Single(bidder => bidder.IsOwn);
        (own.Bid, own.Quality).ShouldBe((1.10m, trace.Quality!.Score));
        trace.Shows.ShouldBe(own.Place is not null);
        (own.Price ?? 0).ShouldBeLessThanOrEqualTo(1.10m);
        (await TracedAsync(visitor, "piano tuning app")).Outcome.ShouldBe("Blocked by a negative");
    }

    [Fact]
    public async Task Traces_nothing_for_an_account_that_is_not_there_or_a_search_without_words()
    {
        using var nobody = await TraceAsync(new NetworkVisitor(fixture.Http, "nobody"), "piano");
        using var empty = await TraceAsync(await AccountAsync(), "");

        nobody.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        empty.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task Respects_a_shared_list_in_the_campaigns_that_share_it_and_in_no_other()
    {
        var negative = new NegativeKeyword(5, null, null, "near me", MatchType.Phrase, 9);
        var without = await TuesdayAsync(7, Tuning, Group, Phrase, Ad);
        var elsewhere = await TuesdayAsync(7, Tuning, Group, Phrase, Ad, new NegativeList(9, "Not us", [77]), negative);
        var with = await TuesdayAsync(7, Tuning, Group, Phrase, Ad, new NegativeList(9, "Not us", [1]), negative);

        elsewhere.Sum(row => row.Impressions).ShouldBe(without.Sum(row => row.Impressions));
        with.Sum(row => row.Impressions).ShouldBeLessThan(without.Sum(row => row.Impressions));
    }

    [Fact]
    public async Task Tells_what_changed_since_a_change_that_was_seen_and_what_is_gone()
    {
        var visitor = await AccountAsync();
        await visitor.PutAsync(Tuning, Group);
        var seen = (await visitor.ChangesAsync(0))!;

        await visitor.EditFromOutsideAsync(
            NetworkVisitor.Put(Tuning with { DailyBudget = 1 }),
            new NetworkChange(ItemKind.AdGroup, Group.Id, ChangeAction.Remove, null)
        );
        var news = (await visitor.ChangesAsync(seen.Last))!;

        seen.Items.Count.ShouldBe(2);
        news.Items.Select(item => (item.Kind, item.Item is null))
            .ShouldBe([(ItemKind.Campaign, false), (ItemKind.AdGroup, true)]);
        (await visitor.ChangesAsync(news.Last))!.Items.ShouldBeEmpty();
    }

    [Fact]
    public async Task Reports_search_terms_that_add_up_to_the_days_figures()
    {
        var visitor = await AccountAsync(7);
        await visitor.PutAsync(Tuning, Group, Phrase, Ad);
        await visitor.AdvanceAsync(72);
        var rows = await visitor.ReportAsync(Tuesday);
        var terms = (await visitor.SearchTermsAsync(Tuesday, Tuesday))!;

        terms.Sum(term => term.Impressions).ShouldBe(rows.Sum(row => row.Impressions));
        terms.Sum(term => term.Cost).ShouldBe(rows.Sum(row => row.Cost));
        terms.ShouldAllBe(term => !term.Term.Any(char.IsUpper) && term.KeywordId == Phrase.Id);
        terms.Select(term => term.Term).Distinct().Count().ShouldBe(terms.Count);
    }

    [Fact]
    public async Task Wins_more_places_for_a_higher_bid()
    {
        var low = await TuesdayAsync(7, Tuning, Group with { MaxCpc = 0.20m }, Phrase, Ad);
        var high = await TuesdayAsync(7, Tuning, Group with { MaxCpc = 2.50m }, Phrase, Ad);

        high.Sum(row => row.Clicks).ShouldBeGreaterThan(low.Sum(row => row.Clicks));
    }

    [Fact]
    public async Task Does_a_batch_once_however_often_it_comes()
    {
        var visitor = await AccountAsync();
        var first = await visitor.SendAsync("key", NetworkVisitor.Put(Tuning));

        (
            await visitor.SendAsync(
                "key",
                NetworkVisitor.Put(Tuning with { Name = "Other" }),
                NetworkVisitor.Put(Group)
            )
        ).ShouldBe(first);
        (await visitor.ItemCountAsync()).ShouldBe(1);
    }

    [Fact]
    public async Task Breaks_the_connection_after_the_work_when_told_to_and_answers_the_second_time()
    {
        var visitor = await AccountAsync();
        await visitor.FaultAsync("drop", 1);

        await Should.ThrowAsync<HttpRequestException>(() => visitor.SendAsync("key", NetworkVisitor.Put(Tuning)));
        (await visitor.ItemCountAsync()).ShouldBe(1);
        (await visitor.SendAsync("key", NetworkVisitor.Put(Tuning)))
            .ShouldHaveSingleItem()
            .Verdict.ShouldBe(NetworkVerdict.Accepted);
    }

    [Fact]
    public async Task Refuses_what_its_checks_find_and_takes_the_rest()
    {
        var visitor = await AccountAsync();

        var answers = await visitor.PutAsync(
            Tuning,
            Group,
            Ad with
            {
                Headlines = [new string('a', 33), "B"],
            },
            Phrase,
            Phrase with
            {
                Id = 9,
                AdGroupId = 99,
            }
        );

        answers.Select(answer => answer.Verdict == NetworkVerdict.Accepted).ShouldBe([true, true, false, true, false]);
        answers[2].Reason.ShouldNotBeNull().ShouldContain("33 characters");
        answers[4].Reason.ShouldNotBeNull().ShouldContain("not here");
    }

    [Fact]
    public async Task Takes_a_removed_campaign_off_with_all_in_it()
    {
        var visitor = await AccountAsync();
        await visitor.PutAsync(Tuning, Group, Phrase, Ad);

        await visitor.SendAsync(
            "remove",
            new NetworkChange(ItemKind.Campaign, 1, ChangeAction.Remove, null),
            new NetworkChange(ItemKind.AdGroup, 2, ChangeAction.Remove, null)
        );

        (await visitor.ItemCountAsync()).ShouldBe(0);
    }

    [Fact]
    public async Task Takes_off_what_is_in_the_ad_groups_of_a_campaign_that_is_removed_by_itself_and_tells_of_it()
    {
        var visitor = await AccountAsync();
        await visitor.PutAsync(Tuning, Group, Phrase, Ad, new NegativeKeyword(5, 1, 2, "app", MatchType.Phrase));
        var seen = (await visitor.ChangesAsync(0))!;

        await visitor.EditFromOutsideAsync(new NetworkChange(ItemKind.Campaign, 1, ChangeAction.Remove, null));

        (await visitor.ItemCountAsync()).ShouldBe(0);
        (await visitor.ChangesAsync(seen.Last))!
            .Items.Select(item => (item.Kind, item.Item is null))
            .ShouldBe(
                [
                    (ItemKind.Campaign, true),
                    (ItemKind.AdGroup, true),
                    (ItemKind.Keyword, true),
                    (ItemKind.TextAd, true),
                    (ItemKind.NegativeKeyword, true),
                ],
                ignoreOrder: true
            );
        (await TracedAsync(visitor, "piano tuning")).Outcome.ShouldBe("No keyword matches");
        await visitor.AdvanceAsync(1);
    }

    [Fact]
    public async Task Reads_ads_in_working_hours_and_refuses_some_wordings()
    {
        var visitor = await AccountAsync();
        await visitor.PutAsync(Tuning, Group, Ad, Ad with { Id = 5, Headlines = ["Click Here", "For Tuning"] });
        await visitor.AdvanceAsync(8);
        (await visitor.ReviewsAsync()).ShouldAllBe(review => review.State == ReviewState.Pending);

        await visitor.AdvanceAsync(4);

        var reviews = await visitor.ReviewsAsync();
        reviews.Select(review => review.State).ShouldBe([ReviewState.Approved, ReviewState.Refused]);
        reviews[1].Reason.ShouldNotBeNull().ShouldContain("click here");
    }

    /// <summary>“One number, one visit” has the words of a refused wording, but not the wording.</summary>
    [Fact]
    public async Task What_was_misread_is_let_through_when_it_is_read_again_and_what_is_refused_by_the_wording_is_not()
    {
        var visitor = await AccountAsync();
        await visitor.PutAsync(
            Tuning,
            Group,
            Ad with
            {
                Headlines = ["One Number To Ring", "For Tuning"],
            },
            Ad with
            {
                Id = 5,
                Headlines = ["Click Here", "For Tuning"],
            }
        );
        await visitor.AdvanceAsync(12);
        (await visitor.ReviewsAsync())
            .Select(review => review.Reason)
            .ShouldBe([
                "Headline 1, “One Number To Ring”: it reads like “number one”.",
                (await visitor.ReviewsAsync())[1].Reason,
            ]);

        (await visitor.AppealAsync(Ad.Id)).ShouldBe(AppealAnswer.Taken);
        (await visitor.AppealAsync(5)).ShouldBe(AppealAnswer.Taken);
        (await visitor.ReviewsAsync()).ShouldAllBe(review => review.State == ReviewState.Pending);
        await visitor.AdvanceAsync(24);

        (await visitor.ReviewsAsync())
            .Select(review => review.State)
            .ShouldBe([ReviewState.Approved, ReviewState.Refused]);
        (await visitor.AppealAsync(Ad.Id)).ShouldBe(AppealAnswer.NotRefused);
        (await visitor.AppealAsync(5)).ShouldBe(AppealAnswer.ReadAgainBefore);

        await visitor.PutAsync(Ad with { Id = 5, Headlines = ["Click Here Now", "For Tuning"] });
        await visitor.AdvanceAsync(24);
        (await visitor.AppealAsync(5)).ShouldBe(AppealAnswer.Taken);
    }

    [Fact]
    public async Task Tells_reviews_that_came_after_those_heard()
    {
        var visitor = await AccountAsync();
        await visitor.PutAsync(Tuning, Group, Ad);
        var heard = await visitor.ReviewsSinceAsync(0);

        (await visitor.ReviewsSinceAsync(heard.Last)).Reviews.ShouldBeEmpty();
        await visitor.PutAsync(Ad with { Id = 5, Headlines = ["Tuned This Week", "For Tuning"] });

        (await visitor.ReviewsSinceAsync(heard.Last)).Reviews.Select(review => review.ItemId).ShouldBe([5]);
    }

    [Fact]
    public void Reads_nothing_at_the_weekend_and_some_things_sooner_than_others()
    {
        var fridayEvening = new DateTime(2026, 3, 20, 17, 30, 0, DateTimeKind.Utc);
        var account = new NetworkAccount("a", "ostrel", "GBP", "Europe/London", 5, fridayEvening, fridayEvening);
        var monday = new DateTimeOffset(2026, 3, 23, 0, 0, 0, TimeSpan.Zero);

        var due = Reviewers.DueAt(
            account,
            NetworkProfile.Of("ostrel"),
            Enumerable.Range(1, 500).Select(id => (ItemKind.TextAd, (long)id))
        );

        // Half an hour is left on Friday; reviewers begin at eight, and take three hours at most and 85 minutes less at least.
        due.ShouldAllBe(moment =>
            moment >= monday.AddMinutes((8 * 60) + 65) && moment <= monday.AddMinutes((8 * 60) + 150)
        );
        due.Distinct().Count().ShouldBeGreaterThan(60);
    }

    [Fact]
    public async Task Refuses_what_leads_to_a_page_that_cannot_be_reached_and_names_every_text_that_it_refuses()
    {
        var (page, day) = World
            .Shipped.Pages.Where(page => page.Down.Count > 0)
            .Select(page => (page.Address, page.Down[0].First))
            .First();
        var down = new NetworkVisitor(fixture.Http, $"test-{Guid.NewGuid():N}");
        await down.SetUpAsync(1, startAt: new DateTimeOffset(day.ToDateTime(new TimeOnly(0, 0)), TimeSpan.Zero));
        await down.PutAsync(
            Tuning,
            Group,
            Ad with
            {
                LandingPage = page,
            },
            Ad with
            {
                Id = 5,
                Headlines = ["Fine", "TUNING TODAY!!"],
                Descriptions = ["Ring 0113 496 0000 now."],
            }
        );
        await down.AdvanceAsync(24 * 4);

        var reviews = (await down.ReviewsAsync()).ToDictionary(review => review.ItemId);
        reviews[Ad.Id].Reason.ShouldBe($"The landing page {page} could not be reached.");
        reviews[5]
            .Reason.ShouldBe(
                "Headline 2, “TUNING TODAY!!”: Words of more than 4 letters in capitals alone are not allowed. Write “Tuning”.\n"
                    + "Headline 2, “TUNING TODAY!!”: A mark may not be repeated. Write “!” once.\n"
                    + "Description 1, “Ring 0113 496 0000 now.”: A telephone number in a text is not allowed. Take it out."
            );
    }

    [Fact]
    public async Task Reports_the_hours_of_a_day_of_23_hours_as_the_clock_on_the_wall_shows_them()
    {
        var visitor = new NetworkVisitor(fixture.Http, $"test-{Guid.NewGuid():N}");
        await visitor.SetUpAsync(3, startAt: new DateTimeOffset(2026, 3, 27, 0, 0, 0, TimeSpan.Zero));
        await visitor.PutAsync(Tuning, Group, Phrase, Ad);
        var clock = await visitor.AdvanceAsync(71);

        clock.LastFullDay.ShouldBe(new DateOnly(2026, 3, 29));
        (await visitor.ReportAsync(new DateOnly(2026, 3, 29))).ShouldNotContain(row => row.Hour == 1);
    }

    [Fact]
    public async Task Says_what_is_wrong_with_an_account_it_cannot_serve()
    {
        var problem = await Should.ThrowAsync<HttpRequestException>(() =>
            new NetworkVisitor(fixture.Http, "x").SetUpAsync(network: "nowhere")
        );

        problem.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }
}
