using Fendrik.Core.Calls;

namespace Fendrik.Core.Tests.Calls;

public class TrackedNumbersTests
{
    [Theory]
    [InlineData(true, false, 0, 0, CallOrigin.Click)]
    [InlineData(true, true, 5, 90, CallOrigin.Click)]
    [InlineData(false, false, 0, 90, CallOrigin.Click)]
    [InlineData(false, true, 0, 0, CallOrigin.Campaign)]
    [InlineData(false, true, 3, 2, CallOrigin.Click)]
    [InlineData(false, false, 3, 3, CallOrigin.Unknown)]
    public void A_call_says_its_visit_as_long_as_its_number_has_not_gone_on(
        bool fromAd,
        bool ofCampaign,
        int numbers,
        int visitsBetween,
        CallOrigin origin
    ) => TrackedNumbers.OriginOf(fromAd, ofCampaign, numbers, visitsBetween).ShouldBe(origin);

    /// <summary>
    /// Printed tables of the Poisson distribution, quoted from memory: of mean 1, P(X ≤ 3) = 0.9810 and P(X ≤ 2) = 0.9197; of mean 3, P(X ≤ 6) = 0.9665 and
    /// P(X ≤ 5) = 0.9161; of mean 10, P(X ≤ 15) = 0.9513 and P(X ≤ 14) = 0.9165.
    /// </summary>
    [Theory]
    [InlineData(1, 1, 4)]
    [InlineData(1.5, 2, 7)]
    [InlineData(20, 0.5, 16)]
    [InlineData(0, 3, 1)]
    [InlineData(10_000, 10, TrackedNumbers.Most)]
    public void Enough_numbers_are_those_that_one_call_in_twenty_misses(double visits, double hours, int numbers) =>
        TrackedNumbers.Needed(visits, hours).ShouldBe(numbers);
}
