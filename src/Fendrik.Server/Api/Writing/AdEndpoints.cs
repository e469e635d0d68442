using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.Checks;
using Fendrik.Core.Items;
using Fendrik.Core.Reporting;
using Fendrik.Data.Results;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Writing;

/// <summary>Texts of a kind of item as they stand in its form, kept or not.</summary>
/// <param name="Kind">The kind.</param>
/// <param name="Texts">By the names of fields.</param>
public sealed record TextsToRead(ItemKind Kind, Dictionary<string, IReadOnlyList<string>> Texts);

/// <summary>A text that reviewers would refuse.</summary>
/// <param name="Field">Name of the field.</param>
/// <param name="Part">Number of the part, from 1, where the field has several.</param>
/// <param name="Reasons">Why, a sentence for each rule.</param>
/// <param name="Repair">What says about the same and passes; none when nothing does.</param>
public sealed record TextRefused(string Field, int? Part, IReadOnlyList<string> Reasons, string? Repair);

/// <summary>What is asked while ads are written.</summary>
internal static class AdEndpoints
{
    private const int MostTexts = 60;
    private const int LongestText = 2_000;

    public static void MapAds(this RouteGroupBuilder account)
    {
        account.MapPost("/texts/read", ReadAsync).WithName("readTexts");
        account.MapGet("/ad-groups/{adGroupId:long}/words", WordsAsync).WithName("readAdGroupWords");
        account.MapPost("/ads/combined", CombinedAsync).WithName("combineAds");
        account.MapGet("/ads/compared", ComparedAsync).WithName("compareAds");
    }

    /// <summary>Reads texts as the network's reviewers would, before they are kept.</summary>
    private static async Task<Ok<List<TextRefused>>> ReadAsync(
        int accountId,
        TextsToRead request,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        if (
            request.Texts.Values.Sum(lines => lines.Count) > MostTexts
            || request.Texts.Values.Any(lines => lines.Any(line => line is null || line.Length > LongestText))
        )
        {
            throw new InvalidChangeException(
                "texts",
                $"At most {MostTexts} texts of {LongestText:N0} characters are read at once. Shorten them."
            );
        }

        var account = await workingCopy.FactsAsync(accountId, cancellation);
        var type = ItemTypes.Of(request.Kind);
        var values = new ItemValues(type);
        foreach (var (name, lines) in request.Texts)
        {
            var field =
                type.Find(name)
                ?? throw new InvalidChangeException(
                    "texts",
                    $"“{Core.Items.Values.Reading.Shortened(name)}” is no field of this kind."
                );
            values[field] =
                field.Type.Form == Core.Items.Values.ValueForm.Lines ? lines.ToArray() : string.Join(' ', lines);
        }

        return TypedResults.Ok(
            ReviewedTexts
                .RefusedIn(values, account.Network.Reviewing)
                .GroupBy(refused => (refused.Field.Name, refused.Part, refused.Text))
                .Select(text => new TextRefused(
                    text.Key.Name,
                    text.Key.Part,
                    [.. text.Select(refused => refused.Refusal.Reason)],
                    type.IsSeen ? account.Network.Reviewing.Repaired(text.Key.Text) : null
                ))
                .ToList()
        );
    }

    /// <summary>The words that the keywords of an ad group ask for, and whether its ads say them.</summary>
    private static async Task<Ok<IReadOnlyList<WordOfKeywords>>> WordsAsync(
        int accountId,
        long adGroupId,
        AdGroupWords words,
        CancellationToken cancellation
    ) => TypedResults.Ok(await words.ReadAsync(accountId, adGroupId, cancellation));

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
            texts.Length > MostTexts
            || texts.Any(slot => slot.Count > MostTexts || slot.Any(text => text is null || text.Length > LongestText))
        )
        {
            throw new InvalidChangeException(
                "headlines",
                $"At most {MostTexts} alternatives of {LongestText:N0} characters are put together. Leave some out."
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
