using Fendrik.Core.Networks;
using NodaTime;

namespace Fendrik.Core.Accounts;

/// <summary>An account to be made.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Currency">ISO 4217 code; it stays.</param>
/// <param name="TimeZone">IANA time zone; it stays.</param>
/// <param name="NetworkId">The network that it is on; it stays.</param>
/// <param name="Payer">Who pays it; none for later, and until then nothing serves.</param>
public sealed record NewAccount(string Name, string Currency, string TimeZone, string NetworkId, string? Payer)
{
    /// <summary>Longest name, in characters.</summary>
    public const int LongestName = 80;

    /// <summary>What is wrong, with the field; none when nothing is.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public (string Field, string Message)? Problem =>
        NameProblem(Name) is { } name ? ("name", name)
        : !Accounts.Currency.Codes.Contains(Currency)
            ? ("currency", $"“{Currency}” is no currency of ISO 4217, such as GBP.")
        : DateTimeZoneProviders.Tzdb.GetZoneOrNull(TimeZone ?? "") is null
            ? ("timeZone", $"“{TimeZone}” is no time zone of the IANA database, such as Europe/London.")
        : !NetworkProfile.All.ContainsKey(NetworkId ?? "") ? ("networkId", "Choose one of the networks.")
        : new AccountPayer(Payer).Problem is { } payer ? ("payer", payer)
        : null;

    /// <summary>What is wrong with a name; none when nothing is.</summary>
    public static string? NameProblem(string? name) =>
        string.IsNullOrWhiteSpace(name) || name.Trim().Length > LongestName || name.Any(char.IsControl)
            ? $"The name of an account has 1 to {LongestName} characters."
            : null;

    /// <summary>The time zones that accounts can be in: those of the IANA database that are places.</summary>
    public static IReadOnlyList<string> TimeZones { get; } =
    [
        .. DateTimeZoneProviders.Tzdb.Ids.Where(id =>
            id.Contains('/') && !id.StartsWith("Etc/", StringComparison.Ordinal)
        ),
    ];
}
