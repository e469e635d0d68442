using Fendrik.Core.Accounts;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.Items;

public class CallAdTests
{
    private static readonly ItemType Type = ItemTypes.Of(ItemKind.CallAd);

    private static readonly CallAd Weekdays = new(
        1,
        2,
        ItemState.Running,
        "Tarn & Fell Pianos",
        "+441134960142",
        ["Ask A Tuner"],
        ["Ring and ask."],
        null,
        WeekHours.Of("Mon-Fri 08:00-17:30")
    );

    [Theory]
    [InlineData(Device.Phone, true)]
    [InlineData(Device.Desktop, false)]
    [InlineData(Device.Tablet, false)]
    public void Shows_on_phones_alone(Device device, bool shows) => Weekdays.ShowsOn(device).ShouldBe(shows);

    [Theory]
    [InlineData(DayOfWeek.Monday, 8 * 60, true)]
    [InlineData(DayOfWeek.Monday, (17 * 60) + 30, false)]
    [InlineData(DayOfWeek.Sunday, 12 * 60, false)]
    [InlineData(DayOfWeek.Sunday, null, true)]
    public void Shows_at_its_hours_and_where_no_time_is_meant(DayOfWeek day, int? minute, bool shows) =>
        Weekdays.ShowsAt(day, minute).ShouldBe(shows);

    private static string[] Codes(string? number, string? hours, string network = "ostrel") =>
        [
            .. Type.Check(
                    new ItemValues(Type)
                    {
                        [Type["businessName"]] = "Tarn & Fell Pianos",
                        [Type["callNumber"]] = number,
                        [Type["headlines"]] = new[] { "Ask A Tuner" },
                        [Type["descriptions"]] = new[] { "Ring and ask." },
                        [Type["measured"]] = (short)YesNo.Yes,
                        [Type["hours"]] = hours,
                    },
                    new CheckReport(Type.Kind, 1, NetworkProfile.Of(network), Currency.Of("GBP"))
                )
                .Select(finding => finding.Code),
        ];

    [Fact]
    public void Nobody_can_be_called_without_a_number() =>
        Codes(null, "Mon-Fri 08:00-17:30").ShouldBe(["call-number-missing"]);

    [Fact]
    public void Calls_at_any_hour_are_a_caution() => Codes("+441134960142", null).ShouldBe(["calls-at-any-hour"]);

    [Fact]
    public void A_number_that_cannot_be_measured_is_a_caution() =>
        Codes("+493023125000", "Mon-Fri 08:00-17:30", "pellow").ShouldBe(["calls-not-measured"]);
}
