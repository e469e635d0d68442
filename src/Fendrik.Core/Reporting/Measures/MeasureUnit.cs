namespace Fendrik.Core.Reporting.Measures;

/// <summary>
/// In what a measure is counted: a product of powers of money and of the things that are counted. A cost per click is money to the power of 1 and clicks
/// to the power of −1; a share has every power 0.
/// </summary>
/// <param name="Money">Power of money.</param>
/// <param name="Impressions">Power of impressions.</param>
/// <param name="Clicks">Power of clicks.</param>
/// <param name="Conversions">Power of conversions.</param>
/// <param name="Searches">Power of searches.</param>
public readonly record struct MeasureUnit(
    int Money = 0,
    int Impressions = 0,
    int Clicks = 0,
    int Conversions = 0,
    int Searches = 0
)
{
    /// <summary>A bare number.</summary>
    public static MeasureUnit None { get; }

    /// <summary>True for a bare number.</summary>
    public bool IsNone => this == None;

    /// <summary>The unit of a product.</summary>
    public static MeasureUnit operator *(MeasureUnit left, MeasureUnit right) =>
        new(
            left.Money + right.Money,
            left.Impressions + right.Impressions,
            left.Clicks + right.Clicks,
            left.Conversions + right.Conversions,
            left.Searches + right.Searches
        );

    /// <summary>The unit of a quotient.</summary>
    public static MeasureUnit operator /(MeasureUnit left, MeasureUnit right) =>
        new(
            left.Money - right.Money,
            left.Impressions - right.Impressions,
            left.Clicks - right.Clicks,
            left.Conversions - right.Conversions,
            left.Searches - right.Searches
        );

    /// <summary>The unit of a product.</summary>
    public static MeasureUnit Multiply(MeasureUnit left, MeasureUnit right) => left * right;

    /// <summary>The unit of a quotient.</summary>
    public static MeasureUnit Divide(MeasureUnit left, MeasureUnit right) => left / right;

    /// <summary>In words: “money per click”, “impressions”, “a bare number”.</summary>
    public override string ToString()
    {
        (string One, string Many, int Power)[] parts =
        [
            ("money", "money", Money),
            ("impression", "impressions", Impressions),
            ("click", "clicks", Clicks),
            ("conversion", "conversions", Conversions),
            ("search", "searches", Searches),
        ];
        var above = string.Join(
            " × ",
            parts.Where(part => part.Power > 0).Select(part => part.Many + PowerOf(part.Power))
        );
        var below = string.Concat(
            parts.Where(part => part.Power < 0).Select(part => $" per {part.One}{PowerOf(-part.Power)}")
        );
        return IsNone ? "a bare number" : (above.Length == 0 ? "a number" : above) + below;
    }

    private static string PowerOf(int power) =>
        power == 1 ? "" : string.Create(System.Globalization.CultureInfo.InvariantCulture, $" to the power of {power}");
}
