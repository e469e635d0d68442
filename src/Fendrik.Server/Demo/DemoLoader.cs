using System.Text.Json;
using System.Text.Json.Serialization;
using Dapper;
using Fendrik.Core.Serving;
using Fendrik.Data.Commands.Words;
using Fendrik.Data.Intakes;
using Fendrik.Data.Model;
using Fendrik.Data.Publishing;
using Fendrik.Data.Steps;
using Fendrik.Data.Tracing;
using Fendrik.Server.Estimates;
using Fendrik.Server.Jobs;
using Fendrik.Server.Networks;
using Fendrik.Server.Publishing;
using Microsoft.AspNetCore.Identity;
using Npgsql;

namespace Fendrik.Server.Demo;

/// <summary>
/// Loads a scenario by the same ways a person would go: the lists in the demo folder are brought in and published, and the
/// network's clock is moved on, so that every figure of its history was made by the network.
/// </summary>
public sealed class DemoLoader(
    UserManager<Person> people,
    FendrikContext database,
    NpgsqlDataSource source,
    IntakeDesk desk,
    IntakeReading reading,
    WorkingCopy workingCopy,
    PublishRecords records,
    PublishSender sender,
    EstimateDesk estimates,
    ClockRunner clock,
    SearchNetworks networks,
    LiveCopy live,
    SavedSearchBook saved,
    TimeProvider time,
    ILogger<DemoLoader> log
)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    private sealed record Scenario(string Email, string Person, IReadOnlyList<ScenarioAccount> Accounts);

    private sealed record ScenarioAccount(
        string Name,
        string Currency,
        string TimeZone,
        string Network,
        string? Payer,
        DateTimeOffset StartAt,
        int Hours,
        long Seed,
        IReadOnlyList<string> Lists,
        IReadOnlyList<string> Unpublished,
        IReadOnlyList<ScenarioList>? SharedLists,
        IReadOnlyList<OutsideEdit>? OutsideEdits,
        IReadOnlyList<ScenarioSearch>? SavedSearches,
        ScenarioMidway? Midway
    );

    /// <summary>What is done while the account runs: lists are brought in and published, and the network is asked for estimates of campaigns.</summary>
    private sealed record ScenarioMidway(int AfterHours, IReadOnlyList<string> Lists, IReadOnlyList<string> Estimates);

    private sealed record ScenarioSearch(string Text, Device Device, Expectation Expectation, string? AdGroup);

    private sealed record ScenarioList(
        string Name,
        MatchType Match,
        IReadOnlyList<string> Lines,
        IReadOnlyList<string> Campaigns,
        bool Unpublished
    );

    /// <param name="path">The scenario: the first person, and accounts with the lists they are made of.</param>
    /// <param name="password">Password of the first person.</param>
    /// <param name="cancellation">Stops; the next load begins anew.</param>
    public async Task LoadAsync(string path, string password, CancellationToken cancellation)
    {
        var scenario = JsonSerializer.Deserialize<Scenario>(await File.ReadAllTextAsync(path, cancellation), Json)!;
        if (await people.FindByEmailAsync(scenario.Email) is not null)
        {
            return;
        }

        var folder = Path.GetDirectoryName(Path.GetFullPath(path))!;

        // The person is made last: a load that was stopped halfway is seen by that and begins anew.
        await SetAsideHalfLoadedAsync(scenario, cancellation);
        var person = new Person
        {
            UserName = scenario.Email,
            Email = scenario.Email,
            DisplayName = scenario.Person,
        };
        var began = time.GetTimestamp();
        AccountRow[] accounts =
        [
            .. scenario.Accounts.Select(account => new AccountRow
            {
                Name = account.Name,
                Currency = account.Currency,
                TimeZone = account.TimeZone,
                NetworkId = account.Network,
                Payer = account.Payer,
            }),
        ];
        database.Accounts.AddRange(accounts);
        await database.SaveChangesAsync(cancellation);
        await Task.WhenAll(
            accounts.Zip(
                scenario.Accounts,
                (account, story) => LoadAsync(folder, account, story, person.Id, cancellation)
            )
        );

        var made = await people.CreateAsync(person, password);
        if (!made.Succeeded)
        {
            throw new InvalidOperationException(
                "The demo person cannot be made: " + string.Join(" ", made.Errors.Select(error => error.Description))
            );
        }

        database.AccountMembers.AddRange(
            accounts.Select(account => new AccountMember
            {
                AccountId = account.Id,
                PersonId = person.Id,
                Role = AccountRole.Owner,
            })
        );
        await database.SaveChangesAsync(cancellation);
        log.LogInformation("Demo loaded in {Seconds:0.0} s.", time.GetElapsedTime(began).TotalSeconds);
    }

    private async Task LoadAsync(
        string folder,
        AccountRow account,
        ScenarioAccount scenario,
        string personId,
        CancellationToken cancellation
    )
    {
        await networks.Of(account.NetworkId).SetUpAsync(account, scenario.StartAt, scenario.Seed, cancellation);
        foreach (var list in scenario.Lists)
        {
            await BringInAsync(account.Id, personId, Path.Combine(folder, list), cancellation);
        }

        var shared = (scenario.SharedLists ?? []).ToLookup(list => list.Unpublished);
        foreach (var list in shared[false])
        {
            await ShareAsync(account.Id, personId, list, cancellation);
        }

        await PublishAsync(account.Id, personId, cancellation);
        if (scenario.Midway is { } midway)
        {
            await clock.RunAsync(account.Id, scenario.StartAt.AddHours(midway.AfterHours), null, cancellation);
            foreach (var list in midway.Lists)
            {
                await BringInAsync(account.Id, personId, Path.Combine(folder, list), cancellation);
            }

            await PublishAsync(account.Id, personId, cancellation);
            await AskAsync(account.Id, midway.Estimates, cancellation);
        }

        await clock.RunAsync(account.Id, scenario.StartAt.AddHours(scenario.Hours), null, cancellation);
        if (scenario.OutsideEdits is { Count: > 0 } edits)
        {
            await OutsideEdits.PlayAsync(networks.Of(account.NetworkId), account.Id, edits, cancellation);
            await live.ReadAsync(account.Id, cancellation);
        }

        foreach (var list in scenario.Unpublished)
        {
            await BringInAsync(account.Id, personId, Path.Combine(folder, list), cancellation);
        }

        foreach (var list in shared[true])
        {
            await ShareAsync(account.Id, personId, list, cancellation);
        }

        await SaveSearchesAsync(account.Id, personId, scenario.SavedSearches ?? [], cancellation);
    }

    private async Task PublishAsync(int accountId, string personId, CancellationToken cancellation)
    {
        if (await records.BeginAsync(accountId, personId, null, cancellation) is { } publish)
        {
            await using var connection = await source.OpenConnectionAsync(cancellation);
            await sender.RunAsync(accountId, publish, new JobProgress(connection, 0), cancellation);
        }
    }

    private async Task AskAsync(int accountId, IReadOnlyList<string> campaigns, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        foreach (
            var campaign in await connection.QueryAsync<long>(
                new CommandDefinition(
                    "select id from campaign where account_id = @accountId and name = any(@names) and not removed order by id",
                    new { accountId, names = campaigns.ToArray() },
                    cancellationToken: cancellation
                )
            )
        )
        {
            await estimates.AskAsync(accountId, campaign, new JobProgress(connection, 0), cancellation);
        }
    }

    private async Task SaveSearchesAsync(
        int accountId,
        string personId,
        IReadOnlyList<ScenarioSearch> searches,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var groups = (
            await connection.QueryAsync<(string Name, long Id)>(
                new CommandDefinition(
                    "select name, id from ad_group where account_id = @accountId and not removed order by id desc",
                    new { accountId },
                    cancellationToken: cancellation
                )
            )
        )
            .DistinctBy(group => group.Name)
            .ToDictionary(group => group.Name, group => group.Id);
        await saved.SaveAsync(
            accountId,
            personId,
            [
                .. searches.Select(each => new SavedSearch(
                    each.Text,
                    each.Device,
                    SiteKinds.Search,
                    null,
                    each.Expectation,
                    each.AdGroup is { } name ? groups[name] : null
                )),
            ],
            cancellation
        );
    }

    private async Task ShareAsync(int accountId, string personId, ScenarioList list, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var campaigns = await connection.QueryAsync<long>(
            new CommandDefinition(
                "select id from campaign where account_id = @accountId and name = any(@names) and not removed",
                new { accountId, names = list.Campaigns.ToArray() },
                cancellationToken: cancellation
            )
        );
        await workingCopy.ApplyAsync(
            accountId,
            personId,
            new AddNegativeList(list.Name, [.. campaigns], string.Join('\n', list.Lines), list.Match),
            preview: false,
            cancellation
        );
    }

    private async Task BringInAsync(int accountId, string personId, string path, CancellationToken cancellation)
    {
        await using var file = File.OpenRead(path);
        var intake = await desk.BeginAsync(accountId, personId, Path.GetFileName(path), file, cancellation);
        await reading.ReadAsync(intake, _ => Task.CompletedTask, cancellation);
        await workingCopy.ApplyAsync(accountId, personId, new KeepIntake(intake), preview: false, cancellation);
    }

    private async Task SetAsideHalfLoadedAsync(Scenario scenario, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "update account set name = name || ' (not loaded)' where name = any(@names) and not exists (select from account_member m where m.account_id = account.id)",
                new { names = scenario.Accounts.Select(account => account.Name).ToArray() },
                cancellationToken: cancellation
            )
        );
    }
}
