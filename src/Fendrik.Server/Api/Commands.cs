using System.Text.Json.Serialization;
using Fendrik.Core.AdText.Patterns;
using Fendrik.Core.Searches;
using Fendrik.Data.Commands;
using Fendrik.Data.Commands.Copying;
using Fendrik.Data.Commands.Funding;
using Fendrik.Data.Commands.Patterns;
using Fendrik.Data.Commands.Words;
using Fendrik.Data.Conversions;
using Fendrik.Data.Items;
using Fendrik.Data.Live;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Data.Terms;

namespace Fendrik.Server.Api;

/// <summary>
/// A command as it travels. A few general ones serve every kind and field; what may be done to what follows from the
/// descriptions of the kinds.
/// </summary>
[JsonPolymorphic(
    TypeDiscriminatorPropertyName = "type",
    UnknownDerivedTypeHandling = JsonUnknownDerivedTypeHandling.FailSerialization
)]
[JsonDerivedType(typeof(PutCommand), "put")]
[JsonDerivedType(typeof(SetFieldsCommand), "setFields")]
[JsonDerivedType(typeof(SetCellsCommand), "setCells")]
[JsonDerivedType(typeof(ChangeModifiersCommand), "changeModifiers")]
[JsonDerivedType(typeof(DecideTermsCommand), "decideTerms")]
[JsonDerivedType(typeof(SetGoalsCommand), "setGoals")]
[JsonDerivedType(typeof(SetWorthCommand), "setWorth")]
[JsonDerivedType(typeof(MoveMoneyCommand), "moveMoney")]
[JsonDerivedType(typeof(SplitOutCommand), "splitOut")]
[JsonDerivedType(typeof(RemoveCommand), "remove")]
[JsonDerivedType(typeof(BringBackCommand), "bringBack")]
[JsonDerivedType(typeof(CopyCommand), "copy")]
[JsonDerivedType(typeof(EditTextsCommand), "editTexts")]
[JsonDerivedType(typeof(SetLabelsCommand), "setLabels")]
[JsonDerivedType(typeof(ChangeReferencesCommand), "changeReferences")]
[JsonDerivedType(typeof(AddWordsCommand), "addWords")]
[JsonDerivedType(typeof(AddItemsCommand), "addItems")]
[JsonDerivedType(typeof(AddFromPatternCommand), "addFromPattern")]
[JsonDerivedType(typeof(CombineWordsCommand), "combineWords")]
[JsonDerivedType(typeof(AddNegativeListCommand), "addNegativeList")]
[JsonDerivedType(typeof(CrossNegativesCommand), "crossNegatives")]
[JsonDerivedType(typeof(AddMatchTypesCommand), "addMatchTypes")]
[JsonDerivedType(typeof(SplitByMatchTypeCommand), "splitByMatchType")]
[JsonDerivedType(typeof(DecideLiveCommand), "decideLive")]
[JsonDerivedType(typeof(TakeBackChangesCommand), "takeBackChanges")]
public abstract record Command
{
    /// <summary>The versions of items on which the edit was made; another's edit meanwhile is told, not overwritten.</summary>
    public IReadOnlyList<SeenItem> Seen { get; init; } = [];

    /// <summary>The preview that the person said yes to; when it no longer holds, that is told and nothing is done.</summary>
    public ShownPreview? Shown { get; init; }

    internal abstract IWorkingCopyChange ToChange();

    /// <summary>Why it cannot be proposed for a campaign that is shown; none where it can.</summary>
    internal virtual string? WhyNotProposed => null;
}

/// <summary>A command about items: those named, or all that a filter lets through but those named.</summary>
public abstract record ItemsCommand : Command
{
    public IReadOnlyList<ItemReference> Items { get; init; } = [];
    public SheetRequest? Where { get; init; }

    internal ItemSet Chosen => new(Items, Where);
}

/// <summary>Adds an item of any kind, or changes one. Values are texts as people type them.</summary>
public sealed record PutCommand(ItemKind Kind, Dictionary<string, FieldInput> Values) : Command
{
    public ItemPlaces Place { get; init; } = new();
    public long? Id { get; init; }

    internal override IWorkingCopyChange ToChange() => new PutItem(Kind, Values, Place, Id);
}

/// <summary>Sets fields of many items. An amount may be said as a change: <c>+10%</c>.</summary>
public sealed record SetFieldsCommand(Dictionary<string, FieldInput> Values) : ItemsCommand
{
    public AmountBounds? Bounds { get; init; }

    internal override IWorkingCopyChange ToChange() => new SetFields(Chosen, Values, Bounds);
}

/// <summary>Changes the hours of campaigns, each on top of its own, and modifiers at the same time.</summary>
public sealed record ChangeModifiersCommand(IReadOnlyList<WeekEdit> Week, Dictionary<string, FieldInput> Values)
    : ItemsCommand
{
    public IReadOnlyList<DayLike> Days { get; init; } = [];

    public IReadOnlyList<TargetModifier> Targets { get; init; } = [];

    internal override IWorkingCopyChange ToChange() => new ChangeModifiers(Chosen, Week, Values, Days, Targets);
}

/// <summary>Fills cells of the sheet, each with a text of its own.</summary>
public sealed record SetCellsCommand(IReadOnlyList<CellEdit> Cells) : Command
{
    internal override IWorkingCopyChange ToChange() => new SetCells(Cells);
}

/// <summary>Says which conversion actions count in campaigns; none for those of the account.</summary>
public sealed record SetGoalsCommand(IReadOnlyList<long> CampaignIds, IReadOnlyList<long>? ActionIds) : Command
{
    internal override IWorkingCopyChange ToChange() => new SetGoals(CampaignIds, ActionIds);
}

/// <summary>Works out what a conversion is worth from what a sale brings.</summary>
public sealed record SetWorthCommand(long ActionId, TypedWorth Worth) : Command
{
    internal override IWorkingCopyChange ToChange() => new SetWorth(ActionId, Worth);
}

/// <summary>Decides what becomes of search terms.</summary>
public sealed record DecideTermsCommand(TermDecision Decision, IReadOnlyList<string> Terms) : Command
{
    /// <summary>Where terms become keywords.</summary>
    public IReadOnlyList<TermsForGroup> Keywords { get; init; } = [];

    /// <summary>Match type of keywords, and of negatives that are bare words.</summary>
    public MatchType Match { get; init; } = MatchType.Exact;

    /// <summary>What else is said of the keywords.</summary>
    public Dictionary<string, FieldInput>? Values { get; init; }

    /// <summary>Negatives, one on each line.</summary>
    public string Negatives { get; init; } = "";

    /// <summary>Where the negatives stand.</summary>
    public ItemPlaces Places { get; init; } = new();

    /// <summary>The newest step when the terms were looked at; what others decided since is told.</summary>
    public long? AsOf { get; init; }

    internal override IWorkingCopyChange ToChange() =>
        new DecideTerms(Decision, Terms)
        {
            Keywords = Keywords,
            Match = Match,
            Values = Values,
            Negatives = Negatives,
            Places = Places,
            AsOf = AsOf,
        };

    internal override string? WhyNotProposed =>
        "What becomes of a search term is decided by whoever works here. Propose the keyword or the negative itself.";
}

/// <summary>Sets daily budgets, each to its own.</summary>
public sealed record MoveMoneyCommand(IReadOnlyList<BudgetInput> Budgets, bool KeepsSum) : Command
{
    /// <summary>Budgets of another account of the person's, in the same currency, that change with these or not at all.</summary>
    public BudgetsElsewhere? With { get; init; }

    internal override IWorkingCopyChange ToChange() => new MoveMoney(Budgets, KeepsSum, With);
}

/// <summary>Gives ad groups of a campaign a campaign of their own.</summary>
public sealed record SplitOutCommand(
    long CampaignId,
    IReadOnlyList<long> AdGroupIds,
    string Name,
    string Budget,
    string Rest
) : Command
{
    internal override IWorkingCopyChange ToChange() => new SplitOut(CampaignId, AdGroupIds, Name, Budget, Rest);
}

public sealed record RemoveCommand : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() => new RemoveItems(Chosen);
}

public sealed record BringBackCommand : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() => new BringBack(Chosen);

    internal override string? WhyNotProposed =>
        "What was removed is brought back by whoever works here. Say it as a remark.";
}

public sealed record CopyCommand(CopyPlace Place, CopyEdits Edits) : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() => new CopyItems(Chosen, Place, Edits);
}

public sealed record EditTextsCommand(
    IReadOnlyList<string> Fields,
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

/// <summary>Adds to a field that names other items, or takes from it: which campaigns share a list.</summary>
public sealed record ChangeReferencesCommand(string Field, IReadOnlyList<long> Ids, bool Add) : ItemsCommand
{
    internal override IWorkingCopyChange ToChange() => new ChangeReferences(Chosen, Field, Ids, Add);
}

/// <summary>Adds the same items in several places.</summary>
public sealed record AddItemsCommand(
    ItemKind Kind,
    IReadOnlyList<Dictionary<string, FieldInput>> Items,
    ItemPlaces Places
) : Command
{
    internal override IWorkingCopyChange ToChange() => new AddItems(Kind, Items, Places);
}

/// <summary>Makes an ad for each of many ad groups from one with fields.</summary>
public sealed record AddFromPatternCommand(
    ItemKind Kind,
    Dictionary<string, IReadOnlyList<IReadOnlyList<string>>> Slots,
    PatternPlaces Places
) : Command
{
    public string? Label { get; init; }

    internal override IWorkingCopyChange ToChange() => new AddFromPattern(new AdPattern(Kind, Slots, Label), Places);
}

public sealed record AddWordsCommand(ItemKind Kind, string Lines, MatchType Match, ItemPlaces Places) : Command
{
    public bool MatchForAll { get; init; }
    public Dictionary<string, FieldInput>? Values { get; init; }

    internal override IWorkingCopyChange ToChange() => new AddWords(Kind, Lines, Match, Places, MatchForAll, Values);
}

public sealed record CombineWordsCommand(
    IReadOnlyList<long> AdGroupIds,
    IReadOnlyList<IReadOnlyList<string>> Lists,
    IReadOnlyList<MatchType> Matches
) : Command
{
    public Dictionary<string, FieldInput>? Values { get; init; }

    internal override IWorkingCopyChange ToChange() => new AddCombinedWords(AdGroupIds, Lists, Matches, Values);
}

public sealed record AddNegativeListCommand(string Name, IReadOnlyList<long> CampaignIds, string Lines, MatchType Match)
    : Command
{
    internal override IWorkingCopyChange ToChange() => new AddNegativeList(Name, CampaignIds, Lines, Match);
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

/// <summary>Decides whose version of items holds that were changed on the network itself.</summary>
public sealed record DecideLiveCommand(IReadOnlyList<ItemReference> Items, bool TakeTheirs) : Command
{
    internal override IWorkingCopyChange ToChange() => new DecideLive(Items, TakeTheirs);

    internal override string? WhyNotProposed =>
        "Whose version holds is decided by whoever works here. Say it as a remark.";
}

/// <summary>Takes back what was changed of items since the last publish.</summary>
public sealed record TakeBackChangesCommand(IReadOnlyList<ItemReference> Items) : Command
{
    internal override IWorkingCopyChange ToChange() => new TakeBackChanges(Items);

    internal override string? WhyNotProposed =>
        "What was changed here is taken back by whoever works here. Say it as a remark.";
}
