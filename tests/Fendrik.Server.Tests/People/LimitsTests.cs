using System.Net;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests.People;

/// <summary>Wrong attempts are waited for, by address and person together; what costs much is not asked for without end.</summary>
[Collection(nameof(ServerFixture))]
public class LimitsTests(ServerFixture fixture)
{
    // RFC 5737 sets these addresses aside for documents.
    private static string AnAddress() => $"203.0.113.{Random.Shared.Next(1, 255)}";

    private Visitor Guest(string email, string address) => new Visitor(fixture.Host.Address, email).From(address);

    private async Task<List<HttpStatusCode>> GuessAsync(string email, string address, int times)
    {
        using var guest = Guest(email, address);
        List<HttpStatusCode> ends = [];
        for (var time = 0; time < times; time++)
        {
            ends.Add(await guest.SignInAsync("a wrong guess"));
        }

        return ends;
    }

    [Fact]
    public async Task Nobody_is_locked_out_by_the_guesses_of_others()
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;
        using (var home = Guest(visitor.Email, "198.51.100.7"))
        {
            (await home.SignInAsync(ServerHost.Password)).ShouldBe(HttpStatusCode.NoContent);
        }

        // From thirty addresses, each as often as is free of a wait.
        for (var each = 1; each <= 30; each++)
        {
            await GuessAsync(visitor.Email, $"192.0.2.{each}", 4);
        }

        using var again = Guest(visitor.Email, "198.51.100.7");
        (await again.SignInAsync(ServerHost.Password)).ShouldBe(HttpStatusCode.NoContent);
        (await GuessAsync(visitor.Email, "192.0.2.200", 1)).ShouldBe([HttpStatusCode.TooManyRequests]);
    }

    /// <summary>Whether there is such a person cannot be told by what comes of guesses.</summary>
    [Fact]
    public async Task Guesses_end_alike_whether_there_is_such_a_person_or_not()
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;

        var known = await GuessAsync(visitor.Email, "198.51.100.30", 8);
        var unknown = await GuessAsync($"{Guid.NewGuid():N}@nobody.example", "198.51.100.31", 8);

        known.ShouldBe(unknown);
        known.ShouldContain(HttpStatusCode.TooManyRequests);
    }

    [Fact]
    public async Task A_hundred_guesses_at_once_are_a_hundred()
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;

        var ends = await Task.WhenAll(
            Enumerable.Range(0, 40).Select(_ => GuessAsync(visitor.Email, "198.51.100.40", 1))
        );

        ends.Count(end => end[0] == HttpStatusCode.Unauthorized).ShouldBeLessThanOrEqualTo(5);
    }

    [Fact]
    public async Task Whoever_waits_is_told_how_long()
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;
        var address = AnAddress();
        await GuessAsync(visitor.Email, address, 5);
        using var guest = Guest(visitor.Email, address);
        await guest.RefreshTokenAsync();

        using var response = await guest.SendAsync(
            HttpMethod.Post,
            "/api/session",
            new { email = visitor.Email, password = ServerHost.Password }
        );

        response.StatusCode.ShouldBe(HttpStatusCode.TooManyRequests);
        response.Headers.RetryAfter!.Delta!.Value.ShouldBeInRange(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(5));
    }

    // RFC 6585, section 4: 429 may say in Retry-After how long to wait.
    [Fact]
    public async Task Files_are_not_brought_in_without_end()
    {
        await using var host = await ServerHost.StartAsync(limitsScale: 1);
        var (account, visitor, _) = await host.NewAccountAsync();
        using var __ = visitor;
        for (var file = 0; file < 20; file++)
        {
            using var taken = await visitor.PostBytesAsync($"/api/accounts/{account}/conversions/books", [1, 2, 3]);
            taken.StatusCode.ShouldNotBe(HttpStatusCode.TooManyRequests);
        }

        using var response = await visitor.PostBytesAsync($"/api/accounts/{account}/conversions/books", [1, 2, 3]);

        response.StatusCode.ShouldBe(HttpStatusCode.TooManyRequests);
        response.Headers.RetryAfter!.Delta!.Value.ShouldBeGreaterThan(TimeSpan.Zero);
        (await visitor.GetAsync($"/api/accounts/{account}/status")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    /// <summary>What a proxy says is believed of proxies that are named, and of nobody else.</summary>
    [Fact]
    public async Task A_person_sees_from_which_address_they_were_signed_in()
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;
        using var away = Guest(visitor.Email, "198.51.100.77");
        await away.SignInAsync(ServerHost.Password);

        (await visitor.ReadAsync("/api/session/sign-ins"))
            .GetProperty("signIns")
            .EnumerateArray()
            .Select(each => each.GetProperty("address").GetString())
            .ShouldContain("198.51.100.77");
    }
}
