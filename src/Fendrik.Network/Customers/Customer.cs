using System.Text.Json;
using Fendrik.Core.Networks;

namespace Fendrik.Network.Customers;

/// <summary>Somebody who writes to an account besides its owner.</summary>
/// <param name="Name">Who.</param>
/// <param name="HoursBefore">How many hours before its clock they last did.</param>
public sealed record CustomerWriter(string Name, int HoursBefore);

/// <summary>An account that a customer of the network has, made there and not by a tool.</summary>
/// <param name="Id">Its name.</param>
/// <param name="Network">Which network.</param>
/// <param name="Name">What the customer calls it.</param>
/// <param name="Currency">Its currency.</param>
/// <param name="TimeZone">Its time zone.</param>
/// <param name="Payer">Who pays it.</param>
/// <param name="StartAt">When it began.</param>
/// <param name="Hours">How long it has run.</param>
/// <param name="Seed">The luck of those who search.</param>
/// <param name="Writers">Who else writes to it.</param>
/// <param name="Items">The file of what is in it; none for nothing.</param>
public sealed record CustomerAccount(
    string Id,
    string Network,
    string Name,
    string Currency,
    string TimeZone,
    string? Payer,
    DateTimeOffset StartAt,
    int Hours,
    long Seed,
    IReadOnlyList<CustomerWriter> Writers,
    string? Items
)
{
    /// <summary>What is in it.</summary>
    public IReadOnlyList<NetworkChange> Changes() =>
        Items is null
            ? []
            :
            [
                .. Customer
                    .Read<CustomerItem[]>(Items)
                    .Select(each => new NetworkChange(each.Kind, each.ItemId, ChangeAction.Put, each.Item)),
            ];

    private sealed record CustomerItem(ItemKind Kind, long ItemId, JsonElement Item);
}

/// <summary>Somebody who has accounts on the network, and the code that opens them.</summary>
/// <param name="Code">The code.</param>
/// <param name="Accounts">The accounts.</param>
public sealed record Customer(string Code, IReadOnlyList<CustomerAccount> Accounts)
{
    private static readonly Lazy<Customer[]> Shipped = new(() => Read<Customer[]>("customers.json"));

    /// <summary>The customers of the stand-in.</summary>
    public static IReadOnlyList<Customer> All => Shipped.Value;

    internal static T Read<T>(string file)
    {
        using var stream =
            typeof(Customer).Assembly.GetManifestResourceStream($"Fendrik.Network.Customers.Data.{file}")
            ?? throw new InvalidOperationException($"There is no file {file}.");
        return JsonSerializer.Deserialize<T>(stream, JsonSerializerOptions.Web)!;
    }
}
