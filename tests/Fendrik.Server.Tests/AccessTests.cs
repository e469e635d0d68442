using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Fendrik.Core.Accounts;
using Fendrik.Server.Access;
using Fendrik.Tests.Shared;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Fendrik.Server.Tests;

[Collection(nameof(ServerFixture))]
public class AccessTests(ServerFixture fixture)
{
    private const string OfAccount = "/api/accounts/{accountId:int}";

    private IEnumerable<(HttpMethod Method, string Path, bool Anonymous, AccountRight Right)> Endpoints() =>
        from endpoint in fixture
            .Host.Application.Services.GetRequiredService<EndpointDataSource>()
            .Endpoints.OfType<RouteEndpoint>()
        let methods = endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods ?? ["GET"]
        from method in methods
        select (
            HttpMethod.Parse(method),
            "/" + endpoint.RoutePattern.RawText!.TrimStart('/'),
            endpoint.Metadata.GetMetadata<IAllowAnonymous>() is not null,
            EndpointRight.Of(endpoint.Metadata, method)
        );

    private static string Fill(string path, int account) =>
        path.Replace("{accountId:int}", $"{account}")
            .Replace("{campaignId:long}", "1")
            .Replace("{adGroupId:long}", "1")
            .Replace("{adId:long}", "1")
            .Replace("{actionId:long}", "1")
            .Replace("{ideaId:long}", "1")
            .Replace("{stepId:long}", "1")
            .Replace("{publishId:long}", "1")
            .Replace("{jobId:long}", "1")
            .Replace("{alertId:long}", "1")
            .Replace("{signInId:guid}", $"{Guid.Empty}")
            .Replace("{personId}", "nobody")
            .Replace("{invitationId:guid}", $"{Guid.Empty}")
            .Replace("{noteId:long}", "1")
            .Replace("{lookId:long}", "1")
            .Replace("{proposalId:long}", "1")
            .Replace("{intakeId:long}", "1")
            .Replace("{requestId:guid}", $"{Guid.Empty}")
            .Replace("{outtakeId:guid}", $"{Guid.Empty}");

    /// <summary>A request with a body of the kind that the endpoint takes; by another kind it would not be found at all.</summary>
    private static async Task<HttpResponseMessage> KnockAsync(Visitor visitor, HttpMethod method, string path)
    {
        if (
            path.EndsWith("/intakes", StringComparison.Ordinal)
            || path.Contains("/trace/terms", StringComparison.Ordinal)
            || path.EndsWith("/conversions/books", StringComparison.Ordinal)
        )
        {
            return await visitor.PostBytesAsync(path, [1, 2, 3]);
        }

        return await visitor.SendAsync(method, path, method == HttpMethod.Get ? null : new { });
    }

    [Fact]
    public void Says_of_every_endpoint_who_may_call_it()
    {
        var known = Endpoints().ToArray();

        known.Length.ShouldBeGreaterThan(25);
        known
            .Where(each => each.Anonymous)
            .Select(each => $"{each.Method} {each.Path}")
            .Order()
            .ShouldBe(
                [
                    "GET /api/{**rest}",
                    "GET /api/invitations/{key}",
                    "GET /api/session",
                    "GET /health",
                    "GET /health/live",
                    "GET /health/ready",
                    "GET /openapi/{documentName}.json",
                    "GET /schemas/account-1.json",
                    "GET /{*path:nonfile}",
                    "HEAD /{*path:nonfile}",
                    "POST /api/invitations/{key}",
                    "POST /api/session",
                ],
                ignoreOrder: true
            );
    }

    [Fact]
    public async Task Lets_nobody_in_who_is_not_signed_in()
    {
        using var stranger = new Visitor(fixture.Host.Address, "nobody@tarnandfell.example");
        foreach (var (method, path, _, _) in Endpoints().Where(each => !each.Anonymous))
        {
            using var response = await KnockAsync(stranger, method, Fill(path, 1));

            response.StatusCode.ShouldBe(HttpStatusCode.Unauthorized, $"{method} {path}");
        }
    }

    [Fact]
    public async Task Shows_nothing_of_an_account_to_those_who_do_not_belong_to_it()
    {
        var (mine, visitor, _) = await fixture.Host.NewAccountAsync();
        var (other, _, _) = await fixture.Host.NewAccountAsync();
        foreach (
            var (method, path, _, _) in Endpoints()
                .Where(each => each.Path.StartsWith(OfAccount, StringComparison.Ordinal))
        )
        {
            using var response = await KnockAsync(visitor, method, Fill(path, other));

            response.StatusCode.ShouldBe(HttpStatusCode.NotFound, $"{method} {path}");
        }

        (await visitor.StatusAsync(mine)).GetProperty("changes").GetInt64().ShouldBe(0);
        visitor.Dispose();
    }

    /// <summary>Whatever is no plain reading or changing says so, and stands here: a new endpoint is decided upon.</summary>
    [Fact]
    public void Says_of_every_endpoint_of_an_account_what_it_needs()
    {
        string[] Needing(AccountRight right, bool read) =>
            [
                .. Endpoints()
                    .Where(each => each.Path.StartsWith(OfAccount, StringComparison.Ordinal))
                    .Where(each => each.Right == right && (each.Method == HttpMethod.Get) == read)
                    .Select(each => $"{each.Method} {each.Path[OfAccount.Length..]}")
                    .Order(StringComparer.Ordinal),
            ];

        Needing(AccountRight.Change, read: true).ShouldBeEmpty();
        Needing(AccountRight.Publish, read: true).ShouldBeEmpty();
        Needing(AccountRight.People, read: true).ShouldBeEmpty();
        Needing(AccountRight.People, read: false)
            .ShouldBe([
                "DELETE /invitations/{invitationId:guid}",
                "DELETE /people/{personId}",
                "POST /invitations",
                "PUT /archived",
                "PUT /name",
                "PUT /people/{personId}",
            ]);
        Needing(AccountRight.Publish, read: false)
            .ShouldBe([
                "POST /appeals",
                "POST /calls/numbers",
                "POST /calls/numbers/back",
                "POST /clock",
                "POST /looks/{lookId:long}/publish",
                "POST /looks/{lookId:long}/return",
                "POST /publishes",
                "POST /publishes/{publishId:long}/abandon",
                "POST /publishes/{publishId:long}/continue",
                "PUT /payer",
            ]);
        // What is asked with much to say is sent, and changes nothing all the same; what is thought of it may be said by all who see it.
        Needing(AccountRight.Look, read: false)
            .ShouldBe([
                "DELETE /looks/{lookId:long}/proposals/{proposalId:long}",
                "DELETE /views/{name}",
                "POST /ads/arranged",
                "POST /ads/combined",
                "POST /ads/patterned",
                "POST /bids/campaigns/{campaignId:long}/estimates/planned",
                "POST /bids/campaigns/{campaignId:long}/proposals",
                "POST /budgets/plan",
                "POST /duplicates",
                "POST /hours",
                "POST /hours/calendar",
                "POST /hours/part",
                "POST /links/try",
                "POST /looks/{lookId:long}/proposals",
                "POST /looks/{lookId:long}/remarks",
                "POST /negatives/forms",
                "POST /outtakes",
                "POST /places/read",
                "POST /results/measures/read",
                "POST /sheet",
                "POST /sheet/count",
                "POST /sheet/place",
                "POST /sheet/totals",
                "POST /terms",
                "POST /terms/file",
                "POST /terms/negatives",
                "POST /terms/proposal",
                "POST /texts/insertion",
                "POST /texts/read",
                "POST /texts/with-searches",
                "POST /trace",
                "POST /trace/terms",
                "POST /word-lists",
                "PUT /views/{name}",
            ]);
    }

    [Theory]
    [InlineData(AccountRole.Reader)]
    [InlineData(AccountRole.Editor)]
    [InlineData(AccountRole.Publisher)]
    [InlineData(AccountRole.Owner)]
    public async Task Lets_each_role_do_what_it_may_and_nothing_more(AccountRole role)
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        using var visitor = await fixture.Host.AddPersonAsync(role, account);
        foreach (
            var (method, path, _, right) in Endpoints()
                .Where(each => each.Path.StartsWith(OfAccount, StringComparison.Ordinal))
                // News go on for as long as somebody listens.
                .Where(each => !each.Path.EndsWith("/news", StringComparison.Ordinal))
        )
        {
            using var response = await KnockAsync(visitor, method, Fill(path, account));

            (response.StatusCode == HttpStatusCode.Forbidden).ShouldBe(!role.May(right), $"{method} {path}");
        }

        owner.Dispose();
    }

    [Fact]
    public async Task Refuses_a_change_without_the_token_against_forged_requests()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        visitor.ForgetToken();

        using var response = await visitor.SendAsync(HttpMethod.Post, $"/api/accounts/{account}/undo");

        response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task Locks_out_after_five_wrong_passwords()
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var guesser = new Visitor(fixture.Host.Address, visitor.Email);
        for (var attempt = 0; attempt < 4; attempt++)
        {
            (await guesser.SignInAsync("wrong")).ShouldBe(HttpStatusCode.Unauthorized);
        }

        await guesser.SignInAsync("wrong");

        (await guesser.SignInAsync(ServerHost.Password)).ShouldBe(HttpStatusCode.TooManyRequests);
    }

    [Fact]
    public async Task Answers_alike_whether_a_person_exists_or_not()
    {
        using var nobody = new Visitor(fixture.Host.Address, "nobody@tarnandfell.example");

        (await nobody.SignInAsync("whatever it is")).ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task Lets_no_script_run_that_it_does_not_serve()
    {
        using var http = new HttpClient();
        using var response = await http.GetAsync(fixture.Host.Address + "/health");

        var policy = response.Headers.GetValues("Content-Security-Policy").Single();
        policy.ShouldContain("script-src 'self';");
        policy.ShouldContain("frame-ancestors 'none'");
        response.Headers.GetValues("X-Content-Type-Options").Single().ShouldBe("nosniff");
        response.Headers.Contains("Server").ShouldBeFalse();
    }

    [Fact]
    public async Task Keeps_people_signed_in_when_the_server_is_started_again()
    {
        await using var host = await ServerHost.StartAsync();
        var (_, visitor, _) = await host.NewAccountAsync();

        await host.RestartAsync();

        (await visitor.PersonAtAsync(host.Address)).ShouldBe("Morag Kerr");
        visitor.Dispose();
    }

    [Fact]
    public async Task Is_described_by_the_document_that_the_front_end_was_made_from()
    {
        using var http = new HttpClient();
        var served = JsonNode.Parse(await http.GetStringAsync(fixture.Host.Address + "/openapi/v1.json"))!.AsObject();
        var committed = JsonNode
            .Parse(await File.ReadAllTextAsync(Repository.PathTo("src", "web", "src", "api", "openapi.json")))!
            .AsObject();
        served.Remove("servers");
        committed.Remove("servers");
        served["openapi"]!.GetValue<string>().ShouldStartWith("3.1");
        JsonNode
            .DeepEquals(served, committed)
            .ShouldBeTrue("Run the server and: npm run api (see docs/design/front-end.md).");
    }

    [Fact]
    public async Task Describes_the_kinds_as_the_tests_of_the_front_end_take_them_to_be()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        var served = JsonNode.Parse((await visitor.ReadAsync($"/api/accounts/{account}/kinds")).GetRawText());
        var committed = JsonNode.Parse(
            await File.ReadAllTextAsync(Repository.PathTo("src", "web", "src", "api", "kinds.json"))
        );

        JsonNode
            .DeepEquals(served, committed)
            .ShouldBeTrue("Run the server and keep what /api/accounts/1/kinds answers in src/web/src/api/kinds.json.");
        visitor.Dispose();
    }
}
