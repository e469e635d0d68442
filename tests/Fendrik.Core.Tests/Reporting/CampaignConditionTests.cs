using Fendrik.Core.Reporting;

namespace Fendrik.Core.Tests.Reporting;

/// <summary>What a campaign truly does.</summary>
public class CampaignConditionTests
{
    private static readonly DateOnly Today = new(2026, 5, 12);

    private static readonly CampaignTruth Shows = new(
        true,
        true,
        ItemState.Running,
        Today.AddDays(-30),
        null,
        2,
        0,
        0,
        null
    );

    public static TheoryData<CampaignTruth, CampaignCondition> Truths =>
        new()
        {
            { Shows, CampaignCondition.Running },
            { Shows with { State = ItemState.Paused }, CampaignCondition.Paused },
            { Shows with { Start = Today.AddDays(1) }, CampaignCondition.NotBegun },
            { Shows with { Start = Today }, CampaignCondition.Running },
            { Shows with { End = Today }, CampaignCondition.Running },
            { Shows with { End = Today.AddDays(-1) }, CampaignCondition.Ended },
            { Shows with { Approved = 0, InReview = 1, Refused = 1 }, CampaignCondition.InReview },
            { Shows with { Approved = 0, Refused = 2 }, CampaignCondition.Refused },
            { Shows with { Approved = 0 }, CampaignCondition.NothingToShow },
            { Shows with { Refused = 1 }, CampaignCondition.Running },
            { Shows with { StoppedMinute = 1040 }, CampaignCondition.OutOfBudget },
            { Shows with { HasPayer = false }, CampaignCondition.NoPayer },
            { Shows with { IsLive = false }, CampaignCondition.NotPublished },
            // Of several reasons the one that has to go first.
            { Shows with { State = ItemState.Paused, HasPayer = false }, CampaignCondition.Paused },
            { Shows with { HasPayer = false, Approved = 0, Refused = 1 }, CampaignCondition.NoPayer },
            { Shows with { State = ItemState.Paused, StoppedMinute = 3 }, CampaignCondition.Paused },
        };

    [Theory]
    [MemberData(nameof(Truths))]
    public void Is_told_by_what_keeps_it_from_showing(CampaignTruth truth, CampaignCondition condition) =>
        truth.On(Today).ShouldBe(condition);

    [Fact]
    public void Says_why_in_a_sentence()
    {
        (Shows with { StoppedMinute = 1040 }).InWords(Today).ShouldBe("Today's budget was spent at 17:20.");
        (Shows with { End = Today.AddDays(-1) }).InWords(Today).ShouldBe("Its last day was 11 May 2026.");
        (Shows with { Refused = 1 }).InWords(Today).ShouldBe("It shows, but 1 of its 3 ads were refused.");
    }
}
