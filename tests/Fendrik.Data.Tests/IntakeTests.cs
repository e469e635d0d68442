using System.Text;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Lists;
using Fendrik.Data.Intakes;
using Fendrik.Data.Model;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

[Collection(nameof(WorkingCopyFixture))]
public class IntakeTests(WorkingCopyFixture fixture)
{
    private const string Spring = """
        theme	search words	Campain	max bid £	typ	note
        Tuning	piano tuning york	York	1.30	exact	
        Tuning	"piano tuner york"	York	1.10		
        Tuning	+tune +old +piano	York			
        Tuning	-free	York			
        Tuning	piano tuning york	York	1.35	exact	pasted twice
        Hire	+piano +	Scotland			
        Hire	monthly piano hire	Scotland	1,2O	phrase	
        Hire	piano hire	Scotland	0.90	phrase	
        """;

    private static long Count(IntakeView view, ItemKind kind, IntakeOutcome outcome) =>
        view.Counts.Where(count => count.Kind == kind && count.Outcome == outcome).Sum(count => count.Count);

    [Fact]
    public async Task Counts_what_would_come_in_and_says_what_is_left_out_and_why()
    {
        var account = await fixture.NewAccountAsync();

        var view = await fixture.ViewAsync(account, await fixture.PasteAsync(account, Spring));

        Count(view, ItemKind.Campaign, IntakeOutcome.New).ShouldBe(2);
        Count(view, ItemKind.AdGroup, IntakeOutcome.New).ShouldBe(2);
        Count(view, ItemKind.Keyword, IntakeOutcome.New).ShouldBe(4);
        Count(view, ItemKind.NegativeKeyword, IntakeOutcome.New).ShouldBe(1);
        view.Refused.Select(row => (row.RowNumber, row.Reason!.Split(';')[0]))
            .ShouldBe([
                (6, "twice in this list, row 2 stays"),
                (7, "Keyword “+piano +”: an empty word after +"),
                (8, "Max CPC “1,2O” is not an amount in GBP"),
            ]);
    }

    [Fact]
    public async Task Writes_nothing_to_the_account_before_it_is_kept()
    {
        var account = await fixture.NewAccountAsync();

        await fixture.PasteAsync(account, Spring);

        (await fixture.RowsAsync(account)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Brings_in_campaigns_ad_groups_keywords_and_negatives_as_one_step()
    {
        var account = await fixture.NewAccountAsync();

        await fixture.KeepAsync(account, Spring);

        (await fixture.RowsAsync(account))
            .Select(row => row.Name)
            .ShouldBe([
                "Scotland",
                "Hire",
                "piano hire",
                "York",
                "Tuning",
                "piano tuner york",
                "piano tuning york",
                "tune old piano",
                "free",
            ]);
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        (await fixture.RowsAsync(account)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Changes_nothing_when_the_same_list_comes_again()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, Spring);

        var view = await fixture.ViewAsync(account, await fixture.PasteAsync(account, Spring));

        view.Counts.Where(count => count.Outcome is IntakeOutcome.New or IntakeOutcome.Edit)
            .Sum(count => count.Count)
            .ShouldBe(0);
        Count(view, ItemKind.Keyword, IntakeOutcome.Same).ShouldBe(4);
    }

    [Fact]
    public async Task Edits_what_is_there_where_the_list_says_otherwise()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, Spring);

        await fixture.KeepAsync(
            account,
            "campaign,ad group,keyword,match type,max cpc\nYork,Tuning,piano tuning york,exact,1.50\n"
        );

        (await fixture.RowAsync(account, "piano tuning york")).MaxCpc.ShouldBe(1.50m);
    }

    [Fact]
    public async Task Asks_for_missing_budgets_and_bids_and_fills_them_for_all_or_for_one()
    {
        var account = await fixture.NewAccountAsync();
        var intake = await fixture.PasteAsync(account, Spring);
        var view = await fixture.ViewAsync(account, intake);
        view.Budgets.Select(gap => gap.Campaign).ShouldBe(["York", "Scotland"]);
        view.MaxCpcs.ShouldHaveSingleItem().AdGroup.ShouldBe("Tuning");

        var context = new AccountFillContext(
            account,
            intake,
            Core.Items.Values.ReadingGround.Plain(Currency.Of("GBP"))
        );
        await fixture.Intakes.FillAsync(context, new IntakeFillIn(true, null, null, "25"), CancellationToken.None);
        await fixture.Intakes.FillAsync(
            context,
            new IntakeFillIn(true, "scotland", null, "12"),
            CancellationToken.None
        );
        await fixture.Intakes.FillAsync(context, new IntakeFillIn(false, null, null, "1.20"), CancellationToken.None);
        await fixture.DoAsync(account, new KeepIntake(intake));

        (await fixture.RowAsync(account, "York")).DailyBudget.ShouldBe(25m);
        (await fixture.RowAsync(account, "Scotland")).DailyBudget.ShouldBe(12m);
        (await fixture.RowAsync(account, "Tuning")).MaxCpc.ShouldBe(1.2m);
    }

    [Fact]
    public async Task Amounts_that_are_filled_in_at_the_same_time_come_one_after_the_other()
    {
        var account = await fixture.NewAccountAsync();
        var intake = await fixture.PasteAsync(account, Spring);
        var context = new AccountFillContext(
            account,
            intake,
            Core.Items.Values.ReadingGround.Plain(Currency.Of("GBP"))
        );

        await Task.WhenAll(
            Enumerable
                .Range(0, 12)
                .Select(each =>
                    fixture.Intakes.FillAsync(
                        context,
                        new IntakeFillIn(each % 2 == 0, null, null, "25"),
                        CancellationToken.None
                    )
                )
        );

        var view = await fixture.ViewAsync(account, intake);
        view.Budgets.ShouldAllBe(gap => gap.Filled == 25m);
        view.MaxCpcs.ShouldAllBe(gap => gap.Filled == 25m);
    }

    [Fact]
    public async Task Reads_again_when_a_person_corrects_a_column()
    {
        var account = await fixture.NewAccountAsync();
        var intake = await fixture.PasteAsync(account, "campaign,ad group,keyword,remark\nYork,Tuning,piano,1.30\n");
        var view = await fixture.ViewAsync(account, intake);
        view.Columns[3].ShouldBe("");

        await fixture.Intakes.SetColumnsAsync(
            account,
            intake,
            new IntakeColumns(
                true,
                ["campaign", "adGroup", "keyword", "maxCpc"],
                null,
                null,
                MatchType.Exact,
                MatchType.Phrase
            ),
            CancellationToken.None
        );
        await fixture.Reading.ReadAsync(intake, _ => Task.CompletedTask, CancellationToken.None);
        await fixture.DoAsync(account, new KeepIntake(intake));

        var row = await fixture.RowAsync(account, "piano");
        (row.MaxCpc, row.Match).ShouldBe((1.30m, MatchType.Exact));
    }

    [Fact]
    public async Task Judges_anew_when_the_working_copy_has_moved_on_since()
    {
        var account = await fixture.NewAccountAsync();
        var intake = await fixture.PasteAsync(account, Spring);
        await fixture.DoAsync(account, Change.Campaign("york", 40m));

        await fixture.DoAsync(account, new KeepIntake(intake));

        (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Campaign }))
            .Select(row => row.Name)
            .ShouldBe(["Scotland", "york"]);
    }

    [Fact]
    public async Task Keeps_an_intake_once()
    {
        var account = await fixture.NewAccountAsync();
        var intake = await fixture.PasteAsync(account, Spring);
        await fixture.DoAsync(account, new KeepIntake(intake));

        (
            await Should.ThrowAsync<InvalidChangeException>(() => fixture.DoAsync(account, new KeepIntake(intake)))
        ).Message.ShouldContain("kept or left already");
    }

    [Fact]
    public async Task Says_that_rows_must_be_read_again_when_the_staging_was_lost()
    {
        var account = await fixture.NewAccountAsync();
        var intake = await fixture.PasteAsync(account, Spring);
        await using (var connection = await fixture.Source.OpenConnectionAsync())
        {
            await connection.ExecuteAsync("delete from intake_row where intake_id = @intake", new { intake });
        }

        (
            await Should.ThrowAsync<InvalidChangeException>(() => fixture.DoAsync(account, new KeepIntake(intake)))
        ).Message.ShouldContain("read again");
        await fixture.Reading.ReadAsync(intake, _ => Task.CompletedTask, CancellationToken.None);
        (await fixture.DoAsync(account, new KeepIntake(intake))).Items.ShouldBe(9);
    }

    [Fact]
    public async Task Leaves_nothing_behind_when_a_person_cancels()
    {
        var account = await fixture.NewAccountAsync();
        var list = new StringBuilder("campaign,ad group,keyword\n");
        for (var row = 0; row < 5_000; row++)
        {
            list.Append($"York,Tuning,piano {row}\n");
        }

        var intake = await fixture.Intakes.BeginAsync(
            account,
            WorkingCopyFixture.Person,
            "list",
            new MemoryStream(Encoding.UTF8.GetBytes(list.ToString())),
            CancellationToken.None
        );

        await Should.ThrowAsync<OperationCanceledException>(() =>
            fixture.Reading.ReadAsync(intake, _ => throw new OperationCanceledException(), CancellationToken.None)
        );
        await using var connection = await fixture.Source.OpenConnectionAsync();
        (
            await connection.ExecuteScalarAsync<int>(
                "select count(*) from intake_row where intake_id = @intake",
                new { intake }
            )
        ).ShouldBe(0);
    }

    [Fact]
    public async Task Goes_on_after_hostile_rows_and_names_each()
    {
        var account = await fixture.NewAccountAsync();
        var list =
            $"campaign,ad group,keyword\nYork,Tuning,{new string('a', 10_000)}\nYork,Tuning,pia\u0000no\nYork,Tuning,{new string('x', 1 << 20)}\nYork,Tuning,=cmd|' /C calc'!A0\nYork,Tuning,כיוון פסנתר\n";

        var view = await fixture.ViewAsync(account, await fixture.PasteAsync(account, list));

        view.Refused.Select(row => row.RowNumber).ShouldBe([2, 3, 4]);
        Count(view, ItemKind.Keyword, IntakeOutcome.New).ShouldBe(2);
    }

    [Fact]
    public async Task Shows_alone_what_came_in()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, Spring);
        var step = (
            await fixture.DoAsync(
                account,
                new KeepIntake(
                    await fixture.PasteAsync(
                        account,
                        "campaign,ad group,keyword,max cpc\nYork,Tuning,piano tuning york,1.60\nYork,Tuning,grand tuning,1\n"
                    )
                )
            )
        ).StepId;

        var rows = await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Keyword, StepId = step });

        rows.Select(row => row.Name).ShouldBe(["grand tuning", "piano tuning york"]);
    }

    [Fact]
    public async Task Shows_no_intake_of_another_account()
    {
        var mine = await fixture.NewAccountAsync();
        var intake = await fixture.PasteAsync(mine, Spring);
        var other = await fixture.NewAccountAsync();

        (await fixture.Intakes.ReadAsync(other, intake, CancellationToken.None)).ShouldBeNull();
        (await fixture.Intakes.RowsAsync(other, intake, 0, 10, CancellationToken.None)).ShouldBeNull();
        await Should.ThrowAsync<InvalidChangeException>(() => fixture.DoAsync(other, new KeepIntake(intake)));
    }
}
