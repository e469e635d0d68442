using Fendrik.Core.Accounts;

namespace Fendrik.Core.Checks;

/// <summary>How much a finding weighs.</summary>
public enum Weight
{
    /// <summary>Good to know.</summary>
    Hint = 1,

    /// <summary>Likely a mistake; publishing goes on.</summary>
    Caution = 2,

    /// <summary>Stops publishing.</summary>
    Blocker = 3,
}

/// <summary>Something a check found.</summary>
/// <param name="Weight">How much it weighs.</param>
/// <param name="Code">Stable name of the check, for example <c>budget-missing</c>.</param>
/// <param name="Kind">Kind of the item to be mended.</param>
/// <param name="ItemId">The item to be mended.</param>
/// <param name="Field">The field to be mended, as the sheet names it, or none.</param>
/// <param name="Message">A short line for the sheet: <c>daily budget missing</c>.</param>
/// <param name="Detail">A sentence that says why it matters and what to do.</param>
public sealed record Finding(
    Weight Weight,
    string Code,
    ItemKind Kind,
    long ItemId,
    string? Field,
    string Message,
    string Detail
);
