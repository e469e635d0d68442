namespace Fendrik.Core.Reporting;

/// <summary>What the client's own books say that ads brought, where they know it by totals only. It adds up; no network knows of it.</summary>
/// <param name="Sales">Sales, or whatever the books count.</param>
/// <param name="Value">What they are worth, in the account's currency.</param>
public sealed record Booked(decimal Sales, decimal Value)
{
    /// <summary>Nothing.</summary>
    public static Booked Zero { get; } = new(0, 0);

    /// <summary>Adds two.</summary>
    public static Booked operator +(Booked left, Booked right) =>
        new(left.Sales + right.Sales, left.Value + right.Value);

    /// <summary>Adds two.</summary>
    public static Booked Add(Booked left, Booked right) => left + right;
}
