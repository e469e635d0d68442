using Fendrik.Server.Links;

namespace Fendrik.Server.Tests;

public class PageParserTests
{
    [Fact]
    public void Reads_what_people_see_and_nothing_that_is_run()
    {
        var page = PageParser.Read(
            "a.example",
            "<!doctype html><title>Piano &amp; more</title><style>p{}</style><h1>Tuning</h1><h2> In \n Leeds </h2><p>Same week<script>alert(1)</script>",
            1_200
        );

        page.Title.ShouldBe("Piano & more");
        page.Headings.ShouldBe(["Tuning", "In Leeds"]);
        page.Body.ShouldContain("Same week");
        page.Body.ShouldNotContain("alert");
        page.CanGetInTouch.ShouldBeFalse();
    }

    [Theory]
    [InlineData("<a href=\"tel:+441134960142\">0113 496 0142</a>", true)]
    [InlineData("<a href=\"https://openbench.example/\">Book a visit</a>", true)]
    [InlineData("<form><button>Send</button></form>", true)]
    [InlineData("<form><button disabled>Send</button></form>", false)]
    [InlineData("<button>Menu</button>", false)]
    public void Knows_whether_people_can_get_in_touch(string body, bool can) =>
        PageParser.Read("a.example", body, 0).CanGetInTouch.ShouldBe(can);

    /// <summary>HTML as it comes: the standard says what becomes of each, and nothing of it is an error.</summary>
    [Theory]
    [InlineData("")]
    [InlineData("<<<>>><p")]
    [InlineData("\0\u0001 text \ud800")]
    public void Whatever_comes_is_read(string html) =>
        PageParser.Read("a.example", html, 0).Body.ShouldNotContain('\0');

    [Fact]
    public void A_page_without_an_end_is_cut() =>
        PageParser.Read("a.example", "<p>" + new string('x', 5_000_000), 0).Body.Length.ShouldBe(6_000);
}
