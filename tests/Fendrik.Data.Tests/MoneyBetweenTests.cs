using Dapper;
using Fendrik.Data.Commands.Funding;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

/// <summary>Money that moves between two accounts of a client.</summary>
[Collection(nameof(WorkingCopyFixture))]
public sealed class MoneyBetweenTests(WorkingCopyFixture fixture)
{
    private async Task<(int Account, long Campaign)> AccountAsync(string name, string budget)
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, $"item,campaign,daily budget\ncampaign,{name},{budget}\n");
        return (account, (await fixture.RowAsync(account, name, ItemKind.Campaign)).Id);
    }

    private async Task<decimal?> BudgetAsync(int account) =>
        (await new BudgetReader(fixture.Source).CampaignsAsync(account, 10, CancellationToken.None)).Single().Budget;

    private static MoveMoney Move(
        (int Account, long Campaign) from,
        string left,
        (int Account, long Campaign) to,
        string then,
        long? seen = null
    ) =>
        new(
            [new BudgetInput(from.Campaign, left)],
            KeepsSum: true,
            new BudgetsElsewhere(
                to.Account,
                [new BudgetInput(to.Campaign, then)],
                seen is { } version ? [new SeenItem(ItemKind.Campaign, to.Campaign, version)] : []
            )
        );

    private Task<string> LastStepAsync(int account) =>
        fixture
            .Source.OpenConnection()
            .QuerySingleAsync<string>(
                "select label from step where account_id = @account order by id desc limit 1",
                new { account }
            );

    [Fact]
    public async Task It_leaves_one_account_and_reaches_the_other_with_a_step_and_an_undo_in_each()
    {
        var (one, other) = (await AccountAsync("North", "25"), await AccountAsync("Pellow North", "20"));

        var step = await fixture.DoAsync(one.Account, Move(one, "20", other, "25"));

        ((await BudgetAsync(one.Account)), (await BudgetAsync(other.Account))).ShouldBe((20, 25));
        step.Label.ShouldStartWith("Give £5.00 a day to ");
        (await LastStepAsync(other.Account)).ShouldStartWith("Take £5.00 a day from ");
        await fixture.History.UndoAsync(other.Account, WorkingCopyFixture.Person, CancellationToken.None);
        ((await BudgetAsync(one.Account)), (await BudgetAsync(other.Account))).ShouldBe((20, 20));
    }

    [Theory]
    [InlineData("20", "26", "budgets")]
    [InlineData("20", "x", "with.budgets[0].budget")]
    [InlineData("25", "20", "elsewhere")]
    public async Task What_cannot_be_changes_neither(string left, string then, string field)
    {
        var (one, other) = (await AccountAsync("North", "25"), await AccountAsync("Pellow North", "20"));

        (
            await Should.ThrowAsync<InvalidChangeException>(() =>
                fixture.DoAsync(one.Account, Move(one, left, other, then))
            )
        ).Field.ShouldBe(field);

        ((await BudgetAsync(one.Account)), (await BudgetAsync(other.Account))).ShouldBe((25, 20));
    }

    [Fact]
    public async Task What_a_colleague_set_in_the_other_account_meanwhile_stops_both()
    {
        var (one, other) = (await AccountAsync("North", "25"), await AccountAsync("Pellow North", "20"));

        await Should.ThrowAsync<StaleEditException>(() =>
            fixture.DoAsync(one.Account, Move(one, "20", other, "25", seen: 1))
        );

        ((await BudgetAsync(one.Account)), (await BudgetAsync(other.Account))).ShouldBe((25, 20));
    }

    [Fact]
    public async Task Another_currency_is_refused()
    {
        var (one, other) = (await AccountAsync("North", "25"), await AccountAsync("Pellow North", "20"));
        await using var connection = await fixture.Source.OpenConnectionAsync();
        await connection.ExecuteAsync("update account set currency = 'EUR' where id = @Account", new { other.Account });

        (
            await Should.ThrowAsync<InvalidChangeException>(() =>
                fixture.DoAsync(one.Account, Move(one, "20", other, "25"))
            )
        ).Message.ShouldContain("is kept in EUR");
    }

    [Fact]
    public async Task Moves_in_opposite_directions_at_once_wait_for_each_other()
    {
        var (one, other) = (await AccountAsync("North", "25"), await AccountAsync("Pellow North", "20"));

        await Task.WhenAll(
            Enumerable
                .Range(0, 12)
                .Select(async at =>
                {
                    var (from, to) = at % 2 == 0 ? (one, other) : (other, one);
                    try
                    {
                        await fixture.DoAsync(from.Account, Move(from, $"{21 + at}", to, $"{24 - at}"));
                    }
                    catch (InvalidChangeException)
                    {
                        // Nothing changes where another was there first with the same.
                    }
                })
        );

        ((await BudgetAsync(one.Account)) + (await BudgetAsync(other.Account))).ShouldBe(45);
    }
}
