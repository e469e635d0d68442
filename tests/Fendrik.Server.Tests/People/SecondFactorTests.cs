using System.Net;
using System.Text.Json;
using Fendrik.Tests.Shared;
using OtpNet;

namespace Fendrik.Server.Tests.People;

/// <summary>A code beside the password: asked for once it is confirmed, right once, replaced by recovery codes.</summary>
[Collection(nameof(ServerFixture))]
public class SecondFactorTests(ServerFixture fixture)
{
    private const string Path = "/api/session/second-factor";

    /// <summary>A person whose second factor is on, with what their device knows and their recovery codes.</summary>
    private async Task<(Visitor Visitor, Totp Device, string[] Recovery)> WithFactorAsync()
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        var given = await visitor.PostAsync(Path, new { password = ServerHost.Password });
        var device = new Totp(Base32Encoding.ToBytes(given.GetProperty("secret").GetString()!.Replace(" ", "")));
        // The step before, so that the one of now is still unused.
        var codes = await visitor.PostAsync(
            $"{Path}/confirm",
            new { code = device.ComputeTotp(DateTime.UtcNow.AddSeconds(-30)) }
        );
        return (visitor, device, [.. codes.GetProperty("codes").EnumerateArray().Select(code => code.GetString()!)]);
    }

    private async Task<HttpStatusCode> SignInAsync(Visitor who, string? code, string? password = null)
    {
        using var again = new Visitor(fixture.Host.Address, who.Email);
        return await again.SignInAsync(password ?? ServerHost.Password, code);
    }

    [Fact]
    public async Task A_password_alone_lets_nobody_in_and_says_that_a_code_is_wanted()
    {
        var (visitor, device, _) = await WithFactorAsync();
        using var __ = visitor;
        using var guest = new Visitor(fixture.Host.Address, visitor.Email);
        await guest.RefreshTokenAsync();

        using var response = await guest.SendAsync(
            HttpMethod.Post,
            "/api/session",
            new { email = visitor.Email, password = ServerHost.Password }
        );

        response.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        JsonDocument
            .Parse(await response.Content.ReadAsStringAsync())
            .RootElement.GetProperty("errors")
            .TryGetProperty("code", out _)
            .ShouldBeTrue();
        (await SignInAsync(visitor, device.ComputeTotp())).ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task A_code_opens_once()
    {
        var (visitor, device, _) = await WithFactorAsync();
        using var __ = visitor;
        var code = device.ComputeTotp();

        (await SignInAsync(visitor, code)).ShouldBe(HttpStatusCode.NoContent);
        (await SignInAsync(visitor, code)).ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task Of_two_who_show_the_same_code_at_once_one_is_let_in()
    {
        var (visitor, device, _) = await WithFactorAsync();
        using var __ = visitor;
        var code = device.ComputeTotp();

        var ends = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => SignInAsync(visitor, code)));

        ends.Count(end => end == HttpStatusCode.NoContent).ShouldBe(1);
    }

    [Fact]
    public async Task A_code_does_nothing_without_the_password()
    {
        var (visitor, device, _) = await WithFactorAsync();
        using var __ = visitor;
        var code = device.ComputeTotp();

        (await SignInAsync(visitor, code, "not the password")).ShouldBe(HttpStatusCode.Unauthorized);
        (await SignInAsync(visitor, code)).ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task A_recovery_code_opens_once_however_it_is_typed()
    {
        var (visitor, _, recovery) = await WithFactorAsync();
        using var __ = visitor;
        var typed = recovery[0].Replace("-", " ").ToLowerInvariant();

        (await SignInAsync(visitor, typed)).ShouldBe(HttpStatusCode.NoContent);
        (await SignInAsync(visitor, recovery[0])).ShouldBe(HttpStatusCode.Unauthorized);
        (await visitor.ReadAsync(Path)).GetProperty("recoveryLeft").GetInt32().ShouldBe(recovery.Length - 1);
    }

    [Fact]
    public async Task New_recovery_codes_are_in_place_of_those_of_before()
    {
        var (visitor, device, recovery) = await WithFactorAsync();
        using var __ = visitor;

        await visitor.PostAsync($"{Path}/codes", new { password = ServerHost.Password, code = device.ComputeTotp() });

        (await SignInAsync(visitor, recovery[1])).ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task Nothing_is_asked_for_before_the_device_has_shown_a_right_code()
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;
        await visitor.PostAsync(Path, new { password = ServerHost.Password });

        using var wrong = await visitor.SendAsync(HttpMethod.Post, $"{Path}/confirm", new { code = "000000" });

        wrong.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await SignInAsync(visitor, null)).ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task Whoever_took_over_a_screen_cannot_turn_it_off()
    {
        var (visitor, device, _) = await WithFactorAsync();
        using var __ = visitor;

        using var without = await visitor.SendAsync(
            HttpMethod.Post,
            $"{Path}/off",
            new { password = ServerHost.Password }
        );
        using var with = await visitor.SendAsync(
            HttpMethod.Post,
            $"{Path}/off",
            new { password = ServerHost.Password, code = device.ComputeTotp() }
        );

        without.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        with.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await SignInAsync(visitor, null)).ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task The_database_knows_neither_the_secret_nor_the_recovery_codes()
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;
        var given = await visitor.PostAsync(Path, new { password = ServerHost.Password });
        var secret = Base32Encoding.ToBytes(given.GetProperty("secret").GetString()!.Replace(" ", ""));

        (
            await fixture.Host.QueryAsync<long>(
                "select count(*) from second_factor where position(@secret::bytea in secret) > 0",
                new { secret }
            )
        ).ShouldBe(0);
    }
}
