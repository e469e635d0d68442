using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Changes;
using Fendrik.Core.Reporting;
using Fendrik.Data.Publishing;
using Fendrik.Data.Results;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

[Collection(nameof(WorkingCopyFixture))]
public class PublishTests(WorkingCopyFixture fixture)
{
    private const string List =
        "campaign,daily budget,ad group,ad group max cpc,keyword,match type\nNorth,25,Tuning,1.00,piano tuning,exact\nNorth,25,Tuning,1.00,piano tuner,phrase\n";

    private async Task<int> LiveAccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        await PublishAsync(account);
        return account;
    }

    private async Task<long> PublishAsync(int account, Func<NetworkChange, string?>? refuse = null)
    {
        var publish = (
            await fixture.Publishes.BeginAsync(account, WorkingCopyFixture.Person, null, CancellationToken.None)
        )!.Value;
        while (await fixture.Batches.NextAsync(publish, CancellationToken.None) is { } batch)
        {
            var answers = batch.Changes.Select(change =>
                refuse?.Invoke(change) is { } reason
                    ? new NetworkAnswer(change.Kind, change.ItemId, NetworkVerdict.Refused, reason)
                    : new NetworkAnswer(change.Kind, change.ItemId, NetworkVerdict.Accepted)
            );
            await fixture.Answers.RecordAsync(publish, batch.First, batch.Next, [.. answers], CancellationToken.None);
        }

        await fixture.Publishes.EndAsync(publish, Model.PublishState.Done, null, CancellationToken.None);
        return publish;
    }

    private async Task<long> PendingAsync(int account) =>
        (await fixture.Pending.CountAsync(account, CancellationToken.None)).Sum(count => count.Count);

    private Task<StepResult> SetBidAsync(int account, SheetRow row, decimal bid) =>
        fixture.DoAsync(
            account,
            Change.Amount([WorkingCopyFixture.Reference(row)], "maxCpc", AmountOperation.Set, bid)
        );

    [Fact]
    public async Task Has_nothing_left_to_publish_after_all_was_accepted()
    {
        var account = await LiveAccountAsync();

        (await PendingAsync(account)).ShouldBe(0);
        (
            await fixture.Publishes.BeginAsync(account, WorkingCopyFixture.Person, null, CancellationToken.None)
        ).ShouldBeNull();
    }

    [Fact]
    public async Task Sends_parents_before_children_and_removals_first()
    {
        var account = await LiveAccountAsync();
        await fixture.DoAsync(
            account,
            new RemoveItems([WorkingCopyFixture.Reference(await fixture.RowAsync(account, "piano tuner"))])
        );
        await fixture.KeepAsync(
            account,
            "campaign,daily budget,ad group,ad group max cpc,keyword\nSouth,20,Hire,1,piano hire\n"
        );
        var publish = (
            await fixture.Publishes.BeginAsync(account, WorkingCopyFixture.Person, null, CancellationToken.None)
        )!.Value;

        var batch = (await fixture.Batches.NextAsync(publish, CancellationToken.None))!;

        batch
            .Changes.Select(change => (change.Action, change.Kind))
            .ShouldBe([
                (ChangeAction.Remove, ItemKind.Keyword),
                (ChangeAction.Put, ItemKind.Campaign),
                (ChangeAction.Put, ItemKind.AdGroup),
                (ChangeAction.Put, ItemKind.Keyword),
            ]);
    }

    [Fact]
    public async Task Is_one_publish_however_often_it_is_begun()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);

        var first = await fixture.Publishes.BeginAsync(
            account,
            WorkingCopyFixture.Person,
            null,
            CancellationToken.None
        );
        var second = await fixture.Publishes.BeginAsync(
            account,
            WorkingCopyFixture.Person,
            null,
            CancellationToken.None
        );

        second.ShouldBe(first);
    }

    [Fact]
    public async Task Begins_only_with_what_the_checks_have_seen_where_it_is_asked_to()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        Task<long?> BeginAsync() =>
            fixture.Publishes.BeginAsync(
                account,
                WorkingCopyFixture.Person,
                null,
                CancellationToken.None,
                onlyChecked: true
            );

        await Should.ThrowAsync<ChecksBehindException>(BeginAsync);
        await fixture.Checks.CountsAsync(account, CancellationToken.None);
        await SetBidAsync(account, await fixture.RowAsync(account, "Tuning"), 1.4m);
        await Should.ThrowAsync<ChecksBehindException>(BeginAsync);
        await fixture.Checks.CountsAsync(account, CancellationToken.None);

        (await BeginAsync()).ShouldNotBeNull();
    }

    [Fact]
    public async Task Gives_the_same_batch_under_the_same_key_until_it_is_answered()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        var publish = (
            await fixture.Publishes.BeginAsync(account, WorkingCopyFixture.Person, null, CancellationToken.None)
        )!.Value;

        var first = (await fixture.Batches.NextAsync(publish, CancellationToken.None))!;
        var second = (await fixture.Batches.NextAsync(publish, CancellationToken.None))!;

        second.Key.ShouldBe(first.Key);
        second.Changes.Select(change => change.ItemId).ShouldBe(first.Changes.Select(change => change.ItemId));
    }

    [Fact]
    public async Task Counts_an_answer_that_comes_twice_once()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        var publish = (
            await fixture.Publishes.BeginAsync(account, WorkingCopyFixture.Person, null, CancellationToken.None)
        )!.Value;
        var batch = (await fixture.Batches.NextAsync(publish, CancellationToken.None))!;
        NetworkAnswer[] answers =
        [
            .. batch.Changes.Select(change => new NetworkAnswer(change.Kind, change.ItemId, NetworkVerdict.Accepted)),
        ];

        await fixture.Answers.RecordAsync(publish, batch.First, batch.Next, answers, CancellationToken.None);
        await fixture.Answers.RecordAsync(publish, batch.First, batch.Next, answers, CancellationToken.None);

        (await fixture.Publishes.ListAsync(account, CancellationToken.None))[0].Accepted.ShouldBe(4);
    }

    [Fact]
    public async Task Keeps_what_was_refused_among_the_changes_with_the_networks_reason()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);

        var publish = await PublishAsync(
            account,
            change =>
                change.Kind == ItemKind.Keyword && change.Item!.Value.GetProperty("text").GetString() == "piano tuner"
                    ? "Not this one."
                    : null
        );

        (await PendingAsync(account)).ShouldBe(1);
        (await fixture.Publishes.UnpublishedAsync(account, publish, CancellationToken.None))
            .ShouldHaveSingleItem()
            .Reason.ShouldBe("Not this one.");
        (await fixture.RowAsync(account, "piano tuner")).ReviewReason.ShouldBe("Not this one.");
    }

    [Fact]
    public async Task Shows_an_edit_before_and_after_and_none_once_it_is_edited_back()
    {
        var account = await LiveAccountAsync();
        var row = await fixture.RowAsync(account, "Tuning");
        await SetBidAsync(account, row, 1.4m);

        var change = (await fixture.Pending.ListAsync(account, 0, 10, CancellationToken.None)).ShouldHaveSingleItem();
        (
            change.Change,
            change.Before!.Value.GetProperty("maxCpc").GetDecimal(),
            change.After!.Value.GetProperty("maxCpc").GetDecimal()
        ).ShouldBe((RowChange.Edited, 1m, 1.4m));

        await SetBidAsync(account, row, 1m);
        (await PendingAsync(account)).ShouldBe(0);
    }

    [Fact]
    public async Task Takes_an_edit_made_while_a_batch_was_under_way_for_a_new_change()
    {
        var account = await LiveAccountAsync();
        var row = await fixture.RowAsync(account, "Tuning");
        await SetBidAsync(account, row, 1.4m);
        var publish = (
            await fixture.Publishes.BeginAsync(account, WorkingCopyFixture.Person, null, CancellationToken.None)
        )!.Value;
        var batch = (await fixture.Batches.NextAsync(publish, CancellationToken.None))!;
        await SetBidAsync(account, row, 1.5m);

        await fixture.Answers.RecordAsync(
            publish,
            batch.First,
            batch.Next,
            [.. batch.Changes.Select(change => new NetworkAnswer(change.Kind, change.ItemId, NetworkVerdict.Accepted))],
            CancellationToken.None
        );

        var change = (await fixture.Pending.ListAsync(account, 0, 10, CancellationToken.None)).ShouldHaveSingleItem();
        change.Before!.Value.GetProperty("maxCpc").GetDecimal().ShouldBe(1.4m);
    }

    [Fact]
    public async Task Shows_the_undo_of_a_published_step_as_a_change()
    {
        var account = await LiveAccountAsync();
        await SetBidAsync(account, await fixture.RowAsync(account, "Tuning"), 1.4m);
        await PublishAsync(account);

        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);

        (await PendingAsync(account)).ShouldBe(1);
    }

    [Fact]
    public async Task Strikes_a_removed_item_through_until_its_removal_is_published()
    {
        var account = await LiveAccountAsync();
        await fixture.DoAsync(
            account,
            new RemoveItems([WorkingCopyFixture.Reference(await fixture.RowAsync(account, "piano tuner"))])
        );
        (await fixture.RowAsync(account, "piano tuner")).Change.ShouldBe(RowChange.Removed);

        await PublishAsync(account);

        (await fixture.RowsAsync(account)).ShouldNotContain(row => row.Name == "piano tuner");
    }

    [Fact]
    public async Task Keeps_the_columns_of_rows_as_they_were_in_step_with_the_rows()
    {
        await using var connection = await fixture.Source.OpenConnectionAsync();
        foreach (var table in new[] { "campaign", "ad_group", "keyword", "negative_keyword", "text_ad" })
        {
            const string columns =
                "select column_name || ' ' || data_type from information_schema.columns where table_name = @table and column_name <> 'step_id' order by ordinal_position";
            (await connection.QueryAsync<string>(columns, new { table = table + "_before" })).ShouldBe(
                await connection.QueryAsync<string>(columns, new { table })
            );
        }
    }

    [Fact]
    public async Task Adds_up_reports_and_replaces_a_day_that_comes_again()
    {
        var account = await LiveAccountAsync();
        var keyword = await fixture.RowAsync(account, "piano tuner");
        PerformanceRow Row(DateOnly day, long clicks, decimal cost) =>
            new(
                day,
                10,
                keyword.CampaignId!.Value,
                keyword.AdGroupId!.Value,
                keyword.Id,
                1,
                Device.Phone,
                SiteKinds.Search,
                100,
                clicks,
                cost,
                1,
                85
            );
        var day = new DateOnly(2026, 5, 31);
        await StoreAsync(account, day, Row(day, 3, 3m));
        await StoreAsync(account, day, Row(day, 5, 4m));
        await StoreAsync(account, day.AddDays(1), Row(day.AddDays(1), 5, 6m));

        var report = await fixture.Results.ReadAsync(
            account,
            new ResultsRequest(new Period(day.AddDays(1), day.AddDays(1)), ItemKind.Keyword, null, null),
            100,
            CancellationToken.None
        );

        (report.Now.Cost, report.Before.Cost).ShouldBe((6m, 4m));
        var line = report.Lines.ShouldHaveSingleItem();
        (line.Name, line.Now.Clicks, line.Before.Clicks).ShouldBe(("piano tuner", 5, 5));
    }

    private Task StoreAsync(int account, DateOnly day, PerformanceRow row) =>
        fixture.Performance.StoreAsync(
            account,
            new Period(day, day),
            new[] { row }.ToAsyncEnumerable(),
            CancellationToken.None
        );
}
