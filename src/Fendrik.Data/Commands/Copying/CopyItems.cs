using Fendrik.Core.Changes;
using Fendrik.Data.Accounts;
using Fendrik.Data.Commands;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands.Copying;

/// <summary>Where copies go: nowhere named means in place, beside the original.</summary>
public sealed record CopyPlace(IReadOnlyList<long> CampaignIds, IReadOnlyList<long> AdGroupIds)
{
    internal bool IsInPlace => CampaignIds.Count + AdGroupIds.Count == 0;
}

/// <summary>A text that is replaced on the way.</summary>
public sealed record CopyReplacement(string Find, string Value, bool IsExpression = false, bool MatchCase = false);

/// <summary>What is changed on the way.</summary>
public sealed record CopyEdits
{
    /// <summary>Name of what was chosen, with <c>{name}</c> for the original's; what is inside keeps its name.</summary>
    public string? NamePattern { get; init; }

    /// <summary>Texts that are replaced in names, words and ads.</summary>
    public IReadOnlyList<CopyReplacement> Replace { get; init; } = [];

    /// <summary>Fields that are set on every copy that has them, by their names.</summary>
    public IReadOnlyDictionary<string, FieldInput> Set { get; init; } = new Dictionary<string, FieldInput>();

    /// <summary>What bids are multiplied by, or none.</summary>
    public decimal? BidFactor { get; init; }

    internal bool IsPlain => NamePattern is null && Replace.Count == 0 && Set.Count == 0 && BidFactor is null;
}

/// <summary>Copies items, in place or elsewhere, with edits applied on the way.</summary>
public sealed record CopyItems(ItemSet Items, CopyPlace Place, CopyEdits Edits) : IWorkingCopyChange
{
    public AccountDoing Doing => AccountDoing.Copy;

    /// <summary>Most copies of one kind in one step.</summary>
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

        if (Edits.Set.Keys.FirstOrDefault(name => ItemTypes.All.All(type => type.Find(name) is null)) is { } unknown)
        {
            throw new InvalidChangeException("set", $"“{unknown}” is no field of an item.");
        }

        var replacements = Edits.Replace.Select(EditOf).ToArray();
        var selection = await ItemSelection.TakeAsync(context, Items);
        var made = 0;
        var copies = new CopiedRows(context, Place, Edits, replacements);
        foreach (var table in Data.Items.ItemTable.All.Where(table => table.Type.ComesAndGoes))
        {
            made += await copies.MakeAsync(table);
        }

        return new StepOutcome(
            $"Copy {ItemTypes.Count(selection.Count, selection.Tables.Select(table => table.Kind))}{(Edits.IsPlain ? "" : " with changes")}",
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
