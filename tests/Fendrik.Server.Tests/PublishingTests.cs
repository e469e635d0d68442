using Dapper;
using Fendrik.Core.Changes;
using Fendrik.Core.Reporting;
using Fendrik.Core.Serving;
using Fendrik.Data.Model;
using Fendrik.Data.Publishing;
using Fendrik.Server.Jobs;
using Fendrik.Server.Networks;
using Fendrik.Server.Publishing;
using Fendrik.Tests.Shared;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace Fendrik.Server.Tests;

/// <summary>A publish to a network that answers as no network should, or that is stopped while it is under way.</summary>
[Collection(nameof(ServerFixture))]
public class PublishingTests(ServerFixture fixture)
{
    private const int Campaigns = PublishBatches.UsualSize + 10;

    private async Task<(int Account, long Publish)> BegunAsync()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        visitor.Dispose();
        await using var connection = new NpgsqlConnection(fixture.Host.Database);
        await connection.OpenAsync();
        await connection.ExecuteAsync(
            """
            select set_config('fendrik.step', '0', false);
            insert into campaign (account_id, name, name_key, state, rotation, delivery, people, strategy, objective, daily_budget, networks, removed, is_live, review)
              select @account, 'campaign ' || n, 'campaign ' || n, 1, 1, 1, 1, 1, 1, 25, 1, false, false, 0 from generate_series(1, @Campaigns) n
            """,
            new { account, Campaigns }
        );
        var records = fixture.Host.Application.Services.GetRequiredService<PublishRecords>();
        return (account, (await records.BeginAsync(account, "morag", null, CancellationToken.None))!.Value);
    }

    private async Task<Exception?> RunAsync(int account, long publish, Answering network, bool stop = false)
    {
        var host = fixture.Host.Application.Services;
        var source = host.GetRequiredService<NpgsqlDataSource>();
        await using var services = new ServiceCollection()
            .AddKeyedSingleton<ISearchNetwork>("ostrel", network)
            .BuildServiceProvider();
        var networks = new SearchNetworks(services, source);
        var live = new LiveCopy(
            networks,
            host.GetRequiredService<Fendrik.Data.Live.LiveDifferences>(),
            host.GetRequiredService<ReviewRecords>()
        );
        await using var connection = await source.OpenConnectionAsync();
        var job = await connection.ExecuteScalarAsync<long>(
            "insert into job (account_id, person_id, kind, subject_id, state, done, cancel_requested, attempts, made_at) values (@account, 'morag', 'publish', @publish, 3, 0, false, 0, now()) returning id",
            new { account, publish }
        );
        if (stop)
        {
            network.Asked = () =>
                fixture.Host.QueryAsync<bool>(
                    "update job set cancel_requested = true where id = @job returning true",
                    new { job }
                );
        }

        return await Record.ExceptionAsync(() =>
            new PublishSender(
                host.GetRequiredService<PublishRecords>(),
                host.GetRequiredService<PublishBatches>(),
                host.GetRequiredService<PublishAnswers>(),
                networks,
                live
            ).RunAsync(account, publish, new JobProgress(connection, job), CancellationToken.None)
        );
    }

    private Task<long> LiveAsync(int account) =>
        fixture.Host.QueryAsync<long>(
            "select count(*) from campaign where account_id = @account and is_live",
            new { account }
        );

    private Task<short> StateAsync(long publish) =>
        fixture.Host.QueryAsync<short>("select state from publish where id = @publish", new { publish });

    [Fact]
    public async Task Is_not_done_while_the_network_left_items_without_an_answer()
    {
        var (account, publish) = await BegunAsync();

        var error = await RunAsync(account, publish, new Answering(answers => answers.Skip(1)));

        error.ShouldBeOfType<NetworkUnavailableException>().Message.ShouldContain("without an answer");
        (await StateAsync(publish)).ShouldBe((short)PublishState.Interrupted);
    }

    [Fact]
    public async Task Writes_down_every_answer_that_came_when_a_person_stops_it()
    {
        var (account, publish) = await BegunAsync();
        var network = new Answering(answers => answers);

        (await RunAsync(account, publish, network, stop: true)).ShouldBeAssignableTo<OperationCanceledException>();

        network.Answered.ShouldBeGreaterThan(0);
        (await LiveAsync(account)).ShouldBe(network.Answered);
    }

    /// <summary>Takes everything, and answers what a test lets through.</summary>
    private sealed class Answering(Func<IEnumerable<NetworkAnswer>, IEnumerable<NetworkAnswer>> through)
        : ISearchNetwork
    {
        public int Answered { get; private set; }
        public Func<Task> Asked { get; set; } = () => Task.CompletedTask;

        public async Task<IReadOnlyList<NetworkAnswer>> ChangeAsync(
            int accountId,
            PublishBatch batch,
            CancellationToken cancellation
        )
        {
            await Asked();
            NetworkAnswer[] answers =
            [
                .. through(
                    batch.Changes.Select(each => new NetworkAnswer(each.Kind, each.ItemId, NetworkVerdict.Accepted))
                ),
            ];
            Answered += answers.Length;
            return answers;
        }

        public Task<IReadOnlyList<NetworkAnswer>?> CloseAsync(
            int accountId,
            string batchKey,
            CancellationToken cancellation
        ) => Task.FromResult<IReadOnlyList<NetworkAnswer>?>(null);

        public Task<NetworkClock> ClockAsync(int accountId, CancellationToken cancellation) =>
            Task.FromResult(new NetworkClock(DateTimeOffset.UnixEpoch, default, null));

        public Task<AccountPayer> PayerAsync(int accountId, CancellationToken cancellation) =>
            Task.FromResult(new AccountPayer("Tarn & Fell Pianos"));

        public Task<CarrierNumbers> NumbersAsync(int accountId, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public Task<(IReadOnlyList<string> Numbers, string? Problem)> RentAsync(
            int accountId,
            NumberWish wish,
            CancellationToken cancellation
        ) => throw new NotSupportedException();

        public Task GiveBackAsync(int accountId, string number, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public Task<AppealAnswer> AppealAsync(int accountId, Appeal appeal, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public Task SetPayerAsync(int accountId, AccountPayer payer, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public Task<SearchTrace> TraceAsync(int accountId, TraceWish wish, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public Task<NetworkReviews> ReviewsAsync(int accountId, long after, CancellationToken cancellation) =>
            Task.FromResult(new NetworkReviews(after, []));

        public Task SetUpAsync(AccountRow account, DateTimeOffset startAt, long seed, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public Task<NetworkClock> AdvanceAsync(int accountId, int hours, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public Task<NetworkItems> ItemsChangedAsync(int accountId, long after, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public Task<IReadOnlyList<NetworkPlace>> PlacesAsync(CancellationToken cancellation) =>
            throw new NotSupportedException();

        public Task<SearchTrace?> PastTraceAsync(int accountId, long search, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public Task<IReadOnlyList<SampleSearch>> SamplesAsync(
            int accountId,
            SampleQuestion question,
            CancellationToken cancellation
        ) => throw new NotSupportedException();

        public Task<IReadOnlyList<DateOnly>> ReportDaysAsync(
            int accountId,
            DateTimeOffset since,
            CancellationToken cancellation
        ) => throw new NotSupportedException();

        public IAsyncEnumerable<StandingRow> StandingsAsync(
            int accountId,
            Period days,
            CancellationToken cancellation
        ) => throw new NotSupportedException();

        public Task<IReadOnlyList<NetworkEstimate>> EstimateAsync(
            int accountId,
            EstimateWish wish,
            CancellationToken cancellation
        ) => throw new NotSupportedException();

        public Task<NetworkToday> TodayAsync(int accountId, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public Task<IReadOnlyList<StrategyRow>> StrategiesAsync(int accountId, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public IAsyncEnumerable<PaceRow> PacesAsync(int accountId, Period days, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public IAsyncEnumerable<CombinationRow> CombinationsAsync(
            int accountId,
            Period days,
            CancellationToken cancellation
        ) => throw new NotSupportedException();

        public IAsyncEnumerable<ConversionRow> ConversionsAsync(
            int accountId,
            Period days,
            CancellationToken cancellation
        ) => throw new NotSupportedException();

        public IAsyncEnumerable<CallRow> CallsAsync(int accountId, Period days, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public IAsyncEnumerable<ClickedRow> ClicksAsync(int accountId, Period days, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public Task<IReadOnlyList<BookVerdict>> TellBooksAsync(
            int accountId,
            BookedConversions books,
            CancellationToken cancellation
        ) => throw new NotSupportedException();

        public Task<string> TestClickAsync(int accountId, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public Task<ToldAnswer> TellAsync(int accountId, ToldEvent told, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public IAsyncEnumerable<ReachedRow> ReachedAsync(int accountId, Period days, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public IAsyncEnumerable<ExtensionRow> ExtensionsAsync(
            int accountId,
            Period days,
            CancellationToken cancellation
        ) => throw new NotSupportedException();

        public IAsyncEnumerable<RivalRow> RivalsAsync(int accountId, Period days, CancellationToken cancellation) =>
            throw new NotSupportedException();

        public IAsyncEnumerable<QualityRow> QualitiesAsync(
            int accountId,
            Period days,
            CancellationToken cancellation
        ) => throw new NotSupportedException();

        public IAsyncEnumerable<SearchTermRow> SearchTermsAsync(
            int accountId,
            Period days,
            CancellationToken cancellation
        ) => throw new NotSupportedException();

        public IAsyncEnumerable<PerformanceRow> ReportAsync(
            int accountId,
            Period days,
            CancellationToken cancellation
        ) => throw new NotSupportedException();

        public Task EditFromOutsideAsync(
            int accountId,
            IReadOnlyList<NetworkChange> changes,
            CancellationToken cancellation
        ) => throw new NotSupportedException();
    }
}
