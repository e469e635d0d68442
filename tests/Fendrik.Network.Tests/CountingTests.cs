using System.Net.Http.Json;
using Dapper;
using Fendrik.Core.Calls;
using Fendrik.Core.Tracking.Books;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Network.Simulation;
using Fendrik.Network.Simulation.Counting;
using Fendrik.Network.Simulation.People;
using Fendrik.Network.Worlds;
using Fendrik.Tests.Shared;
using Npgsql;

namespace Fendrik.Network.Tests;

/// <summary>Days of an account that says what counts, played once.</summary>
public sealed class CountedDays : IAsyncLifetime
{
    private readonly NetworkFixture _network = new();

    internal static readonly DateOnly First = new(2026, 3, 16);
    internal static readonly DateOnly Last = new(2026, 3, 22);

    public string AccountId { get; } = $"counting-{Guid.NewGuid():N}";

    public HttpClient Http => _network.Http;

    internal List<ConversionRow> Conversions { get; private set; } = [];

    internal List<CallRow> Calls { get; private set; } = [];

    internal List<PerformanceRow> Reports { get; private set; } = [];

    internal const long Form = 101;
    internal const long CallFromAd = 102;
    internal const long CallFromSite = 103;
    internal const long TagBooking = 104;
    internal const long CarriedBooking = 105;
    internal const long SentBooking = 106;
    internal const long ListSeen = 107;
    internal const long Sale = 108;
    internal const long Own = 2;

    private static ConversionAction Action(long id, string name, ConversionSource source) =>
        new(
            id,
            name,
            ItemState.Running,
            source,
            null,
            ConversionHearing.Tag,
            null,
            50,
            ConversionWorth.Fixed,
            ConversionCounting.OneForClick,
            null,
            YesNo.Yes,
            YesNo.Yes
        );

    private static readonly object[] Items =
    [
        new Campaign(1, "Tuning", ItemState.Running, 300m, null, null, SiteKinds.Search),
        new Campaign(Own, "Sales", ItemState.Running, 300m, null, null, SiteKinds.Search, Goals: "List seen"),
        new AdGroup(10, 1, "Tuning", ItemState.Running, 2m),
        new AdGroup(20, Own, "Sales", ItemState.Running, 1.5m),
        new Keyword(11, 10, "piano tuning", MatchType.Phrase, ItemState.Running, null, null),
        new Keyword(12, 10, "piano tuner", MatchType.Phrase, ItemState.Running, null, null),
        new Keyword(21, 20, "piano", MatchType.Broad, ItemState.Running, null, null),
        Ad(41, 10, "tuning"),
        Ad(42, 20, "sales"),
        (ItemKind.CallExtension, new PlacedExtension(71, null, null, "+441134960142", Shows: NumberShows.WithSite)),
        Action(Form, "Form", ConversionSource.Form),
        Action(CallFromAd, "Call from an ad", ConversionSource.CallFromAd) with
        {
            LeastSeconds = 70,
            Counting = ConversionCounting.Each,
        },
        Action(CallFromSite, "Call from the site", ConversionSource.CallFromSite) with
        {
            LeastSeconds = 70,
            Counting = ConversionCounting.Each,
        },
        Booking(TagBooking, ConversionHearing.Tag),
        Booking(CarriedBooking, ConversionHearing.CarriedId),
        Booking(SentBooking, ConversionHearing.SentBack),
        Action(Sale, "Sale", ConversionSource.Sale) with
        {
            AccountGoal = YesNo.No,
            Worth = ConversionWorth.ByHand,
        },
        Action(ListSeen, "List seen", ConversionSource.PageReached) with
        {
            Address = "tarnandfell.example/sales",
            AccountGoal = YesNo.No,
            Steers = YesNo.No,
        },
    ];

    private static TextAd Ad(long id, long group, string page) =>
        new(
            id,
            group,
            ItemState.Running,
            ["Piano Tuning", "Ask For A Price"],
            ["Same-week visits across the north."],
            [],
            $"tarnandfell.example/{page}",
            null
        );

    private static ConversionAction Booking(long id, ConversionHearing hearing) =>
        Action(id, $"Booking {id}", ConversionSource.Booking) with
        {
            Address = "openbench.example",
            Hearing = hearing,
        };

    public async ValueTask InitializeAsync()
    {
        await _network.InitializeAsync();
        var visitor = new NetworkVisitor(Http, AccountId);
        await visitor.SetUpAsync(23);
        (await visitor.PutAsync(Items)).ShouldAllBe(answer => answer.Verdict == NetworkVerdict.Accepted);
        // A fortnight later all of the first week is told.
        await visitor.AdvanceAsync(24 * 12);
        Conversions = await ReadAsync<ConversionRow>("conversions");
        Calls = await ReadAsync<CallRow>("calls");
        Reports = await ReadAsync<PerformanceRow>("reports");
    }

    public ValueTask DisposeAsync() => _network.DisposeAsync();

    private async Task<List<T>> ReadAsync<T>(string what) =>
        (
            await Http.GetFromJsonAsync<List<T>>(
                $"v1/accounts/{AccountId}/{what}?first={First:yyyy-MM-dd}&last={Last:yyyy-MM-dd}"
            )
        )!;

    /// <summary>Asks the network's own books, past its reports.</summary>
    internal async Task<long> CountAsync(string where)
    {
        await using var connection = new NpgsqlConnection(_network.Host.Database);
        return await connection.ExecuteScalarAsync<long>(
            $"select count(*) from visit where account_id = @AccountId and day between @First and @Last and told <= (select now from account where id = @AccountId) and {where}",
            new
            {
                AccountId,
                First,
                Last,
            }
        );
    }

    /// <summary>A click that an action has counted nothing of.</summary>
    internal async Task<ClickedRow> ClickWithoutAsync(long action, int skip = 0) =>
        (await ReadAsync<ClickedRow>("clicks"))
            .Where(click => Conversions.All(row => row.ClickId != click.ClickId || row.ActionId != action))
            .Skip(skip)
            .First();

    /// <summary>Values of the sales that the network has, past its reports.</summary>
    internal async Task<IEnumerable<decimal>> SalesAsync()
    {
        await using var connection = new NpgsqlConnection(_network.Host.Database);
        return await connection.QueryAsync<decimal>(
            "select value from conversion where account_id = @AccountId and action_id = @Sale and not taken_back",
            new { AccountId, Sale }
        );
    }

    internal Task<List<CallRow>> CallsAsync() => ReadAsync<CallRow>("calls");

    /// <summary>Lets the numbers have been there all along, past the carrier's door.</summary>
    internal Task BackdateNumbersAsync() =>
        ExecuteAsync("update carrier_number set since = '2026-01-01' where account_id = @AccountId and until is null");

    /// <summary>Lets no number ever have been there.</summary>
    internal Task ForgetNumbersAsync() => ExecuteAsync("delete from carrier_number where account_id = @AccountId");

    /// <summary>How many visits of the site began between the click and the call, of each call from the site, past the reports.</summary>
    internal async Task<IReadOnlyList<int>> VisitsBetweenAsync()
    {
        await using var connection = new NpgsqlConnection(_network.Host.Database);
        var clicks = (
            await connection.QueryAsync<long>(
                "select at from shown where account_id = @AccountId and click in (1, 2)",
                new { AccountId }
            )
        ).ToArray();
        return
        [
            .. Calls
                .Where(call => !call.FromAd)
                .Select(call =>
                    clicks.Count(at => at > call.ClickedAt.ToUnixTimeSeconds() && at < call.At.ToUnixTimeSeconds())
                ),
        ];
    }

    private async Task ExecuteAsync(string sql)
    {
        await using var connection = new NpgsqlConnection(_network.Host.Database);
        await connection.ExecuteAsync(sql, new { AccountId });
    }

    /// <summary>What the account's chances are drawn from, past the network's doors.</summary>
    internal async Task<long> SeedAsync()
    {
        await using var connection = new NpgsqlConnection(_network.Host.Database);
        return await connection.ExecuteScalarAsync<long>(
            "select seed from account where id = @AccountId",
            new { AccountId }
        );
    }

    internal int Made(long action) => Conversions.Count(row => row.ActionId == action);
}

public class CountingTests(CountedDays played) : IClassFixture<CountedDays>
{
    [Fact]
    public async Task Every_form_that_was_sent_counts_once()
    {
        played.Made(CountedDays.Form).ShouldBeGreaterThan(10);
        ((long)played.Made(CountedDays.Form)).ShouldBe(
            await played.CountAsync($"outcome = {(int)VisitEnd.InTouch} and way = {(int)Way.Form}")
        );
    }

    [Theory]
    [InlineData(true, CountedDays.CallFromAd)]
    [InlineData(false, CountedDays.CallFromSite)]
    public void Calls_in_the_log_that_are_longEnough_are_those_in_the_figures(bool fromAd, long action)
    {
        var longEnough = played.Calls.Where(call => call.FromAd == fromAd && call.Talked >= 70).ToArray();

        longEnough.ShouldNotBeEmpty();
        longEnough
            .Select(call => (call.ClickId, call.At))
            .Order()
            .ShouldBe(
                played.Conversions.Where(row => row.ActionId == action).Select(row => (row.ClickId, row.At)).Order()
            );
    }

    [Fact]
    public void Figures_are_the_conversions_that_are_goals_of_their_campaign()
    {
        var counted = played.Conversions.Where(row => row.Counts).ToArray();

        played.Reports.Sum(row => row.Conversions).ShouldBe(counted.Length);
        played.Reports.Sum(row => row.Value).ShouldBe(counted.Sum(row => row.Value));
        counted
            .Where(row => row.CampaignId == CountedDays.Own)
            .Select(row => row.ActionId)
            .Distinct()
            .ShouldBe([CountedDays.ListSeen]);
        counted.ShouldContain(row => row.CampaignId == 1);
    }

    [Fact]
    public void A_page_that_was_reached_steers_nothing_when_its_action_does_not() =>
        played.Conversions.Where(row => row.ActionId == CountedDays.ListSeen).ShouldAllBe(row => !row.Steers);

    [Fact]
    public async Task Bookings_elsewhere_are_heard_by_the_carried_id_or_the_confirmation_and_never_by_a_tag()
    {
        var booked = await played.CountAsync($"outcome = {(int)VisitEnd.InTouch} and way = {(int)Way.Booking}");

        booked.ShouldBeGreaterThan(0);
        ((long)played.Made(CountedDays.CarriedBooking), (long)played.Made(CountedDays.SentBooking)).ShouldBe(
            (booked, booked)
        );
        played.Made(CountedDays.TagBooking).ShouldBe(0);
    }

    [Fact]
    public void Confirmations_come_the_next_morning() =>
        played
            .Conversions.Where(row => row.ActionId == CountedDays.SentBooking)
            .ShouldAllBe(row =>
                row.Told.UtcDateTime.TimeOfDay == TimeSpan.FromHours(6)
                && row.Told > row.At
                && row.Told - row.At < TimeSpan.FromHours(30)
            );

    [Fact]
    public void What_counts_once_for_a_click_has_no_click_twice()
    {
        var once = played
            .Conversions.Where(row => row.ActionId is not (CountedDays.CallFromAd or CountedDays.CallFromSite))
            .Select(row => (row.ActionId, row.ClickId))
            .ToArray();

        once.Distinct().Count().ShouldBe(once.Length);
    }

    [Fact]
    public void A_call_that_nobody_answered_has_no_talk_and_one_that_was_has_some()
    {
        played.Calls.ShouldContain(call => call.End == CallEnd.Missed);
        played.Calls.ShouldAllBe(call => call.Talked > 0 == (call.End == CallEnd.Answered));
    }

    [Theory]
    [InlineData("")]
    [InlineData("3f9a0c52d1")]
    [InlineData("zzzzzzzzzzzzzzzzzzzzzzzzzzzzzzzz")]
    [InlineData("00000000000000000000000000000000")]
    public void A_click_id_that_was_never_given_out_is_known_for_none(string id) =>
        ClickIds.SearchOf(23, id).ShouldBeNull();

    [Fact]
    public void A_click_id_leads_back_to_its_search_in_its_own_account_alone()
    {
        var id = ClickIds.Of(23, 123_456_789_012);

        ClickIds.SearchOf(23, id).ShouldBe(123_456_789_012UL);
        ClickIds.SearchOf(24, id).ShouldBeNull();
    }

    [Fact]
    public async Task A_test_visit_is_counted_by_the_actions_that_count_it_and_is_in_no_report()
    {
        var id = await TestClickAsync();

        var told = await TellAsync(new ToldEvent(id, ConversionSource.CallFromAd, null, 70));
        var tooShort = await TellAsync(new ToldEvent(id, ConversionSource.CallFromAd, null, 69));

        told.CountedBy.ShouldBe([CountedDays.CallFromAd]);
        (tooShort.KnowsClick, tooShort.CountedBy.Count).ShouldBe((true, 0));
        played.Conversions.ShouldNotContain(row => row.ClickId == id);
    }

    [Fact]
    public async Task A_real_click_cannot_be_told_about_as_a_test()
    {
        var real = played.Conversions[0].ClickId;

        (
            await TellAsync(new ToldEvent(real, ConversionSource.Form, "tarnandfell.example/tuning", 0))
        ).KnowsClick.ShouldBeFalse();
        (
            await TellAsync(new ToldEvent(null, ConversionSource.Form, "tarnandfell.example/tuning", 0))
        ).KnowsClick.ShouldBeFalse();
    }

    [Fact]
    public async Task Books_told_twice_are_there_once_and_what_is_taken_back_is_gone()
    {
        var click = await played.ClickWithoutAsync(CountedDays.Sale);
        BookedConversion Line(decimal? value, bool takenBack = false) =>
            new("A-17", BookKey.OfClick(click.ClickId), CountedDays.Sale, click.At.AddDays(1), value, takenBack);

        (await BooksAsync(true, Line(340))).ShouldBe([BookVerdict.Counted]);
        (await BooksAsync(false, Line(340))).ShouldBe([BookVerdict.Counted]);
        (await BooksAsync(false, Line(340))).ShouldBe([BookVerdict.Known]);
        (await BooksAsync(false, Line(400))).ShouldBe([BookVerdict.NewValue]);
        (await BooksAsync(false, Line(null, takenBack: true))).ShouldBe([BookVerdict.TakenBack]);
        (await BooksAsync(false, Line(null, takenBack: true))).ShouldBe([BookVerdict.Known]);
        (await BooksAsync(false, Line(340))).ShouldBe([BookVerdict.Counted]);
        (await played.SalesAsync()).ShouldBe([340m]);
    }

    [Fact]
    public async Task What_counts_once_for_a_click_has_one_line_of_the_books_and_what_counts_each_time_has_several()
    {
        var form = played.Conversions.First(row => row.ActionId == CountedDays.Form);
        var call = played.Conversions.First(row => row.ActionId == CountedDays.CallFromAd);
        static BookedConversion Line(string reference, ConversionRow of) =>
            new(reference, BookKey.OfClick(of.ClickId), of.ActionId, of.At, 75, false);

        (await BooksAsync(true, Line("F-1", form), Line("F-2", form), Line("F-1", form))).ShouldBe([
            BookVerdict.NewValue,
            BookVerdict.OncePerClick,
            BookVerdict.Known,
        ]);
        (await BooksAsync(true, Line("C-1", call), Line("C-2", call), Line("C-2", call))).ShouldBe([
            BookVerdict.NewValue,
            BookVerdict.Counted,
            BookVerdict.Known,
        ]);
    }

    [Fact]
    public async Task Books_that_do_not_match_say_why()
    {
        var click = await played.ClickWithoutAsync(CountedDays.Sale, skip: 1);
        BookedConversion Line(string id, long action, DateTimeOffset at, bool takenBack = false) =>
            new("B-1", BookKey.OfClick(id), action, at, 10, takenBack);

        (
            await BooksAsync(
                true,
                Line("3f9a0c52d1", CountedDays.Sale, click.At),
                Line(click.ClickId, 999, click.At),
                Line(click.ClickId, CountedDays.Sale, click.At.AddSeconds(-1)),
                Line(click.ClickId, CountedDays.Sale, click.At.AddDays(29)),
                Line(click.ClickId, CountedDays.Sale, click.At, takenBack: true)
            )
        ).ShouldBe([
            BookVerdict.UnknownClick,
            BookVerdict.UnknownAction,
            BookVerdict.OutsideWindow,
            BookVerdict.OutsideWindow,
            BookVerdict.NothingThere,
        ]);
    }

    /// <summary>Rents numbers, looks at the calls of the played days, and gives the numbers back as if they had never been there.</summary>
    private async Task<List<CallRow>> CallsWithAsync(NumberWish wish)
    {
        using var rented = await played.Http.PostAsJsonAsync($"v1/accounts/{played.AccountId}/numbers", wish);
        rented.EnsureSuccessStatusCode();
        try
        {
            await played.BackdateNumbersAsync();
            return await played.CallsAsync();
        }
        finally
        {
            await played.ForgetNumbersAsync();
        }
    }

    [Fact]
    public async Task With_numbers_by_campaign_a_call_from_the_site_says_its_campaign_and_one_from_an_ad_its_click()
    {
        var calls = await CallsWithAsync(
            new NumberWish(NumberReach.Local, "Leeds", "+441134960142", NumberPool.Campaign, null, 1)
        );

        calls.Count.ShouldBe(played.Calls.Count);
        calls.ShouldAllBe(call => call.Dialled.StartsWith("+441134960"));
        calls
            .Where(call => !call.FromAd)
            .ShouldAllBe(call =>
                call.Origin == CallOrigin.Campaign && call.CampaignId != 0 && call.KeywordId == 0 && call.ClickId == ""
            );
        calls
            .Where(call => call.FromAd)
            .Select(call => (call.ClickId, call.KeywordId, call.Cost))
            .ShouldBe(
                played.Calls.Where(call => call.FromAd).Select(call => (call.ClickId, call.KeywordId, call.Cost))
            );
    }

    [Fact]
    public async Task Of_many_numbers_each_visitor_has_one_and_of_a_single_one_the_next_visitor_takes_it_over()
    {
        var many = await CallsWithAsync(
            new NumberWish(NumberReach.Freephone, null, "+441134960142", NumberPool.Visit, null, 150)
        );
        var one = await CallsWithAsync(
            new NumberWish(NumberReach.Freephone, null, "+441134960142", NumberPool.Visit, null, 1)
        );

        var between = await played.VisitsBetweenAsync();
        // Those who called before so many others came are known; who called days later is not, by however many numbers.
        foreach (var (calls, numbers) in new[] { (many, 150), (one, 1) })
        {
            calls
                .Where(call => !call.FromAd)
                .Select(call => call.Origin)
                .ShouldBe(between.Select(visits => visits < numbers ? CallOrigin.Click : CallOrigin.Unknown));
        }

        many.Where(call => call is { FromAd: false, Origin: CallOrigin.Click })
            .ShouldAllBe(call =>
                played.Calls.Any(real => real.ClickId == call.ClickId && real.KeywordId == call.KeywordId)
            );
        many.Where(call => !call.FromAd).Select(call => call.Dialled).Distinct().Count().ShouldBeGreaterThan(1);
        between.ShouldContain(visits => visits > 0);
    }

    [Fact]
    public async Task A_number_that_somebody_holds_or_that_rests_is_given_to_nobody_else()
    {
        var wish = new NumberWish(NumberReach.Local, "Edinburgh", "+441134960142", NumberPool.Campaign, null, 2);
        async Task<List<string>> RentAsync()
        {
            using var response = await played.Http.PostAsJsonAsync($"v1/accounts/{played.AccountId}/numbers", wish);
            response.EnsureSuccessStatusCode();
            return (await response.Content.ReadFromJsonAsync<List<string>>())!;
        }

        try
        {
            var first = await RentAsync();
            foreach (var number in first)
            {
                (
                    await played.Http.DeleteAsync(
                        $"v1/accounts/{played.AccountId}/numbers/{Uri.EscapeDataString(number)}"
                    )
                ).EnsureSuccessStatusCode();
            }

            (await RentAsync()).ShouldNotContain(number => first.Contains(number));
        }
        finally
        {
            await played.ForgetNumbersAsync();
        }
    }

    [Theory]
    [InlineData("Atlantis", 1)]
    [InlineData("Leeds", 0)]
    [InlineData("Leeds", 201)]
    public async Task Numbers_that_there_are_none_of_are_refused(string area, int count)
    {
        using var response = await played.Http.PostAsJsonAsync(
            $"v1/accounts/{played.AccountId}/numbers",
            new NumberWish(NumberReach.Local, area, "+441134960142", NumberPool.Campaign, null, count)
        );

        response.StatusCode.ShouldBe(System.Net.HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task A_sale_by_telephone_is_found_by_the_number_and_the_time_of_the_call()
    {
        var seed = await played.SeedAsync();
        var call = played.Calls.Last(each =>
            played.Conversions.All(row => row.ClickId != each.ClickId || row.ActionId != CountedDays.Sale)
        );
        var number = Contact.NumberOf(seed, Chance.PersonOf(ClickIds.SearchOf(seed, call.ClickId)!.Value));
        BookedConversion Line(string caller, int minutes) =>
            new(
                $"T-{caller}-{minutes}",
                new BookKey(BookKeyKind.Call, caller, call.At.AddMinutes(minutes)),
                CountedDays.Sale,
                call.At.AddHours(1),
                900,
                false
            );

        (await BooksAsync(true, Line(number, 3), Line(number, 9), Line("+441632960999", 0))).ShouldBe([
            BookVerdict.Counted,
            BookVerdict.UnknownCall,
            number == "+441632960999" ? BookVerdict.Counted : BookVerdict.UnknownCall,
        ]);
    }

    [Fact]
    public async Task A_sale_is_found_by_the_hash_of_the_address_that_was_left_on_the_site()
    {
        var seed = await played.SeedAsync();
        var form = played.Conversions.First(row => row.ActionId == CountedDays.Form);
        var address = Contact.AddressOf(seed, Chance.PersonOf(ClickIds.SearchOf(seed, form.ClickId)!.Value));
        BookedConversion Line(string left) =>
            new(
                "H-1",
                new BookKey(BookKeyKind.Address, BookKey.HashOf(left)!),
                CountedDays.Sale,
                form.At.AddDays(2),
                900,
                false
            );

        (await BooksAsync(true, Line(address.ToUpperInvariant()), Line("nobody@post.example"))).ShouldBe([
            BookVerdict.Counted,
            BookVerdict.UnknownAddress,
        ]);
    }

    private async Task<List<BookVerdict>> BooksAsync(bool preview, params BookedConversion[] lines)
    {
        using var response = await played.Http.PostAsJsonAsync(
            $"v1/accounts/{played.AccountId}/books",
            new BookedConversions(lines, preview)
        );
        response.EnsureSuccessStatusCode();
        return (await response.Content.ReadFromJsonAsync<List<BookVerdict>>())!;
    }

    private async Task<string> TestClickAsync()
    {
        using var response = await played.Http.PostAsync($"v1/accounts/{played.AccountId}/test-clicks", null);
        return (await response.Content.ReadFromJsonAsync<string>())!;
    }

    private async Task<ToldAnswer> TellAsync(ToldEvent told)
    {
        using var response = await played.Http.PostAsJsonAsync(
            $"v1/accounts/{played.AccountId}/test-clicks/told",
            told
        );
        return (await response.Content.ReadFromJsonAsync<ToldAnswer>())!;
    }
}
