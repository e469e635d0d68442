using System.Net;
using Fendrik.Core.Networks;

namespace Fendrik.Server.Tests;

/// <summary>Who pays an account is said to its network, and what nobody pays for does not serve.</summary>
[Collection(nameof(ServerFixture))]
public class PayerTests(ServerFixture fixture)
{
    [Fact]
    public async Task Without_a_payer_an_account_has_a_caution_and_serves_nothing_until_one_is_named()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        var of = $"/api/accounts/{account}";
        async Task<bool> ServesAsync() => (
                await visitor.PostAsync(
                    $"{of}/trace",
                    new
                    {
                        text = "piano tuning",
                        device = "phone",
                        site = "search",
                        copy = "live",
                    }
                )
            ).GetProperty("hasPayer").GetBoolean();
        async Task SayAsync(string? name)
        {
            using var response = await visitor.SendAsync(HttpMethod.Put, $"{of}/payer", new { name });
            response.EnsureSuccessStatusCode();
        }

        async Task<string[]> FoundAsync() =>
            [
                .. (await visitor.ReadAsync($"{of}/checks"))
                    .GetProperty("ofAccount")
                    .EnumerateArray()
                    .Select(each => each.GetProperty("code").GetString()!),
            ];

        (await visitor.ReadAsync($"{of}/payer")).GetProperty("name").GetString().ShouldBe("Tarn & Fell Pianos");
        (await FoundAsync()).ShouldBeEmpty();
        (await ServesAsync()).ShouldBeTrue();

        await SayAsync(null);
        (await FoundAsync()).ShouldBe(["payer-missing"]);
        (await ServesAsync()).ShouldBeFalse();

        await SayAsync(" Fell & Sons ");
        (await visitor.ReadAsync($"{of}/payer")).GetProperty("name").GetString().ShouldBe("Fell & Sons");
        (await FoundAsync()).ShouldBeEmpty();
        (await ServesAsync()).ShouldBeTrue();
        visitor.Dispose();
    }

    [Theory]
    [InlineData("")]
    [InlineData("two\nlines")]
    public async Task A_name_that_is_none_is_refused(string name)
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();

        using var response = await visitor.SendAsync(HttpMethod.Put, $"/api/accounts/{account}/payer", new { name });

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await response.Content.ReadAsStringAsync()).ShouldContain($"1 to {AccountPayer.LongestName} characters");
        visitor.Dispose();
    }
}
