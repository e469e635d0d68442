namespace Fendrik.Core.Networks;

/// <summary>Something that was done on a test visit, as a tag, the carrier or another company's site tells it.</summary>
/// <param name="ClickId">The click that it came from; none where that was lost on the way.</param>
/// <param name="Source">What was done.</param>
/// <param name="Address">Where it was done: domain and path; none for a call from an ad.</param>
/// <param name="Seconds">How long people talked; 0 for what is no call.</param>
public sealed record ToldEvent(string? ClickId, ConversionSource Source, string? Address, int Seconds);

/// <summary>What the network makes of something that it was told.</summary>
/// <param name="KnowsClick">True when it gave out the click id.</param>
/// <param name="CountedBy">The actions that count it.</param>
public sealed record ToldAnswer(bool KnowsClick, IReadOnlyList<long> CountedBy);
