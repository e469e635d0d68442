using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;

namespace Fendrik.Data.Steps;

/// <summary>Where copies go.</summary>
/// <param name="CampaignIds">Campaigns that ad groups are copied into; keywords and ads go into all of their ad groups.</param>
/// <param name="AdGroupIds">Ad groups that keywords, negatives and ads are copied into.</param>
/// <remarks>Without any, copies stay where the originals are.</remarks>
public sealed record CopyPlace(IReadOnlyList<long> CampaignIds, IReadOnlyList<long> AdGroupIds)
{
    internal bool IsInPlace => CampaignIds.Count + AdGroupIds.Count == 0;
}

/// <summary>A text that is replaced in copies.</summary>
public sealed record CopyReplacement(string Find, string Value, bool IsExpression = false, bool MatchCase = false);

/// <summary>What is different in the copies.</summary>
public sealed record CopyEdits
{
    /// <summary>Name of copied campaigns and ad groups, with <c>{name}</c> for the original's; none keeps it.</summary>
    public string? NamePattern { get; init; }

    /// <summary>Replaced in names, words, ad texts and final URLs.</summary>
    public IReadOnlyList<CopyReplacement> Replace { get; init; } = [];

    /// <summary>Match type of copied keywords and negatives.</summary>
    public MatchType? Match { get; init; }

    /// <summary>Max CPCs are multiplied by this.</summary>
    public decimal? BidFactor { get; init; }

    /// <summary>Device preference of copied ads.</summary>
    public Device? Device { get; init; }

    /// <summary>Ads prefer no device any more.</summary>
    public bool AnyDevice { get; init; }
    public ItemState? State { get; init; }
}

/// <summary>
/// Copies items with all that is in them, in place or elsewhere, with edits applied on the way. An identical twin in the
/// same place is refused; its contents are not copied either.
/// </summary>
public sealed record CopyItems(ItemSet Items, CopyPlace Place, CopyEdits Edits) : IWorkingCopyChange
{
    /// <summary>Most items that one copy makes.</summary>
    public const int MostCopies = 1_000_000;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (Edits.BidFactor is <= 0 or > 100)
        {
            throw new InvalidChangeException("bidFactor", "The factor must be above zero and at most 100.");
        }

        if (Edits.NamePattern is { } pattern && !pattern.Contains("{name}", StringComparison.Ordinal))
        {
            throw new InvalidChangeException("namePattern", "Put {name} where the original's name goes.");
        }

        var edits = Edits.Replace.Select(EditOf).ToArray();
        var selection = await ItemSelection.TakeAsync(context, Items);
        var copies = new CopiedRows(context, Place, Edits, edits);
        var made = await copies.MakeAsync();
        var with = Edits == new CopyEdits() ? "" : " with changes";
        return new StepOutcome(
            $"Copy {ItemSelection.Describe(selection.Count, selection.Tables.Select(table => table.Kind))}{with}",
            made
        );
    }

    private static TextEdit EditOf(CopyReplacement replacement) =>
        TextEdit.Create(
            TextOperation.Replace,
            replacement.Value,
            replacement.Find,
            replacement.IsExpression,
            replacement.MatchCase,
            false,
            out var problem
        ) ?? throw new InvalidChangeException("replace", problem!);
}
