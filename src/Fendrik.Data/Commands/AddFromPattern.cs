using System.Text.Json;
using Fendrik.Core.AdText.Patterns;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Kinds;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands;

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
