namespace Fendrik.Network.Worlds;

/// <summary>A kind of site that ads show on.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Share">Share of searches.</param>
/// <param name="Earnest">How earnest people are there: 1 is usual.</param>
/// <param name="Clicks">How often they click, against a search page.</param>
/// <param name="Accident">Share of clicks that nobody meant.</param>
public sealed record SiteKind(SiteKinds Kind, double Share, double Earnest, double Clicks, double Accident);

/// <summary>How people type.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Share">Share of people.</param>
/// <param name="Fault">Chance of a common fault in a search.</param>
/// <param name="Slip">Chance of a slipped finger in a search.</param>
public sealed record Habit(string Name, double Share, double Fault, double Slip);

/// <summary>Days that are not like others.</summary>
public enum DayKind
{
    /// <summary>A holiday.</summary>
    Holiday = 1,

    /// <summary>Schools are closed.</summary>
    School = 2,
}

/// <summary>A stretch of such days.</summary>
public sealed record SpecialDays(DayKind Kind, string Name, DateOnly First, DateOnly Last);

/// <summary>A content site with what it is about.</summary>
public sealed record ContentSite(string Host, string Topic, IReadOnlySet<string> Needs);

/// <summary>An audience that people may belong to.</summary>
public sealed record Audience(string Name, string Topic, IReadOnlySet<string> Needs, double Share);
