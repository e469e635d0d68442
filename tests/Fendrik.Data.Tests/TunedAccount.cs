using Fendrik.Core.Accounts;
using Fendrik.Data.Sheets;
using Fendrik.Data.Sheets.Conditions;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

/// <summary>A small account with every kind of item, for tests of what is done to many at once.</summary>
internal sealed class TunedAccount(WorkingCopyFixture fixture, int id)
{
    private const string List = """
        campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc,headline 1,headline 2,description 1,landing page
        North,25,Tuning,1.00,piano tuning,exact,1.30,,,,
        North,,Tuning,,piano tuning,phrase,,,,,
        North,,Tuning,,piano tuner near me,phrase,0.80,,,,
        North,,Tuning,,,,,Piano Tuning,Book Today,We tune pianos at home.,https://tarnandfell.example/tuning
        North,,Hire,1.10,piano hire,exact,,,,,
        North,,Hire,,,,,Piano Hire,Book Today,Pianos for the stage.,https://tarnandfell.example/hire
        North,,,,-free,,,,,,
        South,12,Hire,0.90,piano hire,broad,,,,,
        """;

    public int Id => id;

    public static async Task<TunedAccount> MakeAsync(WorkingCopyFixture fixture)
    {
        var id = await fixture.NewAccountAsync();
        await fixture.KeepAsync(id, List);
        return new TunedAccount(fixture, id);
    }

    public Task<StepResult> DoAsync(IWorkingCopyChange change, bool preview = false) =>
        fixture.DoAsync(id, change, preview);

    public Task<IReadOnlyList<SheetRow>> RowsAsync(ItemKind view, params SheetCondition[] conditions) =>
        fixture.RowsAsync(id, new SheetRequest { Kind = view, Conditions = conditions });

    public async Task<string[]> NamesAsync(ItemKind view, params SheetCondition[] conditions) =>
        [.. (await RowsAsync(view, conditions)).Select(row => row.Name)];

    public async Task<ItemReference> TheAsync(ItemKind kind, string name, string? campaign = null) =>
        WorkingCopyFixture.Reference(
            (await fixture.RowsAsync(id, new SheetRequest { Kind = kind })).First(row =>
                row.Name == name && (campaign is null || row.Campaign == campaign)
            )
        );

    public static ItemSet All(ItemKind? view, params SheetCondition[] conditions) =>
        ItemSet.Matching(new SheetRequest { Kind = view, Conditions = conditions });

    public Task<StepResult?> UndoAsync() =>
        fixture.History.UndoAsync(id, WorkingCopyFixture.Person, CancellationToken.None);

    public Task<string> StateAsync() => fixture.StateAsync(id);
}
