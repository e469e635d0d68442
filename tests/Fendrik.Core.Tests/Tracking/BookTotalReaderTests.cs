using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Tracking.Books;

namespace Fendrik.Core.Tests.Tracking;

public sealed class BookTotalReaderTests
{
    private static readonly BookGround Ground = new(
        ReadingGround.Plain(Currency.Of("GBP")),
        new AccountDay("Europe/London"),
        new DateTimeOffset(2026, 5, 12, 13, 0, 0, TimeSpan.Zero),
        []
    );

    private static (BookTotal? Total, BookProblem? Problem) Read(string header, params string[] rows)
    {
        var reader = BookTotalReader.Begin(header.Split(','), Ground)!;
        (BookTotal?, BookProblem?) last = default;
        foreach (var (at, row) in rows.Index())
        {
            last = (reader.Read(at + 2, row.Split(','), out var problem), problem);
        }

        return last;
    }

    [Fact]
    public void Totals_are_known_by_what_the_link_said() =>
        Read(
            "Date,Campaign,AdGroup,Term,Match type,Device,Orders,Revenue",
            "2026-05-11,Hire,Pianos,hire a piano,phrase,phone,2,340"
        )
            .Total.ShouldBe(
                new BookTotal(
                    2,
                    new DateOnly(2026, 5, 11),
                    "Hire",
                    "Pianos",
                    "hire a piano",
                    MatchType.Phrase,
                    Device.Phone,
                    2,
                    340
                )
            );

    [Theory]
    [InlineData("click id,time")]
    [InlineData("day,campaign")]
    [InlineData("day,sales")]
    public void A_list_without_day_campaign_and_sales_is_none_of_totals(string header) =>
        BookTotalReader.Begin(header.Split(','), Ground).ShouldBeNull();

    [Theory]
    [InlineData("May,Hire,,2,", "day")]
    [InlineData("2026-05-13,Hire,,2,", "day")]
    [InlineData("2026-05-11,,,2,", "campaign")]
    [InlineData("2026-05-11,Hire,toaster,2,", "device")]
    [InlineData("2026-05-11,Hire,,two,", "sales")]
    [InlineData("2026-05-11,Hire,,-2,", "sales")]
    [InlineData("2026-05-11,Hire,,2,lots", "value")]
    public void A_row_that_cannot_be_taken_names_the_row_and_the_column(string row, string field)
    {
        var (total, problem) = Read("day,campaign,device,sales,value", row);

        total.ShouldBeNull();
        problem!.Field.ShouldBe(field);
        problem.Message.ShouldStartWith($"Row 2, {field}: ");
    }

    [Fact]
    public void The_same_day_and_place_stands_once() =>
        Read("day,campaign,sales", "2026-05-11,Hire,2", "2026-05-11,hire ,3").Problem!.Row.ShouldBe(3);
}
