namespace Fendrik.Core.Checks;

/// <summary>Something a check found that lies in no single item.</summary>
/// <param name="Weight">How much it weighs.</param>
/// <param name="Code">Stable name of the check.</param>
/// <param name="Message">A short line.</param>
/// <param name="Detail">A sentence that says why it matters and what to do.</param>
/// <param name="SavedSearchId">The saved search that fails; none when it is of the account as a whole.</param>
public sealed record AccountFinding(
    Weight Weight,
    string Code,
    string Message,
    string Detail,
    long? SavedSearchId = null
);

/// <summary>What is found of an account as a whole.</summary>
public static class AcrossAccount
{
    /// <summary>Name of the check for who pays.</summary>
    public const string PayerMissing = "payer-missing";

    /// <summary>A caution when nobody pays the account: what is published is reviewed, but never serves.</summary>
    /// <param name="payer">Who pays on the network; none when nobody does.</param>
    /// <param name="network">Name of the network.</param>
    public static AccountFinding? Payer(string? payer, string network) =>
        payer is null
            ? new AccountFinding(
                Weight.Caution,
                PayerMissing,
                "no payer",
                $"Nobody pays for this account on {network}: what is published is reviewed, but nothing of it shows. Name a payer."
            )
            : null;
}
