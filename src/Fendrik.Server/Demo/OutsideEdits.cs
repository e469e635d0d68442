using System.Text.Json;
using System.Text.Json.Nodes;
using Fendrik.Core.Changes;
using Fendrik.Server.Networks;

namespace Fendrik.Server.Demo;

/// <summary>An edit that somebody in the story made on the network itself.</summary>
/// <param name="Kind">Kind of item.</param>
/// <param name="Name">Its name or words.</param>
/// <param name="Set">The published fields that change; none removes the item.</param>
internal sealed record OutsideEdit(ItemKind Kind, string Name, JsonObject? Set);

/// <summary>Plays the colleague who changes things on the network, past every tool.</summary>
internal static class OutsideEdits
{
    public static async Task PlayAsync(
        ISearchNetwork network,
        int accountId,
        IReadOnlyList<OutsideEdit> edits,
        CancellationToken cancellation
    )
    {
        var items = await AllAsync(network, accountId, cancellation);
        var changes = new List<NetworkChange>();
        foreach (var edit in edits)
        {
            var item =
                items.FirstOrDefault(each =>
                    each.Kind == edit.Kind
                    && each.Item is { } fields
                    && FieldDifferences.NameOf(ItemTypes.Of(each.Kind), fields) == edit.Name
                ) ?? throw new InvalidOperationException($"The scenario edits “{edit.Name}”, which is not there.");
            changes.Add(
                edit.Set is null
                    ? new NetworkChange(item.Kind, item.ItemId, ChangeAction.Remove, null)
                    : new NetworkChange(item.Kind, item.ItemId, ChangeAction.Put, With(item.Item!.Value, edit.Set))
            );
        }

        await network.EditFromOutsideAsync(accountId, changes, cancellation);
    }

    private static async Task<IReadOnlyList<NetworkItem>> AllAsync(
        ISearchNetwork network,
        int accountId,
        CancellationToken cancellation
    )
    {
        var items = new Dictionary<(ItemKind, long), NetworkItem>();
        var part = new NetworkItems(0, []);
        do
        {
            part = await network.ItemsChangedAsync(accountId, part.Last, cancellation);
            foreach (var item in part.Items)
            {
                items[(item.Kind, item.ItemId)] = item;
            }
        } while (part.Items.Count > 0);

        return [.. items.Values];
    }

    private static JsonElement With(JsonElement item, JsonObject set)
    {
        var fields = JsonObject.Create(item)!;
        foreach (var (name, value) in set)
        {
            fields[name] = value?.DeepClone();
        }

        return JsonSerializer.SerializeToElement(fields);
    }
}
