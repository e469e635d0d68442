using Fendrik.Data.Cleaning;
using Fendrik.Data.Commands.Words;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api;

/// <summary>Lists of words to be combined, for a look at what they give.</summary>
public sealed record WordListsRequest(IReadOnlyList<IReadOnlyList<string>> Lists, IReadOnlyList<MatchType> Matches);

/// <summary>Negatives as they are written, one on each line.</summary>
public sealed record NegativeLines(string Lines);

/// <summary>What word lists give: how many, and the first of them.</summary>
public sealed record WordListsAnswer(int Count, int Duplicates, int TooLong, IReadOnlyList<string> First);

internal static class CleaningEndpoints
{
    private const int MostShown = 200;

    public static void MapCleaning(this RouteGroupBuilder account)
    {
        account.MapPost("/duplicates", DuplicatesAsync).WithName("findDuplicates").Needs(AccountRight.Look);
        account.MapGet("/negatives/review", ReviewAsync).WithName("reviewNegatives");
        account.MapPost("/negatives/forms", FormsAsync).WithName("findNegativeForms").Needs(AccountRight.Look);
        account.MapPost("/word-lists", CombineAsync).WithName("previewWordLists").Needs(AccountRight.Look);
    }

    private static async Task<Ok<DuplicateReport>> DuplicatesAsync(
        int accountId,
        DuplicateRequest request,
        Duplicates duplicates,
        CancellationToken cancellation
    ) => TypedResults.Ok(await duplicates.FindAsync(accountId, request, cancellation));

    private static async Task<Ok<NegativeReport>> ReviewAsync(
        int accountId,
        NegativeReview review,
        CancellationToken cancellation
    ) => TypedResults.Ok(await review.RunAsync(accountId, cancellation));

    private static async Task<Ok<IReadOnlyList<NegativeForm>>> FormsAsync(
        int accountId,
        NegativeLines request,
        NegativeForms forms,
        CancellationToken cancellation
    ) => TypedResults.Ok(await forms.FindAsync(accountId, request.Lines, cancellation));

    private static async Task<Ok<WordListsAnswer>> CombineAsync(
        int accountId,
        WordListsRequest request,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var combined = AddCombinedWords.Combined(request.Lists, request.Matches, facts.Network);
        return TypedResults.Ok(
            new WordListsAnswer(
                combined.Keywords.Count,
                combined.Duplicates,
                combined.TooLong,
                [
                    .. combined
                        .Keywords.Take(MostShown)
                        .Select(keyword => Core.Matching.KeywordNotation.Write(keyword.Text, keyword.Match)),
                ]
            )
        );
    }
}
