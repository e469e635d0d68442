using Fendrik.Core.Reporting.Breakdowns;

namespace Fendrik.Core.Tests.Reporting;

/// <summary>What figures can be told apart by.</summary>
public class BreakdownTests
{
    [Theory]
    [InlineData(Breakdown.Device, Breakdown.Hour, true)]
    [InlineData(Breakdown.Campaign, Breakdown.Age, true)]
    [InlineData(Breakdown.Gender, Breakdown.Week, true)]
    [InlineData(Breakdown.Action, Breakdown.Device, true)]
    [InlineData(Breakdown.Age, Breakdown.Gender, false)]
    [InlineData(Breakdown.Place, Breakdown.Device, false)]
    [InlineData(Breakdown.Action, Breakdown.Match, false)]
    [InlineData(Breakdown.Day, Breakdown.Day, false)]
    public void Two_are_crossed_where_the_network_reports_them_together(Breakdown by, Breakdown then, bool isCrossed)
    {
        (BreakdownRules.ProblemOf(by, then) is null).ShouldBe(isCrossed);
        (BreakdownRules.ProblemOf(then, by) is null).ShouldBe(isCrossed);
    }

    [Theory]
    [InlineData(Breakdown.Day, "2026-05-12", "Tue 12 May")]
    [InlineData(Breakdown.Week, "2026-05-11", "week of 11 May")]
    [InlineData(Breakdown.Month, "2026-05-01", "May 2026")]
    [InlineData(Breakdown.Weekday, "1", "Monday")]
    [InlineData(Breakdown.Weekday, "7", "Sunday")]
    [InlineData(Breakdown.Hour, "8", "08:00")]
    [InlineData(Breakdown.Place, "3:leeds", "Leeds")]
    [InlineData(Breakdown.Place, "4:leeds", "Leeds, for an interest")]
    [InlineData(Breakdown.Site, "2", "partner sites")]
    public void Parts_are_called_what_people_call_them(Breakdown by, string key, string label) =>
        BreakdownRules.LabelOf(by, key).ShouldBe(label);
}
