using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;

namespace Fendrik.Core.Networks;

/// <summary>What a network takes in one field. What is none has no limit.</summary>
public sealed record FieldLimits
{
    /// <summary>No limits at all.</summary>
    public static FieldLimits None { get; } = new();

    /// <summary>Longest text, or longest part of several, in characters as people count them.</summary>
    public int? Length { get; init; }

    /// <summary>What a wide character counts in lengths: the network's, the same in all its limits.</summary>
    public int WideCounts { get; init; } = 1;

    /// <summary>The length of a text as the network counts it.</summary>
    public int LengthOf(string text) => TextLength.Of(text, WideCounts);

    /// <summary>Most words.</summary>
    public int? Words { get; init; }

    /// <summary>Fewest parts.</summary>
    public int? Fewest { get; init; }

    /// <summary>Most parts.</summary>
    public int? Most { get; init; }

    /// <summary>What there is to choose from; none where anything may be written.</summary>
    public IReadOnlyList<string>? OneOf { get; init; }

    /// <summary>Highest modifier in per cent.</summary>
    public decimal? HighestPercent { get; init; }

    /// <summary>Greatest distance in kilometres.</summary>
    public decimal? HighestDistance { get; init; }

    /// <summary>Lowest amount by the code of a currency.</summary>
    public IReadOnlyDictionary<string, decimal>? Least { get; init; }

    /// <summary>Lowest amount in a currency that is not listed, in the smallest amounts of that currency.</summary>
    public int? LeastElsewhere { get; init; }

    /// <summary>The lowest amount in a currency; none when there is no lowest.</summary>
    public decimal? LeastIn(Currency currency) =>
        Least?.TryGetValue(currency.Code, out var least) == true ? least : LeastElsewhere * currency.SmallestAmount;
}
