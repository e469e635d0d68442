using Fendrik.Core.Checks;
using Fendrik.Core.Tracking;

namespace Fendrik.Core.Tests.Tracking;

public class LinkVerdictTests
{
    private const string Asked = "https://tarnandfell.example/tuning?utm_term=piano&device=phone";

    private static LinkHop Hop(string address, int status = 200, int milliseconds = 900) =>
        new(address, status, milliseconds);

    [Fact]
    public void A_page_that_answers_in_time_is_fine() =>
        LinkVerdict.Of(Asked, [Hop(Asked)], LinkEnd.Answered).Weight.ShouldBeNull();

    [Fact]
    public void One_that_moved_and_keeps_its_parameters_is_fine() =>
        LinkVerdict
            .Of(
                Asked,
                [Hop(Asked, 301), Hop("https://www.tarnandfell.example/t?device=phone&utm_term=piano")],
                LinkEnd.Answered
            )
            .Weight.ShouldBeNull();

    public static TheoryData<LinkHop[], LinkEnd, string> Amiss =>
        new()
        {
            {
                [Hop(Asked, 301), Hop("https://tarnandfell.example/t?device=phone")],
                LinkEnd.Answered,
                "link-parameters-lost"
            },
            {
                [Hop(Asked, 302), Hop("https://elsewhere.example/t?device=phone&utm_term=piano")],
                LinkEnd.Answered,
                "link-other-domain"
            },
            { [Hop(Asked, 404)], LinkEnd.Answered, "link-error" },
            { [Hop(Asked, 503)], LinkEnd.Answered, "link-error" },
            { [Hop(Asked, 200, 4_200)], LinkEnd.Answered, "link-slow" },
            { [Hop(Asked, 301), Hop(Asked, 0)], LinkEnd.Circle, "link-circle" },
            { [Hop(Asked, 301)], LinkEnd.TooManyHops, "link-hops" },
            { [], LinkEnd.NoAnswer, "link-no-answer" },
            { [Hop(Asked, 301), Hop("http://10.0.0.1/", 0)], LinkEnd.NotAllowed, "link-not-allowed" },
        };

    [Theory]
    [MemberData(nameof(Amiss))]
    public void What_is_amiss_is_named_with_what_to_do(LinkHop[] hops, LinkEnd end, string code)
    {
        var verdict = LinkVerdict.Of(Asked, hops, end);

        (verdict.Code, verdict.Weight is Weight.Caution or Weight.Hint).ShouldBe((code, true));
        verdict.Detail.ShouldEndWith(".");
    }

    [Fact]
    public void The_parameters_that_are_lost_are_named() =>
        LinkVerdict
            .Of(Asked, [Hop(Asked, 301), Hop("https://tarnandfell.example/t")], LinkEnd.Answered)
            .Detail.ShouldContain("utm_term, device are lost");
}
