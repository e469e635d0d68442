using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Data.Intakes;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Tests;

/// <summary>A change whose connection breaks in its middle: all or nothing, and what it was can be asked afterwards.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class BrokenStepTests(WorkingCopyFixture fixture)
{
    private const string List =
        "campaign,ad group,keyword,match type,max cpc\nYork,Tuning,piano tuning,exact,1.00\nYork,Tuning,piano tuner,exact,1.10\nYork,Tuning,tuner york,exact,1.20\n";

    [Fact]
    public async Task A_bulk_change_that_breaks_in_its_middle_has_changed_nothing()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        var before = await fixture.StateAsync(account);
        var request = Guid.NewGuid();
        var change = Change.Amount(
            ItemSet.Matching(new SheetRequest { Kind = ItemKind.Keyword }),
            "maxCpc",
            AmountOperation.AddPercent,
            10
        );

        await BreakWhileAnotherHoldsAsync("tuner york", account, () => ApplyAsync(account, change, request));

        (await fixture.StateAsync(account)).ShouldBe(before);
        (await fixture.WorkingCopy.FindAsync(account, request, CancellationToken.None)).ShouldBeNull();
        (await ApplyAsync(account, change, request)).Items.ShouldBe(3);
        (await fixture.WorkingCopy.FindAsync(account, request, CancellationToken.None))!.Items.ShouldBe(3);
    }

    [Fact]
    public async Task An_intake_that_breaks_in_its_middle_can_be_kept_again()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        var before = await fixture.StateAsync(account);
        var intake = await fixture.PasteAsync(
            account,
            "campaign,ad group,keyword,match type,max cpc\nYork,Tuning,grand tuning,exact,2\nYork,Tuning,tuner york,exact,3\n"
        );

        await BreakWhileAnotherHoldsAsync(
            "tuner york",
            account,
            () => fixture.DoAsync(account, new KeepIntake(intake))
        );

        (await fixture.StateAsync(account)).ShouldBe(before);
        (await fixture.DoAsync(account, new KeepIntake(intake))).Items.ShouldBe(2);
    }

    [Fact]
    public async Task A_request_that_comes_twice_is_done_once()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        var request = Guid.NewGuid();
        var change = Change.Amount(
            ItemSet.Matching(new SheetRequest { Kind = ItemKind.Keyword }),
            "maxCpc",
            AmountOperation.AddAmount,
            1
        );

        var first = await ApplyAsync(account, change, request);
        var second = await ApplyAsync(account, change, request);

        (second.StepId, second.Items).ShouldBe((first.StepId, 3));
        (await fixture.RowAsync(account, "piano tuning")).MaxCpc.ShouldBe(2m);
    }

    private Task<StepResult> ApplyAsync(int account, IWorkingCopyChange change, Guid request) =>
        fixture.WorkingCopy.ApplyAsync(
            account,
            WorkingCopyFixture.Person,
            change,
            preview: false,
            CancellationToken.None,
            requestId: request
        );

    /// <summary>Holds one keyword, so that a change of several stands still after some of them; then breaks its connection.</summary>
    private async Task BreakWhileAnotherHoldsAsync(string keyword, int account, Func<Task> change)
    {
        await using var connection = await fixture.Source.OpenConnectionAsync();
        await using var held = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync(
            "select from keyword where account_id = @account and text = @keyword for update",
            new { account, keyword }
        );
        var running = change();
        var broken = 0;
        await using var watching = await fixture.Source.OpenConnectionAsync();
        for (var look = 0; look < 400 && broken == 0; look++)
        {
            await Task.Delay(25);
            broken = await watching.ExecuteScalarAsync<int>(
                """
                select count(pg_terminate_backend(pid)) from pg_stat_activity
                where datname = current_database() and wait_event_type = 'Lock'
                """
            );
        }

        broken.ShouldBe(1);
        await Should.ThrowAsync<NpgsqlException>(() => running);
    }
}
