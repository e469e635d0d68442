using System.Text.Json;
using Dapper;
using Fendrik.Core.AdText.Patterns;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Kinds;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Commands;

/// <summary>For which ad groups ads are made from a pattern.</summary>
/// <param name="CampaignId">Those of a campaign; none for all.</param>
/// <param name="AdGroupId">One ad group; none for all.</param>
/// <param name="OnlyWithoutAds">True for those that have no ad yet.</param>
/// <param name="Values">What the writer gives of them besides, as a table.</param>
public sealed record PatternPlaces(long? CampaignId, long? AdGroupId, bool? OnlyWithoutAds, string? Values);

/// <summary>Reads what patterns go by, ad group by ad group.</summary>
internal static class PatternGrounds
{
    private const int Days = 28;

    private const string Groups = """
        select g.id, g.name, c.name as campaign, k.text as keyword, coalesce(p.page, k.landing_page) as page
        from ad_group g join campaign c on c.id = g.campaign_id and not c.removed
        left join (
          select distinct on (k.ad_group_id) k.ad_group_id, k.text, k.landing_page from keyword k
          left join (
            select d.keyword_id, sum(d.clicks) as clicks from performance_day d join account a on a.id = d.account_id
            where d.account_id = @account and d.day > a.reported_to - @Days group by d.keyword_id) s on s.keyword_id = k.id
          where k.account_id = @account and not k.removed order by k.ad_group_id, s.clicks desc nulls last, char_length(k.text), k.text, k.id) k on k.ad_group_id = g.id
        left join (
          select distinct on (ad_group_id) ad_group_id, landing_page as page from (ADS) ads group by ad_group_id, landing_page
          order by ad_group_id, count(*) desc, landing_page) p on p.ad_group_id = g.id
        where g.account_id = @account and not g.removed and (@campaign::bigint is null or g.campaign_id = @campaign)
          and (@adGroup::bigint is null or g.id = @adGroup)
          and (not @onlyWithoutAds or not exists (select from (ANY) ads where ads.ad_group_id = g.id))
        order by c.name_key, g.name_key, g.id
        """;

    /// <summary>The ad groups with what is known of them.</summary>
    /// <exception cref="InvalidChangeException">The table of values cannot be read.</exception>
    public static async Task<IReadOnlyList<PatternGround>> ReadAsync(
        NpgsqlConnection connection,
        int account,
        PatternPlaces places,
        CancellationToken cancellation
    )
    {
        var (given, problem) = PatternValues.Read(places.Values);
        if (problem is not null)
        {
            throw new InvalidChangeException("values", problem);
        }

        var rows = await connection.QueryAsync<(long Id, string Name, string Campaign, string? Keyword, string? Page)>(
            new CommandDefinition(
                Groups
                    .Replace(
                        "(ADS)",
                        $"({AdTables.Where("account_id = @account and not removed and landing_page is not null")})",
                        StringComparison.Ordinal
                    )
                    .Replace(
                        "(ANY)",
                        $"({AdTables.Where("account_id = @account and not removed")})",
                        StringComparison.Ordinal
                    ),
                new
                {
                    account,
                    campaign = places.CampaignId,
                    adGroup = places.AdGroupId,
                    onlyWithoutAds = places.OnlyWithoutAds == true,
                    Days,
                },
                cancellationToken: cancellation
            )
        );
        return [.. rows.Select(row => Ground(row, given))];
    }

    private static PatternGround Ground(
        (long Id, string Name, string Campaign, string? Keyword, string? Page) row,
        IReadOnlyDictionary<string, IReadOnlyDictionary<string, string>> given
    )
    {
        var values = new Dictionary<string, string>(StringComparer.Ordinal)
        {
            ["theme"] = row.Name,
            ["keyword"] = row.Keyword ?? "",
            ["campaign"] = row.Campaign,
            ["page"] = row.Page ?? "",
        };
        foreach (var (field, value) in given.GetValueOrDefault(TextIdentity.Of(row.Name)) ?? Nothing)
        {
            values[field] = value;
        }

        return new PatternGround(row.Id, row.Name, row.Campaign, values);
    }

    private static readonly Dictionary<string, string> Nothing = [];
}

/// <summary>Makes an ad for each of many ad groups from one with fields; those for which it does not fit are named and left out.</summary>
/// <param name="Pattern">The pattern.</param>
/// <param name="Places">The ad groups.</param>
public sealed record AddFromPattern(AdPattern Pattern, PatternPlaces Places) : IWorkingCopyChange
{
    private const int Slice = 5_000;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var table = ItemTable.Of(Pattern.Kind);
        Check(Pattern);
        var maker = new PatternMaker(
            Pattern,
            new CheckReport(Pattern.Kind, 0, context.Account.Network, context.Account.Currency)
        );
        var added = 0;
        foreach (
            var grounds in (
                await PatternGrounds.ReadAsync(context.Connection, context.Account.Id, Places, context.Cancellation)
            ).Chunk(Slice)
        )
        {
            context.Cancellation.ThrowIfCancellationRequested();
            PatternedAd[] made = [.. grounds.Select(maker.Make)];
            foreach (var ad in made.Where(ad => ad.Problem is not null))
            {
                context.Refused.Add(
                    new RefusedItem(ItemKind.AdGroup, ad.Ground.AdGroupId, ad.Ground.AdGroup, ad.Problem!),
                    1
                );
            }

            added += await AddAsync(context, table, [.. made.Where(ad => ad.Problem is null)]);
        }

        return added == 0 && context.Refused.Count == 0
            ? throw new InvalidChangeException("places", "There is no ad group that an ad could be made for.")
            : new StepOutcome($"Add {ItemTypes.Count(added, [Pattern.Kind])} from a pattern", added);
    }

    /// <exception cref="InvalidChangeException">It is no pattern of an ad.</exception>
    internal static void Check(AdPattern pattern)
    {
        if (ItemTypes.Of(pattern.Kind) is not AdType type)
        {
            throw new InvalidChangeException("kind", "A pattern makes ads. Choose a kind of ad.");
        }

        foreach (var (name, slots) in pattern.Slots)
        {
            if (
                type.Find(name) is not { } field
                || slots.Count > (field.Type.Room ?? 1)
                || slots.Any(slot => slot.Count > PatternMaker.MostAlternatives)
                || slots.Any(slot => slot.Any(text => text is null || text.Length > LongestText))
            )
            {
                throw new InvalidChangeException(
                    "slots",
                    $"“{Core.Items.Values.Reading.Shortened(name)}” has more than a pattern can hold: {PatternMaker.MostAlternatives} alternatives in a slot at most."
                );
            }
        }
    }

    private const int LongestText = 2_000;

    private static async Task<int> AddAsync(StepContext context, ItemTable table, PatternedAd[] ads)
    {
        if (ads.Length == 0)
        {
            return 0;
        }

        string[] columns = [.. PutItem.ColumnsOf(table.Type, ads[0].Values).Select(each => each.Column)];
        var rows = JsonSerializer.Serialize(
            ads.Select(ad =>
                PutItem
                    .ColumnsOf(table.Type, ad.Values)
                    .Append(("ad_group_id", ad.Ground.AdGroupId))
                    .ToDictionary(each => each.Item1, each => each.Item2)
            )
        );
        string TypeOf(string column) =>
            table.FieldOf(column) is { } field ? StorageSql.TypeOf(field.Type.Storage) : "text";
        var twin = string.Join(
            " and ",
            table.Type.IdentityColumns.Select(column => $"t.{column} is not distinct from p.{column}")
        );
        var from =
            $"from jsonb_to_recordset(@rows::jsonb) as p(ad_group_id bigint, {string.Join(", ", columns.Select(column => $"{column} {TypeOf(column)}"))}) "
            + "join ad_group g on g.id = p.ad_group_id and g.account_id = @account and not g.removed "
            + $"where not exists (select from {table.Name} t where t.ad_group_id = p.ad_group_id and {twin} and not t.removed) order by p.ad_group_id";
        var added = await context.ExecuteAsync(
            table.Insert(
                from,
                [
                    ("account_id", "@account"),
                    ("ad_group_id", "p.ad_group_id"),
                    .. columns.Select(column => (column, $"p.{column}")),
                ]
            ),
            new { rows, account = context.Account.Id }
        );
        if (ads.Length - added is var left and > 0)
        {
            context.Refused.Add(
                new RefusedItem(table.Kind, 0, $"{left:N0} ads", "They are in their ad groups already."),
                left
            );
        }

        return added;
    }
}

/// <summary>Shows what a pattern makes, before anything is made.</summary>
/// <param name="Count">Ads that it makes.</param>
/// <param name="Shortened">Of these, how many say something else than what was written first somewhere.</param>
/// <param name="Failing">Ad groups for which it makes none.</param>
/// <param name="Fields">Fields that can be used.</param>
/// <param name="Ads">The first of them, those for which none is made before the others.</param>
public sealed record PatternView(
    int Count,
    int Shortened,
    int Failing,
    IReadOnlyList<string> Fields,
    IReadOnlyList<PatternedView> Ads
);

/// <summary>An ad that a pattern makes.</summary>
/// <param name="AdGroup">For which ad group.</param>
/// <param name="Campaign">Its campaign.</param>
/// <param name="Shortened">Slots that say something else than what was written first.</param>
/// <param name="Problem">Why none is made; none when one is.</param>
/// <param name="Texts">What it says, by the name of a field.</param>
public sealed record PatternedView(
    string AdGroup,
    string Campaign,
    int Shortened,
    string? Problem,
    IReadOnlyDictionary<string, IReadOnlyList<string>> Texts
);

/// <summary>Reads what patterns would make.</summary>
public sealed class PatternReader(NpgsqlDataSource source)
{
    private const int MostShown = 40;

    /// <summary>What a pattern would make now.</summary>
    public async Task<PatternView> ReadAsync(
        int accountId,
        AdPattern pattern,
        PatternPlaces places,
        CancellationToken cancellation
    )
    {
        AddFromPattern.Check(pattern);
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var account = await AccountFacts.ReadAsync(connection, accountId);
        var maker = new PatternMaker(pattern, new CheckReport(pattern.Kind, 0, account.Network, account.Currency));
        var grounds = await PatternGrounds.ReadAsync(connection, accountId, places, cancellation);
        PatternedAd[] made = [.. grounds.Select(maker.Make)];
        return new PatternView(
            made.Count(ad => ad.Problem is null),
            made.Count(ad => ad is { Problem: null, Shortened: > 0 }),
            made.Count(ad => ad.Problem is not null),
            [.. grounds.SelectMany(ground => ground.Values.Keys).Concat(PatternGround.Known).Distinct()],
            [
                .. made.OrderBy(ad => ad.Problem is null)
                    .ThenByDescending(ad => ad.Shortened)
                    .Take(MostShown)
                    .Select(ad => new PatternedView(
                        ad.Ground.AdGroup,
                        ad.Ground.Campaign,
                        ad.Shortened,
                        ad.Problem,
                        ad.Values.Type.Fields.Where(field => field.IsText || field.IsNeeded)
                            .Select(field => (field.Name, Lines: LinesOf(ad.Values[field])))
                            .Where(each => each.Lines.Count > 0)
                            .ToDictionary(each => each.Name, each => each.Lines)
                    )),
            ]
        );
    }

    private static IReadOnlyList<string> LinesOf(object? value) =>
        value switch
        {
            string[] lines => lines,
            string text => [text],
            _ => [],
        };
}
