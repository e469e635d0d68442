using System.Text.Json;
using System.Text.Json.Nodes;
using Dapper;
using Fendrik.Core.AdText.Patterns;
using Fendrik.Core.Changes;
using Fendrik.Core.Searches;
using Fendrik.Data.Commands.Copying;
using Fendrik.Data.Commands.Funding;
using Fendrik.Data.Commands.Patterns;
using Fendrik.Data.Conversions;
using Fendrik.Data.Intakes;
using Fendrik.Data.Live;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Data.Terms;
using Fendrik.Data.Variants;

namespace Fendrik.Data.Tests;

/// <summary>
/// Draws commands of every type about whatever an account holds at the moment, sensible and hostile ones. A seed gives the same
/// command for the same state.
/// </summary>
internal sealed class AnyCommand(WorkingCopyFixture fixture, int account)
{
    private static readonly string[] Words =
    [
        "piano",
        "tuning",
        "hire",
        "grand",
        "stool",
        "Größe",
        "a b",
        "=1+1",
        "“x”",
    ];
    private static readonly string[] Amounts =
    [
        "1.20",
        "0.05",
        "+10%",
        "-8%",
        "+0.10",
        "−0.03",
        "1,234",
        "",
        "0",
        "x",
        "999999",
    ];

    /// <summary>Every type of change that a person can ask for, with how one is drawn.</summary>
    public static IReadOnlyDictionary<Type, Func<AnyCommand, Draw, Task<IWorkingCopyChange>>> All { get; } =
        new Dictionary<Type, Func<AnyCommand, Draw, Task<IWorkingCopyChange>>>
        {
            [typeof(PutItem)] = (_, draw) => Now(Put(draw)),
            [typeof(SetFields)] = (_, draw) => Now(Set(draw)),
            [typeof(SetCells)] = (_, draw) => Now(Cells(draw)),
            [typeof(MoveMoney)] = (_, draw) =>
                Now(
                    new MoveMoney(
                        [
                            .. draw.Some(ItemKind.Campaign)
                                .Items.Select(item => new BudgetInput(item.Id, draw.Of("12", "0.5", "", "x"))),
                        ],
                        draw.Yes
                    )
                ),
            [typeof(SetGoals)] = (_, draw) =>
                Now(
                    new SetGoals(
                        [.. draw.Some(ItemKind.Campaign).Items.Select(item => item.Id)],
                        draw.Yes ? [.. draw.Some(ItemKind.ConversionAction).Items.Select(item => item.Id)] : null
                    )
                ),
            [typeof(SetWorth)] = (_, draw) =>
                Now(
                    new SetWorth(
                        draw.Ids(ItemKind.ConversionAction).FirstOrDefault(),
                        new TypedWorth(draw.Of("320", "0.5", "x"), draw.Of("25", "25 %", ""), draw.Of("40%", "0"))
                    )
                ),
            [typeof(DecideTerms)] = (_, draw) =>
                Now(
                    new DecideTerms(
                        draw.Of(TermDecision.Keyword, TermDecision.Negative, TermDecision.Leave),
                        [
                            .. Enumerable
                                .Range(0, draw.Number(3))
                                .Select(_ => draw.Of("piano lessons", "free [piano]", "a", " ")),
                        ]
                    )
                    {
                        Keywords =
                        [
                            .. draw.Some(ItemKind.AdGroup)
                                .Items.Select(item => new TermsForGroup(
                                    item.Id,
                                    ["piano lessons", "free [piano]", "a"]
                                )),
                        ],
                        Negatives = draw.Of("lessons\n[free piano]", "", "x"),
                        Places = new ItemPlaces([.. draw.Some(ItemKind.Campaign).Items.Select(item => item.Id)]),
                    }
                ),
            [typeof(SplitOut)] = async (any, draw) => await any.SplitAsync(draw),
            [typeof(ChangeModifiers)] = (_, draw) =>
                Now(
                    new ChangeModifiers(
                        draw.Some(draw.Yes ? ItemKind.Campaign : ItemKind.AdGroup),
                        [
                            new WeekEdit(
                                draw.Of(Enum.GetValues<DayOfWeek>()),
                                15 * draw.Number(95),
                                draw.Of(1_440, 600, 607),
                                draw.Of<bool?>(true, false, null),
                                draw.Of("+20%", "−100%", "", "x", "900")
                            ),
                        ],
                        draw.Yes
                            ? new Dictionary<string, FieldInput> { ["phoneModifier"] = draw.Of("-26%", "", "x") }
                            : [],
                        draw.Yes
                            ? [new DayLike(draw.Of(Enum.GetValues<DayOfWeek>()), draw.Of(Enum.GetValues<DayOfWeek>()))]
                            : [],
                        draw.Yes
                            ?
                            [
                                new TargetModifier(
                                    draw.Of(ItemKind.Place, ItemKind.Audience, ItemKind.Keyword),
                                    draw.Of("Leeds", "Scotland", "Perth", "parents"),
                                    draw.Of("+20%", "−100%", "x", ""),
                                    draw.Yes
                                ),
                            ]
                            : []
                    )
                ),
            [typeof(RemoveItems)] = (_, draw) => Now(new RemoveItems(draw.Some())),
            [typeof(BringBack)] = (_, draw) => Now(new BringBack(draw.SomeRemoved())),
            [typeof(CopyItems)] = (_, draw) => Now(Copy(draw)),
            [typeof(EditTexts)] = (_, draw) => Now(Texts(draw)),
            [typeof(SetLabels)] = (_, draw) =>
                Now(new SetLabels(draw.Some(), [draw.Of("spring", "test")], [draw.Of("spring", "old")])),
            [typeof(ChangeReferences)] = (_, draw) =>
                Now(
                    new ChangeReferences(
                        draw.Some(ItemKind.NegativeList),
                        "campaignIds",
                        draw.Ids(ItemKind.Campaign),
                        draw.Yes
                    )
                ),
            [typeof(AddWords)] = (_, draw) =>
                Now(
                    new AddWords(
                        draw.Yes ? ItemKind.Keyword : ItemKind.NegativeKeyword,
                        $"{draw.Of(Words)} {draw.Of(Words)}\n[{draw.Of(Words)}]\n\"{draw.Of(Words)}\"",
                        draw.Of(Enum.GetValues<MatchType>()),
                        new ItemPlaces(AdGroupIds: draw.Ids(ItemKind.AdGroup))
                    )
                ),
            [typeof(AddItems)] = (_, draw) => Now(Items(draw)),
            [typeof(AddFromPattern)] = (_, draw) =>
                Now(
                    new AddFromPattern(
                        new AdPattern(
                            draw.Of(ItemKind.TextAd, ItemKind.ResponsiveAd),
                            new Dictionary<string, IReadOnlyList<IReadOnlyList<string>>>
                            {
                                ["headlines"] =
                                [
                                    ["[Theme] In [Place]", "[Theme]", "Piano Tuning"],
                                    ["Book Today"],
                                    ["Ask For A Price"],
                                ],
                                ["descriptions"] =
                                [
                                    ["We look after your [keyword].", "We look after it."],
                                    ["Pay after the last note."],
                                ],
                                ["landingPage"] =
                                [
                                    ["[page]", "https://tarnandfell.example/tuning"],
                                ],
                            }
                        ),
                        new PatternPlaces(null, null, draw.Yes, draw.Of(null, "ad group\tplace\nPianos\tLeeds"))
                    )
                ),
            [typeof(AddCombinedWords)] = (_, draw) =>
                Now(
                    new AddCombinedWords(
                        draw.Ids(ItemKind.AdGroup),
                        [
                            ["piano", "grand"],
                            [draw.Of(Words)],
                        ],
                        [draw.Of(Enum.GetValues<MatchType>())]
                    )
                ),
            [typeof(AddNegativeList)] = (_, draw) =>
                Now(
                    new AddNegativeList(
                        $"List {draw.Number(3)}",
                        draw.Ids(ItemKind.Campaign),
                        "free\njobs",
                        MatchType.Phrase
                    )
                ),
            [typeof(CrossNegatives)] = (_, draw) => Now(new CrossNegatives(draw.Some(ItemKind.Campaign))),
            [typeof(AddMatchTypes)] = (_, draw) =>
                Now(new AddMatchTypes(draw.Some(ItemKind.Keyword), [draw.Of(Enum.GetValues<MatchType>())], 0.5m)),
            [typeof(SplitByMatchType)] = (_, draw) => Now(new SplitByMatchType(draw.Some(ItemKind.AdGroup))),
            [typeof(KeepIntake)] = (any, draw) => any.IntakeAsync(draw),
            [typeof(DecideLive)] = (any, draw) => any.DecideAsync(draw),
            [typeof(TakeProposals)] = (any, draw) => any.ProposedAsync(draw),
            [typeof(TakeBackChanges)] = (_, draw) =>
                Now(new TakeBackChanges([.. draw.Some().Items, .. draw.SomeRemoved().Items])),
        };

    /// <summary>A command drawn by a seed from the account as it is.</summary>
    public Task<IWorkingCopyChange> DrawAsync(int seed) =>
        DrawAsync(All.Keys.ElementAt(new Random(seed).Next(All.Count)).Name, seed);

    /// <summary>A command of one type.</summary>
    public async Task<IWorkingCopyChange> DrawAsync(string command, int seed)
    {
        var draw = new Draw(new Random(seed ^ 0x5eed), await RowsAsync(removed: false), await RowsAsync(removed: true));
        return await All.First(each => each.Key.Name == command).Value(this, draw);
    }

    private static Task<IWorkingCopyChange> Now(IWorkingCopyChange change) => Task.FromResult(change);

    private static AddItems Items(Draw draw) =>
        draw.Yes
            ? new AddItems(
                draw.Of(ItemKind.Callout, ItemKind.CallExtension),
                [
                    new Dictionary<string, FieldInput> { ["text"] = draw.Of("0113 496 0142", "0113 496 0143") },
                    new Dictionary<string, FieldInput>
                    {
                        ["text"] = draw.Of("01632 960123", "01632 960124"),
                        ["hours"] = draw.Of("Mon-Fri 9-17", ""),
                    },
                ],
                new ItemPlaces(draw.Ids(ItemKind.Campaign), draw.Ids(ItemKind.AdGroup), OnAccount: draw.Yes)
            )
            : new AddItems(
                ItemKind.TextAd,
                [
                    .. new[] { "Piano Tuning", draw.Of(Words) }.Select(headline => new Dictionary<string, FieldInput>
                    {
                        ["headlines"] = new[] { headline, "Book Today" },
                        ["descriptions"] = new[] { "We tune pianos at home." },
                        ["landingPage"] = "https://tarnandfell.example/tuning",
                    }),
                ],
                new ItemPlaces(AdGroupIds: draw.Ids(ItemKind.AdGroup))
            );

    private static PutItem Put(Draw draw)
    {
        var parent = draw.Number(4);
        return parent switch
        {
            3 => new PutItem(
                ItemKind.ConversionAction,
                new Dictionary<string, FieldInput>
                {
                    ["name"] = draw.Of(Words),
                    ["source"] = draw.Of("form", "page reached", "x"),
                    ["accountGoal"] = draw.Of("yes", "no"),
                },
                new ItemPlaces()
            ),
            0 => Change.Campaign($"{draw.Of(Words)} {draw.Number(4)}", draw.Number(40)),
            1 => new PutItem(
                ItemKind.AdGroup,
                new Dictionary<string, FieldInput> { ["name"] = draw.Of(Words), ["maxCpc"] = draw.Of(Amounts) },
                new ItemPlaces(draw.Ids(ItemKind.Campaign))
            ),
            _ => new PutItem(
                ItemKind.Callout,
                new Dictionary<string, FieldInput> { ["text"] = draw.Of(Words) },
                draw.Yes ? new ItemPlaces() : new ItemPlaces(draw.Ids(ItemKind.Campaign))
            ),
        };
    }

    private static SetFields Set(Draw draw)
    {
        var field = draw.Of(
            "maxCpc",
            "state",
            "match",
            "dailyBudget",
            "landingPage",
            "trackingTemplate",
            "text",
            "name"
        );
        var text = field switch
        {
            "maxCpc" or "dailyBudget" => draw.Of(Amounts),
            "state" => draw.Of("paused", "running", "sleeping"),
            "match" => draw.Of("exact", "phrase", "broad"),
            _ => draw.Of("https://tarnandfell.example/x", "", draw.Of(Words)),
        };
        return Change.Set(draw.Some(), field, text);
    }

    private static SetCells Cells(Draw draw) =>
        new([
            .. draw.Some()
                .Select(item => new CellEdit(
                    item,
                    draw.Of("name", "state", "maxCpc"),
                    draw.Of("paused", "0.77", "renamed", "+5%")
                )),
        ]);

    private static CopyItems Copy(Draw draw) =>
        new(
            draw.Some(),
            draw.Yes ? new CopyPlace([], []) : new CopyPlace(draw.Ids(ItemKind.Campaign), []),
            new CopyEdits
            {
                NamePattern = draw.Yes ? "{name} copy" : null,
                Replace = draw.Yes ? [new CopyReplacement("piano", "cello")] : [],
                BidFactor = draw.Yes ? 0.5m : null,
            }
        );

    private static EditTexts Texts(Draw draw) =>
        new(
            draw.Some(),
            [draw.Of("name", "text", "headlines", "landingPage")],
            draw.Of(Enum.GetValues<TextOperation>()),
            draw.Of(Words),
            draw.Of("piano", "a", "ü")
        );

    private async Task<IWorkingCopyChange> IntakeAsync(Draw draw) =>
        new KeepIntake(
            await fixture.PasteAsync(
                account,
                $"campaign,daily budget,ad group,keyword,match type,max cpc,labels\nNorth,{10 + draw.Number(9)},{draw.Of("Tuning", "New")},{draw.Of(Words)},exact,{draw.Of("1.10", "")},{draw.Of("spring", "")}\n"
            )
        );

    private static long _version = 1_000;

    /// <summary>Somebody changes a keyword on the network, and it is decided whose version holds.</summary>
    private async Task<IWorkingCopyChange> DecideAsync(Draw draw)
    {
        var item = draw.Some(ItemKind.Keyword).FirstOrDefault();
        if (item is not null)
        {
            await using var connection = await fixture.Source.OpenConnectionAsync();
            var json = await connection.ExecuteScalarAsync<string>(
                $"select {ItemTable.Of(item.Kind).Published("i")}::text from keyword i where id = @Id",
                new { item.Id }
            );
            var theirs = JsonNode.Parse(json!)!.AsObject();
            theirs["maxCpc"] = 0.5 + draw.Number(9);
            await new LiveDifferences(fixture.Source, TimeProvider.System).RecordAsync(
                account,
                new NetworkItems(
                    1,
                    [
                        new NetworkItem(
                            item.Kind,
                            item.Id,
                            JsonSerializer.SerializeToElement(theirs),
                            Interlocked.Increment(ref _version)
                        ),
                    ]
                ),
                CancellationToken.None
            );
        }

        return new DecideLive([], draw.Yes);
    }

    /// <summary>Somebody proposes something for a campaign that is shown to them, and it is taken over.</summary>
    private async Task<IWorkingCopyChange> ProposedAsync(Draw draw)
    {
        if (draw.Ids(ItemKind.Campaign) is not [var campaign, ..])
        {
            return new TakeProposals(0, [0]);
        }

        var look = await fixture.Looks.ShowAsync(account, "a-colleague", campaign, null, CancellationToken.None);
        foreach (var change in new IWorkingCopyChange[] { Set(draw), new RemoveItems(draw.Some()), Items(draw) })
        {
            try
            {
                await fixture.Variants.ProposeAsync(
                    account,
                    look,
                    "a-colleague",
                    change,
                    false,
                    null,
                    CancellationToken.None
                );
            }
            catch (InvalidChangeException)
            {
                // It cannot be, or reaches beyond the campaign.
            }
        }

        var proposals = await fixture.Variants.ListAsync(account, look, CancellationToken.None);
        return new TakeProposals(look, [.. proposals.Where(_ => draw.Number(3) > 0).Select(each => each.Id)]);
    }

    /// <summary>An ad group out of its campaign, or out of another.</summary>
    private async Task<IWorkingCopyChange> SplitAsync(Draw draw)
    {
        await using var connection = await fixture.Source.OpenConnectionAsync();
        var groups = (
            await connection.QueryAsync<(long Id, long Campaign)>(
                "select id, campaign_id from ad_group where account_id = @account and not removed order by id",
                new { account }
            )
        ).ToArray();
        if (groups.Length == 0)
        {
            return new SplitOut(1, [1], "New", "5", "10");
        }

        var (id, campaign) = draw.Of(groups);
        return new SplitOut(
            draw.Number(8) == 0 ? draw.Of(groups).Campaign : campaign,
            [id],
            draw.Of("New", "Größe", "", $"New {draw.Number(1_000)}"),
            draw.Of("5", "12.50", "x"),
            draw.Of("10", "3", "")
        );
    }

    private async Task<IReadOnlyList<ItemReference>> RowsAsync(bool removed) =>
        [
            .. (await fixture.RowsAsync(account, new SheetRequest { Removed = removed }))
                // What stands on the account alone has no place in the outline.
                .Concat(
                    await fixture.RowsAsync(
                        account,
                        new SheetRequest { Kind = ItemKind.ConversionAction, Removed = removed }
                    )
                )
                .Where(row => (row.Change == RowChange.Removed) == removed)
                .Select(WorkingCopyFixture.Reference),
        ];

    /// <summary>Choices made by a seed.</summary>
    internal sealed class Draw(Random random, IReadOnlyList<ItemReference> rows, IReadOnlyList<ItemReference> removed)
    {
        public bool Yes => random.Next(2) == 0;

        public int Number(int below) => random.Next(below);

        public T Of<T>(params T[] choices) => choices[random.Next(choices.Length)];

        /// <summary>One item, several, or all that a filter finds.</summary>
        public ItemSet Some(ItemKind? kind = null)
        {
            ItemReference[] mine = [.. rows.Where(row => kind is null || row.Kind == kind)];
            return random.Next(4) switch
            {
                0 => ItemSet.Matching(new SheetRequest { Kind = kind ?? ItemKind.Keyword }),
                1 => mine.Where(_ => random.Next(3) == 0).ToArray(),
                _ => mine.Length == 0 ? [] : [mine[random.Next(mine.Length)]],
            };
        }

        public ItemSet SomeRemoved() =>
            random.Next(3) == 0
                ? ItemSet.Matching(new SheetRequest { Removed = true })
                : removed.Where(_ => random.Next(2) == 0).ToArray();

        public long[] Ids(ItemKind kind) =>
            [.. rows.Where(row => row.Kind == kind && random.Next(2) == 0).Select(row => row.Id)];
    }
}
