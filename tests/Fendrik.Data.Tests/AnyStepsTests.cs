using CsCheck;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Commands;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Tests;

/// <summary>
/// What holds of every sequence of commands by two people, whatever goes wrong on the way. States are compared as whole rows,
/// read by SQL of the test's own.
/// </summary>
[Collection(nameof(WorkingCopyFixture))]
public class AnyStepsTests(WorkingCopyFixture fixture)
{
    private static readonly string[] People = [WorkingCopyFixture.Person, "a-colleague"];

    /// <summary>More sequences than usual, for a long run.</summary>
    private static readonly int Sequences = int.TryParse(
        Environment.GetEnvironmentVariable("FENDRIK_SEQUENCES"),
        out var asked
    )
        ? asked
        : 12;

    private sealed record Act(int Seed, int Person, int Fault);

    private static readonly Gen<Act[]> Acts = Gen.Select(Gen.Int[0, int.MaxValue], Gen.Int[0, 1], Gen.Int[0, 11])
        .Select((seed, person, fault) => new Act(seed, person, fault))
        .Array[1, 8];

    /// <summary>Something that holds of an account of its own for each sequence that is drawn.</summary>
    private Task HoldsAsync(int sequences, Func<int, AnyCommand, Act[], Task> holds) =>
        Acts.SampleAsync(
            async acts =>
            {
                var account = await AccountAsync();
                await holds(account, new AnyCommand(fixture, account), acts);
            },
            iter: sequences,
            threads: 1
        );

    private async Task<int> AccountAsync() => (await TunedAccount.MakeAsync(fixture)).Id;

    /// <summary>Every row that is not removed, but for what a step notes of itself and what is known of the network.</summary>
    private async Task<string> StateAsync(int account)
    {
        await using var connection = await fixture.Source.OpenConnectionAsync();
        var rows = await connection.QueryAsync<string>(
            string.Join(
                " union all ",
                ItemTypes.All.Select(type =>
                    $"select '{type.Table} ' || (to_jsonb(i) - 'changed_by' - 'live' - 'is_live' - 'live_version')::text from {type.Table} i where account_id = @account and not removed"
                )
            ),
            new { account }
        );
        return string.Join('\n', rows.Order(StringComparer.Ordinal));
    }

    /// <summary>How many items stand in something that is removed.</summary>
    private async Task<long> OrphansAsync(int account)
    {
        await using var connection = await fixture.Source.OpenConnectionAsync();
        return await connection.ExecuteScalarAsync<long>(
            "select sum(n) from ("
                + string.Join(
                    " union all ",
                    from table in ItemTable.All
                    from parent in table.Parents
                    select $"select count(*) n from {table.Name} i join {ItemTable.Of(parent.Holder.Kind).Name} p on p.id = i.{parent.Column} and p.removed where i.account_id = @account and not i.removed"
                )
                + ") o",
            new { account }
        );
    }

    private async Task<StepResult?> TryAsync(
        int account,
        string person,
        IWorkingCopyChange change,
        bool preview = false
    )
    {
        try
        {
            return await fixture.WorkingCopy.ApplyAsync(account, person, change, preview, CancellationToken.None);
        }
        catch (InvalidChangeException)
        {
            // Refused: nothing is there to be changed, or a value cannot be read.
            return null;
        }
    }

    [Fact]
    public void Every_command_that_there_is_is_drawn()
    {
        var commands = typeof(IWorkingCopyChange)
            .Assembly.GetTypes()
            .Where(type =>
                type is { IsPublic: true, IsAbstract: false } && type.IsAssignableTo(typeof(IWorkingCopyChange))
            );

        commands.Except(AnyCommand.All.Keys).ShouldBeEmpty();
    }

    public static TheoryData<string> Commands => [.. AnyCommand.All.Keys.Select(type => type.Name)];

    /// <summary>Without this the properties below might hold of commands that are always refused.</summary>
    [Theory]
    [MemberData(nameof(Commands))]
    public async Task Some_draws_of_each_command_are_carried_out(string command)
    {
        var account = await AccountAsync();
        await TryAsync(account, People[0], new RemoveItems(ItemSet.Matching(new SheetRequest { Text = "near me" })));
        await TryAsync(account, People[0], new AddNegativeList("Shared", [], "free", MatchType.Phrase));
        await TryAsync(
            account,
            People[0],
            new PutItem(
                ItemKind.ConversionAction,
                new Dictionary<string, FieldInput> { ["name"] = "Form" },
                new ItemPlaces(),
                null
            )
        );
        await TryAsync(
            account,
            People[0],
            new PutItem(
                ItemKind.ConversionAction,
                new Dictionary<string, FieldInput> { ["name"] = "List seen", ["accountGoal"] = "no" },
                new ItemPlaces(),
                null
            )
        );
        var any = new AnyCommand(fixture, account);
        for (var seed = 0; seed < 400; seed++)
        {
            var change = await any.DrawAsync(command, seed);
            if (await TryAsync(account, People[1], change) is { StepId: not null })
            {
                return;
            }
        }

        Assert.Fail("No draw of it was carried out.");
    }

    [Fact]
    public async Task Undo_goes_back_through_every_state_and_redo_forth_again() =>
        await HoldsAsync(
            Sequences,
            async (account, any, acts) =>
            {
                var states = new List<string> { await StateAsync(account) };
                var people = new List<string>();
                foreach (var act in acts)
                {
                    if (
                        await TryAsync(account, People[act.Person], await any.DrawAsync(act.Seed)) is
                        { StepId: not null }
                    )
                    {
                        (await OrphansAsync(account)).ShouldBe(0);
                        states.Add(await StateAsync(account));
                        people.Add(People[act.Person]);
                    }
                }

                for (var step = people.Count; step > 0; step--)
                {
                    await fixture.History.UndoAsync(account, people[step - 1], CancellationToken.None);
                    (await StateAsync(account)).ShouldBe(states[step - 1]);
                }

                for (var step = 1; step <= people.Count; step++)
                {
                    await fixture.History.RedoAsync(account, people[step - 1], CancellationToken.None);
                    (await StateAsync(account)).ShouldBe(states[step]);
                }
            }
        );

    [Fact]
    public async Task A_preview_shows_what_the_command_does_and_does_nothing() =>
        await HoldsAsync(
            Sequences / 2,
            async (account, any, acts) =>
            {
                foreach (var act in acts)
                {
                    var change = await any.DrawAsync(act.Seed);
                    var before = await StateAsync(account);

                    var preview = await TryAsync(account, People[act.Person], change, preview: true);
                    (await StateAsync(account)).ShouldBe(before);
                    var done = await TryAsync(account, People[1 - act.Person], change);

                    (preview?.Label, preview?.Items, preview?.RefusedCount).ShouldBe(
                        (done?.Label, done?.Items, done?.RefusedCount)
                    );
                }
            }
        );

    [Fact]
    public async Task A_command_that_fails_or_is_stopped_leaves_everything_as_it_was_and_the_account_open() =>
        await HoldsAsync(
            Sequences / 2,
            async (account, any, acts) =>
            {
                foreach (var act in acts)
                {
                    var change = await any.DrawAsync(act.Seed);
                    var before = await StateAsync(account);
                    using var stop = new CancellationTokenSource();

                    await Should.ThrowAsync<Exception>(async () =>
                        await fixture.WorkingCopy.ApplyAsync(
                            account,
                            People[act.Person],
                            new Failing(change, act.Fault, stop),
                            false,
                            stop.Token
                        )
                    );

                    (await StateAsync(account)).ShouldBe(before);
                    await TryAsync(account, People[act.Person], change);
                }
            }
        );

    [Fact]
    public async Task Going_back_to_a_moment_gives_its_state_whatever_came_after() =>
        await HoldsAsync(
            Sequences / 2,
            async (account, any, acts) =>
            {
                var moment = await fixture.History.NewestAsync(account, CancellationToken.None);
                var state = await StateAsync(account);
                foreach (var act in acts)
                {
                    var person = People[act.Person];
                    try
                    {
                        _ = act.Fault switch
                        {
                            0 => await fixture.History.UndoAsync(account, person, CancellationToken.None),
                            1 => await fixture.History.RedoAsync(account, person, CancellationToken.None),
                            2 => await fixture.History.TakeBackAsync(
                                account,
                                person,
                                moment!.Id + (act.Seed % 4),
                                false,
                                CancellationToken.None
                            ),
                            _ => await TryAsync(account, person, await any.DrawAsync(act.Seed)),
                        };
                    }
                    catch (InvalidChangeException)
                    {
                        // What came after stands in the way.
                    }

                    foreach (var step in await fixture.History.ListAsync(account, null, 50, CancellationToken.None))
                    {
                        (
                            await fixture.History.ChangesOfAsync(account, step.Id, 20, CancellationToken.None)
                        ).ShouldNotBeNull();
                    }
                }

                await fixture.History.GoBackAsync(account, People[0], moment!.Id, false, CancellationToken.None);

                (await StateAsync(account)).ShouldBe(state);
            }
        );

    /// <summary>A change after which something goes wrong: an error, the loss of the database, or a person who stops it.</summary>
    private sealed class Failing(IWorkingCopyChange change, int fault, CancellationTokenSource stop)
        : IWorkingCopyChange
    {
        public async Task<StepOutcome> ApplyAsync(StepContext context)
        {
            try
            {
                await change.ApplyAsync(context);
            }
            catch (Exception error) when (error is InvalidChangeException or PostgresException)
            {
                throw new InvalidOperationException("It was refused by itself.", error);
            }

            switch (fault % 3)
            {
                case 0:
                    throw new InvalidOperationException("An error in the middle.");
                case 1:
                    await context.ExecuteAsync("select pg_terminate_backend(pg_backend_pid())");
                    break;
                default:
                    await stop.CancelAsync();
                    await context.ExecuteAsync("select pg_sleep(0)");
                    break;
            }

            throw new InvalidOperationException("The fault did not come.");
        }
    }
}
