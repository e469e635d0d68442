namespace Fendrik.Server.Links;

/// <summary>A step of a test visit.</summary>
/// <param name="Name">What it is: landing page.</param>
/// <param name="Says">What was found there, in a line.</param>
/// <param name="IsFine">False where it breaks off, or something is lost.</param>
/// <param name="Link">What came along to it from the step before, in two or three words; none for the first.</param>
/// <param name="IsCarried">False where the click was lost on the way to it.</param>
public sealed record VisitHop(string Name, string Says, bool IsFine, string? Link, bool IsCarried);

/// <summary>A visit that was followed from the click to what the network hears.</summary>
/// <param name="Title">Where it began.</param>
/// <param name="Hops">Its steps.</param>
/// <param name="IsCounted">True when the action counts it.</param>
/// <param name="Says">What came of it, in a sentence.</param>
public sealed record FollowedVisit(string Title, IReadOnlyList<VisitHop> Hops, bool IsCounted, string Says);
