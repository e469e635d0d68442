using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Tests.Items;

/// <summary>Values as people type them: the one reader of every door.</summary>
public class ValueTests
{
    private static readonly ReadingGround Pounds = ReadingGround.Plain(Currency.Of("GBP"));
    private static readonly ReadingGround Relative = Pounds with { Relative = true };
    private static readonly ReadingGround German = Pounds with { Language = AccountLanguage.Of("de-DE") };

    private static Reading Read(ItemKind kind, string field, string cell, ReadingGround? ground = null) =>
        ItemTypes.Of(kind)[field].Read(cell, ground ?? Pounds);

    [Theory]
    [InlineData("1.30", "1.30")]
    [InlineData("£1.30", "1.30")]
    [InlineData("1,30", "1.30")]
    [InlineData("GBP 25", "25")]
    [InlineData("25 £", "25")]
    [InlineData("1,234.50", "1234.50")]
    [InlineData("1.234,50", "1234.50")]
    [InlineData("1 234,5", "1234.5")]
    [InlineData("1,234,567", "1234567")]
    [InlineData("1,234", "1234")] // thousands, as British English groups them
    [InlineData(".5", "0.5")]
    public void Reads_amounts_as_people_write_them(string cell, string amount) =>
        AmountText
            .Read(cell, Pounds.Currency, Pounds.Language)
            .ShouldBe(new AmountText(decimal.Parse(amount), null, false, null));

    [Theory]
    [InlineData("1.234", "1234")]
    [InlineData("1.234.567", "1234567")]
    [InlineData("1,30", "1.30")]
    [InlineData("1.30", "1.30")]
    public void Reads_thousands_by_the_language_of_the_account(string cell, string amount) =>
        AmountText.Read(cell, German.Currency, German.Language).Number.ShouldBe(decimal.Parse(amount));

    [Theory]
    [InlineData("1,2O")]
    [InlineData("$1.30")] // another currency
    [InlineData("1.2.3")]
    [InlineData("1 23")]
    [InlineData("12,34,567.8")]
    [InlineData("a lot")]
    [InlineData("1e5")]
    public void Does_not_read_an_amount_that_it_cannot_be_sure_of(string cell) =>
        Read(ItemKind.Keyword, "maxCpc", cell).Problem.ShouldNotBeNull().ShouldContain("is not an amount in GBP");

    [Theory]
    [InlineData("1.305", "has more than 2 decimal places")]
    [InlineData("1,2345", "has more than 2 decimal places")]
    [InlineData("0", "is not between 0.01 and 1,000,000")]
    [InlineData("1,000,001", "is not between")]
    [InlineData("-5", "changes an amount that is there")]
    [InlineData("+10%", "changes an amount that is there")]
    public void Says_why_an_amount_cannot_be_kept(string cell, string said) =>
        Read(ItemKind.Keyword, "maxCpc", cell).Problem.ShouldNotBeNull().ShouldContain(said);

    [Theory]
    [InlineData("+10%", AmountOperation.AddPercent, "10")]
    [InlineData("−8 %", AmountOperation.AddPercent, "-8")]
    [InlineData("-0.10", AmountOperation.AddAmount, "-0.10")]
    [InlineData("+£1.50", AmountOperation.AddAmount, "1.50")]
    [InlineData("£-5", AmountOperation.AddAmount, "-5")]
    public void A_sign_raises_or_lowers_what_is_there(string cell, AmountOperation operation, string value) =>
        Read(ItemKind.Keyword, "maxCpc", cell, Relative).Value.ShouldBe(new BidChange(operation, decimal.Parse(value)));

    [Theory]
    [InlineData("10%", "needs a sign")]
    [InlineData("-100%", "cannot be applied")]
    [InlineData("+901%", "cannot be applied")]
    public void A_change_that_makes_no_sense_is_refused(string cell, string said) =>
        Read(ItemKind.Keyword, "maxCpc", cell, Relative).Problem.ShouldNotBeNull().ShouldContain(said);

    [Theory]
    [InlineData("KWD", "1.250", "1.25")]
    [InlineData("JPY", "1,250", "1250")]
    public void Has_the_decimal_places_of_the_currency(string code, string cell, string amount) =>
        Read(ItemKind.Keyword, "maxCpc", cell, ReadingGround.Plain(Currency.Of(code)))
            .Value.ShouldBe(decimal.Parse(amount));

    [Fact]
    public void Yen_have_no_decimal_places() =>
        Read(ItemKind.Keyword, "maxCpc", "1.5", ReadingGround.Plain(Currency.Of("JPY")))
            .Problem.ShouldNotBeNull()
            .ShouldContain("JPY has none");

    [Theory]
    [InlineData("")]
    [InlineData("  ")]
    [InlineData("—")]
    public void An_emptied_amount_is_taken_away(string cell) =>
        Read(ItemKind.Campaign, "dailyBudget", cell).ShouldBe(new Reading(null));

    [Theory]
    [InlineData("Exact match", MatchType.Exact)]
    [InlineData("PHRASE", MatchType.Phrase)]
    [InlineData("all words", MatchType.AllWords)]
    [InlineData("allWords", MatchType.AllWords)]
    [InlineData("[b]", MatchType.Broad)]
    public void Reads_match_types(string cell, MatchType match) =>
        Read(ItemKind.Keyword, "match", cell).Value.ShouldBe((short)match);

    [Theory]
    [InlineData("2026-05-31")]
    [InlineData("31/05/2026")]
    [InlineData("31.5.2026")]
    [InlineData("31 May 2026")]
    public void Reads_dates_day_first(string cell) =>
        Read(ItemKind.Campaign, "startDate", cell).Value.ShouldBe(new DateOnly(2026, 5, 31));

    [Fact]
    public void Reads_networks_in_any_combination()
    {
        Read(ItemKind.Campaign, "networks", "Search and partner sites")
            .Value.ShouldBe((short)(SiteKinds.Search | SiteKinds.Partners));
        Read(ItemKind.Campaign, "networks", "television").Problem.ShouldNotBeNull();
    }

    [Fact]
    public void A_keyword_in_brackets_says_its_match_type_too()
    {
        var reading = Read(ItemKind.Keyword, "text", "[grand piano]");

        (reading.Value, reading.Also).ShouldBe(
            ("grand piano", (WordsValue.MatchField, (object)(short)MatchType.Exact))
        );
    }

    [Fact]
    public void An_emptied_state_is_the_usual_one_and_an_emptied_name_is_refused()
    {
        Read(ItemKind.Keyword, "state", "").Value.ShouldBe((short)ItemState.Running);
        Read(ItemKind.Campaign, "name", " ").Problem.ShouldNotBeNull();
    }

    /// <summary>What is written into a file or onto the clipboard is read back as the same value, whatever the type.</summary>
    [Theory]
    [InlineData(ItemKind.Keyword, "maxCpc", "1234.50")]
    [InlineData(ItemKind.Campaign, "startDate", "2026-05-31")]
    [InlineData(ItemKind.Campaign, "networks", "search + content")]
    [InlineData(ItemKind.TextAd, "headlines", "A | B c")]
    [InlineData(ItemKind.TextAd, "devicePreference", "phone")]
    [InlineData(ItemKind.Keyword, "labels", "a; b c")]
    [InlineData(ItemKind.Keyword, "landingPage", "https://tarnandfell.example/a")]
    public void Is_read_back_as_it_was_written(ItemKind kind, string name, string cell)
    {
        var field = ItemTypes.Of(kind)[name];
        foreach (var ground in new[] { Pounds, German })
        {
            var value = field.Read(cell, Pounds).Value.ShouldNotBeNull();

            field.Read(field.Type.Write(value, ground), ground).Value.ShouldBe(value);
        }
    }
}
