using Dapper;
using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Changes;
using Fendrik.Core.Reporting;
using Fendrik.Core.Serving;
using Fendrik.Data.Results;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Data.Tracing;

namespace Fendrik.Data.Tests;

/// <summary>Hours and modifiers of campaigns, changed in one step, traced, checked, and read with what they brought.</summary>
[Collection(nameof(WorkingCopyFixture))]
public sealed class ModifierTests(WorkingCopyFixture fixture) : IDisposable
{
    private const string List = """
        item,campaign,ad group,daily budget,ad group max cpc,keyword,match,headline 1,headline 2,description 1,landing page,call number,hours,phone modifier
        campaign,North,,25,,,,,,,,,Mon-Fri 8-18,
        campaign,South,,20,,,,,,,,,,-20%
        ad group,North,Tuning,,0.60,,,,,,,,,150%
        keyword,North,Tuning,,,piano tuning,phrase,,,,,,,
        text ad,North,Tuning,,,,,Piano Tuning,Same Week,We come.,https://a.example/,,,
        call extension,South,,,,,,,,,,0131 496 0118,,
        """;

    private readonly KeywordMemory _memory = new();

    public void Dispose() => _memory.Dispose();

    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        return account;
    }

    private async Task<Dictionary<string, string?>> HoursAsync(int account) =>
        (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Campaign })).ToDictionary(
            row => row.Name,
            row => (string?)row.Values.GetValueOrDefault("hours")
        );

    private static ChangeModifiers Set(params WeekEdit[] week) =>
        new(TunedAccount.All(ItemKind.Campaign), week, new Dictionary<string, FieldInput>());

    [Fact]
    public async Task Hours_change_on_top_of_what_each_campaign_has_in_one_step_that_can_be_undone()
    {
        var account = await AccountAsync();

        var step = await fixture.DoAsync(
            account,
            Set(
                new WeekEdit(DayOfWeek.Monday, 480, 720, null, "+20%"),
                new WeekEdit(DayOfWeek.Saturday, 0, 1_440, false, null)
            )
        );

        step.Label.ShouldBe("Set hours of 2 campaigns");
        var hours = await HoursAsync(account);
        hours["North"].ShouldBe("Mon 08:00-12:00 +20%, 12:00-18:00; Tue-Fri 08:00-18:00");
        hours["South"].ShouldBe("Mon 00:00-08:00, 08:00-12:00 +20%, 12:00-24:00; Tue-Fri 00:00-24:00; Sun 00:00-24:00");
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        var before = await HoursAsync(account);
        (before["North"], before["South"]).ShouldBe(("Mon-Fri 08:00-18:00", null));
    }

    [Fact]
    public async Task A_day_is_copied_within_each_campaign()
    {
        var account = await AccountAsync();

        await fixture.DoAsync(
            account,
            new ChangeModifiers(
                TunedAccount.All(ItemKind.Campaign),
                [new WeekEdit(DayOfWeek.Monday, 480, 720, null, "+20%")],
                new Dictionary<string, FieldInput>(),
                [new DayLike(DayOfWeek.Tuesday, DayOfWeek.Monday)]
            )
        );

        var hours = await HoursAsync(account);
        hours["North"].ShouldBe("Mon-Tue 08:00-12:00 +20%, 12:00-18:00; Wed-Fri 08:00-18:00");
        hours["South"].ShouldBe("Mon-Tue 00:00-08:00, 08:00-12:00 +20%, 12:00-24:00; Wed-Sun 00:00-24:00");
    }

    [Fact]
    public async Task A_campaign_of_which_no_hour_would_be_left_is_passed_over_and_told()
    {
        var account = await AccountAsync();
        WeekEdit[] weekdays =
        [
            .. new[]
            {
                DayOfWeek.Monday,
                DayOfWeek.Tuesday,
                DayOfWeek.Wednesday,
                DayOfWeek.Thursday,
                DayOfWeek.Friday,
            }.Select(day => new WeekEdit(day, 0, 1_440, false, null)),
        ];

        var step = await fixture.DoAsync(account, Set(weekdays));

        step.Items.ShouldBe(1);
        step.Refused.Single().Reason.ShouldContain("No hour of the week would be left");
        (await HoursAsync(account))["North"].ShouldBe("Mon-Fri 08:00-18:00");
    }

    [Theory]
    [InlineData("x", "is not per cent")]
    [InlineData("-130%", "is not between")]
    public async Task A_modifier_that_cannot_be_is_told_and_nothing_changes(string modifier, string problem)
    {
        var account = await AccountAsync();
        var before = await fixture.StateAsync(account);

        (
            await Should.ThrowAsync<InvalidChangeException>(() =>
                fixture.DoAsync(account, Set(new WeekEdit(DayOfWeek.Monday, 480, 720, null, modifier)))
            )
        ).Message.ShouldContain(problem);

        (await fixture.StateAsync(account)).ShouldBe(before);
    }

    [Fact]
    public async Task A_trace_of_the_working_copy_goes_by_hours_and_devices()
    {
        var account = await AccountAsync();
        var trace = await new WorkingCopyTrace(fixture.Source, _memory).TraceAsync(
            account,
            new TraceWish("piano tuning", Device.Phone, SiteKinds.Search, Hour: 10),
            new DateOnly(2026, 5, 12),
            CancellationToken.None
        );

        // £0.60 with +150% on phones is £1.50 (common practice, no source).
        trace.Keywords.ShouldHaveSingleItem().Bid.ShouldBe(1.50m);
        trace.Bid.Select(step => step.Name).ShouldBe(["ad group", "phone"]);
    }

    [Fact]
    public async Task A_number_without_hours_is_a_caution_once_it_is_said_when_calls_are_taken()
    {
        var account = await AccountAsync();
        (await fixture.FindingsAsync(account)).ShouldNotContain(finding => finding.Code == "rings-unanswered");
        await using var connection = await fixture.Source.OpenConnectionAsync();
        var item = await connection.ExecuteScalarAsync<long>(
            "select id from account_item where account_id = @account",
            new { account }
        );

        await fixture.DoAsync(
            account,
            new SetFields(
                new ItemSet([new ItemReference(ItemKind.Account, item)], null),
                new Dictionary<string, FieldInput> { ["answeringHours"] = "Mon-Fri 9-17" }
            )
        );
        (await fixture.FindingsAsync(account)).ShouldContain(finding => finding.Code == "rings-unanswered");

        await fixture.DoAsync(
            account,
            new SetFields(
                TunedAccount.All(ItemKind.CallExtension),
                new Dictionary<string, FieldInput> { ["hours"] = "Mon-Fri 10-16" }
            )
        );
        (await fixture.FindingsAsync(account)).ShouldNotContain(finding => finding.Code == "rings-unanswered");
    }

    [Fact]
    public async Task A_placement_is_told_to_be_idle_as_soon_as_its_campaign_leaves_content_sites()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(
            account,
            "campaign,daily budget,networks,placement\nNorth,25,search + content,\nNorth,,,bigdays.example"
        );
        (await fixture.FindingsAsync(account)).ShouldNotContain(finding => finding.Code == "placement-idle");

        await fixture.DoAsync(
            account,
            new SetFields(
                TunedAccount.All(ItemKind.Campaign),
                new Dictionary<string, FieldInput> { ["networks"] = "search" }
            )
        );

        (await fixture.FindingsAsync(account)).ShouldContain(finding => finding.Code == "placement-idle");
    }

    [Fact]
    public async Task Ad_groups_with_broad_keywords_that_come_to_be_too_many_are_told_of_their_campaign()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(
            account,
            "campaign,daily budget,ad group,ad group max cpc,keyword,match\n"
                + string.Join(
                    '\n',
                    Enumerable
                        .Range(1, 5)
                        .Select(group => $"North,25,Group {group},1.10,piano {group},{(group < 5 ? "broad" : "exact")}")
                )
        );
        (await fixture.FindingsAsync(account)).ShouldNotContain(finding => finding.Code == "many-broad-groups");

        await fixture.KeepAsync(account, "campaign,ad group,keyword,match\nNorth,Group 5,piano five,broad");

        var found = (await fixture.FindingsAsync(account)).Single(finding => finding.Code == "many-broad-groups");
        (found.Kind, found.Name).ShouldBe((ItemKind.Campaign, "North"));
    }

    [Fact]
    public async Task Figures_fall_into_the_blocks_of_the_week_that_Core_parts_it_into()
    {
        var account = await AccountAsync();
        var first = new DateOnly(2026, 5, 4);
        await using (var connection = await fixture.Source.OpenConnectionAsync())
        {
            await connection.ExecuteAsync("select ensure_performance_month('2026-05-01')");
            // As many clicks as the hour of the week has as number, and one more.
            await connection.ExecuteAsync(
                """
                insert into performance (account_id, day, hour, campaign_id, ad_group_id, keyword_id, ad_id, device, site, impressions, clicks, cost, conversions, value)
                select @account, @first::date + d, h, 1, 1, 1, 1, 1 + h % 3, 1 << (d % 3), 1000, d * 24 + h + 1, 1, 0, 0 from generate_series(0, 6) d, generate_series(0, 23) h
                """,
                new { account, first }
            );
        }

        var scope = new EvidenceScope(new Period(first, first.AddDays(6)), null);
        var read = await new EvidenceReader(fixture.Source).SegmentsAsync(account, scope, CancellationToken.None);

        var wanted = Enumerable
            .Range(0, 7 * 24)
            .GroupBy(at =>
                (at % 24 % 3 + 1, HourBlock.Of(first.AddDays(at / 24).DayOfWeek, at % 24).Number, 1 << (at / 24 % 3))
            )
            .Select(cell => (cell.Key, Clicks: cell.Sum(at => (long)at + 1)));
        read.Select(each => ((each.Device, each.Block, each.Site), each.Figures.Clicks))
            .ShouldBe(wanted, ignoreOrder: true);

        var week = await new EvidenceReader(fixture.Source).WeekAsync(account, scope, CancellationToken.None);
        week.ShouldAllBe(hour => hour.Figures.Clicks == (hour.Day - 1) * 24 + hour.Hour + 1);
        var part = await new EvidenceReader(fixture.Source).PartAsync(account, scope, [0, 25], CancellationToken.None);
        part.Where(each => each.Block == 1).Sum(each => each.Figures.Clicks).ShouldBe(1 + 26);
    }

    [Fact]
    public async Task Days_keep_the_modifiers_that_were_live_when_they_were_reported_first()
    {
        var account = await AccountAsync();
        var store = new PerformanceStore(fixture.Source);
        var day = new DateOnly(2026, 5, 11);
        async Task LiveAsync(string live)
        {
            await using var connection = await fixture.Source.OpenConnectionAsync();
            await using var transaction = await connection.BeginTransactionAsync();
            await connection.ExecuteAsync(
                "select set_config('fendrik.step', '0', true); update campaign set is_live = true, live = @live::jsonb where account_id = @account and name = 'North'",
                new { account, live }
            );
            await transaction.CommitAsync();
        }

        async Task ReportAsync(DateOnly first, DateOnly last) =>
            await store.StoreAsync(
                account,
                new Period(first, last),
                RowsOf(await CampaignAsync(account), first, last),
                CancellationToken.None
            );

        await ReportAsync(day.AddDays(-1), day.AddDays(-1));
        await LiveAsync("""{"phoneModifier": -50, "hours": "Mon-Fri 08:00-18:00 +20%"}""");
        // A day before comes in once more, as conversions do that are late: it was made without.
        await ReportAsync(day.AddDays(-1), day);
        await LiveAsync("""{"phoneModifier": 300}""");
        await ReportAsync(day, day);

        var read = await new EvidenceReader(fixture.Source).SegmentsAsync(
            account,
            new EvidenceScope(new Period(day.AddDays(-1), day), null),
            CancellationToken.None
        );
        // Sunday without, Monday at half of 120%.
        read.Select(each => each.Multiplier).Order().ShouldBe([0.6m, 1m]);
        (
            await new EvidenceReader(fixture.Source).ByCampaignAsync(
                account,
                new Period(day.AddDays(-1), day),
                CancellationToken.None
            )
        )[await CampaignAsync(account)]
            .ShouldBe(read, ignoreOrder: true);
    }

    /// <summary>What is live and was not edited since has no copy beside it.</summary>
    [Fact]
    public async Task Days_keep_modifiers_of_what_was_not_edited_since_it_was_published()
    {
        var account = await AccountAsync();
        await fixture.KeepAsync(
            account,
            "item,campaign,place,radius,bid modifier\nplace,North,Leeds,20 km,+35%\nplace,North,Scotland,,"
        );
        var campaign = await CampaignAsync(account);
        await using var connection = await fixture.Source.OpenConnectionAsync();
        await using (var transaction = await connection.BeginTransactionAsync())
        {
            await connection.ExecuteAsync(
                "select set_config('fendrik.step', '0', true); update campaign set is_live = true, phone_modifier = -40 where account_id = @account; update place set is_live = true where account_id = @account",
                new { account }
            );
            await transaction.CommitAsync();
        }

        var day = new DateOnly(2026, 5, 11);
        await new PerformanceStore(fixture.Source).StoreAsync(
            account,
            new Period(day, day),
            RowsOf(campaign, day, day),
            CancellationToken.None
        );

        var reader = new EvidenceReader(fixture.Source);
        (
            await reader.SegmentsAsync(
                account,
                new EvidenceScope(new Period(day, day), [campaign]),
                CancellationToken.None
            )
        )
            .Single()
            .Multiplier.ShouldBe(0.6m);
        (
            await new TargetReader(fixture.Source).TargetedAsync(
                account,
                new Period(day, day),
                campaign,
                CancellationToken.None
            )
        )
            .Select(target => (target.Text.Split(',')[0], target.Radius, target.Modifier))
            .ShouldBe([("Leeds", 20m, 35m), ("Scotland", null, null)], ignoreOrder: true);
    }

    [Fact]
    public async Task Modifiers_of_places_and_audiences_are_set_in_the_same_step_and_added_where_they_are_not_there()
    {
        var account = await AccountAsync();
        await fixture.KeepAsync(account, "item,campaign,place\nplace,North,Leeds\nplace,North,Scotland");

        var step = await fixture.DoAsync(
            account,
            new ChangeModifiers(
                new ItemSet([new ItemReference(ItemKind.Campaign, await CampaignAsync(account))], null),
                [new WeekEdit(DayOfWeek.Monday, 480, 720, null, "+20%")],
                new Dictionary<string, FieldInput> { ["phoneModifier"] = "-30%" },
                Targets:
                [
                    new TargetModifier(ItemKind.Place, "Leeds, Yorkshire, England, United Kingdom", "+35%"),
                    new TargetModifier(ItemKind.Place, "York", "-20%", Adds: true),
                    new TargetModifier(ItemKind.Audience, "parents", "+10%", Adds: true),
                ]
            )
        );

        step.Label.ShouldBe("Set modifiers of 1 campaign");
        async Task<string[]> ModifiersAsync(ItemKind kind) =>
            [
                .. (await fixture.RowsAsync(account, new SheetRequest { Kind = kind }))
                    .Select(row => $"{row.Name.Split(',')[0]} {row.Values.GetValueOrDefault("modifier"):0.#}")
                    .Order(),
            ];
        (await ModifiersAsync(ItemKind.Place)).ShouldBe(["Leeds 35", "Scotland ", "York -20"]);
        (await ModifiersAsync(ItemKind.Audience)).ShouldBe(["parents 10"]);
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        (await ModifiersAsync(ItemKind.Place)).ShouldBe(["Leeds ", "Scotland "]);
        (await HoursAsync(account))["North"].ShouldBe("Mon-Fri 08:00-18:00");
    }

    [Fact]
    public async Task A_place_that_a_colleague_added_meanwhile_is_left_as_it_is_and_told()
    {
        var account = await AccountAsync();
        await fixture.KeepAsync(account, "item,campaign,place,bid modifier\nplace,North,York,+5%");

        var step = await fixture.DoAsync(
            account,
            new ChangeModifiers(
                new ItemSet([new ItemReference(ItemKind.Campaign, await CampaignAsync(account))], null),
                [new WeekEdit(DayOfWeek.Monday, 480, 720, null, "+20%")],
                new Dictionary<string, FieldInput>(),
                Targets: [new TargetModifier(ItemKind.Place, "York", "-20%", Adds: true)]
            )
        );

        step.Refused.Single().Reason.ShouldStartWith("It is in 1 of the places already");
        (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Place }))
            .Single()
            .Values["modifier"]
            .ShouldBe(5m);
    }

    private async Task<long> CampaignAsync(int account) =>
        (await fixture.RowAsync(account, "North", ItemKind.Campaign)).Id;

    private static async IAsyncEnumerable<PerformanceRow> RowsOf(long campaign, DateOnly first, DateOnly last)
    {
        for (var day = first; day <= last; day = day.AddDays(1))
        {
            await Task.Yield();
            yield return new PerformanceRow(
                day,
                9,
                campaign,
                1,
                1,
                1,
                Device.Phone,
                SiteKinds.Search,
                100,
                10,
                5,
                1,
                0
            );
        }
    }
}
