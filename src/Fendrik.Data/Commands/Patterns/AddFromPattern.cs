using System.Text.Json;
using Fendrik.Core.AdText.Patterns;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands.Patterns;

/// <summary>Makes an ad for each of many ad groups from one with fields; those for which it does not fit are named and left out.</summary>
/// <param name="Pattern">The pattern.</param>
/// <param name="Places">The ad groups.</param>
public sealed record AddFromPattern(AdPattern Pattern, PatternPlaces Places) : IWorkingCopyChange
{
    private const int Slice = 5_000;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var made = await PatternedAds.MakeAsync(
            context.Connection,
            context.Account,
            Pattern,
            Places,
            context.Cancellation
        );
        foreach (var ad in made.Where(ad => ad.Problem is not null))
        {
            context.Refused.Add(
                new RefusedItem(ItemKind.AdGroup, ad.Ground.AdGroupId, ad.Ground.AdGroup, ad.Problem!),
                1
            );
        }

        var added = 0;
        foreach (var ads in made.Where(ad => ad.Problem is null).Chunk(Slice))
        {
            context.Cancellation.ThrowIfCancellationRequested();
            added += await AddAsync(context, ItemTable.Of(Pattern.Kind), ads);
        }

        return made.Count == 0
            ? throw new InvalidChangeException("places", "There is no ad group that an ad could be made for.")
            : new StepOutcome($"Add {ItemTypes.Count(added, [Pattern.Kind])} from a pattern", added);
    }

    private static Task<int> AddAsync(StepContext context, ItemTable table, PatternedAd[] ads)
    {
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
        var from =
            $"from jsonb_to_recordset(@rows::jsonb) as p(ad_group_id bigint, {string.Join(", ", columns.Select(column => $"{column} {TypeOf(column)}"))}) "
            + "join ad_group g on g.id = p.ad_group_id and g.account_id = @account and not g.removed order by p.ad_group_id";
        return context.ExecuteAsync(
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
    }
}
