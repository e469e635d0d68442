using System.Runtime.CompilerServices;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Items.Tests;

/// <summary>A kind that nothing knows but its description: one field of each type of value.</summary>
public sealed class MadeUpType()
    : ItemType(
        New("text", "Gadget", "gadget", new TextValue(TextValue.LongestName), "gadget", identity: true, tells: true),
        New("site", "Site", "site", new AddressValue(), "gadget site"),
        New("price", "Price", "price", new AmountValue(), "gadget price"),
        New("since", "Since", "since", new DayValue(), "gadget since"),
        New("mood", "Mood", "mood", new ChoiceValue(Choices.Device), "gadget mood"),
        New(
            "shows",
            "Shows",
            "shows",
            new FlagsValue(Choices.Sites, "nowhere", "Choose a place."),
            "gadget shows",
            @default: (short)1
        ),
        New("notes", "Note", "notes", new LinesValue("note", room: 3), "gadget note"),
        New("campaignIds", "Used by", "campaign_ids", new ReferencesValue(ItemKind.Campaign, "campaign"))
    )
{
    /// <summary>A number that no kind has which is shipped.</summary>
    public const ItemKind Number = (ItemKind)100;

    public override ItemKind Kind => Number;
    public override string Noun => "gadget";
    public override string Table => "gadget";
    public override IReadOnlyList<Level> Levels => [Level.Account];
    public override Field NameField => this["text"];
    public override bool IsReviewed => true;
    public override string? FigureColumn => null;
    public override string TwinProblem => "The same gadget is there already.";

    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report) => [];

    [ModuleInitializer]
    internal static void Add() => ItemTypes.Add(new MadeUpType());

    private static Field New(
        string name,
        string label,
        string column,
        Core.Items.Values.ValueType type,
        string? header = null,
        bool identity = false,
        bool tells = false,
        object? @default = null
    ) =>
        new()
        {
            Name = name,
            ListName = identity ? "gadget" : null,
            Label = label,
            Meaning = label + " of a gadget.",
            Column = column,
            KeyColumn = identity ? column + "_key" : null,
            Headers = header is null ? [] : [header],
            Type = type,
            IsIdentity = identity,
            IsNeeded = identity,
            TellsKind = tells,
            Default = @default,
            IsClearable = !identity && @default is null,
            IsSortable = type is not (ReferencesValue or LinesValue),
        };
}
