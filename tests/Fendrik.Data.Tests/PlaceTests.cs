using Fendrik.Core.Checks;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Fendrik.Core.Serving;
using Fendrik.Data.Results;
using Fendrik.Data.Sheets;
using Fendrik.Data.Tracing;

namespace Fendrik.Data.Tests;

/// <summary>Places of campaigns: brought in, traced, checked against one another and for what they cost.</summary>
[Collection(nameof(WorkingCopyFixture))]
public sealed class PlaceTests(WorkingCopyFixture fixture) : IDisposable
{
    private const string List = """
        item,campaign,ad group,daily budget,ad group max cpc,keyword,match,headline 1,headline 2,description 1,landing page,place,radius,in or out,bid modifier
        campaign,North,,25,,,,,,,,,,,
        ad group,North,Tuning,,0.60,,,,,,,,,,
        keyword,North,Tuning,,,piano tuning,phrase,,,,,,,,
        text ad,North,Tuning,,,,,Piano Tuning,Same Week,We come.,https://a.example/,,,,
        place,North,,,,,,,,,,Yorkshire,,,+10%
        place,North,,,,,,,,,,leeds,25 km,in,+50%
        place,North,,,,,,,,,,Hull,,out,
        """;

    private readonly KeywordMemory _memory = new();

    public void Dispose() => _memory.Dispose();

    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        return account;
    }

    private async Task<SearchTrace> TraceAsync(int account, string place) =>
        await new WorkingCopyTrace(fixture.Source, _memory).TraceAsync(
            account,
            new TraceWish("piano tuning", Device.Desktop, SiteKinds.Search, place),
            new DateOnly(2026, 5, 12),
            CancellationToken.None
        );

    [Fact]
    public async Task Places_come_in_by_a_list_under_their_full_names()
    {
        var account = await AccountAsync();

        var rows = await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Place });

        rows.Select(row => row.Name)
            .Order()
            .ShouldBe([
                "Hull, Yorkshire, England, United Kingdom",
                "Leeds, Yorkshire, England, United Kingdom",
                "Yorkshire, England, United Kingdom",
            ]);
    }

    [Fact]
    public async Task A_place_that_means_several_is_left_out_with_the_question()
    {
        var account = await fixture.NewAccountAsync();

        var intake = await fixture.PasteAsync(account, "campaign,daily budget,place\nNorth,25,\nNorth,,Perth");

        (await fixture.ViewAsync(account, intake))
            .Refused.Single()
            .Reason!.ShouldContain("may be “Perth, Scotland, United Kingdom” or");
    }

    [Fact]
    public async Task A_trace_goes_by_where_the_person_is()
    {
        var account = await AccountAsync();

        var york = await TraceAsync(account, "york");
        york.Bid.Select(step => step.Name).ShouldBe(["ad group", "place Yorkshire"]);
        york.Keywords.Single().Bid.ShouldBe(0.66m);
        (await TraceAsync(account, "bradford")).Keywords.Single().Bid.ShouldBe(0.90m);
        (await TraceAsync(account, "hull")).Keywords.Single().Hindrance!.Kind.ShouldBe(HindranceKind.PlaceOut);
        (await TraceAsync(account, "manchester")).Keywords.Single().Hindrance!.Kind.ShouldBe(HindranceKind.OtherPlace);
    }

    private async Task<string[]> FoundAsync(int account) =>
        [
            .. (await fixture.FindingsAsync(account))
                .Where(finding =>
                    PlaceContradictions.Codes.Contains(finding.Code) || CampaignRisks.Codes.Contains(finding.Code)
                )
                .Select(finding => $"{finding.Code} {finding.Name.Split(',')[0]}")
                .Order(),
        ];

    [Fact]
    public async Task Places_are_held_against_one_another_as_they_come_and_go()
    {
        var account = await AccountAsync();
        (await FoundAsync(account)).ShouldBeEmpty();

        await fixture.KeepAsync(account, "item,campaign,place,in or out\nplace,North,England,out");
        (await FoundAsync(account)).ShouldBe(["place-shut-out Leeds", "place-shut-out Yorkshire", "place-within Hull"]);

        await fixture.DoAsync(
            account,
            new RemoveItems(
                new ItemSet(
                    [
                        .. (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Place }))
                            .Where(row => row.Name.StartsWith("England", StringComparison.Ordinal))
                            .Select(row => new ItemReference(ItemKind.Place, row.Id)),
                    ],
                    null
                )
            )
        );
        (await FoundAsync(account)).ShouldBeEmpty();

        await fixture.DoAsync(account, new RemoveItems(TunedAccount.All(ItemKind.Place)));
        (await FoundAsync(account)).ShouldBe(["shows-everywhere North"]);
    }

    [Fact]
    public async Task A_radius_around_a_region_stops_publishing()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(
            account,
            "item,campaign,daily budget,place,radius\ncampaign,North,25,,\nplace,North,,Scotland,20"
        );

        (await fixture.FindingsAsync(account)).ShouldContain(finding =>
            finding.Weight == Weight.Blocker && finding.Code == "radius-radius-of-no-town"
        );
    }

    [Fact]
    public async Task What_a_risky_setting_cost_is_told_and_told_anew_with_each_report()
    {
        var account = await AccountAsync();
        var campaign = (await fixture.RowAsync(account, "North", ItemKind.Campaign)).Id;
        await fixture.DoAsync(
            account,
            new SetFields(
                TunedAccount.All(ItemKind.Campaign),
                new Dictionary<string, FieldInput> { ["people"] = "in or interested" }
            )
        );
        async Task<string> DetailAsync() =>
            (await fixture.FindingsAsync(account)).Single(finding => finding.Code == CampaignRisks.Interested).Detail;
        (await DetailAsync()).ShouldNotContain("cost");

        async Task ReportAsync(DateOnly day)
        {
            var days = new Period(day, day);
            await new DayReports(fixture.Source).StoreAsync(
                account,
                days,
                new[]
                {
                    new ReachedRow(day, campaign, 1, ReachedBy.Interest, "pune", 20, 3, 4.50m, 0, 0),
                    new ReachedRow(day, campaign, 1, ReachedBy.Place, "leeds", 20, 3, 6, 1, 0),
                }.ToAsyncEnumerable(),
                CancellationToken.None
            );
            await new PerformanceStore(fixture.Source).StoreAsync(
                account,
                days,
                AsyncEnumerable.Empty<PerformanceRow>(),
                CancellationToken.None
            );
        }

        await ReportAsync(new DateOnly(2026, 5, 11));
        (await DetailAsync()).ShouldContain("they cost £4.50 and brought nothing");
        await ReportAsync(new DateOnly(2026, 5, 12));
        (await DetailAsync()).ShouldContain("they cost £9.00 and brought nothing");
    }
}
