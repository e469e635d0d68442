using MathNet.Numerics.Distributions;

namespace Fendrik.Core.Calls;

/// <summary>What a rented number is.</summary>
public enum NumberReach
{
    /// <summary>One of an area: people see somebody near.</summary>
    Local = 1,

    /// <summary>One that costs the caller nothing.</summary>
    Freephone = 2,
}

/// <summary>By what a call to a rented number is known.</summary>
public enum NumberPool
{
    /// <summary>The number stands beside the ads and on the pages of a campaign, or of all: a call from the site says its campaign.</summary>
    Campaign = 1,

    /// <summary>Each visitor of the site is shown a number of the pool, until all others had their turn: a call says its visit.</summary>
    Visit = 2,
}

/// <summary>What is known of where a call came from.</summary>
public enum CallOrigin
{
    /// <summary>The click, with keyword and ad.</summary>
    Click = 1,

    /// <summary>The campaign, and no more.</summary>
    Campaign = 2,

    /// <summary>Nothing: the number had gone to another visitor meanwhile.</summary>
    Unknown = 3,
}

/// <summary>What is known of calls by rented numbers, and how many numbers that takes.</summary>
public static class TrackedNumbers
{
    /// <summary>Most numbers that an account can rent.</summary>
    public const int Most = 200;

    /// <summary>What is known of where a call came from.</summary>
    /// <param name="fromAd">True for a call to the number beside an ad, which is the click itself.</param>
    /// <param name="hasCampaignNumber">True where a number of its campaign stood on the site.</param>
    /// <param name="numbersForVisits">How many numbers the visitors of the site were shown in turn.</param>
    /// <param name="visitsBetween">How many visits began between the click and the call.</param>
    public static CallOrigin OriginOf(bool fromAd, bool hasCampaignNumber, int numbersForVisits, int visitsBetween) =>
        fromAd ? CallOrigin.Click
        : numbersForVisits > 0
            ? visitsBetween < numbersForVisits ? CallOrigin.Click
                : CallOrigin.Unknown
        : hasCampaignNumber ? CallOrigin.Campaign
        // Without a number of one's own the network puts one of its own on the page.
        : CallOrigin.Click;

    /// <summary>
    /// How many numbers tell visitors apart: the fewest for which at most one in twenty calls comes when its number has gone on. So many visits begin
    /// while a caller thinks about it as a Poisson distribution says of independent visits.
    /// </summary>
    /// <param name="visitsAnHour">Visits that begin in a busy hour.</param>
    /// <param name="hoursUntilCall">Hours from the click until nearly all callers have called.</param>
    /// <returns>At least 1, at most <see cref="Most"/>.</returns>
    public static int Needed(double visitsAnHour, double hoursUntilCall)
    {
        const double Lost = 0.05;
        var mean = visitsAnHour * hoursUntilCall;
        if (mean <= 0)
        {
            return 1;
        }

        var visits = new Poisson(mean);
        var numbers = 1;
        while (numbers < Most && 1 - visits.CumulativeDistribution(numbers - 1) > Lost)
        {
            numbers++;
        }

        return numbers;
    }
}
