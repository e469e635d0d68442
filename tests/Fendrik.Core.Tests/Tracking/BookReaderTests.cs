using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Tracking.Books;
using Shouldly;
using Xunit;

namespace Fendrik.Core.Tests.Tracking;

public sealed class BookReaderTests
{
    private static readonly DateTimeOffset Now = new(2026, 5, 12, 13, 0, 0, TimeSpan.Zero);

    private static readonly BookGround Ground = new(
        ReadingGround.Plain(Currency.Of("GBP")),
        new AccountDay("Europe/London"),
        Now,
        ["Sale", "Booking"]
    );

    private static (BookLine? Line, BookProblem? Problem) Read(string header, params string[] rows)
    {
        var reader = BookReader.Begin(header.Split(','), Ground, out var missing);
        missing.ShouldBeNull();
        (BookLine?, BookProblem?) last = default;
        foreach (var (at, row) in rows.Index())
        {
            last = (reader!.Read(at + 2, row.Split(','), out var problem), problem);
        }

        return last;
    }

    [Fact]
    public void Columns_stand_in_any_order_under_the_words_that_people_use() =>
        Read("Order_ID,Amount,When,Click ID,Goal", "A-17,340,2026-05-11 14:30,AB12,sale")
            .Line.ShouldBe(
                new BookLine(
                    2,
                    "A-17",
                    BookKey.OfClick("AB12"),
                    "Sale",
                    new DateTimeOffset(2026, 5, 11, 13, 30, 0, TimeSpan.Zero),
                    340,
                    BookChange.Made
                )
            );

    /// <summary>Clocks go forward on 29 March 2026 at 1 o’clock and back on 25 October 2026 at 2 o’clock (IANA, Europe/London).</summary>
    [Theory]
    [InlineData("2026-03-29 00:30", "2026-03-29T00:30Z")]
    [InlineData("2026-03-29 01:30", "2026-03-29T01:30Z")]
    [InlineData("2026-03-29 02:30", "2026-03-29T01:30Z")]
    [InlineData("2026-05-11T14:30:00+02:00", "2026-05-11T12:30Z")]
    [InlineData("2026-05-11T14:30:00Z", "2026-05-11T14:30Z")]
    [InlineData("11/05/2026 14:30", "2026-05-11T13:30Z")]
    [InlineData("2026-05-11", "2026-05-11T22:59:59Z")]
    [InlineData("2026-05-12", "2026-05-12T13:00Z")]
    public void Times_are_of_the_accounts_clock_unless_they_say_otherwise(string typed, string moment) =>
        Read("click id,time,action", $"a,{typed},Sale")
            .Line!.At.ShouldBe(DateTimeOffset.Parse(moment, System.Globalization.CultureInfo.InvariantCulture));

    [Theory]
    [InlineData(",2026-05-11 14:30,Sale,,,", "click id")]
    [InlineData("a,tomorrow,Sale,,,", "time")]
    [InlineData("a,2026-05-12 14:01,Sale,,,", "time")]
    [InlineData("a,2026-05-13,Sale,,,", "time")]
    [InlineData("a,2026-05-11,Hire,,,", "conversion action")]
    [InlineData("a,2026-05-11,Sale,lots,,", "value")]
    [InlineData("a,2026-05-11,Sale,340,EUR,", "currency")]
    [InlineData("a,2026-05-11,Sale,340,gbp,perhaps", "change")]
    public void A_row_that_cannot_be_taken_names_the_row_and_the_column(string row, string field)
    {
        var (line, problem) = Read("click id,time,action,value,currency,change", row);

        line.ShouldBeNull();
        problem!.Field.ShouldBe(field);
        problem.Message.ShouldStartWith($"Row 2, {field}: ");
    }

    [Fact]
    public void A_row_that_stands_there_twice_is_taken_once()
    {
        var (line, problem) = Read(
            "click id,time,action,reference",
            "a,2026-05-11 14:30,Sale,A-17",
            "b,2026-05-11 15:30,Sale,A-17"
        );

        (line, problem!.Row, problem.Field).ShouldBe((null, 3, "reference"));
    }

    [Fact]
    public void A_sale_and_its_return_are_two_lines() =>
        Read(
            "click id,time,action,reference,change",
            "a,2026-05-11 14:30,Sale,A-17,",
            "a,2026-05-11 15:30,Sale,A-17,refunded"
        )
            .Line!.Change.ShouldBe(BookChange.TakenBack);

    [Theory]
    [InlineData("time,action", "There is no column “click id”, “caller” or “address”")]
    [InlineData("click id,action", "There is no column “time”.")]
    [InlineData("click id,time", "There is no column “conversion action”, and the account has several.")]
    public void A_list_without_a_needed_column_says_which(string header, string message)
    {
        BookReader.Begin(header.Split(','), Ground, out var problem).ShouldBeNull();
        problem.ShouldStartWith(message);
    }

    [Fact]
    public void An_account_with_one_action_needs_no_column_for_it() =>
        BookReader
            .Begin(["click id", "time"], Ground with { Actions = ["Sale"] }, out _)!
            .Read(2, ["a", "2026-05-11"], out _)!
            .Action.ShouldBe("Sale");

    [Fact]
    public void A_sale_by_telephone_is_known_by_its_caller_and_the_time_of_the_call() =>
        Read("caller,call time,time,action,value", "+44 113 496 0142,2026-05-11 09:30,2026-05-11 14:30,Sale,900")
            .Line!.From.ShouldBe(
                new BookKey(BookKeyKind.Call, "+441134960142", new DateTimeOffset(2026, 5, 11, 8, 30, 0, TimeSpan.Zero))
            );

    [Fact]
    public void A_click_that_is_known_says_more_than_a_caller() =>
        Read("click id,caller,time,action", "AB12,+441134960142,2026-05-11 14:30,Sale")
            .Line!.From.ShouldBe(BookKey.OfClick("ab12"));

    [Fact]
    public void Two_sales_of_one_address_at_two_times_are_two()
    {
        var (line, problem) = Read(
            "address,time,action",
            "jo@post.example,2026-05-11 14:30,Sale",
            "JO@post.example ,2026-05-11 15:30,Sale"
        );

        (line?.Row, problem).ShouldBe((3, null));
    }

    /// <summary>The hash of this address was taken with sha256sum of GNU coreutils; SHA-256 is FIPS 180-4.</summary>
    [Theory]
    [InlineData("test@example.com")]
    [InlineData("  TEST@Example.com ")]
    [InlineData("973DFE463EC85785F5F95AF5BA3906EEDB2D931C24E69824A89EA65DBA4E813B")]
    public void An_address_is_hashed_as_its_letters_in_lower_case_and_a_hash_is_taken_as_it_is(string text) =>
        BookKey.HashOf(text).ShouldBe("973dfe463ec85785f5f95af5ba3906eedb2d931c24e69824a89ea65dba4e813b");

    [Theory]
    [InlineData("caller,time,action", "twelve,2026-05-11,Sale", "caller")]
    [InlineData("caller,call time,time,action", "+441134960142,noon,2026-05-11,Sale", "call time")]
    [InlineData("address,time,action", "jo,2026-05-11,Sale", "address")]
    [InlineData("address,time,action", ",2026-05-11,Sale", "address")]
    [InlineData("address,time,action", "a@b@c,2026-05-11,Sale", "address")]
    public void A_caller_or_an_address_that_is_none_is_told(string header, string row, string field) =>
        Read(header, row).Problem!.Field.ShouldBe(field);

    [Fact]
    public void Empty_rows_are_passed_over() => Read("click id,time,action", " , ,").ShouldBe((null, null));
}
