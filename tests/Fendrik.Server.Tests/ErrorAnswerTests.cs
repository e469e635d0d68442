using System.Collections.Concurrent;
using System.Net;
using System.Text.Json;
using Fendrik.Tests.Shared;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;

namespace Fendrik.Server.Tests;

/// <summary>What a person sees of an error, and what whoever runs Fendrik finds of it (RFC 9457).</summary>
public class ErrorAnswerTests
{
    private sealed class Kept : ILoggerProvider, ILogger
    {
        public ConcurrentQueue<string> Lines { get; } = new();

        public ILogger CreateLogger(string categoryName) => this;

        public IDisposable? BeginScope<TState>(TState state)
            where TState : notnull => null;

        public bool IsEnabled(LogLevel logLevel) => logLevel >= LogLevel.Error;

        public void Log<TState>(
            LogLevel logLevel,
            EventId eventId,
            TState state,
            Exception? exception,
            Func<TState, Exception?, string> formatter
        )
        {
            if (IsEnabled(logLevel))
            {
                Lines.Enqueue($"{formatter(state, exception)} {exception?.GetType().Name}");
            }
        }

        public void Dispose() { }
    }

    [Fact]
    public async Task An_unexpected_error_is_logged_once_under_the_id_that_the_person_sees()
    {
        var kept = new Kept();
        await using var host = await ServerHost.StartAsync(otherwise: services =>
            services.AddSingleton<ILoggerProvider>(kept)
        );
        var (account, visitor, _) = await host.NewAccountAsync();
        await host.QueryAsync<int>("alter table saved_view rename to lost; select 1");

        using var response = await visitor.GetAsync($"/api/accounts/{account}/views");

        response.StatusCode.ShouldBe(HttpStatusCode.InternalServerError);
        response.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        var problem = JsonDocument.Parse(await response.Content.ReadAsStringAsync()).RootElement;
        problem.GetProperty("status").GetInt32().ShouldBe(500);
        var id = problem.GetProperty("traceId").GetString()!;
        problem.GetProperty("title").GetString()!.ShouldContain(id);
        kept.Lines.Where(line => line.Contains(" failed with 500", StringComparison.Ordinal))
            .ShouldHaveSingleItem()
            .ShouldStartWith(id);
        kept.Lines.Last().ShouldContain("PostgresException");
        visitor.Dispose();
    }

    /// <summary>53100 is what PostgreSQL says of a full disk (its documentation, appendix A).</summary>
    [Fact]
    public async Task A_full_disk_is_named()
    {
        await using var host = await ServerHost.StartAsync();
        var (account, visitor, _) = await host.NewAccountAsync();
        await host.QueryAsync<int>(
            """
            create function full_disk() returns trigger language plpgsql as $$ begin raise exception 'could not extend file' using errcode = '53100'; end $$;
            create trigger full_disk before insert on campaign execute function full_disk();
            select 1
            """
        );

        using var response = await visitor.SendAsync(
            HttpMethod.Post,
            $"/api/accounts/{account}/commands",
            new
            {
                type = "put",
                kind = "campaign",
                values = new { name = "Tuning", dailyBudget = "25" },
            }
        );

        response.StatusCode.ShouldBe(HttpStatusCode.InsufficientStorage);
        var title = JsonDocument
            .Parse(await response.Content.ReadAsStringAsync())
            .RootElement.GetProperty("title")
            .GetString()!;
        title.ShouldStartWith($"The disk that holds {Path.GetTempPath()} is full. Nothing was changed");
        visitor.Dispose();
    }

    [Fact]
    public async Task A_network_that_does_not_answer_is_logged_as_well()
    {
        var kept = new Kept();
        await using var host = await ServerHost.StartAsync(otherwise: services =>
            services.AddSingleton<ILoggerProvider>(kept)
        );
        var (account, visitor, _) = await host.NewAccountAsync();
        await host.StopNetworkAsync();

        using var response = await visitor.SendAsync(HttpMethod.Post, $"/api/accounts/{account}/live/read");

        response.StatusCode.ShouldBe(HttpStatusCode.BadGateway);
        var id = JsonDocument
            .Parse(await response.Content.ReadAsStringAsync())
            .RootElement.GetProperty("traceId")
            .GetString()!;
        kept.Lines.Count(line => line.Contains(id, StringComparison.Ordinal)).ShouldBe(1);
        using var ready = await visitor.GetAsync("/health/ready");
        var parts = JsonDocument.Parse(await ready.Content.ReadAsStringAsync()).RootElement.GetProperty("parts");
        (
            ready.StatusCode,
            parts.GetProperty("network").GetProperty("status").GetString(),
            parts.GetProperty("database").GetProperty("status").GetString()
        ).ShouldBe((HttpStatusCode.OK, "degraded", "healthy"));
        visitor.Dispose();
    }
}
