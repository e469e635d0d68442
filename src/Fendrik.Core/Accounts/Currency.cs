namespace Fendrik.Core.Accounts;

/// <summary>A currency by its ISO 4217 alphabetic code, with the number of decimal places of its minor unit.</summary>
/// <remarks>
/// Minor units follow ISO 4217 (list one), quoted from memory; spot values are checked in the tests
/// (JPY 0, GBP 2, KWD 3).
/// </remarks>
public sealed record Currency
{
    private static readonly string[] NoMinorUnit =
        "BIF CLP DJF GNF ISK JPY KMF KRW PYG RWF UGX UYI VND VUV XAF XOF XPF".Split(' ');

    private static readonly string[] ThreeDecimals = "BHD IQD JOD KWD LYD OMR TND".Split(' ');

    private static readonly string[] TwoDecimals = (
        "AED AFN ALL AMD AOA ARS AUD AWG AZN BAM BBD BDT BGN BMD BND BOB BRL BSD BTN BWP BYN BZD CAD CDF CHF CNY COP CRC"
        + " CUP CVE CZK DKK DOP DZD EGP ERN ETB EUR FJD FKP GBP GEL GHS GIP GMD GTQ GYD HKD HNL HTG HUF IDR ILS INR IRR"
        + " JMD KES KGS KHR KPW KYD KZT LAK LBP LKR LRD LSL MAD MDL MGA MKD MMK MNT MOP MRU MUR MVR MWK MXN MYR MZN NAD"
        + " NGN NIO NOK NPR NZD PAB PEN PGK PHP PKR PLN QAR RON RSD RUB SAR SBD SCR SDG SEK SGD SHP SLE SOS SRD SSP STN"
        + " SVC SYP SZL THB TJS TMT TOP TRY TTD TWD TZS UAH USD UYU UZS VES WST XCD YER ZAR ZMW"
    ).Split(' ');

    private static readonly Dictionary<string, Currency> All = TwoDecimals
        .Select(code => new Currency(code, 2))
        .Concat(NoMinorUnit.Select(code => new Currency(code, 0)))
        .Concat(ThreeDecimals.Select(code => new Currency(code, 3)))
        .ToDictionary(currency => currency.Code, StringComparer.Ordinal);

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

    /// <summary>Rounds up to the minor unit: the least amount that can be charged and is not below the given one.</summary>
    public decimal RoundUp(decimal amount) => Math.Ceiling(amount / SmallestAmount) * SmallestAmount;
}
