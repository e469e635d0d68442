using Fendrik.Core.Changes;

namespace Fendrik.Core.Tests.Changes;

public class SecondLookTests
{
    private static readonly LookState[] States = Enum.GetValues<LookState>();

    [Theory]
    [InlineData(LookSubject.Changes, LookState.Open, "Returned, Published, Withdrawn")]
    [InlineData(LookSubject.Changes, LookState.Returned, "Open, Published, Withdrawn")]
    [InlineData(LookSubject.Changes, LookState.Published, "")]
    [InlineData(LookSubject.Changes, LookState.Withdrawn, "")]
    [InlineData(LookSubject.Campaign, LookState.Open, "Closed")]
    [InlineData(LookSubject.Campaign, LookState.Closed, "Open")]
    public void A_look_goes_on_as_its_subject_allows(LookSubject subject, LookState from, string to) =>
        string.Join(", ", States.Where(state => from.MayBecome(state, subject))).ShouldBe(to);

    [Fact]
    public void What_is_shown_is_never_published_whatever_its_state() =>
        States.ShouldAllBe(state => !state.MayBecome(LookState.Published, LookSubject.Campaign));

    [Theory]
    [InlineData(null, false, null)]
    [InlineData("  ", true, "Say something about it.")]
    public void A_remark_says_something(string? text, bool isNeeded, string? problem) =>
        SecondLook.ProblemOf(text, isNeeded).ShouldBe(problem);

    [Fact]
    public void A_remark_that_is_too_long_says_by_how_much() =>
        SecondLook
            .ProblemOf(new string('x', SecondLook.LongestText + 1), isNeeded: false)
            .ShouldBe("At most 2,000 characters fit; these are 2,001.");
}
