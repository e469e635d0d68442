using System.Text.Json;
using System.Text.Json.Nodes;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Changes;
using Fendrik.Data.Commands;
using Fendrik.Data.Live;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

[Collection(nameof(WorkingCopyFixture))]
public class LiveDifferenceTests(WorkingCopyFixture fixture)
{
    private readonly LiveDifferences _live = new(fixture.Source, TimeProvider.System);

    /// <summary>Numbers of the changes that somebody makes on the network.</summary>
    private long _version = 1_000;

    private async Task<TunedAccount> PublishedAsync()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var publish = await BeginAsync(account);
        while (await fixture.Batches.NextAsync(publish!.Value, CancellationToken.None) is { } batch)
        {
            await fixture.Answers.RecordAsync(
                publish.Value,
                batch.First,
                batch.Next,
                [
                    .. batch.Changes.Select(change => new NetworkAnswer(
                        change.Kind,
                        change.ItemId,
                        NetworkVerdict.Accepted
                    )),
                ],
                CancellationToken.None
            );
        }

        await fixture.Publishes.EndAsync(publish.Value, Model.PublishState.Done, null, CancellationToken.None);
        return account;
    }

    private Task<long?> BeginAsync(TunedAccount account) =>
        fixture.Publishes.BeginAsync(account.Id, WorkingCopyFixture.Person, null, CancellationToken.None);

    /// <summary>The item as published, with some fields changed by somebody on the network.</summary>
    private async Task<NetworkItem> EditedAsync(ItemReference item, params (string Field, JsonNode? Value)[] set)
    {
        await using var connection = await fixture.Source.OpenConnectionAsync();
        var table = item.Kind switch
        {
            ItemKind.Campaign => "campaign",
            ItemKind.AdGroup => "ad_group",
            ItemKind.TextAd => "text_ad",
            _ => "keyword",
        };
        var json = await connection.ExecuteScalarAsync<string>(
            $"select coalesce(live, {ItemTable.Of(item.Kind).Published("i")})::text from {table} i where id = @Id",
            new { item.Id }
        );
        var fields = JsonNode.Parse(json!)!.AsObject();
        foreach (var (field, value) in set)
        {
            fields[field] = value;
        }

        return new NetworkItem(item.Kind, item.Id, JsonSerializer.SerializeToElement(fields), ++_version);
    }

    private Task<int> ReadAsync(TunedAccount account, params NetworkItem[] items) =>
        _live.RecordAsync(account.Id, new NetworkItems(1, items), CancellationToken.None);

    private Task<IReadOnlyList<ThreeVersions>> ListAsync(TunedAccount account) =>
        _live.ListAsync(account.Id, 100, CancellationToken.None);

    [Fact]
    public async Task Knows_what_was_agreed_what_is_ours_and_what_is_theirs()
    {
        var account = await PublishedAsync();
        var keyword = await account.TheAsync(ItemKind.Keyword, "piano tuner near me");
        await account.DoAsync(Change.Amount([keyword], "maxCpc", AmountOperation.Set, 0.90m));

        await ReadAsync(account, await EditedAsync(keyword, ("maxCpc", 1.10m)));

        var item = (await ListAsync(account)).ShouldHaveSingleItem();
        new[] { item.Agreed, item.Ours, item.Theirs }
            .Select(version => version!.Value.GetProperty("maxCpc").GetDecimal())
            .ShouldBe([0.80m, 0.90m, 1.10m]);
    }

    [Fact]
    public async Task Takes_what_comes_back_as_it_was_published_for_no_difference()
    {
        var account = await PublishedAsync();
        var keyword = await account.TheAsync(ItemKind.Keyword, "piano tuner near me");
        await ReadAsync(account, await EditedAsync(keyword, ("maxCpc", 1.10m)));

        (await ReadAsync(account, await EditedAsync(keyword))).ShouldBe(0);
        (await ListAsync(account)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Brings_their_version_into_the_working_copy_and_can_take_it_back()
    {
        var account = await PublishedAsync();
        var keyword = await account.TheAsync(ItemKind.Keyword, "piano tuner near me");
        var before = await account.StateAsync();
        await ReadAsync(account, await EditedAsync(keyword, ("text", "Piano Tuner  York"), ("match", 1)));

        await account.DoAsync(new DecideLive([], TakeTheirs: true));

        var row = (await account.RowsAsync(ItemKind.Keyword)).Single(each => each.Id == keyword.Id);
        (row.Name, row.Match, row.Change).ShouldBe(("Piano Tuner  York", MatchType.Exact, RowChange.None));
        (await ListAsync(account)).ShouldBeEmpty();
        await account.UndoAsync();
        (await account.StateAsync()).ShouldBe(before);
        (await account.RowsAsync(ItemKind.Keyword))
            .Single(each => each.Id == keyword.Id)
            .Change.ShouldBe(RowChange.Edited);
    }

    [Fact]
    public async Task Keeps_our_version_as_a_change_against_theirs()
    {
        var account = await PublishedAsync();
        var campaign = await account.TheAsync(ItemKind.Campaign, "North");
        await ReadAsync(account, await EditedAsync(campaign, ("dailyBudget", 99m)));

        await account.DoAsync(new DecideLive([campaign], TakeTheirs: false));

        var pending = (
            await fixture.Pending.ListAsync(account.Id, 0, 10, CancellationToken.None)
        ).ShouldHaveSingleItem();
        pending.Before!.Value.GetProperty("dailyBudget").GetDecimal().ShouldBe(99m);
        pending.After!.Value.GetProperty("dailyBudget").GetDecimal().ShouldBe(25m);
    }

    [Fact]
    public async Task Takes_over_what_was_removed_and_what_was_made_on_the_network()
    {
        var account = await PublishedAsync();
        var keyword = await account.TheAsync(ItemKind.Keyword, "piano tuner near me");
        var made = await EditedAsync(keyword, ("id", 9_000_000_000_001), ("text", "piano tuner wells"));
        await ReadAsync(
            account,
            new NetworkItem(ItemKind.Keyword, keyword.Id, null, ++_version),
            made with
            {
                ItemId = 9_000_000_000_001,
            }
        );

        (await account.DoAsync(new DecideLive([], TakeTheirs: true))).Items.ShouldBe(2);

        var names = await account.NamesAsync(ItemKind.Keyword);
        names.ShouldContain("piano tuner wells");
        names.ShouldNotContain("piano tuner near me");
        (await fixture.Pending.CountAsync(account.Id, CancellationToken.None)).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_is_taken_from_the_network_comes_back_with_what_it_stands_in()
    {
        var account = await PublishedAsync();
        var keyword = await account.TheAsync(ItemKind.Keyword, "piano tuner near me");
        var group = await account.TheAsync(ItemKind.AdGroup, "Tuning");
        var theirs = await EditedAsync(keyword, ("maxCpc", 1.10m));
        await account.DoAsync(new RemoveItems(new[] { group }));
        await ReadAsync(account, theirs);

        await account.DoAsync(new DecideLive([], TakeTheirs: true));

        (await StandingAsync(account, ItemKind.AdGroup)).ShouldContain("Tuning");
        (await StandingAsync(account, ItemKind.Keyword)).ShouldBe(["piano hire", "piano hire", "piano tuner near me"]);
    }

    [Fact]
    public async Task Nothing_stays_in_what_the_network_removed()
    {
        var account = await PublishedAsync();
        var group = await account.TheAsync(ItemKind.AdGroup, "Tuning");
        await ReadAsync(account, new NetworkItem(ItemKind.AdGroup, group.Id, null, ++_version));

        await account.DoAsync(new DecideLive([group], TakeTheirs: true));

        (await StandingAsync(account, ItemKind.Keyword)).ShouldBe(["piano hire", "piano hire"]);
    }

    /// <summary>Names of what is not removed.</summary>
    private static async Task<string[]> StandingAsync(TunedAccount account, ItemKind kind) =>
        [.. (await account.RowsAsync(kind)).Where(row => row.Change != RowChange.Removed).Select(row => row.Name)];

    [Fact]
    public async Task Publishes_nothing_over_a_change_that_nobody_has_decided_about()
    {
        var account = await PublishedAsync();
        var keyword = await account.TheAsync(ItemKind.Keyword, "piano tuner near me");
        await account.DoAsync(Change.Amount([keyword], "maxCpc", AmountOperation.Set, 0.90m));
        await ReadAsync(account, await EditedAsync(keyword, ("maxCpc", 1.10m)));

        (await BeginAsync(account)).ShouldBeNull();
        await account.DoAsync(new DecideLive([], TakeTheirs: false));
        (await BeginAsync(account)).ShouldNotBeNull();
    }
}
