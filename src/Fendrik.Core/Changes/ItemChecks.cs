using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Changes;

/// <summary>
/// What one item lacks or has too much of, by the limits of a network. The network applies the same when items arrive,
/// so that nothing passes here and is refused there but for the reviewers' reading.
/// </summary>
public static class ItemChecks
{
    /// <summary>Checks a campaign.</summary>
    public static IEnumerable<Finding> Of(Campaign campaign, NetworkProfile network)
    {
        var report = new Reporter(ItemKind.Campaign, campaign.Id);
        foreach (var finding in Name(report, campaign.Name, network))
        {
            yield return finding;
        }

        if (campaign.DailyBudget is not { } budget)
        {
            yield return report.Blocker(
                "budget-missing",
                "dailyBudget",
                "daily budget missing",
                "A campaign without a daily budget cannot run. Set one."
            );
        }
        else if (budget < network.MinimumDailyBudget)
        {
            yield return report.Blocker(
                "budget-low",
                "dailyBudget",
                $"daily budget below {Amount(network.MinimumDailyBudget)}",
                $"{network.Name} takes no daily budget below {Amount(network.MinimumDailyBudget)}. Raise it."
            );
        }

        if (campaign.Networks == SiteKinds.None)
        {
            yield return report.Blocker(
                "networks-missing",
                "networks",
                "shows nowhere",
                "Choose at least one place to show: search, partner sites or content sites."
            );
        }

        if (campaign.StartDate > campaign.EndDate)
        {
            yield return report.Blocker(
                "dates-reversed",
                "endDate",
                "ends before it starts",
                $"The end date {campaign.EndDate:d MMM yyyy} is before the start date {campaign.StartDate:d MMM yyyy}."
            );
        }
    }

    /// <summary>Checks a shared negative list by itself.</summary>
    public static IEnumerable<Finding> Of(NegativeList list, NetworkProfile network) =>
        Name(new Reporter(ItemKind.NegativeList, list.Id), list.Name, network);

    /// <summary>Checks an ad group by itself; what is in it is checked by <see cref="OfContents"/>.</summary>
    public static IEnumerable<Finding> Of(AdGroup adGroup, NetworkProfile network)
    {
        var report = new Reporter(ItemKind.AdGroup, adGroup.Id);
        return Name(report, adGroup.Name, network).Concat(MaxCpc(report, adGroup.MaxCpc, network));
    }

    /// <summary>Checks what an ad group holds.</summary>
    /// <param name="adGroupId">The ad group.</param>
    /// <param name="keywords">Number of keywords that are not removed.</param>
    /// <param name="keywordsWithoutMaxCpc">Those of them that rely on the ad group's max CPC.</param>
    /// <param name="ads">Number of ads that are not removed.</param>
    /// <param name="maxCpc">The ad group's max CPC.</param>
    public static IEnumerable<Finding> OfContents(
        long adGroupId,
        int keywords,
        int keywordsWithoutMaxCpc,
        int ads,
        decimal? maxCpc
    )
    {
        var report = new Reporter(ItemKind.AdGroup, adGroupId);
        if (keywordsWithoutMaxCpc > 0 && maxCpc is null)
        {
            yield return report.Blocker(
                "max-cpc-missing",
                "maxCpc",
                "max CPC missing",
                keywordsWithoutMaxCpc == 1
                    ? "One of its keywords has no max CPC of its own. Set one here or there."
                    : $"{keywordsWithoutMaxCpc} of its keywords have no max CPC of their own. Set one here or on each."
            );
        }

        if (keywords == 0)
        {
            yield return report.Caution(
                "no-keywords",
                null,
                "no keywords",
                "Nothing triggers this ad group. Add keywords or remove it."
            );
        }

        if (ads == 0)
        {
            yield return report.Caution(
                "no-ads",
                null,
                "no ads",
                "This ad group has nothing to show. Write an ad or pause it."
            );
        }
    }

    /// <summary>Checks a keyword.</summary>
    public static IEnumerable<Finding> Of(Keyword keyword, NetworkProfile network)
    {
        var report = new Reporter(ItemKind.Keyword, keyword.Id);
        return Text(report, keyword.Text, network.KeywordLength, network.KeywordWords)
            .Concat(MaxCpc(report, keyword.MaxCpc, network))
            .Concat(Url(report, keyword.FinalUrl, network, required: false));
    }

    /// <summary>Checks a negative keyword.</summary>
    public static IEnumerable<Finding> Of(NegativeKeyword negative, NetworkProfile network) =>
        Text(
            new Reporter(ItemKind.NegativeKeyword, negative.Id),
            negative.Text,
            network.KeywordLength,
            network.NegativeWords
        );

    /// <summary>Checks a text ad, also for wordings that the network's reviewers refuse.</summary>
    public static IEnumerable<Finding> Of(TextAd ad, NetworkProfile network)
    {
        var report = new Reporter(ItemKind.TextAd, ad.Id);
        var parts = Texts(
                report,
                "headlines",
                "headline",
                ad.Headlines,
                network.HeadlinesMin,
                network.HeadlinesMax,
                network.HeadlineLength
            )
            .Concat(
                Texts(
                    report,
                    "descriptions",
                    "description",
                    ad.Descriptions,
                    network.DescriptionsMin,
                    network.DescriptionsMax,
                    network.DescriptionLength
                )
            )
            .Concat(
                Texts(
                    report,
                    "displayPath",
                    "display path part",
                    ad.DisplayPath,
                    0,
                    network.PathParts,
                    network.PathLength
                )
            )
            .Concat(Url(report, ad.FinalUrl, network, required: true));
        foreach (var finding in parts)
        {
            yield return finding;
        }

        foreach (var (field, texts) in new[] { ("headlines", ad.Headlines), ("descriptions", ad.Descriptions) })
        {
            foreach (var text in texts)
            {
                if (network.RefusedWordingIn(text) is { } wording)
                {
                    yield return report.Caution(
                        "wording-refused",
                        field,
                        $"reviewers refuse “{wording}”",
                        $"{network.Name} refuses ads that say “{wording}”. Word “{text}” in another way."
                    );
                }
            }
        }
    }

    /// <summary>A caution for a keyword that one of the account's own negatives keeps from ever showing.</summary>
    public static Finding BlockedByNegative(long keywordId, NegativeKeyword negative) =>
        new Reporter(ItemKind.Keyword, keywordId).Caution(
            "blocked-by-negative",
            null,
            "blocked by a negative",
            $"The negative {KeywordNotation.Write(negative.Text, negative.Match, negative: true)} on "
                + (
                    negative.ListId is not null ? "a shared list"
                    : negative.AdGroupId is null ? "the campaign"
                    : "the ad group"
                )
                + " keeps it from showing. Remove one of the two."
        );

    private static IEnumerable<Finding> Name(Reporter report, string name, NetworkProfile network)
    {
        if (string.IsNullOrWhiteSpace(name))
        {
            yield return report.Blocker("name-missing", "name", "name missing", "Give it a name.");
        }
        else if (TextLength.Of(name) > network.NameLength)
        {
            yield return report.Blocker(
                "name-long",
                "name",
                $"name over {network.NameLength} characters",
                $"{network.Name} takes names of at most {network.NameLength} characters; this one has {TextLength.Of(name)}."
            );
        }
    }

    private static IEnumerable<Finding> MaxCpc(Reporter report, decimal? maxCpc, NetworkProfile network)
    {
        if (maxCpc < network.MinimumCpc)
        {
            yield return report.Blocker(
                "max-cpc-low",
                "maxCpc",
                $"max CPC below {Amount(network.MinimumCpc)}",
                $"{network.Name} takes no max CPC below {Amount(network.MinimumCpc)}. Raise it."
            );
        }
    }

    private static IEnumerable<Finding> Text(Reporter report, string text, int longest, int mostWords)
    {
        var length = TextLength.Of(text);
        if (length > longest)
        {
            yield return report.Blocker(
                "text-long",
                "text",
                $"{length} characters, {longest} at most",
                $"The network takes at most {longest} characters here; this has {length}. Shorten it."
            );
        }

        var words = Words.Of(text).Count;
        if (words == 0)
        {
            yield return report.Blocker("text-empty", "text", "no words", "It has no letters or digits to match.");
        }
        else if (words > mostWords)
        {
            yield return report.Blocker(
                "words-many",
                "text",
                $"{words} words, {mostWords} at most",
                $"The network takes at most {mostWords} words here; this has {words}. Leave some out."
            );
        }
    }

    private static IEnumerable<Finding> Texts(
        Reporter report,
        string field,
        string name,
        IReadOnlyList<string> texts,
        int fewest,
        int most,
        int longest
    )
    {
        if (texts.Count < fewest)
        {
            yield return report.Blocker(
                $"{field}-few",
                field,
                $"{texts.Count} {name}s, {fewest} needed",
                $"The ad needs at least {fewest} {name}s."
            );
        }

        if (texts.Count > most)
        {
            yield return report.Blocker(
                $"{field}-many",
                field,
                $"{texts.Count} {name}s, {most} at most",
                $"The network takes at most {most} {name}s."
            );
        }

        foreach (var (text, place) in texts.Select((text, place) => (text, place + 1)))
        {
            var length = TextLength.Of(text);
            if (length > longest)
            {
                yield return report.Blocker(
                    $"{field}-long",
                    field,
                    $"{name} {place}: {length} / {longest}",
                    $"“{text}” has {length} characters; at most {longest} are taken. Shorten it."
                );
            }
        }
    }

    private static IEnumerable<Finding> Url(Reporter report, string? url, NetworkProfile network, bool required)
    {
        if (string.IsNullOrWhiteSpace(url))
        {
            if (required)
            {
                yield return report.Blocker(
                    "url-missing",
                    "finalUrl",
                    "final URL missing",
                    "An ad needs a page to lead to. Enter its address."
                );
            }
        }
        else if (!FinalUrl.IsValid(url))
        {
            yield return report.Blocker(
                "url-wrong",
                "finalUrl",
                "final URL is not an address",
                $"“{url}” is not a web address. It should begin with https:// or a domain."
            );
        }
        else if (url.Length > network.UrlLength)
        {
            yield return report.Blocker(
                "url-long",
                "finalUrl",
                $"final URL over {network.UrlLength} characters",
                $"The network takes addresses of at most {network.UrlLength} characters."
            );
        }
    }

    private static string Amount(decimal amount) => amount.ToString("0.00", CultureInfo.InvariantCulture);

    private readonly record struct Reporter(ItemKind Kind, long Id)
    {
        public Finding Blocker(string code, string? field, string message, string detail) =>
            new(Weight.Blocker, code, Kind, Id, field, message, detail);

        public Finding Caution(string code, string? field, string message, string detail) =>
            new(Weight.Caution, code, Kind, Id, field, message, detail);
    }
}
