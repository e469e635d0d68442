using System.Net.Http.Json;
using Fendrik.Core.Networks;
using Fendrik.Tests.Shared;

namespace Fendrik.Network.Tests;

/// <summary>Campaigns show to people of their languages.</summary>
public class LanguagePlayTests(NetworkFixture fixture) : IClassFixture<NetworkFixture>
{
    private async Task<string[]> PlacesAsync(string? languages)
    {
        var visitor = new NetworkVisitor(fixture.Http, $"language-{Guid.NewGuid():N}");
        await visitor.SetUpAsync(8);
        await visitor.PutAsync(
            new Campaign(
                1,
                "Tuning",
                ItemState.Running,
                500,
                null,
                null,
                SiteKinds.Search | SiteKinds.Partners,
                Languages: languages
            ),
            new AdGroup(10, 1, "Tuning", ItemState.Running, 1.10m),
            new Keyword(11, 10, "piano tuning", MatchType.Broad, ItemState.Running, null, null),
            new Keyword(12, 10, "piano", MatchType.Broad, ItemState.Running, null, null),
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
        await visitor.AdvanceAsync(24 * 21);
        return
        [
            .. (
                await fixture.Http.GetFromJsonAsync<List<ReachedRow>>(
                    $"v1/accounts/{visitor.AccountId}/reached?first=2026-03-16&last=2026-04-05"
                )
            )!
                .Where(row => row.By is ReachedBy.Place or ReachedBy.Interest && row.Impressions > 0)
                .Select(row => row.Name)
                .Distinct(),
        ];
    }

    [Fact]
    public async Task A_campaign_in_English_leaves_out_people_whose_devices_speak_another_language()
    {
        var all = await PlacesAsync(null);
        var english = await PlacesAsync("en");
        var dutch = await PlacesAsync("nl");

        english.ShouldBeSubsetOf(all);
        english.ShouldContain("leeds");
        dutch.ShouldNotContain("leeds");
        english.Intersect(dutch).ShouldBeEmpty();
        // Somebody abroad is among those who are reached when nobody is left out.
        all.Except(english).ShouldNotBeEmpty();
    }
}
