using System.Net;
using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests.People;

/// <summary>Who works on an account, as what; who is asked to, and how they join.</summary>
[Collection(nameof(ServerFixture))]
public class PeopleTests(ServerFixture fixture)
{
    private static async Task<string> InviteAsync(Visitor owner, int account, string email, string role) =>
        (await owner.PostAsync($"/api/accounts/{account}/invitations", new { email, role }))
            .GetProperty("key")
            .GetString()!;

    private static async Task<Dictionary<string, string>> RolesAsync(Visitor visitor, int account) =>
        (await visitor.ReadAsync($"/api/accounts/{account}/people"))
            .GetProperty("members")
            .EnumerateArray()
            .ToDictionary(
                each => each.GetProperty("email").GetString()!,
                each => each.GetProperty("role").GetString()!
            );

    private static async Task<string> IdAsync(Visitor visitor, int account, string email) =>
        (await visitor.ReadAsync($"/api/accounts/{account}/people"))
            .GetProperty("members")
            .EnumerateArray()
            .Single(each => each.GetProperty("email").GetString() == email)
            .GetProperty("personId")
            .GetString()!;

    private static string NewEmail() => $"{Guid.NewGuid():N}@tarnandfell.example";

    [Fact]
    public async Task Somebody_new_joins_by_a_link_and_is_signed_in()
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        using var __ = owner;
        var email = NewEmail();
        var key = await InviteAsync(owner, account, email, "editor");
        using var guest = new Visitor(fixture.Host.Address, email);
        await guest.RefreshTokenAsync();

        var joined = await guest.PostAsync(
            $"/api/invitations/{key}",
            new { name = "Isla Reid", password = ServerHost.Password }
        );

        joined.GetProperty("accountId").GetInt32().ShouldBe(account);
        (await RolesAsync(guest, account))[email].ShouldBe("editor");
    }

    [Fact]
    public async Task A_link_opens_once()
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        using var __ = owner;
        var key = await InviteAsync(owner, account, NewEmail(), "reader");
        using var first = new Visitor(fixture.Host.Address, "");
        await first.RefreshTokenAsync();
        await first.PostAsync($"/api/invitations/{key}", new { name = "Isla Reid", password = ServerHost.Password });
        using var second = new Visitor(fixture.Host.Address, "");
        await second.RefreshTokenAsync();

        using var response = await second.SendAsync(
            HttpMethod.Post,
            $"/api/invitations/{key}",
            new { name = "Somebody else", password = ServerHost.Password }
        );

        response.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_link_that_was_taken_back_or_is_too_old_opens_nothing()
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        using var __ = owner;
        var taken = await owner.PostAsync(
            $"/api/accounts/{account}/invitations",
            new { email = NewEmail(), role = "reader" }
        );
        var old = await InviteAsync(owner, account, NewEmail(), "reader");
        var id = taken.GetProperty("invitation").GetProperty("id").GetString();
        (
            await owner.SendAsync(HttpMethod.Delete, $"/api/accounts/{account}/invitations/{id}")
        ).EnsureSuccessStatusCode();
        await fixture.Host.QueryAsync<int>(
            "with aged as (update invitation set expires_at = now() - interval '1 second' where account_id = @account returning 1) select count(*)::int from aged",
            new { account }
        );

        foreach (var key in new[] { taken.GetProperty("key").GetString(), old })
        {
            (await owner.GetAsync($"/api/invitations/{key}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        }
    }

    [Fact]
    public async Task Whoever_was_asked_again_joins_by_the_new_link_only()
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        using var __ = owner;
        var email = NewEmail();
        var before = await InviteAsync(owner, account, email, "owner");
        var after = await InviteAsync(owner, account, email.ToUpperInvariant(), "reader");

        (await owner.GetAsync($"/api/invitations/{before}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await owner.ReadAsync($"/api/invitations/{after}")).GetProperty("roleName").GetString().ShouldBe("reader");
    }

    [Fact]
    public async Task Somebody_who_signs_in_already_joins_as_themselves_and_nobody_else_does()
    {
        var (mine, owner, _) = await fixture.Host.NewAccountAsync();
        var (_, other, _) = await fixture.Host.NewAccountAsync();
        var (_, third, _) = await fixture.Host.NewAccountAsync();
        using var __ = owner;
        var key = await InviteAsync(owner, mine, other.Email, "publisher");
        using var stranger = new Visitor(fixture.Host.Address, "");
        await stranger.RefreshTokenAsync();

        using var unknown = await stranger.SendAsync(
            HttpMethod.Post,
            $"/api/invitations/{key}",
            new { name = "Somebody", password = ServerHost.Password }
        );
        using var wrong = await third.SendAsync(HttpMethod.Post, $"/api/invitations/{key}", new { });
        await other.PostAsync($"/api/invitations/{key}", new { });

        unknown.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        wrong.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await RolesAsync(owner, mine)).ShouldBe(
            new Dictionary<string, string> { [owner.Email] = "owner", [other.Email] = "publisher" },
            ignoreOrder: true
        );
        other.Dispose();
        third.Dispose();
    }

    [Fact]
    public async Task Invitations_are_told_to_owners_only()
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        using var __ = owner;
        using var publisher = await fixture.Host.AddPersonAsync(AccountRole.Publisher, account);
        await InviteAsync(owner, account, NewEmail(), "owner");

        (await owner.ReadAsync($"/api/accounts/{account}/people"))
            .GetProperty("invitations")
            .GetArrayLength()
            .ShouldBe(1);
        (await publisher.ReadAsync($"/api/accounts/{account}/people"))
            .GetProperty("invitations")
            .GetArrayLength()
            .ShouldBe(0);
    }

    [Fact]
    public async Task A_changed_role_ends_sign_ins_and_holds_at_the_next_one()
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        using var __ = owner;
        using var editor = await fixture.Host.AddPersonAsync(AccountRole.Editor, account);
        var id = await IdAsync(owner, account, editor.Email);

        (
            await owner.SendAsync(HttpMethod.Put, $"/api/accounts/{account}/people/{id}", new { role = "reader" })
        ).EnsureSuccessStatusCode();

        (await editor.GetAsync($"/api/accounts/{account}/status")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        await editor.SignInAsync(ServerHost.Password);
        using var refused = await editor.SendAsync(HttpMethod.Post, $"/api/accounts/{account}/undo");
        refused.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        var problem = JsonDocument.Parse(await refused.Content.ReadAsStringAsync()).RootElement;
        problem
            .GetProperty("title")
            .GetString()
            .ShouldBe(
                "You are a reader of this account: you may look, and not change. Ask an owner to make you an editor."
            );
    }

    [Fact]
    public async Task News_of_an_account_end_for_whoever_is_removed_from_it()
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        using var __ = owner;
        using var editor = await fixture.Host.AddPersonAsync(AccountRole.Editor, account);
        using var news = await editor.ListenAsync($"/api/accounts/{account}/news");
        await news.NextAsync();
        var id = await IdAsync(owner, account, editor.Email);

        (await owner.SendAsync(HttpMethod.Delete, $"/api/accounts/{account}/people/{id}")).EnsureSuccessStatusCode();
        await owner.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "put",
                kind = "campaign",
                values = new { name = "North" },
            }
        );

        await Should.ThrowAsync<EndOfStreamException>(news.NextAsync);
    }

    [Fact]
    public async Task The_last_owner_stays()
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        using var __ = owner;
        var id = await IdAsync(owner, account, owner.Email);

        using var demoted = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/accounts/{account}/people/{id}",
            new { role = "reader" }
        );
        using var removed = await owner.SendAsync(HttpMethod.Delete, $"/api/accounts/{account}/people/{id}");

        demoted.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        removed.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    /// <summary>Two owners who remove each other at once: one of them stays.</summary>
    [Fact]
    public async Task Of_two_owners_who_remove_each_other_one_stays()
    {
        var (account, first, _) = await fixture.Host.NewAccountAsync();
        using var second = await fixture.Host.AddPersonAsync(account);
        var (idOfFirst, idOfSecond) = (
            await IdAsync(first, account, first.Email),
            await IdAsync(first, account, second.Email)
        );

        await Task.WhenAll(
            first.SendAsync(HttpMethod.Delete, $"/api/accounts/{account}/people/{idOfSecond}"),
            second.SendAsync(HttpMethod.Delete, $"/api/accounts/{account}/people/{idOfFirst}")
        );

        (
            await fixture.Host.QueryAsync<int>(
                "select count(*)::int from account_member where account_id = @account and role = 4",
                new { account }
            )
        ).ShouldBe(1);
        first.Dispose();
    }

    [Theory]
    [InlineData("")]
    [InlineData("nobody")]
    [InlineData("a@b@c.example")]
    public async Task What_is_no_address_is_not_asked(string email)
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        using var __ = owner;

        using var response = await owner.SendAsync(
            HttpMethod.Post,
            $"/api/accounts/{account}/invitations",
            new { email, role = "reader" }
        );

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }
}
