using Fendrik.Core.AdText;
using Fendrik.Core.AdText.Insertion;
using Fendrik.Core.Checks;
using Fendrik.Core.Items;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Data.Writing;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Writing;

/// <summary>Texts of a kind of item as they stand in its form, kept or not.</summary>
/// <param name="Kind">The kind.</param>
/// <param name="Texts">By the names of fields.</param>
/// <param name="Said">What the network's reviewers said of the item as it was published; none when they let it through.</param>
public sealed record TextsToRead(ItemKind Kind, Dictionary<string, IReadOnlyList<string>> Texts, string? Said = null);

/// <summary>A text, read as the network and its reviewers would.</summary>
/// <param name="Field">Name of the field.</param>
/// <param name="Part">Number of the part, from 1, where the field has several.</param>
/// <param name="Seen">What people surely see of it.</param>
/// <param name="Length">Characters that it surely needs.</param>
/// <param name="Problem">What is wrong with its inserted words; none when all is well.</param>
/// <param name="Parts">What is written and what is inserted; none for a text that inserts nothing.</param>
/// <param name="Reasons">Why reviewers would refuse it, a sentence for each rule.</param>
/// <param name="Repair">What says about the same and passes; none when nothing does.</param>
public sealed record TextRead(
    string Field,
    int? Part,
    string Seen,
    int Length,
    string? Problem,
    IReadOnlyList<LinePart>? Parts,
    IReadOnlyList<string> Reasons,
    string? Repair
);

/// <summary>Words to be inserted.</summary>
public sealed record InsertionWish(InsertedName Name, InsertedCase Case, string Fallback, DateOnly? Day);

/// <summary>Words to be inserted, as they stand in a text.</summary>
public sealed record InsertionText(string Text);

/// <summary>Texts that insert words, to be seen with real searches.</summary>
/// <param name="Kind">The kind.</param>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="Texts">By the names of fields.</param>
public sealed record TextsWithSearches(ItemKind Kind, long AdGroupId, Dictionary<string, IReadOnlyList<string>> Texts);

/// <summary>What texts make of a search.</summary>
/// <param name="Search">The search.</param>
/// <param name="IsTyped">True when people typed it; false for a keyword as it stands.</param>
/// <param name="Clicks">Clicks that it brought.</param>
/// <param name="Lines">Each text that inserts words.</param>
public sealed record SeenWithSearch(string Search, bool IsTyped, long Clicks, IReadOnlyList<SeenLine> Lines);

/// <summary>A text as somebody sees it.</summary>
/// <param name="Field">Name of the field.</param>
/// <param name="Part">Number of the part, from 1.</param>
/// <param name="Text">What is seen.</param>
/// <param name="FellBack">True when a fallback stands there.</param>
public sealed record SeenLine(string Field, int Part, string Text, bool FellBack);

/// <summary>What is asked of texts while they are written.</summary>
internal static class TextEndpoints
{
    /// <summary>Most texts that are read at once.</summary>
    internal const int MostTexts = 60;

    /// <summary>Most characters of one of them.</summary>
    internal const int LongestText = 2_000;
    private const int MostSearches = 5;

    public static void MapTexts(this RouteGroupBuilder account)
    {
        account.MapPost("/texts/read", ReadAsync).WithName("readTexts").Needs(AccountRight.Look);
        account.MapPost("/texts/insertion", Insertion).WithName("writeInsertion").Needs(AccountRight.Look);
        account
            .MapPost("/texts/with-searches", WithSearchesAsync)
            .WithName("readTextsWithSearches")
            .Needs(AccountRight.Look);
    }

    /// <summary>Reads texts as the network and its reviewers would, before they are kept.</summary>
    private static async Task<Ok<List<TextRead>>> ReadAsync(
        int accountId,
        TextsToRead request,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var account = await workingCopy.FactsAsync(accountId, cancellation);
        var type = ItemTypes.Of(request.Kind);
        var values = new ItemValues(type);
        var texts = Taken(type, request.Texts);
        foreach (var (field, lines) in texts)
        {
            values[field] = field.Type.Form == ValueForm.Lines ? lines.ToArray() : string.Join(' ', lines);
        }

        var refused = ReviewedTexts
            .RefusedIn(values, account.Network.Reviewing)
            .ToLookup(each => (each.Field.Name, each.Part ?? 1));
        return TypedResults.Ok(
            texts
                .SelectMany(each =>
                    each.Lines.Select(
                        (line, at) =>
                            Read(each.Field, line, at + 1, account, refused[(each.Field.Name, at + 1)], request.Said)
                    )
                )
                .ToList()
        );
    }

    private static TextRead Read(
        Field field,
        string line,
        int part,
        AccountFacts account,
        IEnumerable<RefusedText> refused,
        string? said
    )
    {
        var lines = field.Type as LinesValue;
        var limits = account.Network.LimitsOf(field.Of, field);
        var text = field.Type.Places is null ? line : PlacedLine.Of(line).Text;
        var inserts = field.Type.InsertsWords && AdLine.Inserts(text);
        RefusedText[] why = [.. refused];
        return new TextRead(
            field.Name,
            lines is null ? null : part,
            lines?.SeenOf(line) ?? line,
            lines?.LengthOf(line, limits) ?? limits.LengthOf(line),
            lines?.ProblemOf(line),
            inserts ? Core.AdText.Insertion.Insertion.PartsOf(text) : null,
            [
                .. why.Select(each => each.Refusal.Reason)
                    .Union(RefusedText.SaidOf(said, field, lines is null ? null : part, lines?.SeenOf(line) ?? line)),
            ],
            why.Length > 0 && field.Of.IsSeen && !inserts ? account.Network.Reviewing.Repaired(text) : null
        );
    }

    /// <summary>Writes words to be inserted as they stand in a text.</summary>
    private static Ok<InsertionText> Insertion(int accountId, InsertionWish request)
    {
        try
        {
            return TypedResults.Ok(
                new InsertionText(new Insertion(request.Name, request.Case, request.Fallback, request.Day).Write())
            );
        }
        catch (ArgumentException error)
        {
            throw new InvalidChangeException(
                request.Name == InsertedName.Countdown && request.Day is null ? "day" : "fallback",
                error.Message
            );
        }
    }

    /// <summary>Shows what texts that insert words make of the searches and keywords of an ad group.</summary>
    private static async Task<Ok<List<SeenWithSearch>>> WithSearchesAsync(
        int accountId,
        TextsWithSearches request,
        WorkingCopy workingCopy,
        SearchesOfAdGroup searches,
        AccountToday today,
        CancellationToken cancellation
    )
    {
        var account = await workingCopy.FactsAsync(accountId, cancellation);
        var type = ItemTypes.Of(request.Kind);
        var texts = Taken(type, request.Texts);
        var clock = await today.ClockAsync(accountId, cancellation);
        var inserting = (
            from each in texts
            where each.Field.Type.InsertsWords
            from line in each.Lines.Index()
            let text = each.Field.Type.Places is null ? line.Item : PlacedLine.Of(line.Item).Text
            where AdLine.Inserts(text)
            select (each.Field, Part: line.Index + 1, Text: text)
        ).ToArray();
        return TypedResults.Ok(
            inserting.Length == 0
                ? []
                : (await searches.ReadAsync(accountId, request.AdGroupId, MostSearches, cancellation))
                    .Select(search => new SeenWithSearch(
                        search.Text,
                        search.IsTyped,
                        search.Clicks,
                        [
                            .. inserting.Select(line =>
                            {
                                var seen = AdLine.Seen(
                                    line.Text,
                                    search.Values with
                                    {
                                        Clock = clock,
                                    },
                                    account.Network.LimitsOf(type, line.Field)
                                );
                                return new SeenLine(line.Field.Name, line.Part, seen.Text, seen.FellBack);
                            }),
                        ]
                    ))
                    .ToList()
        );
    }

    private static List<(Field Field, IReadOnlyList<string> Lines)> Taken(
        ItemType type,
        Dictionary<string, IReadOnlyList<string>> texts
    )
    {
        if (
            texts.Values.Sum(lines => lines.Count) > MostTexts
            || texts.Values.Any(lines => lines.Any(line => line is null || line.Length > LongestText))
        )
        {
            throw new InvalidChangeException(
                "texts",
                $"At most {MostTexts} texts of {LongestText:N0} characters are read at once. Shorten them."
            );
        }

        return
        [
            .. texts.Select(each =>
                (
                    type.Find(each.Key)
                        ?? throw new InvalidChangeException(
                            "texts",
                            $"“{Reading.Shortened(each.Key)}” is no field of this kind."
                        ),
                    each.Value
                )
            ),
        ];
    }
}
