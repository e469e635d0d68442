using System.Text.Json;

namespace Fendrik.Core.Accounts;

/// <summary>A currency by its ISO 4217 alphabetic code, with the number of decimal places of its minor unit.</summary>
/// <remarks>
/// Minor units follow ISO 4217, list one: <c>currencies.json</c> is made from a package that carries it, and a test holds it to that
/// package.
/// </remarks>
public sealed record Currency
{
    private static readonly Dictionary<string, Currency> All = Load();

    /// <summary>The codes of all currencies.</summary>
    public static IReadOnlyCollection<string> Codes => All.Keys;

    private Currency(string code, int minorUnits)
    {
        Code = code;
        MinorUnits = minorUnits;
    }

    /// <summary>Three capital letters, for example <c>GBP</c>.</summary>
    public string Code { get; }

    /// <summary>Decimal places of the smallest amount that can be paid: 0 to 3.</summary>
    public int MinorUnits { get; }

    /// <summary>The smallest amount above zero: 0.01 for GBP, 1 for JPY, 0.001 for KWD.</summary>
    public decimal SmallestAmount => new(1, 0, 0, false, (byte)MinorUnits);

    /// <summary>The sign written before an amount, or the code and a space where no sign is customary.</summary>
    public string Sign =>
        Code switch
        {
            "GBP" => "£",
            "EUR" => "€",
            "USD" => "$",
            "JPY" => "¥",
            _ => Code + " ",
        };

    /// <summary>The currency with this code.</summary>
    /// <exception cref="ArgumentException">The code is not in ISO 4217.</exception>
    public static Currency Of(string code) =>
        All.TryGetValue(code, out var currency)
            ? currency
            : throw new ArgumentException($"“{code}” is not an ISO 4217 currency code.", nameof(code));

    /// <summary>True for a code of ISO 4217, in capital letters.</summary>
    public static bool IsCode(string code) => All.ContainsKey(code);

    /// <summary>Rounds to the minor unit, halves away from zero.</summary>
    public decimal Round(decimal amount) => Math.Round(amount, MinorUnits, MidpointRounding.AwayFromZero);

    /// <summary>An amount in whole minor units, halves away from zero: £1.10 is 110.</summary>
    public long ToMinor(decimal amount) => (long)(Round(amount) / SmallestAmount);

    /// <summary>So many minor units as an amount.</summary>
    public decimal FromMinor(long minor) => minor * SmallestAmount;

    private static Dictionary<string, Currency> Load()
    {
        using var stream = typeof(Currency).Assembly.GetManifestResourceStream(
            "Fendrik.Core.Accounts.currencies.json"
        )!;
        return JsonSerializer
            .Deserialize<Dictionary<string, int>>(stream)!
            .ToDictionary(each => each.Key, each => new Currency(each.Key, each.Value), StringComparer.Ordinal);
    }
}
