using System.Net;
using System.Net.Http.Json;
using Fendrik.Core.Networks;
using Fendrik.Tests.Shared;

namespace Fendrik.Network.Tests;

/// <summary>What the network estimates, beside what comes true on it.</summary>
public class EstimateTests(NetworkFixture fixture) : IClassFixture<NetworkFixture>
{
    private async Task<NetworkVisitor> PlayedAsync()
    {
        var visitor = new NetworkVisitor(fixture.Http, $"estimate-{Guid.NewGuid():N}");
        await visitor.SetUpAsync(8);
        await visitor.PutAsync(
            new Campaign(1, "Tuning", ItemState.Running, 300, null, null, SiteKinds.Search),
            new AdGroup(10, 1, "Tuning", ItemState.Running, 1.10m),
            new Keyword(11, 10, "piano tuning", MatchType.Phrase, ItemState.Running, null, null),
            new TextAd(
                41,
                10,
                ItemState.Running,
                ["Piano Tuning", "Ask For A Price"],
                ["Same-week visits across the north."],
                [],
                "tarnandfell.example/tuning",
                null
            )
        );
        await visitor.AdvanceAsync(24 * 14);
        return visitor;
    }

    private Task<HttpResponseMessage> AskAsync(NetworkVisitor visitor, EstimateWish wish) =>
        fixture.Http.PostAsJsonAsync($"v1/accounts/{visitor.AccountId}/estimates", wish);

    private async Task<List<NetworkEstimate>> EstimatesAsync(NetworkVisitor visitor, EstimateWish wish) =>
        (
            await (await AskAsync(visitor, wish))
                .EnsureSuccessStatusCode()
                .Content.ReadFromJsonAsync<List<NetworkEstimate>>()
        )!;

    private static readonly decimal[] Bids = [0.20m, 0.50m, 1.10m, 2.50m];

    [Fact]
    public async Task A_higher_bid_is_estimated_to_bring_no_less_and_cost_no_less()
    {
        var visitor = await PlayedAsync();
        var estimate = (
            await EstimatesAsync(
                visitor,
                new EstimateWish(1, [new AskedKeyword("piano tuning", MatchType.Phrase, 11)], Bids)
            )
        ).Single();
        estimate.Reason.ShouldBeNull();
        for (var at = 1; at < Bids.Length; at++)
        {
            estimate.Weeks[at].Impressions.ShouldBeGreaterThanOrEqualTo(estimate.Weeks[at - 1].Impressions);
            estimate.Weeks[at].Clicks.ShouldBeGreaterThanOrEqualTo(estimate.Weeks[at - 1].Clicks);
            estimate.Weeks[at].Cost.ShouldBeGreaterThanOrEqualTo(estimate.Weeks[at - 1].Cost);
        }

        estimate.Top!.Value.ShouldBeGreaterThanOrEqualTo(estimate.FirstPage!.Value);
    }

    [Fact]
    public async Task An_estimate_errs_but_is_of_the_order_of_what_came_true()
    {
        var visitor = await PlayedAsync();
        var estimate = (
            await EstimatesAsync(
                visitor,
                new EstimateWish(1, [new AskedKeyword("piano tuning", MatchType.Phrase, 11)], [1.10m])
            )
        ).Single();
        var came = (
            await fixture.Http.GetFromJsonAsync<List<PerformanceRow>>(
                $"v1/accounts/{visitor.AccountId}/reports?first=2026-03-23&last=2026-03-29"
            )
        )!;
        (estimate.Weeks[0].Impressions / came.Sum(row => row.Impressions)).ShouldBeInRange(0.5, 2);
        ((double)estimate.Weeks[0].Cost / (double)came.Sum(row => row.Cost)).ShouldBeInRange(0.4, 2.5);
    }

    [Fact]
    public async Task What_hardly_anybody_searches_for_has_no_estimate_and_says_why()
    {
        var visitor = await PlayedAsync();
        var estimate = (
            await EstimatesAsync(
                visitor,
                new EstimateWish(null, [new AskedKeyword("harpsichord plectrum voicing", MatchType.Exact)], Bids)
            )
        ).Single();
        estimate.Reason.ShouldNotBeNull();
        estimate.Weeks.ShouldBeEmpty();
    }

    [Fact]
    public async Task More_keywords_than_at_once_are_refused()
    {
        var visitor = await PlayedAsync();
        var many = Enumerable.Range(0, 41).Select(n => new AskedKeyword($"piano {n}", MatchType.Broad)).ToArray();
        (await AskAsync(visitor, new EstimateWish(null, many, Bids))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }
}
