using Fendrik.Core.Accounts;
using Fendrik.Core.AdText.Combining;
using Fendrik.Core.AdText.Insertion;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Serving;

/// <summary>An ad as one person sees it: the lines that were chosen, with words inserted.</summary>
/// <param name="Ad">The ad.</param>
/// <param name="Lines">Which of its lines.</param>
/// <param name="Headlines">Headlines as they show.</param>
/// <param name="Descriptions">Descriptions as they show.</param>
/// <param name="DisplayPath">What shows behind the domain.</param>
/// <param name="LandingPage">Where it leads.</param>
/// <param name="FellBack">True when a fallback shows somewhere, since what is inserted was unknown or too long.</param>
public sealed record ComposedAd(
    Ad Ad,
    AdCombination Lines,
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    IReadOnlyList<string> DisplayPath,
    string? LandingPage,
    bool FellBack
)
{
    /// <summary>Puts an ad together.</summary>
    /// <param name="ad">The ad.</param>
    /// <param name="lines">Which of its lines.</param>
    /// <param name="network">The network, whose lengths hold for inserted words.</param>
    /// <param name="device">The device.</param>
    /// <param name="values">What is inserted.</param>
    public static ComposedAd Of(
        Ad ad,
        AdCombination lines,
        NetworkProfile network,
        Device device,
        InsertedValues values
    )
    {
        var fellBack = false;
        IReadOnlyList<string> Seen(IEnumerable<string> written, string field)
        {
            var limits = network.LimitsOf(ad.Kind, field);
            return
            [
                .. written.Select(line =>
                {
                    var seen = AdLine.Seen(ad.TextOf(line), values, limits);
                    fellBack |= seen.FellBack;
                    return seen.Text;
                }),
            ];
        }

        var headlines = Seen(lines.Headlines.Select(line => ad.Headlines[line]), "headlines");
        var descriptions = Seen(lines.Descriptions.Select(line => ad.Descriptions[line]), "descriptions");
        var path = ad.ShownPath.Count == 0 ? [] : Seen(ad.ShownPath, "displayPath");
        return new ComposedAd(ad, lines, headlines, descriptions, path, ad.PageOn(device), fellBack);
    }

    /// <summary>What is inserted when a keyword answers a search.</summary>
    /// <param name="network">The network.</param>
    /// <param name="served">The keyword.</param>
    /// <param name="search">What was typed.</param>
    /// <param name="place">Where the person is; none when that is not known.</param>
    /// <param name="clock">The clock on the account's wall.</param>
    public static InsertedValues ValuesOf(
        NetworkProfile network,
        ServedKeyword served,
        string search,
        string? place,
        DateTime? clock
    ) =>
        new(
            InsertedValues.SearchedWords(network.Matching.InsertedWords, served.Keyword.Text, search),
            served.AdGroup.Name,
            served.Campaign.Name,
            place,
            clock
        );
}
