using System.Text.Json;
using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Tests.Accounts;

public class WeekHoursTests
{
    [Theory]
    [InlineData("Mon-Fri 08:00-17:30; Sat 09:00-12:00", "Mon-Fri 08:00-17:30; Sat 09:00-12:00")]
    [InlineData("monday – friday 8–17:30", "Mon-Fri 08:00-17:30")]
    [InlineData("weekdays 9-17", "Mon-Fri 09:00-17:00")]
    [InlineData("daily 8:00-20:00", "daily 08:00-20:00")]
    [InlineData("9-12, 13-17", "daily 09:00-12:00, 13:00-17:00")]
    [InlineData("Mon, Wed 9-12", "Mon 09:00-12:00; Wed 09:00-12:00")]
    [InlineData("Sat-Mon 10-11", "Mon 10:00-11:00; Sat-Sun 10:00-11:00")]
    [InlineData("Tue 9-12; Tue 11-14", "Tue 09:00-14:00")]
    [InlineData("Fri 22:00-02:00", "Fri 22:00-24:00; Sat 00:00-02:00")]
    [InlineData("Sun 20-24", "Sun 20:00-24:00")]
    public void Are_read_as_people_write_them(string text, string kept) => WeekHours.Of(text).ToString().ShouldBe(kept);

    [Theory]
    [InlineData("whenever")]
    [InlineData("Mon")]
    [InlineData("Mon 25:00-26:00")]
    [InlineData("Mon 9-9")]
    [InlineData("M 9-12")]
    [InlineData("Mon-Tue-Wed 9-12")]
    [InlineData(" ; ")]
    public void Are_refused_with_what_to_write_instead(string text)
    {
        WeekHours.Read(text, out var problem).ShouldBeNull();
        problem!.ShouldContain("write", Case.Insensitive);
    }

    [Fact]
    public void Forty_hours_a_week_are_23_8_percent_of_it()
    {
        // Common practice, no source.
        var hours = WeekHours.Of("Mon-Fri 09:00-17:00");

        hours.Minutes.ShouldBe(40 * 60);
        Math.Round(hours.ShareOfWeek * 100, 1).ShouldBe(23.8m);
    }

    [Fact]
    public void Hold_from_their_first_minute_up_to_but_without_their_last()
    {
        var hours = WeekHours.Of("Mon-Fri 08:00-17:30");

        hours.Holds(DayOfWeek.Friday, 8 * 60).ShouldBeTrue();
        hours.Holds(DayOfWeek.Friday, 17 * 60 + 29).ShouldBeTrue();
        hours.Holds(DayOfWeek.Friday, 17 * 60 + 30).ShouldBeFalse();
        hours.Holds(DayOfWeek.Saturday, 9 * 60).ShouldBeFalse();
    }

    [Fact]
    public void What_is_kept_reads_back_as_the_same_hours() =>
        Gen.Select(Gen.Int[0, 6], Gen.Int[0, 1439], Gen.Int[0, 1439])
            .Where((_, from, to) => from != to)
            .Array[1, 6]
            .Sample(spans =>
            {
                var hours = WeekHours.Of(
                    string.Join(
                        "; ",
                        spans.Select(span =>
                            $"{(DayOfWeek)span.Item1} {span.Item2 / 60}:{span.Item2 % 60:00}-{span.Item3 / 60}:{span.Item3 % 60:00}"
                        )
                    )
                );
                WeekHours.Of(hours.ToString()).ShouldBe(hours);
            });

    [Theory]
    [InlineData("\"Mon-Fri 08:00-17:30\"", true)]
    [InlineData("null", true)]
    [InlineData("\"whenever\"", false)]
    [InlineData("17", false)]
    public void Only_hours_come_in_from_a_network(string json, bool taken)
    {
        var type = new WeekHoursValue();
        void Read() => type.ReadStored(JsonDocument.Parse(json).RootElement);

        if (taken)
        {
            Should.NotThrow(Read);
        }
        else
        {
            Should.Throw<JsonException>(Read);
        }
    }
}
