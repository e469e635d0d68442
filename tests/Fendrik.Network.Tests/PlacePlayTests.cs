using System.Net.Http.Json;
using Fendrik.Core.Places;
using Fendrik.Network.Worlds;
using Fendrik.Tests.Shared;

namespace Fendrik.Network.Tests;

/// <summary>Places on the network: only people there see ads, or people who are interested where a campaign reaches these.</summary>
public class PlacePlayTests(NetworkFixture fixture) : IClassFixture<NetworkFixture>
{
    private async Task<List<ReachedRow>> PlayedAsync(PlaceReach people, params PlacedPlace[] places)
    {
        var visitor = new NetworkVisitor(fixture.Http, $"place-{Guid.NewGuid():N}");
        await visitor.SetUpAsync(12);
        await visitor.PutAsync([
            new Campaign(1, "Tuning", ItemState.Running, 400, null, null, SiteKinds.Search, People: people),
            new AdGroup(10, 1, "Tuning", ItemState.Running, 1.10m),
            new Keyword(11, 10, "piano", MatchType.Broad, ItemState.Running, null, null),
            new TextAd(
                41,
                10,
                ItemState.Running,
                ["Piano Tuning", "Ask For A Price"],
                ["Same-week visits."],
                [],
                "tarnandfell.example/tuning",
                null
            ),
            .. places,
        ]);
        await visitor.AdvanceAsync(24 * 6);
        return
        [
            .. (
                await fixture.Http.GetFromJsonAsync<List<ReachedRow>>(
                    $"v1/accounts/{visitor.AccountId}/reached?first=2026-03-16&last=2026-03-21"
                )
            )!.Where(row => row.By is ReachedBy.Place or ReachedBy.Interest),
        ];
    }

    private static PlacedPlace In(long id, string place, decimal? radius = null) =>
        new(id, 1, Gazetteer.Find(place).Single().FullName, radius, PlacementSide.In, null);

    private static string[] Places(IEnumerable<ReachedRow> rows) =>
        [.. rows.Select(row => row.Name).Distinct().Order()];

    [Fact]
    public async Task Only_people_within_the_radius_are_reached()
    {
        var rows = await PlayedAsync(PlaceReach.Present, In(61, "Leeds", 20));

        rows.ShouldAllBe(row => row.By == ReachedBy.Place);
        Places(rows)
            .Except(["bradford", "leeds", "otley", "wakefield", "ilkley", "harrogate", "wetherby", "halifax"])
            .ShouldBeEmpty();
        Places(rows).ShouldContain("bradford");
    }

    [Fact]
    public async Task People_abroad_are_reached_by_their_interest_and_told_apart()
    {
        var rows = await PlayedAsync(PlaceReach.PresentOrInterested, In(61, "United Kingdom"));

        var there = rows.Where(row => row.By == ReachedBy.Place).ToArray();
        Places(there).ShouldAllBe(key => Gazetteer.OfKey(key)!.Country.Key == "GB");
        var interested = rows.Where(row => row.By == ReachedBy.Interest).ToArray();
        interested.ShouldNotBeEmpty();
        Places(interested).ShouldAllBe(key => Gazetteer.OfKey(key)!.Country.Key != "GB");
        // A click from abroad is paid for, and nobody from there gets in touch.
        interested.Sum(row => row.Cost).ShouldBeGreaterThan(0);
        interested.Sum(row => row.Conversions).ShouldBe(0);
    }

    [Fact]
    public async Task Without_places_the_whole_world_is_reached() =>
        Places(await PlayedAsync(PlaceReach.Present))
            .Select(key => Gazetteer.OfKey(key)!.Country.Key)
            .Distinct()
            .Count()
            .ShouldBeGreaterThan(2);

    [Fact]
    public void Every_place_of_the_world_is_in_the_gazetteer_where_it_is()
    {
        foreach (var place in World.Shipped.Places)
        {
            var known = Gazetteer.OfKey(place.Name).ShouldNotBeNull(place.Name);
            known.Point.ShouldBe(new GeoPoint(place.Latitude, place.Longitude));
            known.Country.Key.ShouldBe(place.Country);
        }
    }
}
