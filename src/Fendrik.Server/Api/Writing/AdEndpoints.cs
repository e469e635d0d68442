using Fendrik.Core.AdText;
using Fendrik.Core.AdText.Combining;
using Fendrik.Core.AdText.Insertion;
using Fendrik.Core.AdText.Patterns;
using Fendrik.Core.Checks;
using Fendrik.Core.Items;
using Fendrik.Core.Reporting;
using Fendrik.Data.Commands;
using Fendrik.Data.Commands.Patterns;
using Fendrik.Data.Links;
using Fendrik.Data.Results;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Data.Writing;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Writing;

/// <summary>A responsive ad whose combinations are asked for.</summary>
/// <param name="AdId">The ad, for what its combinations brought; none for one that is not kept.</param>
/// <param name="Headlines">Headlines as they are written.</param>
/// <param name="Descriptions">Descriptions as they are written.</param>
/// <param name="KeptApart">What never shows together.</param>
/// <param name="Device">The screen.</param>
/// <param name="Filter">Which of them; none for all.</param>
/// <param name="BySuccess">True to have those first that were clicked more than their places usually bring; else those that showed most.</param>
public sealed record ArrangedWish(
    long? AdId,
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    string? KeptApart,
    Device Device,
    ArrangedFilter? Filter,
    bool? BySuccess = null
);

/// <summary>A pattern, and the ad groups that it is for.</summary>
public sealed record PatternWish(
    ItemKind Kind,
    Dictionary<string, IReadOnlyList<IReadOnlyList<string>>> Slots,
    PatternPlaces Places
);

/// <summary>Ways in which a responsive ad can appear.</summary>
/// <param name="Count">How many there are.</param>
/// <param name="Apart">How many were struck out.</param>
/// <param name="Marked">How many of the others are better struck out.</param>
/// <param name="Rows">The first of those asked for.</param>
public sealed record ArrangedView(long Count, long Apart, long Marked, IReadOnlyList<ArrangedRow> Rows);

/// <summary>One of them.</summary>
/// <param name="Headlines">Headlines as they are seen.</param>
/// <param name="Descriptions">Descriptions as they are seen.</param>
/// <param name="Problems">Why it is better struck out.</param>
/// <param name="IsApart">True when it was struck out.</param>
/// <param name="KeptApart">What the ad keeps apart when this one is struck out, or let back where it was.</param>
/// <param name="Impressions">Times shown in 28 days.</param>
/// <param name="Ctr">Clicks for each time shown; none when it did not show.</param>
/// <param name="AgainstUsual">Clicks against those that its places usually bring.</param>
public sealed record ArrangedRow(
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    IReadOnlyList<string> Problems,
    bool IsApart,
    string KeptApart,
    long Impressions,
    decimal? Ctr,
    decimal? AgainstUsual
);

/// <summary>What is asked while ads are written.</summary>
internal static class AdEndpoints
{
    public static void MapAds(this RouteGroupBuilder account)
    {
        account.MapGet("/ad-groups/{adGroupId:long}/words", WordsAsync).WithName("readAdGroupWords");
        account.MapGet("/ad-groups/{adGroupId:long}/fit", FitAsync).WithName("readAdGroupFit");
        account.MapPost("/ads/combined", CombinedAsync).WithName("combineAds").Needs(AccountRight.Look);
        account.MapGet("/ads/compared", ComparedAsync).WithName("compareAds");
        account.MapPost("/ads/arranged", ArrangedAsync).WithName("arrangeAds").Needs(AccountRight.Look);
        account.MapGet("/ads/labels", LabelsAsync).WithName("readAdLabels");
        account.MapGet("/ads/variants", VariantsAsync).WithName("compareVariants");
        account.MapPost("/ads/patterned", PatternedAsync).WithName("patternAds").Needs(AccountRight.Look);
    }

    /// <summary>The words that the keywords of an ad group ask for, and whether its ads say them.</summary>
    private static async Task<Ok<IReadOnlyList<WordOfKeywords>>> WordsAsync(
        int accountId,
        long adGroupId,
        AdGroupWords words,
        CancellationToken cancellation
    ) => TypedResults.Ok(await words.ReadAsync(accountId, adGroupId, cancellation));

    /// <summary>How well the texts, keywords and pages of an ad group say the same.</summary>
    private static async Task<Results<Ok<AdGroupFit>, NotFound>> FitAsync(
        int accountId,
        long adGroupId,
        PageBook pages,
        CancellationToken cancellation
    ) =>
        await pages.FitAsync(accountId, adGroupId, cancellation) is { } fit
            ? TypedResults.Ok(fit)
            : TypedResults.NotFound();

    /// <summary>All fixed ads that alternatives make, with what is wrong with each.</summary>
    private static async Task<Ok<IReadOnlyList<CombinedAd>>> CombinedAsync(
        int accountId,
        AdAlternatives request,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var texts = request.Headlines.Concat(request.Descriptions).Append(request.LandingPages).ToArray();
        if (
            texts.Length > TextEndpoints.MostTexts
            || texts.Any(slot =>
                slot.Count > TextEndpoints.MostTexts
                || slot.Any(text => text is null || text.Length > TextEndpoints.LongestText)
            )
        )
        {
            throw new InvalidChangeException(
                "headlines",
                $"At most {TextEndpoints.MostTexts} alternatives of {TextEndpoints.LongestText:N0} characters are put together. Leave some out."
            );
        }

        var account = await workingCopy.FactsAsync(accountId, cancellation);
        try
        {
            return TypedResults.Ok(
                AdCombinations.Of(request, new CheckReport(ItemKind.TextAd, 0, account.Network, account.Currency))
            );
        }
        catch (ArgumentException error)
        {
            throw new InvalidChangeException("headlines", error.Message.Split(" (Parameter", 2)[0]);
        }
    }

    /// <summary>The ways in which a responsive ad can appear, those that showed most first.</summary>
    private static async Task<Ok<ArrangedView>> ArrangedAsync(
        int accountId,
        ArrangedWish request,
        WorkingCopy workingCopy,
        CombinationFigures figures,
        CancellationToken cancellation
    )
    {
        const int MostArranged = 60;
        if (
            request.Headlines.Count > TextEndpoints.MostTexts
            || request.Descriptions.Count > TextEndpoints.MostTexts
            || request
                .Headlines.Concat(request.Descriptions)
                .Any(text => text is null || text.Length > TextEndpoints.LongestText)
        )
        {
            throw new InvalidChangeException("headlines", "These are more lines than any network takes.");
        }

        var account = await workingCopy.FactsAsync(accountId, cancellation);
        ItemType type = ItemTypes.Of(ItemKind.ResponsiveAd);
        var shown = request.AdId is { } ad ? await figures.ReadAsync(accountId, ad, cancellation) : [];
        var page = ArrangedAds.List(
            [.. Of(type, "headlines", request.Headlines)],
            [.. Of(type, "descriptions", request.Descriptions)],
            request.KeptApart,
            account.Network,
            request.Device,
            request.Filter ?? ArrangedFilter.All,
            [
                .. (
                    request.BySuccess == true
                        ? shown.OrderByDescending(each => each.AgainstUsual ?? 0)
                        : shown.AsEnumerable()
                ).Select(each => (each.Headlines, each.Descriptions)),
            ],
            MostArranged,
            cancellation
        );
        var byLines = shown.ToDictionary(each => string.Join('\n', each.Headlines.Concat(each.Descriptions)));
        return TypedResults.Ok(
            new ArrangedView(
                page.Count,
                page.Apart,
                page.Marked,
                [
                    .. page.Ads.Select(each =>
                    {
                        var figure = byLines.GetValueOrDefault(
                            string.Join('\n', each.Headlines.Concat(each.Descriptions))
                        );
                        return new ArrangedRow(
                            [.. each.Headlines.Select(AdLine.FallbackOf)],
                            [.. each.Descriptions.Select(AdLine.FallbackOf)],
                            each.Problems,
                            each.IsApart,
                            each.KeptApart,
                            figure?.Figures.Impressions ?? 0,
                            figure?.Figures.ClickThroughRate,
                            figure?.AgainstUsual
                        );
                    }),
                ]
            )
        );
    }

    /// <summary>Labels that tell variants of ads apart.</summary>
    private static async Task<Ok<IReadOnlyList<string>>> LabelsAsync(
        int accountId,
        VariantReader reader,
        CancellationToken cancellation
    ) => TypedResults.Ok(await reader.LabelsAsync(accountId, cancellation));

    /// <summary>Two variants over all ad groups that have both; none when no ad group has shown both.</summary>
    private static async Task<Results<Ok<ComparedVariants>, NoContent>> VariantsAsync(
        int accountId,
        string one,
        string other,
        string? by,
        VariantReader reader,
        CancellationToken cancellation
    ) =>
        await reader.CompareAsync(
            accountId,
            one,
            other,
            QueryChoice.Of<AdMeasure>(by, "by") ?? AdMeasure.Clicks,
            cancellation
        )
            is { } compared
            ? TypedResults.Ok(compared)
            : TypedResults.NoContent();

    /// <summary>What a pattern would make, ad group by ad group.</summary>
    private static async Task<Ok<PatternView>> PatternedAsync(
        int accountId,
        PatternWish request,
        PatternReader reader,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            await reader.ReadAsync(accountId, new AdPattern(request.Kind, request.Slots), request.Places, cancellation)
        );

    /// <summary>Lines as far as the network takes them: more of them are a blocker, and would take too long to put together.</summary>
    private static IEnumerable<string> Of(ItemType type, string field, IReadOnlyList<string> lines) =>
        lines.Where(line => line.Trim().Length > 0).Take(type[field].Type.Room ?? TextEndpoints.MostTexts);

    /// <summary>The ads of each ad group against one another, and how sure the differences are.</summary>
    private static async Task<Ok<IReadOnlyList<ComparedAds>>> ComparedAsync(
        int accountId,
        long? campaignId,
        long? adGroupId,
        string? by,
        AdComparisonReader reader,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            await reader.ReadAsync(
                accountId,
                campaignId,
                adGroupId,
                QueryChoice.Of<AdMeasure>(by, "by") ?? AdMeasure.Clicks,
                cancellation
            )
        );
}
