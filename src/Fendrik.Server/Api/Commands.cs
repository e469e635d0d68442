using System.Text.Json.Serialization;
using Fendrik.Core.Accounts;
using Fendrik.Data.Live;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Server.Api;

/// <summary>A change as the client asks for it. Which parts count depends on its kind.</summary>
[JsonPolymorphic(
    TypeDiscriminatorPropertyName = "type",
    UnknownDerivedTypeHandling = JsonUnknownDerivedTypeHandling.FailSerialization
)]
[JsonDerivedType(typeof(SetStateCommand), "setState")]
[JsonDerivedType(typeof(ChangeAmountCommand), "changeAmount")]
[JsonDerivedType(typeof(SetMatchTypeCommand), "setMatchType")]
[JsonDerivedType(typeof(RemoveCommand), "remove")]
[JsonDerivedType(typeof(SetTextCommand), "setText")]
[JsonDerivedType(typeof(SetCampaignSettingsCommand), "setCampaignSettings")]
[JsonDerivedType(typeof(SetFinalUrlCommand), "setFinalUrl")]
[JsonDerivedType(typeof(AddCampaignCommand), "addCampaign")]
[JsonDerivedType(typeof(AddAdGroupCommand), "addAdGroup")]
[JsonDerivedType(typeof(AddWordsCommand), "addWords")]
[JsonDerivedType(typeof(WriteTextAdCommand), "writeTextAd")]
[JsonDerivedType(typeof(EditTextsCommand), "editTexts")]
[JsonDerivedType(typeof(SetLabelsCommand), "setLabels")]
[JsonDerivedType(typeof(CopyCommand), "copy")]
[JsonDerivedType(typeof(PasteCellsCommand), "pasteCells")]
[JsonDerivedType(typeof(CrossNegativesCommand), "crossNegatives")]
[JsonDerivedType(typeof(AddMatchTypesCommand), "addMatchTypes")]
[JsonDerivedType(typeof(SplitByMatchTypeCommand), "splitByMatchType")]
[JsonDerivedType(typeof(AddNegativeListCommand), "addNegativeList")]
[JsonDerivedType(typeof(AddNegativesCommand), "addNegatives")]
[JsonDerivedType(typeof(ShareNegativeListsCommand), "shareNegativeLists")]
[JsonDerivedType(typeof(CombineWordsCommand), "combineWords")]
[JsonDerivedType(typeof(DecideLiveCommand), "decideLive")]
public abstract record Command
{
    /// <summary>The versions that the person saw; when one has moved on, nothing is done and both versions are told.</summary>
    public IReadOnlyList<SeenItem> Seen { get; init; } = [];

    internal abstract IWorkingCopyChange ToChange();
}

/// <summary>A command about chosen items: those named, or all that a filter lets through but those named.</summary>
public abstract record ItemsCommand : Command
{
    public IReadOnlyList<ItemReference> Items { get; init; } = [];
    public SheetRequest? Where { get; init; }

    internal ItemSet Chosen => new(Items, Where);
}

public sealed record SetStateCommand(ItemState State) : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() => new SetState(Chosen, State);
}

public sealed record ChangeAmountCommand(
    AmountField Field,
    Core.Bidding.AmountOperation Operation,
    decimal Value,
    decimal? RoundTo = null,
    decimal? AtLeast = null,
    decimal? AtMost = null
) : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() =>
        new ChangeAmount(Chosen, Field, Operation, Value, RoundTo, AtLeast, AtMost);
}

public sealed record SetMatchTypeCommand(MatchType Match) : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() => new SetMatchType(Chosen, Match);
}

public sealed record RemoveCommand : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() => new RemoveItems(Chosen);
}

public sealed record EditTextsCommand(
    IReadOnlyList<TextField> Fields,
    Core.Changes.TextOperation Operation,
    string Value,
    string? Find = null,
    bool IsExpression = false,
    bool MatchCase = false,
    bool WholeWords = false
) : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() =>
        new EditTexts(Chosen, Fields, Operation, Value, Find, IsExpression, MatchCase, WholeWords);
}

public sealed record SetLabelsCommand(IReadOnlyList<string> Add, IReadOnlyList<string> Remove) : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() => new SetLabels(Chosen, Add, Remove);
}

public sealed record CopyCommand(CopyPlace Place, CopyEdits Edits) : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() => new CopyItems(Chosen, Place, Edits);
}

public sealed record PasteCellsCommand(IReadOnlyList<CellEdit> Cells) : Command
{
    internal override IWorkingCopyChange ToChange() => new PasteCells(Cells);
}

public sealed record CrossNegativesCommand(MatchType Match = MatchType.Exact) : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() => new CrossNegatives(Chosen, Match);
}

public sealed record AddMatchTypesCommand(IReadOnlyList<MatchType> Matches, decimal? BidFactor) : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() => new AddMatchTypes(Chosen, Matches, BidFactor);
}

public sealed record SplitByMatchTypeCommand : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() => new SplitByMatchType(Chosen);
}

public sealed record ShareNegativeListsCommand(IReadOnlyList<long> CampaignIds, bool Shared) : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() => new ShareNegativeLists(Chosen, CampaignIds, Shared);
}

public sealed record AddNegativeListCommand(string Name, IReadOnlyList<long> CampaignIds, string Lines, MatchType Match)
    : Command
{
    internal override IWorkingCopyChange ToChange() => new AddNegativeList(Name, CampaignIds, Lines, Match);
}

public sealed record AddNegativesCommand(string Lines, MatchType Match, bool MatchForAll, NegativePlaces Places)
    : Command
{
    internal override IWorkingCopyChange ToChange() => new AddNegatives(Lines, Match, MatchForAll, Places);
}

public sealed record CombineWordsCommand(
    IReadOnlyList<long> AdGroupIds,
    IReadOnlyList<IReadOnlyList<string>> Lists,
    IReadOnlyList<MatchType> Matches,
    decimal? MaxCpc
) : Command
{
    internal override IWorkingCopyChange ToChange() => new AddCombinedWords(AdGroupIds, Lists, Matches, MaxCpc);
}

public sealed record SetTextCommand(ItemReference Item, string Text) : Command
{
    internal override IWorkingCopyChange ToChange() => new SetText(Item, Text);
}

public sealed record SetCampaignSettingsCommand(
    long CampaignId,
    DateOnly? StartDate,
    DateOnly? EndDate,
    IReadOnlyList<string> Networks
) : Command
{
    internal override IWorkingCopyChange ToChange() =>
        new SetCampaignSettings(CampaignId, StartDate, EndDate, NetworkNames.Read(Networks));
}

public sealed record SetFinalUrlCommand(string? FinalUrl) : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() => new SetFinalUrl(Chosen, FinalUrl);
}

public sealed record AddCampaignCommand(string Name, decimal? DailyBudget) : Command
{
    internal override IWorkingCopyChange ToChange() => new AddCampaign(Name, DailyBudget);
}

public sealed record AddAdGroupCommand(long CampaignId, string Name, decimal? MaxCpc) : Command
{
    internal override IWorkingCopyChange ToChange() => new AddAdGroup(CampaignId, Name, MaxCpc);
}

public sealed record AddWordsCommand(
    long CampaignId,
    long? AdGroupId,
    string Lines,
    MatchType Match,
    bool Negative,
    decimal? MaxCpc
) : Command
{
    internal override IWorkingCopyChange ToChange() =>
        new AddWords(CampaignId, AdGroupId, Lines, Match, Negative, MaxCpc);
}

public sealed record WriteTextAdCommand(
    long? AdId,
    long AdGroupId,
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    IReadOnlyList<string> DisplayPath,
    string FinalUrl,
    Device? DevicePreference
) : Command
{
    internal override IWorkingCopyChange ToChange() =>
        new WriteTextAd(AdId, AdGroupId, Headlines, Descriptions, DisplayPath, FinalUrl, DevicePreference);
}

public sealed record DecideLiveCommand(IReadOnlyList<ItemReference> Items, bool TakeTheirs) : Command
{
    internal override IWorkingCopyChange ToChange() => new DecideLive(Items, TakeTheirs);
}

/// <summary>Networks as a list of names, so that nobody has to add up flags.</summary>
internal static class NetworkNames
{
    public static SiteKinds Read(IEnumerable<string> names)
    {
        var networks = SiteKinds.None;
        foreach (var name in names)
        {
            networks |= name switch
            {
                "search" => SiteKinds.Search,
                "partners" => SiteKinds.Partners,
                "content" => SiteKinds.Content,
                _ => throw new InvalidChangeException("networks", $"“{name}” is not search, partners or content."),
            };
        }

        return networks;
    }
}
