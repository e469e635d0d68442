using Dapper;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands.Words;

/// <summary>Adds keywords or negatives, one on a line, in the trade's notation, to each of the places.</summary>
/// <param name="Kind">Keywords or negatives.</param>
/// <param name="Lines">The lines.</param>
/// <param name="Match">Match type of bare words.</param>
/// <param name="Places">Where they are to stand.</param>
/// <param name="MatchForAll">True when the match type holds for lines with notation too.</param>
/// <param name="Values">What else is said of all of them, such as a max CPC.</param>
public sealed record AddWords(
    ItemKind Kind,
    string Lines,
    MatchType Match,
    ItemPlaces Places,
    bool MatchForAll = false,
    IReadOnlyDictionary<string, FieldInput>? Values = null
) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var table = ItemTable.Of(Kind);
        if (table.Type.NameField?.Type is not WordsValue)
        {
            throw new InvalidChangeException(
                "kind",
                $"Lines of words make keywords and negatives; a {table.Type.Noun} is made one by one."
            );
        }

        Places.Check(table.Type);
        var words = WordLines.Read(table.Type, Lines, Match, context.Account.Ground, MatchForAll);
        var added = await MadeWords.AddAsync(context, table, words, Places, Values);
        return added == 0 && context.Refused.Count == 0
            ? throw new InvalidChangeException("places", "The places are gone. Choose others.")
            : new StepOutcome($"Add {ItemTypes.Count(added, [Kind])}", added);
    }
}

/// <summary>Adds a list of negatives that campaigns share, with negatives in it.</summary>
public sealed record AddNegativeList(string Name, IReadOnlyList<long> CampaignIds, string Lines, MatchType Match)
    : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var list = ItemTable.Of(ItemKind.NegativeList);
        var said = FieldInputs.Read(
            list.Type,
            new Dictionary<string, FieldInput> { ["name"] = Name },
            context.Account.Ground
        );
        var values = PutItem.ValuesOf(list.Type, said);
        values["campaignIds"] = await context.ScalarAsync<long[]>(
            $"select {References.OfAccount(ItemTable.Of(ItemKind.Campaign), "@ids")}",
            new { account = context.Account.Id, ids = CampaignIds.ToArray() }
        );
        var id = (await PutItem.InsertAsync(context, list, values, new ItemPlaces()))!.Value;
        var negatives = ItemTable.Of(ItemKind.NegativeKeyword);
        var added = string.IsNullOrWhiteSpace(Lines)
            ? 0
            : await MadeWords.AddAsync(
                context,
                negatives,
                WordLines.Read(negatives.Type, Lines, Match, context.Account.Ground),
                new ItemPlaces(ListIds: [id])
            );
        return new StepOutcome(
            $"Add negative list “{values.Text("name")}” with {ItemTypes.Count(added, [ItemKind.NegativeKeyword])}",
            added + 1
        );
    }
}

/// <summary>Adds every combination of words from several lists as keywords to ad groups.</summary>
public sealed record AddCombinedWords(
    IReadOnlyList<long> AdGroupIds,
    IReadOnlyList<IReadOnlyList<string>> Lists,
    IReadOnlyList<MatchType> Matches,
    IReadOnlyDictionary<string, FieldInput>? Values = null
) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (AdGroupIds.Count == 0)
        {
            throw new InvalidChangeException("adGroupIds", "Choose an ad group for them.");
        }

        var combined = Combined(Lists, Matches, context.Account.Network);
        if (combined.Duplicates + combined.TooLong > 0)
        {
            context.Refused.Add(
                new RefusedItem(
                    ItemKind.Keyword,
                    0,
                    "",
                    $"{combined.Duplicates:N0} came twice, {combined.TooLong:N0} had more than {MostWords(context.Account.Network)} words."
                ),
                combined.Duplicates + combined.TooLong
            );
        }

        var keywords = combined.Keywords;
        var added = await MadeWords.AddAsync(
            context,
            ItemTable.Of(ItemKind.Keyword),
            new WordLines(
                [.. keywords.Select(each => each.Text)],
                [.. keywords.Select(each => TextIdentity.Of(each.Text))],
                [.. keywords.Select(each => (short)each.Match)]
            ),
            new ItemPlaces(AdGroupIds: AdGroupIds),
            Values
        );
        return new StepOutcome($"Combine words into {ItemTypes.Count(added, [ItemKind.Keyword])}", added);
    }

    /// <summary>The keywords that lists give.</summary>
    /// <exception cref="InvalidChangeException">They are too many, or nothing is chosen.</exception>
    public static CombinedWords Combined(
        IReadOnlyList<IReadOnlyList<string>> lists,
        IReadOnlyList<MatchType> matches,
        NetworkProfile network
    )
    {
        if (matches.Count == 0)
        {
            throw new InvalidChangeException("matches", "Choose at least one match type.");
        }

        if (
            lists.Count > 6
            || lists.Sum(list => list.Count) > 5_000
            || lists.Any(list => list.Any(word => word.Length > 100))
        )
        {
            throw new InvalidChangeException(
                "lists",
                "At most six lists with 5,000 entries of 100 characters can be combined."
            );
        }

        if (lists.All(list => list.All(string.IsNullOrWhiteSpace)))
        {
            throw new InvalidChangeException("lists", "Enter words, one on each line.");
        }

        try
        {
            return WordLists.Combine(lists, [.. matches.Distinct()], MostWords(network));
        }
        catch (ArgumentException error)
        {
            throw new InvalidChangeException("lists", error.Message);
        }
    }

    private static int MostWords(NetworkProfile network) =>
        network.LimitsOf(ItemKind.Keyword, "text").Words ?? int.MaxValue;
}

/// <summary>Keywords or negatives that were written or put together, on their way into the working copy.</summary>
internal static class MadeWords
{
    /// <summary>Adds them to each place; those that are there already are counted as refused.</summary>
    public static async Task<int> AddAsync(
        StepContext context,
        ItemTable table,
        WordLines words,
        ItemPlaces places,
        IReadOnlyDictionary<string, FieldInput>? said = null
    )
    {
        var values = FieldInputs.Read(table.Type, Filled(said), context.Account.Ground);
        var parameters = new DynamicParameters(places.Parameters(context.Account.Id));
        parameters.AddDynamicParams(
            new
            {
                texts = words.Texts,
                keys = words.Keys,
                matches = words.Matches,
            }
        );
        foreach (var (field, value) in values)
        {
            parameters.Add("v_" + field.Column, StorageSql.ParameterOf(value));
        }

        var wanted = $"""
            (select p.*, w.* from {ItemPlaces.Rows}
             cross join (select distinct on (key, match) text, key, match from unnest(@texts, @keys, @matches) as u(text, key, match) order by key, match) w) p
            """;
        var all = await context.ScalarAsync<int>($"select count(*) from {wanted}", parameters);
        var added = await context.ExecuteAsync(
            table.Insert(
                $"from {wanted} where not exists (select from {table.Name} t where {SamePlace(table)} and t.text_key = p.key and t.match_type = p.match and not t.removed)",
                [
                    ("account_id", "@account"),
                    .. ItemPlaces.ParentsOf(table),
                    ("text", "p.text"),
                    ("text_key", "p.key"),
                    ("match_type", "p.match"),
                    .. values.Keys.Select(field =>
                        (field.Column, $"@v_{field.Column}::{StorageSql.CastOf(field.Type.Storage)}")
                    ),
                ]
            ),
            parameters
        );
        if (all > 0 && words.Texts.Length * places.Count - added is var left and > 0)
        {
            context.Refused.Add(
                new RefusedItem(table.Kind, 0, "", $"{left:N0} were there already or came twice."),
                left
            );
        }

        return added;
    }

    private static string SamePlace(ItemTable table) =>
        table.SamePlace("t", "p").Replace("p.account_id", "@account", StringComparison.Ordinal);

    private static Dictionary<string, FieldInput> Filled(IReadOnlyDictionary<string, FieldInput>? said) =>
        (said ?? new Dictionary<string, FieldInput>())
            .Where(each => each.Value is { Parts: not null } || !string.IsNullOrWhiteSpace(each.Value?.Text))
            .ToDictionary();
}
