namespace Fendrik.Network.Simulation;

/// <summary>An ad on a page, as somebody comes to it.</summary>
/// <param name="Looks">How likely somebody who has clicked nothing yet looks at it.</param>
/// <param name="Appeal">How likely somebody who looks clicks it.</param>
public readonly record struct SeenAd(double Looks, double Appeal);

/// <summary>
/// Which ad of a page is clicked: people go through it from the top and click the first that appeals to them, the cascade model
/// (Craswell, Zoeter, Taylor, Ramsey, “An experimental comparison of click position-bias models”, WSDM 2008, section 3.4), but do
/// not look at every place.
/// </summary>
public static class Examination
{
    /// <summary>The ad that is clicked: its index, or −1 for none.</summary>
    /// <param name="ads">The ads in the order of the page.</param>
    /// <param name="bidders">Who each is: the same ad has the same luck in every place.</param>
    /// <param name="chance">The luck of the search.</param>
    public static int Clicked(ReadOnlySpan<SeenAd> ads, ReadOnlySpan<int> bidders, in Chance chance)
    {
        for (var at = 0; at < ads.Length; at++)
        {
            if (
                chance.Happens(Purpose.Look, ads[at].Looks, at)
                && chance.Happens(Purpose.Click, ads[at].Appeal, bidders[at])
            )
            {
                return at;
            }
        }

        return -1;
    }

    /// <summary>How likely an ad is clicked, with those above it.</summary>
    public static double Likelihood(ReadOnlySpan<SeenAd> ads, int index)
    {
        var still = 1.0;
        for (var at = 0; at < index; at++)
        {
            still *= 1 - ads[at].Looks * ads[at].Appeal;
        }

        return still * ads[index].Looks * ads[index].Appeal;
    }
}
