using Dapper;
using Fendrik.Core.AdText.Fit;
using Fendrik.Core.AdText.Patterns;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;
using Fendrik.Data.Commands.Patterns;
using Fendrik.Data.Links;
using Fendrik.Data.Results;
using Fendrik.Data.Sheets;
using Fendrik.Data.Tracing;

namespace Fendrik.Data.Tests;

/// <summary>Ads of every kind as lists bring them, as they are traced, made from patterns and held against pages.</summary>
[Collection(nameof(WorkingCopyFixture))]
public sealed class WritingTests(WorkingCopyFixture fixture) : IDisposable
{
    private const string List = """
        item,campaign,daily budget,ad group,ad group max cpc,keyword,match,headline 1,headline 2,headline 3,headline 4,description 1,description 2,landing page,kept apart,business name,call number,call hours
        ,North,40,Piano tuning,1.10,piano tuning leeds,phrase,,,,,,,,,,,
        ,North,,Piano tuning,,grand piano tuner,phrase,,,,,,,,,,,
        ,North,,Piano tuning,,,,Piano Tuning,Same Week,,,We come to you.,,https://a.example/tuning,,,,
        ,North,,Piano tuning,,,,Tuned At Home [1],Ask For A Price,Same Week,Tuned In Your Home,We come to you.,Pay after.,https://a.example/tuning,Tuned At Home | Tuned In Your Home,,,
        ,North,,Piano tuning,,,,Ask A Tuner,,,,Ring and ask.,,,,Tarn & Fell Pianos,0113 496 0142,Mon-Fri 9-17
        ,North,,Upright hire,1.10,upright hire,phrase,,,,,,,,,,,
        """;

    private readonly KeywordMemory _memory = new();

    public void Dispose() => _memory.Dispose();

    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        return account;
    }

    private async Task<IEnumerable<T>> QueryAsync<T>(string sql, int account)
    {
        await using var connection = await fixture.Source.OpenConnectionAsync();
        return await connection.QueryAsync<T>(sql, new { account });
    }

    [Fact]
    public async Task A_list_tells_the_kind_of_an_ad_by_what_it_says()
    {
        var account = await AccountAsync();

        (await QueryAsync<string>("select headlines[1] from text_ad where account_id = @account", account)).ShouldBe([
            "Piano Tuning",
        ]);
        (
            await QueryAsync<(string, string)>(
                "select headlines[1], kept_apart from responsive_ad where account_id = @account",
                account
            )
        ).ShouldBe([("Tuned At Home [1]", "Tuned At Home | Tuned In Your Home")]);
        (
            await QueryAsync<(string, string)>(
                "select call_number, hours from call_ad where account_id = @account",
                account
            )
        ).ShouldBe([("+441134960142", "Mon-Fri 09:00-17:00")]);
    }

    [Fact]
    public async Task No_two_ads_have_the_same_number_whatever_their_kinds()
    {
        var account = await AccountAsync();
        var ids = (
            await QueryAsync<long>(
                "select id from text_ad where account_id = @account union all select id from responsive_ad where account_id = @account union all select id from call_ad where account_id = @account",
                account
            )
        ).ToArray();

        ids.Length.ShouldBe(3);
        ids.Order().Select(id => id / 1_000_000_000_000).ShouldBe([0, 1, 2]);
    }

    [Fact]
    public async Task A_search_of_the_working_copy_is_answered_by_an_ad_of_any_kind()
    {
        var account = await AccountAsync();
        async Task<TracedAd> SeenAsync(Device device, int hour) =>
            (
                await new WorkingCopyTrace(fixture.Source, _memory).TraceAsync(
                    account,
                    new TraceWish("piano tuning leeds", device, SiteKinds.Search, Hour: hour),
                    new DateOnly(2026, 5, 12),
                    CancellationToken.None
                )
            ).Ad!;

        (await SeenAsync(Device.Phone, 10)).Calls.ShouldBe("0113 496 0142");
        (await SeenAsync(Device.Phone, 20)).Calls.ShouldBeNull();
        (await SeenAsync(Device.Desktop, 10)).Kind.ShouldBeOneOf(ItemKind.TextAd, ItemKind.ResponsiveAd);
    }

    private static AddFromPattern Pattern(PatternPlaces places) =>
        new(
            new AdPattern(
                ItemKind.TextAd,
                new Dictionary<string, IReadOnlyList<IReadOnlyList<string>>>
                {
                    ["headlines"] =
                    [
                        ["[Theme] In [Place]", "[Theme]"],
                        ["Book Today"],
                    ],
                    ["descriptions"] =
                    [
                        ["We look after your [keyword]."],
                    ],
                    ["landingPage"] =
                    [
                        ["[page]", "https://a.example/"],
                    ],
                }
            ),
            places
        );

    [Fact]
    public async Task A_pattern_makes_an_ad_for_each_ad_group_of_what_is_known_of_it()
    {
        var account = await AccountAsync();
        var made = await fixture.DoAsync(
            account,
            Pattern(new PatternPlaces(null, null, false, "ad group\tplace\nUpright hire\tYork"))
        );

        made.Items.ShouldBe(2);
        (
            await QueryAsync<string>(
                """
                select g.name || ': ' || array_to_string(headlines || descriptions, '|') || ' ' || landing_page from text_ad a
                join ad_group g on g.id = a.ad_group_id where a.account_id = @account and headlines[2] = 'Book Today' order by 1
                """,
                account
            )
        ).ShouldBe([
            "Piano tuning: Piano Tuning|Book Today|We look after your grand piano tuner. https://a.example/tuning",
            "Upright hire: Upright Hire In York|Book Today|We look after your upright hire. https://a.example/",
        ]);
        (await fixture.DoAsync(account, Pattern(new PatternPlaces(null, null, false, null))))
            .Refused.Select(refused => refused.Reason)
            .ShouldBe([ItemTypes.Of(ItemKind.TextAd).TwinProblem]);
    }

    [Fact]
    public async Task A_pattern_for_ad_groups_without_ads_leaves_out_those_with_an_ad_of_any_kind()
    {
        var account = await AccountAsync();
        var view = await new PatternReader(fixture.Source).ReadAsync(
            account,
            Pattern(new PatternPlaces(null, null, true, null)).Pattern,
            new PatternPlaces(null, null, true, null),
            CancellationToken.None
        );

        view.Ads.Select(ad => ad.AdGroup).ShouldBe(["Upright hire"]);
        (view.Count, view.Shortened, view.Failing).ShouldBe((1, 1, 0));
    }

    [Fact]
    public async Task Pages_of_the_account_are_held_against_an_ad_group()
    {
        var account = await AccountAsync();
        var pages = new PageBook(fixture.Source, TimeProvider.System);
        var group = (
            await QueryAsync<long>(
                "select id from ad_group where account_id = @account and name = 'Piano tuning'",
                account
            )
        ).Single();
        (await pages.FitAsync(account, group, CancellationToken.None))!.ReadAt.ShouldBeNull();

        await pages.KeepAsync(
            account,
            [
                new PageText("https://a.example/tuning", "Tuning", ["We tune"], "Pianos", true, 1_000),
                new PageText("https://a.example/leeds", "Piano tuning in Leeds", [], "grand piano tuner", true, 1_000),
            ],
            CancellationToken.None
        );
        var fit = (await pages.FitAsync(account, group, CancellationToken.None))!;

        fit.Fit.Pages.Select(page => (page.Address, page.IsOwn))
            .ShouldBe([("https://a.example/leeds", false), ("https://a.example/tuning", true)]);
        fit.Fit.Advice[0].ShouldBe("The page does not say: grand, leeds, tuner.");
        (await pages.FitAsync(await AccountAsync(), group, CancellationToken.None)).ShouldBeNull();
    }

    [Fact]
    public async Task Variants_are_compared_where_and_when_both_showed()
    {
        var account = await AccountAsync();
        await fixture.DoAsync(
            account,
            Pattern(new PatternPlaces(null, null, false, null)) with
            {
                Pattern = Labelled("A", "Book Today"),
            }
        );
        await fixture.DoAsync(
            account,
            Pattern(new PatternPlaces(null, null, false, null)) with
            {
                Pattern = Labelled("B", "Ask Today"),
            }
        );
        var ads = (
            await QueryAsync<(long Id, long Group, string Label)>(
                "select id, ad_group_id, labels[1] from text_ad where account_id = @account and labels <> '{}' order by ad_group_id, labels",
                account
            )
        ).ToArray();
        ads.Length.ShouldBe(4);
        var first = new DateOnly(2026, 5, 1);
        PerformanceRow Row((long Id, long Group, string Label) ad, int day, long impressions, long clicks) =>
            new(
                first.AddDays(day),
                9,
                1,
                ad.Group,
                3,
                ad.Id,
                Device.Phone,
                SiteKinds.Search,
                impressions,
                clicks,
                clicks,
                0,
                0
            );
        // On the first day only one of a pair showed, and the second pair never met.
        await new PerformanceStore(fixture.Source).StoreAsync(
            account,
            new Core.Reporting.Period(first, first.AddDays(3)),
            new[]
            {
                Row(ads[0], 0, 500, 400),
                Row(ads[0], 1, 70, 56),
                Row(ads[1], 1, 80, 48),
                Row(ads[2], 1, 30, 1),
            }.ToAsyncEnumerable(),
            CancellationToken.None
        );
        await using (var connection = await fixture.Source.OpenConnectionAsync())
        {
            await connection.ExecuteAsync(
                "update account set reported_to = '2026-05-04' where id = @account",
                new { account }
            );
        }

        var reader = new VariantReader(fixture.Source);
        (await reader.LabelsAsync(account, CancellationToken.None)).ShouldBe(["A", "B"]);
        var compared = (
            await reader.CompareAsync(account, "A", "B", Core.Reporting.AdMeasure.Clicks, CancellationToken.None)
        ).ShouldNotBeNull();

        (compared.AdGroups, compared.One.Impressions, compared.Other.Impressions).ShouldBe((1, 70, 80));
        compared.Lead.ShouldBe(0.2, 1e-9);
        (
            await reader.CompareAsync(account, "A", "C", Core.Reporting.AdMeasure.Clicks, CancellationToken.None)
        ).ShouldBeNull();
    }

    private static AdPattern Labelled(string label, string headline) =>
        new(
            ItemKind.TextAd,
            new Dictionary<string, IReadOnlyList<IReadOnlyList<string>>>
            {
                ["headlines"] =
                [
                    ["[Theme]"],
                    [headline],
                ],
                ["descriptions"] =
                [
                    ["We come to you."],
                ],
                ["landingPage"] =
                [
                    ["https://a.example/"],
                ],
            },
            label
        );

    [Fact]
    public async Task Combinations_are_told_by_how_often_they_showed()
    {
        var account = await AccountAsync();
        var day = new DateOnly(2026, 5, 12);
        CombinationRow Row(long ad, int impressions, params string[] headlines) =>
            new(day, 1, 2, ad, headlines, ["Same week."], impressions, 1, 2m, 0.5m, 0, 0);
        await new DayReports(fixture.Source).StoreAsync(
            account,
            new Core.Reporting.Period(day, day),
            new[] { Row(7, 3, "A", "B"), Row(7, 9, "B", "A"), Row(8, 1, "C") }.ToAsyncEnumerable(),
            CancellationToken.None
        );
        await using (var connection = await fixture.Source.OpenConnectionAsync())
        {
            await connection.ExecuteAsync(
                "update account set reported_to = @day where id = @account",
                new { account, day }
            );
        }

        var figures = await new CombinationFigures(fixture.Source).ReadAsync(account, 7, CancellationToken.None);

        figures.Select(each => string.Concat(each.Headlines) + each.Figures.Impressions).ShouldBe(["BA9", "AB3"]);
        figures[0].AgainstUsual.ShouldBe(2);
    }
}
