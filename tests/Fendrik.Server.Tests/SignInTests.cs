using System.Net;
using System.Text.Json;
using Fendrik.Tests.Shared;
using Npgsql;

namespace Fendrik.Server.Tests;

/// <summary>Sign-ins are kept by the server: what is ended is ended at once.</summary>
[Collection(nameof(ServerFixture))]
public class SignInTests(ServerFixture fixture)
{
    /// <summary>What a thief would have: the cookies of a visitor, in a browser of its own.</summary>
    private HttpClient Copied(Visitor visitor)
    {
        var cookies = new CookieContainer();
        foreach (var cookie in visitor.Cookies)
        {
            cookies.Add(new Cookie(cookie.Name, cookie.Value, cookie.Path, cookie.Domain));
        }

        return new HttpClient(new HttpClientHandler { CookieContainer = cookies })
        {
            BaseAddress = new Uri(fixture.Host.Address),
        };
    }

    private static async Task<string?> PersonAsync(HttpClient http)
    {
        using var session = JsonDocument.Parse(await http.GetStringAsync("/api/session"));
        return session.RootElement.GetProperty("person").GetString();
    }

    [Fact]
    public async Task A_copied_cookie_is_worth_nothing_once_its_sign_in_is_ended()
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;
        using var copy = Copied(visitor);
        (await PersonAsync(copy)).ShouldNotBeNull();

        (await visitor.SendAsync(HttpMethod.Delete, "/api/session")).EnsureSuccessStatusCode();

        (await PersonAsync(copy)).ShouldBeNull();
    }

    [Fact]
    public async Task Who_signs_in_over_somebody_else_does_not_take_over_their_key()
    {
        var (account, first, _) = await fixture.Host.NewAccountAsync();
        using var __ = first;
        using var copy = Copied(first);

        (await first.SignInAsync(ServerHost.Password)).ShouldBe(HttpStatusCode.Conflict);
        (await first.SignInAsync(ServerHost.Password)).ShouldBe(HttpStatusCode.NoContent);

        (await PersonAsync(copy)).ShouldBeNull();
        (await first.GetAsync($"/api/accounts/{account}/status")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_cookie_says_nothing_of_its_person_and_the_database_has_no_key_to_it()
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;
        await using var source = NpgsqlDataSource.Create(fixture.Host.Database);
        await using var command = source.CreateCommand(
            "select count(*) from sign_in where position($1::bytea in ticket) > 0 or position($1::bytea in key_hash) > 0"
        );
        command.Parameters.Add(new NpgsqlParameter { Value = System.Text.Encoding.UTF8.GetBytes(visitor.Email) });

        (await command.ExecuteScalarAsync()).ShouldBe(0L);
    }

    [Fact]
    public async Task A_person_sees_their_sign_ins_and_ends_one_or_all_others()
    {
        var (account, first, _) = await fixture.Host.NewAccountAsync();
        using var __ = first;
        using var second = new Visitor(fixture.Host.Address, first.Email);
        using var third = new Visitor(fixture.Host.Address, first.Email);
        await second.SignInAsync(ServerHost.Password);
        await third.SignInAsync(ServerHost.Password);

        var all = (await second.ReadAsync("/api/session/sign-ins")).GetProperty("signIns").EnumerateArray().ToArray();
        all.Length.ShouldBe(3);
        var own = all.Where(each => each.GetProperty("isThis").GetBoolean()).ShouldHaveSingleItem();
        own.GetProperty("address").GetString().ShouldNotBeNullOrEmpty();

        (
            await first.SendAsync(HttpMethod.Delete, $"/api/session/sign-ins/{own.GetProperty("id").GetString()}")
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await second.GetAsync($"/api/accounts/{account}/status")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await first.SendAsync(HttpMethod.Delete, "/api/session/sign-ins")).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await third.GetAsync($"/api/accounts/{account}/status")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await first.GetAsync($"/api/accounts/{account}/status")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Nobody_ends_the_sign_in_of_somebody_else()
    {
        var (account, mine, _) = await fixture.Host.NewAccountAsync();
        using var __ = mine;
        using var colleague = await fixture.Host.AddPersonAsync(account);
        var theirs = (await colleague.ReadAsync("/api/session/sign-ins"))
            .GetProperty("signIns")[0]
            .GetProperty("id")
            .GetString();

        (await mine.SendAsync(HttpMethod.Delete, $"/api/session/sign-ins/{theirs}")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await colleague.GetAsync($"/api/accounts/{account}/status")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_new_password_ends_all_other_sign_ins_and_the_old_one_opens_nothing()
    {
        var (account, first, _) = await fixture.Host.NewAccountAsync();
        using var __ = first;
        using var second = new Visitor(fixture.Host.Address, first.Email);
        await second.SignInAsync(ServerHost.Password);
        const string Next = "a longer sentence 7";

        (
            await first.SendAsync(
                HttpMethod.Put,
                "/api/session/password",
                new { current = ServerHost.Password, next = Next }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        (await second.GetAsync($"/api/accounts/{account}/status")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await first.GetAsync($"/api/accounts/{account}/status")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await second.SignInAsync(ServerHost.Password)).ShouldBe(HttpStatusCode.Unauthorized);
        (await second.SignInAsync(Next)).ShouldBe(HttpStatusCode.NoContent);
    }

    [Theory]
    [InlineData("not mine", "a longer sentence 7", "current")]
    [InlineData(null, "short", "next")]
    public async Task A_password_that_cannot_be_is_refused_by_its_field(string? current, string next, string field)
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;

        using var response = await visitor.SendAsync(
            HttpMethod.Put,
            "/api/session/password",
            new { current = current ?? ServerHost.Password, next }
        );

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await response.Content.ReadAsStringAsync()).ShouldContain($"\"{field}\"");
    }

    [Fact]
    public async Task What_was_tried_is_told_to_the_person()
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;
        using var stranger = new Visitor(fixture.Host.Address, visitor.Email);
        await stranger.SignInAsync("a guess that is wrong");

        (await visitor.ReadAsync("/api/session/sign-ins"))
            .GetProperty("attempts")
            .EnumerateArray()
            .Select(attempt => attempt.GetProperty("wentWell").GetBoolean())
            .ShouldBe([false, true]);
    }
}
