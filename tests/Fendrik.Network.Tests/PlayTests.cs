using System.Net;
using System.Net.Http.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Changes;
using Fendrik.Core.Serving;
using Fendrik.Network.Serving;
using Fendrik.Network.Simulation;
using Fendrik.Network.Simulation.People;
using Fendrik.Network.Worlds;
using Fendrik.Tests.Shared;
using Npgsql;

namespace Fendrik.Network.Tests;

/// <summary>A piano workshop on the network, with budgets that run out and a keyword for almost everything.</summary>
public class PlayTests(NetworkFixture fixture) : IClassFixture<NetworkFixture>
{
    private static readonly Campaign Tuning = new(
        1,
        "Tuning",
        ItemState.Running,
        12m,
        null,
        null,
        SiteKinds.Search | SiteKinds.Partners
    );
    private static readonly Campaign All = new(
        2,
        "All",
        ItemState.Running,
        400m,
        null,
        null,
        SiteKinds.Search | SiteKinds.Content
    );
    private static readonly DateOnly Tuesday = new(2026, 3, 17);

    private static TextAd Ad(long id, long group, string headline, string page) =>
        new(
            id,
            group,
            ItemState.Running,
            [headline, "Ask For A Price"],
            ["Same-week visits across the north."],
            [],
            $"tarnandfell.example/{page}",
            null
        );

    private static readonly object[] Items =
    [
        Tuning,
        All,
        new AdGroup(10, 1, "Tuning", ItemState.Running, 1.10m),
        new AdGroup(20, 2, "Piano", ItemState.Running, 0.55m),
        new Keyword(11, 10, "piano tuning", MatchType.Phrase, ItemState.Running, null, null),
        new Keyword(12, 10, "piano tuner near me", MatchType.Exact, ItemState.Running, 1.60m, null),
        new Keyword(21, 20, "piano", MatchType.Broad, ItemState.Running, null, null),
        new NegativeKeyword(31, 2, null, "lessons", MatchType.Phrase),
        new PlacedSite(81, 2, null, "bigdays.example", ItemState.Running, PlacementSide.Out, null),
        new PlacedAudience(91, 2, null, "past visitors", ItemState.Running, AudienceUse.Observed, 20),
        new PlacedAudience(92, null, 20, "home owners", ItemState.Running, AudienceUse.Observed, null),
        Ad(41, 10, "Piano Tuning", "tuning"),
        Ad(42, 20, "Used Pianos", "sales"),
        Ad(43, 20, "A Piano Workshop", "sales"),
        new ResponsiveAd(
            44,
            10,
            ItemState.Running,
            [
                "{{ keyword | each_word | default: \"Piano Tuner\" }} [1]",
                "Tuned At Home",
                "Ask For A Price",
                "From £90",
                "Book Today",
            ],
            ["Same-week visits.", "Pay after the last note.", "One call, one price."],
            [],
            "tarnandfell.example/tuning",
            "Tuned At Home | Book Today",
            null
        ),
        new CallAd(
            45,
            10,
            ItemState.Running,
            "Tarn & Fell Pianos",
            "+441134960142",
            ["Ask A Tuner"],
            ["Ring and ask."],
            "tarnandfell.example/tuning",
            WeekHours.Of("Mon-Fri 10:00-16:00")
        ),
        (ItemKind.Callout, new PlacedExtension(51, null, null, "28 years tuning")),
        (ItemKind.Callout, new PlacedExtension(52, null, null, "Open Saturdays")),
        (ItemKind.Callout, new PlacedExtension(53, 1, null, "No call-out fee")),
        (
            ItemKind.Callout,
            new PlacedExtension(54, 1, 10, "Evening visits") with
            {
                Hours = WeekHours.Of("Mon-Fri 18:00-21:00"),
            }
        ),
        (ItemKind.Sitelink, new PlacedExtension(61, null, null, "Hire", LandingPage: "tarnandfell.example/hire")),
        (ItemKind.CallExtension, Number),
    ];

    private static PlacedExtension Number =>
        new(71, null, null, "+441134960142", Hours: WeekHours.Of("Mon-Fri 09:00-17:00"), Shows: NumberShows.WithSite);

    private async Task<NetworkVisitor> PlayedAsync(ulong seed, params int[] steps)
    {
        var visitor = new NetworkVisitor(fixture.Http, $"play-{Guid.NewGuid():N}");
        await visitor.SetUpAsync((long)seed);
        (await visitor.PutAsync(Items)).ShouldAllBe(answer => answer.Verdict == NetworkVerdict.Accepted);
        foreach (var hours in steps)
        {
            await visitor.AdvanceAsync(hours);
        }

        return visitor;
    }

    private async Task<T> ReadAsync<T>(NetworkVisitor visitor, string what) =>
        (await fixture.Http.GetFromJsonAsync<T>($"v1/accounts/{visitor.AccountId}/{what}"))!;

    private Task<List<T>> DaysAsync<T>(NetworkVisitor visitor, string what) =>
        ReadAsync<List<T>>(visitor, $"{what}?first=2026-03-16&last=2026-04-30");

    [Fact]
    public async Task Plays_the_same_days_whether_the_clock_is_moved_at_once_or_in_pieces()
    {
        var atOnce = await PlayedAsync(5, 96);
        var inPieces = await PlayedAsync(5, 11, 12, 2, 30, 41);

        (await DaysAsync<PerformanceRow>(inPieces, "reports")).ShouldBe(
            await DaysAsync<PerformanceRow>(atOnce, "reports")
        );
        (await DaysAsync<StandingRow>(inPieces, "standings")).ShouldBe(
            await DaysAsync<StandingRow>(atOnce, "standings")
        );
        (await DaysAsync<RivalRow>(inPieces, "rivals")).ShouldBe(await DaysAsync<RivalRow>(atOnce, "rivals"));
        (await DaysAsync<QualityRow>(inPieces, "qualities")).ShouldBe(await DaysAsync<QualityRow>(atOnce, "qualities"));
        (await DaysAsync<ExtensionRow>(inPieces, "extensions")).ShouldBe(
            await DaysAsync<ExtensionRow>(atOnce, "extensions")
        );
        (await DaysAsync<CombinationRow>(inPieces, "combinations"))
            .Select(ToldOf)
            .ShouldBe((await DaysAsync<CombinationRow>(atOnce, "combinations")).Select(ToldOf));
        (await DaysAsync<ReachedRow>(inPieces, "reached")).ShouldBe(await DaysAsync<ReachedRow>(atOnce, "reached"));
        await ShouldShowBesideAdsAsync(inPieces);
    }

    [Fact]
    public async Task What_showed_on_content_sites_is_told_by_page_and_none_of_it_where_a_placement_is_out()
    {
        var visitor = await PlayedAsync(5, 240);
        var pages = (await DaysAsync<ReachedRow>(visitor, "reached"))
            .Where(row => row.By == ReachedBy.Placement)
            .ToArray();
        var figures = (await DaysAsync<PerformanceRow>(visitor, "reports"))
            .Where(row => row.Site == SiteKinds.Content)
            .ToArray();

        (pages.Sum(row => row.Impressions), pages.Sum(row => row.Clicks), pages.Sum(row => row.Cost)).ShouldBe(
            (figures.Sum(row => row.Impressions), figures.Sum(row => row.Clicks), figures.Sum(row => row.Cost))
        );
        pages.Select(row => row.Name.Split('/')[0]).Distinct().Count().ShouldBeGreaterThan(2);
        pages.ShouldAllBe(row => !row.Name.StartsWith("bigdays.example", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Audiences_are_told_of_where_they_stand_and_past_visitors_clicked_before()
    {
        var visitor = await PlayedAsync(5, 240);
        var audiences = (await DaysAsync<ReachedRow>(visitor, "reached"))
            .Where(row => row.By == ReachedBy.Audience)
            .ToArray();

        audiences
            .Select(row => (row.CampaignId, row.Name))
            .Distinct()
            .Order()
            .ShouldBe([(2, "home owners"), (2, "past visitors")]);
        // On the first day few have clicked before; later ones come back.
        var visitors = audiences.Where(row => row.Name == "past visitors").ToLookup(row => row.Day);
        visitors[new DateOnly(2026, 3, 16)]
            .Sum(row => row.Impressions)
            .ShouldBeLessThan(visitors[new DateOnly(2026, 3, 25)].Sum(row => row.Impressions));
        visitors.Sum(day => day.Sum(row => row.Clicks)).ShouldBeGreaterThan(0);
    }

    private static string ToldOf(CombinationRow row) =>
        $"{row.Day} {row.AdId} {string.Join('|', row.Headlines)} {string.Join('|', row.Descriptions)} {row.Impressions} {row.Clicks} {row.Cost} {row.Expected} {row.Conversions} {row.Value}";

    [Fact]
    public async Task A_responsive_ad_shows_in_combinations_that_add_up_to_its_figures_and_keep_what_was_struck_out_apart()
    {
        var visitor = await PlayedAsync(5, 240);
        var rows = await DaysAsync<CombinationRow>(visitor, "combinations");
        var figures = (await DaysAsync<PerformanceRow>(visitor, "reports")).Where(row => row.AdId == 44).ToArray();

        rows.ShouldAllBe(row => row.AdId == 44 && row.Headlines[0].StartsWith("{{"));
        rows.ShouldAllBe(row => !row.Headlines.Contains("Tuned At Home") || !row.Headlines.Contains("Book Today"));
        (rows.Sum(row => row.Impressions), rows.Sum(row => row.Clicks), rows.Sum(row => row.Cost)).ShouldBe(
            (figures.Sum(row => row.Impressions), figures.Sum(row => row.Clicks), figures.Sum(row => row.Cost))
        );
        rows.Select(row => string.Join('|', row.Headlines)).Distinct().Count().ShouldBeGreaterThan(3);
    }

    /// <summary>The second ad of the group says what is searched for, the first does not: by success it shows most after the first day.</summary>
    [Fact]
    public async Task A_campaign_by_success_shows_the_ad_that_is_clicked_more_and_tries_the_other_now_and_then()
    {
        var visitor = new NetworkVisitor(fixture.Http, $"play-{Guid.NewGuid():N}");
        await visitor.SetUpAsync(5);
        await visitor.PutAsync(
            All with
            {
                Rotation = AdRotation.BySuccess,
            },
            new AdGroup(20, 2, "Piano", ItemState.Running, 1.55m),
            new Keyword(21, 20, "piano", MatchType.Broad, ItemState.Running, null, null),
            Ad(41, 20, "Insurance Compared", "sales"),
            Ad(42, 20, "Piano Tuning And Used Pianos", "sales")
        );
        await visitor.AdvanceAsync(24 * 10);
        var shown = (await DaysAsync<PerformanceRow>(visitor, "reports"))
            .Where(row => row.Day > new DateOnly(2026, 3, 19))
            .GroupBy(row => row.AdId)
            .ToDictionary(group => group.Key, group => group.Sum(row => row.Impressions));

        shown[42].ShouldBeGreaterThan(5 * shown[41]);
        shown[41].ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task A_call_ad_shows_on_phones_at_its_hours_and_all_its_clicks_are_calls()
    {
        var visitor = await PlayedAsync(5, 240);
        var rows = (await DaysAsync<PerformanceRow>(visitor, "reports")).Where(row => row.AdId == 45).ToArray();

        rows.ShouldNotBeEmpty();
        rows.ShouldAllBe(row =>
            row.Device == Device.Phone
            && row.Hour >= 10
            && row.Hour < 16
            && row.Day.DayOfWeek != DayOfWeek.Saturday
            && row.Day.DayOfWeek != DayOfWeek.Sunday
        );
        await using var connection = new NpgsqlConnection(fixture.Host.Database);
        (
            await connection.QueryAsync<short>(
                "select distinct click from shown where account_id = @AccountId and ad_id = 45 and click <> 0",
                new { visitor.AccountId }
            )
        ).ShouldBe([(short)ClickKind.Call]);
    }

    [Fact]
    public async Task A_campaign_shows_in_its_hours_alone_and_never_on_a_device_at_minus_100_percent()
    {
        var visitor = new NetworkVisitor(fixture.Http, $"play-{Guid.NewGuid():N}");
        await visitor.SetUpAsync(5);
        await visitor.PutAsync(
            All with
            {
                Hours = WeekPlan.Of("Mon-Fri 09:00-12:30, 14:00-18:00 +50%"),
                PhoneModifier = -100,
            },
            new AdGroup(20, 2, "Piano", ItemState.Running, 1.55m),
            new Keyword(21, 20, "piano", MatchType.Broad, ItemState.Running, null, null),
            Ad(41, 20, "Piano Tuning And Used Pianos", "sales")
        );
        await visitor.AdvanceAsync(24 * 10);
        var rows = await DaysAsync<PerformanceRow>(visitor, "reports");

        rows.Sum(row => row.Impressions).ShouldBeGreaterThan(100);
        rows.ShouldAllBe(row =>
            row.Device != Device.Phone
            && row.Day.DayOfWeek != DayOfWeek.Saturday
            && row.Day.DayOfWeek != DayOfWeek.Sunday
            && ((row.Hour >= 9 && row.Hour <= 12) || (row.Hour >= 14 && row.Hour < 18))
        );
        // Nothing of the half hour after 12:30.
        await using var connection = new NpgsqlConnection(fixture.Host.Database);
        (
            await connection.QueryAsync<long>(
                "select at from shown where account_id = @AccountId and hour = 12",
                new { visitor.AccountId }
            )
        )
            .Select(at => at % 3_600)
            .ShouldAllBe(second => second < 1_800);
    }

    /// <summary>What showed beside ads is what could, as often as the ads showed at most, and what was clicked was there.</summary>
    private async Task ShouldShowBesideAdsAsync(NetworkVisitor visitor)
    {
        var rows = await DaysAsync<ExtensionRow>(visitor, "extensions");
        var shown = (await DaysAsync<PerformanceRow>(visitor, "reports"))
            .GroupBy(row => (row.Day, row.AdGroupId))
            .ToDictionary(group => group.Key, group => group.Sum(row => row.Impressions));
        rows.ShouldAllBe(row =>
            row.OwnClicks <= row.Clicks
            && row.Clicks <= row.Impressions
            && row.Impressions <= shown[new(row.Day, row.AdGroupId)]
        );
        rows.Select(row => (row.Kind, row.ExtensionId))
            .Distinct()
            .Order()
            .ShouldBe([
                (ItemKind.Callout, 51),
                (ItemKind.Callout, 52),
                (ItemKind.Callout, 53),
                (ItemKind.Callout, 54),
                (ItemKind.Sitelink, 61),
                (ItemKind.CallExtension, 71),
            ]);
        rows.Where(row => row.Kind == ItemKind.Callout).ShouldAllBe(row => row.OwnClicks == 0);
        rows.Where(row => row.ExtensionId is 53 or 54).ShouldAllBe(row => row.CampaignId == Tuning.Id);
    }

    [Fact]
    public async Task Makes_ten_thousand_searches_again_with_the_same_place_and_the_same_penny()
    {
        var visitor = await PlayedAsync(6, 30);
        // In the middle of it a bid, a budget and a negative are changed: the past stays as it was.
        await visitor.EditFromOutsideAsync(
            NetworkVisitor.Put(new AdGroup(20, 2, "Piano", ItemState.Running, 0.90m)),
            NetworkVisitor.Put(Tuning with { DailyBudget = 20 }),
            new NetworkChange(ItemKind.NegativeKeyword, 31, ChangeAction.Remove, null)
        );
        await visitor.AdvanceAsync(80);
        (await MadeAgainAsync(visitor, 110)).ShouldBeGreaterThanOrEqualTo(10_000);
    }

    [Fact]
    public async Task Makes_searches_again_where_midnight_falls_within_an_hour()
    {
        var visitor = new NetworkVisitor(fixture.Http, $"play-{Guid.NewGuid():N}");
        var setUp = new AccountSetUp("ostrel", "GBP", "Asia/Kolkata", NetworkVisitor.Monday, 16, "Somebody");
        (await fixture.Http.PutAsJsonAsync($"v1/accounts/{visitor.AccountId}", setUp)).EnsureSuccessStatusCode();
        await visitor.PutAsync(Items);
        await visitor.AdvanceAsync(70);

        (await MadeAgainAsync(visitor, 70)).ShouldBeGreaterThan(1_000);
    }

    /// <summary>Makes the searches of an account's first hours again and compares them with what was written down.</summary>
    /// <returns>How many ads were shown.</returns>
    private async Task<int> MadeAgainAsync(NetworkVisitor visitor, int hours)
    {
        await using var connection = new NpgsqlConnection(fixture.Host.Database);
        await connection.OpenAsync();
        var account = (await NetworkStore.FindAsync(connection, visitor.AccountId))!;
        var stored = (
            await connection.QueryAsync<(
                long Search,
                long Keyword,
                long Ad,
                int Place,
                bool Top,
                long Price,
                int Quality,
                int SetBy
            )>(
                "select search, keyword_id, ad_id, place::int, is_top, price, quality::int, set_by from shown where account_id = @Id",
                new { account.Id }
            )
        ).ToDictionary(row => (ulong)row.Search, row => row with { Search = 0 });

        var past = new PastSearches(connection, account, World.Shipped);
        var again = new Dictionary<ulong, (long, long, long, int, bool, long, int, int)>();
        var first = NetworkVisitor.Monday.ToUnixTimeSeconds() / 3600;
        for (var hour = first; hour < first + hours; hour++)
        {
            foreach (var search in await past.InHourAsync(hour))
            {
                if (search.Played.Answer.Chosen is not { } chosen)
                {
                    continue;
                }

                var (order, won) = search.Played.Hold(search.Play.AuctionFor(search.Searching.Need));
                foreach (var own in won.Where(each => each.Bidder == 0))
                {
                    again.Add(
                        search.Searching.Name,
                        (
                            0,
                            chosen.Keyword.Keyword.Id,
                            chosen.Ad!.Id,
                            own.Place,
                            own.IsTop,
                            own.Price,
                            chosen.Quality!.Value,
                            AccountPlay.SetBy(own, order, search.Played.Bids)
                        )
                    );
                }
            }
        }

        again.Count.ShouldBe(stored.Count);
        stored.Where(row => again[row.Key] != row.Value).ShouldBeEmpty();
        return stored.Count;
    }

    [Fact]
    public async Task Adds_up()
    {
        var visitor = await PlayedAsync(7, 72);
        var rows = await DaysAsync<PerformanceRow>(visitor, "reports");
        var standings = await DaysAsync<StandingRow>(visitor, "standings");
        await using var connection = new NpgsqlConnection(fixture.Host.Database);
        var (shown, paid, searches) = await connection.QuerySingleAsync<(long, long, long)>(
            "select count(*), sum(price) filter (where click <> 0)::bigint, count(distinct search) from shown where account_id = @AccountId",
            new { visitor.AccountId }
        );

        rows.Sum(row => row.Impressions).ShouldBe(shown);
        searches.ShouldBe(shown);
        rows.Sum(row => row.Cost).ShouldBe(paid / 100m);
        standings.Sum(row => row.Impressions).ShouldBe(shown);
        standings.ShouldAllBe(row =>
            row.First <= row.Top
            && row.Top <= row.Impressions
            && row.Places >= row.Impressions
            && row.Places <= 5 * row.Impressions
        );
        (await DaysAsync<RivalRow>(visitor, "rivals")).ShouldAllBe(row => row.AboveUs <= row.ShownWith);
    }

    [Fact]
    public async Task Makes_a_small_budget_last_through_the_day()
    {
        var visitor = await PlayedAsync(8, 24 * 9);
        var days = (await DaysAsync<PerformanceRow>(visitor, "reports"))
            .Where(row => row.CampaignId == 1)
            .ToLookup(row => row.Day);

        // The first days are spent learning; after a week the evening gets its part.
        var day = days[new DateOnly(2026, 3, 24)].ToArray();
        day.Sum(row => row.Cost).ShouldBeInRange(8m, 12m);
        day.Where(row => row.Hour >= 17).Sum(row => row.Cost).ShouldBeGreaterThan(1.5m);
        days.ShouldAllBe(each => each.Sum(row => row.Cost) <= 12m);
        (await DaysAsync<StandingRow>(visitor, "standings"))
            .Where(row => row.CampaignId == 1)
            .Sum(row => row.LostToBudget)
            .ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task Tells_of_a_conversion_when_it_happens_and_counts_it_for_the_day_of_its_click()
    {
        var visitor = await PlayedAsync(9, 72);
        var seen = (await ReadAsync<NetworkClock>(visitor, "clock")).Now;
        var wednesday = Tuesday.AddDays(1);
        var before = (await visitor.ReportAsync(wednesday)).Sum(row => row.Conversions);

        await visitor.AdvanceAsync(24 * 14);
        var changed = await ReadAsync<List<DateOnly>>(
            visitor,
            $"reports/days?since={Uri.EscapeDataString(seen.UtcDateTime.ToString("O"))}"
        );

        changed.ShouldContain(wednesday);
        (await visitor.ReportAsync(wednesday)).Sum(row => row.Conversions).ShouldBeGreaterThan(before);
    }

    [Fact]
    public async Task Opens_searches_of_the_past_by_what_became_of_them()
    {
        var visitor = await PlayedAsync(10, 60);
        foreach (var fate in Enum.GetValues<SearchFate>())
        {
            var samples = await ReadAsync<List<SampleSearch>>(
                visitor,
                $"searches?day=2026-03-17&fate={(int)fate}&most=5"
            );

            samples.ShouldNotBeEmpty($"{fate}");
            samples.ShouldAllBe(sample => sample.Fate == fate);
            var trace = await ReadAsync<SearchTrace>(visitor, $"searches/{samples[0].Name}/trace");
            trace.Shows.ShouldBe(fate == SearchFate.Shown);
            trace.Past!.At.ShouldBe(samples[0].At);
            trace.Outcome.ShouldStartWith(
                fate switch
                {
                    SearchFate.Shown => "Shows in place",
                    SearchFate.LostToRank => "Wins no place",
                    SearchFate.LostToBudget => "Kept away by the day's budget",
                    SearchFate.Blocked => "Blocked by a negative",
                }
            );
        }
    }

    [Theory]
    [InlineData("17")]
    [InlineData("9223372036854775807")]
    [InlineData("-1")]
    public async Task Knows_nothing_of_a_search_that_nobody_made(string name)
    {
        var visitor = await PlayedAsync(11, 2);

        (await fixture.Http.GetAsync($"v1/accounts/{visitor.AccountId}/searches/{name}/trace")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
    }

    [Fact]
    public async Task Says_that_searches_older_than_they_are_kept_are_gone()
    {
        var visitor = await PlayedAsync(17, 30);
        var sample = (
            await ReadAsync<List<SampleSearch>>(visitor, "searches?day=2026-03-16&fate=1&most=1")
        ).ShouldHaveSingleItem();
        await using var connection = new NpgsqlConnection(fixture.Host.Database);
        await connection.ExecuteAsync(
            "update account set now = now + interval '91 days' where id = @AccountId",
            new { visitor.AccountId }
        );

        using var gone = await fixture.Http.GetAsync($"v1/accounts/{visitor.AccountId}/searches/{sample.Name}/trace");

        gone.StatusCode.ShouldBe(HttpStatusCode.Gone);
        (await gone.Content.ReadAsStringAsync()).ShouldContain("kept for 90 days");
    }

    [Fact]
    public async Task Refuses_to_make_a_day_of_another_world_again()
    {
        var visitor = await PlayedAsync(12, 30);
        var sample = (
            await ReadAsync<List<SampleSearch>>(visitor, "searches?day=2026-03-16&fate=1&most=1")
        ).ShouldHaveSingleItem();
        await using var connection = new NpgsqlConnection(fixture.Host.Database);
        await connection.ExecuteAsync(
            "update world_day set version = 'older' where account_id = @AccountId",
            new { visitor.AccountId }
        );

        (
            await fixture.Http.GetAsync($"v1/accounts/{visitor.AccountId}/searches/{sample.Name}/trace")
        ).StatusCode.ShouldBe(HttpStatusCode.Gone);
    }

    [Fact]
    public async Task Gives_nothing_to_a_bid_far_below_what_a_place_asks_for()
    {
        var visitor = new NetworkVisitor(fixture.Http, $"play-{Guid.NewGuid():N}");
        await visitor.SetUpAsync(13);
        await visitor.PutAsync([.. Items.Select(item => item is AdGroup group ? group with { MaxCpc = 0.05m } : item)]);
        await visitor.PutAsync(
            new Keyword(12, 10, "piano tuner near me", MatchType.Exact, ItemState.Running, null, null)
        );
        await visitor.AdvanceAsync(48);

        (await visitor.ReportAsync(Tuesday)).ShouldBeEmpty();
        (await DaysAsync<StandingRow>(visitor, "standings")).Sum(row => row.LostToRank).ShouldBeGreaterThan(50);
    }

    [Theory]
    [InlineData("GBP")]
    [InlineData("JPY")]
    [InlineData("KWD")]
    public async Task Brings_people_to_a_trade_that_the_world_does_not_know_in_whatever_currency(string code)
    {
        var currency = Currency.Of(code);
        var perPound = (decimal)World.Shipped.PerPound(currency);
        var visitor = new NetworkVisitor(fixture.Http, $"play-{Guid.NewGuid():N}");
        (
            await fixture.Http.PutAsJsonAsync(
                $"v1/accounts/{visitor.AccountId}",
                new AccountSetUp("ostrel", code, "Europe/London", NetworkVisitor.Monday, 14, "Somebody")
            )
        ).EnsureSuccessStatusCode();
        await visitor.PutAsync(
            Tuning with
            {
                DailyBudget = currency.Round(200 * perPound),
            },
            new AdGroup(10, 1, "Awnings", ItemState.Running, currency.Round(1.5m * perPound)),
            new Keyword(11, 10, "garden awning", MatchType.Phrase, ItemState.Running, null, null),
            new TextAd(
                41,
                10,
                ItemState.Running,
                ["Garden Awnings", "Made To Measure"],
                ["Fitted in a day."],
                [],
                "shade.example/awnings",
                null
            )
        );
        await visitor.AdvanceAsync(72);
        var rows = await DaysAsync<PerformanceRow>(visitor, "reports");

        rows.Sum(row => row.Impressions).ShouldBeGreaterThan(30);
        rows.Sum(row => row.Clicks).ShouldBeGreaterThan(0);
        rows.ShouldAllBe(row => row.Cost == currency.Round(row.Cost));
        (await DaysAsync<RivalRow>(visitor, "rivals")).ShouldNotBeEmpty();
    }

    [Fact]
    public async Task Goes_on_with_the_sums_when_single_searches_are_forgotten()
    {
        var visitor = await PlayedAsync(15, 48);
        var before = (await visitor.ReportAsync(Tuesday))
            .Select(row => row with { Conversions = 0, Value = 0 })
            .ToArray();
        await using var connection = new NpgsqlConnection(fixture.Host.Database);
        await connection.OpenAsync();

        await KeptRows.RollUpAsync(
            connection,
            visitor.AccountId,
            Tuesday.AddDays(KeptRows.DaysOfShown + 1),
            Currency.Of("GBP"),
            default
        );

        (
            await connection.ExecuteScalarAsync<long>(
                "select count(*) from shown where account_id = @AccountId",
                new { visitor.AccountId }
            )
        ).ShouldBe(0);
        (await visitor.ReportAsync(Tuesday)).Select(row => row with { Conversions = 0, Value = 0 }).ShouldBe(before);
    }
}
