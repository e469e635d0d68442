using Dapper;
using Fendrik.Core.Changes;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Fendrik.Data.Results;

namespace Fendrik.Data.Tests;

/// <summary>Which days and devices ads are compared over.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class AdComparisonReaderTests(WorkingCopyFixture fixture)
{
    private const string List = """
        campaign,ad group,daily budget,ad group max cpc,headline 1,headline 2,description 1,landing page,device preference
        North,Tuning,25,1.00,Old,Book Today,We tune.,https://tarnandfell.example/tuning,
        North,Tuning,,,Young,Book Today,We tune.,https://tarnandfell.example/tuning,
        North,Tuning,,,For phones,Book Today,We tune.,https://tarnandfell.example/tuning,phone
        North,Tuning,,,Paused,Book Today,We tune.,https://tarnandfell.example/tuning,
        North,Hire,,1.00,Alone,Book Today,We hire out.,https://tarnandfell.example/hire,
        """;

    private static readonly DateOnly First = new(2026, 5, 1);

    [Fact]
    public async Task Ads_are_compared_from_the_day_on_which_the_youngest_showed_and_on_devices_they_share()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        var ads = await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.TextAd });
        var paused = ads.Single(ad => ad.Name.StartsWith("Paused", StringComparison.Ordinal));
        await fixture.DoAsync(
            account,
            new SetFields(
                new[] { WorkingCopyFixture.Reference(paused) },
                new Dictionary<string, FieldInput> { ["state"] = "paused" }
            )
        );
        PerformanceRow Row(string name, int day, Device device, long impressions, long clicks)
        {
            var ad = ads.Single(each => each.Name.StartsWith(name, StringComparison.Ordinal));
            return new(
                First.AddDays(day),
                10,
                ad.CampaignId!.Value,
                ad.AdGroupId!.Value,
                1,
                ad.Id,
                device,
                SiteKinds.Search,
                impressions,
                clicks,
                clicks,
                0,
                0
            );
        }

        await new PerformanceStore(fixture.Source).StoreAsync(
            account,
            new Period(First, First.AddDays(9)),
            new[]
            {
                // Before the young one: the old one had better days.
                Row("Old", 0, Device.Desktop, 1000, 500),
                Row("Old", 5, Device.Desktop, 2000, 60),
                Row("Young", 5, Device.Desktop, 2000, 160),
                Row("Paused", 5, Device.Desktop, 2000, 900),
                // Where only the one for phones shows there is nothing to compare.
                Row("For phones", 5, Device.Phone, 2000, 800),
                Row("Alone", 5, Device.Desktop, 2000, 100),
            }.ToAsyncEnumerable(),
            CancellationToken.None
        );
        await using (var connection = await fixture.Source.OpenConnectionAsync())
        {
            await connection.ExecuteAsync(
                "update account set reported_to = @day where id = @account",
                new { account, day = First.AddDays(9) }
            );
        }

        var compared = (
            await new AdComparisonReader(fixture.Source).ReadAsync(
                account,
                null,
                null,
                AdMeasure.Clicks,
                CancellationToken.None
            )
        ).ShouldHaveSingleItem();

        compared.Since.ShouldBe(First.AddDays(5));
        compared
            .Ads.Select(ad => (compared.Names[ad.AdId], ad.Figures.Impressions, ad.Figures.Clicks, ad.Standing))
            .ShouldBe([("Young", 2000, 160, AdStanding.Best), ("Old", 2000, 60, AdStanding.Worse)]);
    }
}
