using System.Data;
using Dapper;
using Fendrik.Core.Matching;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Microsoft.Extensions.Caching.Memory;
using Npgsql;

namespace Fendrik.Data.Tracing;

/// <summary>
/// The keywords of working copies, filed by their words. The first search that is traced files them all; after that only those
/// that steps have touched since are taken in anew.
/// </summary>
/// <remarks>
/// Only a saving: every server files them by itself, so nothing is lost with it. Bounded by size; what is used least goes first.
/// </remarks>
public sealed class KeywordMemory : IDisposable
{
    private const long MostBytes = 768L << 20;
    private const long BytesOfKeyword = 420;

    private readonly MemoryCache _kept = new(new MemoryCacheOptions { SizeLimit = MostBytes });

    /// <summary>
    /// Asks the keywords of an account as it is at one moment, which the connection then is in; nobody else asks meanwhile. The
    /// moment is taken when it is one's turn: a later one was never taken in before.
    /// </summary>
    internal async Task<T> AskAsync<T>(
        NpgsqlConnection connection,
        AccountFacts account,
        Func<KeywordIndex<long>, Task<T>> ask,
        CancellationToken cancellation
    )
    {
        var filed = _kept.Get<Filed>(account.Id) ?? new Filed(account);
        await filed.Gate.WaitAsync(cancellation);
        try
        {
            await using var moment = await connection.BeginTransactionAsync(
                IsolationLevel.RepeatableRead,
                cancellation
            );
            await filed.TakeInAsync(connection, cancellation);
            var size = Math.Min(MostBytes, 10_000 + filed.Index.Count * BytesOfKeyword);
            _kept.Set(
                account.Id,
                filed,
                new MemoryCacheEntryOptions { Size = size, SlidingExpiration = TimeSpan.FromMinutes(20) }
            );
            return await ask(filed.Index);
        }
        finally
        {
            filed.Gate.Release();
        }
    }

    public void Dispose() => _kept.Dispose();

    private sealed class Filed(AccountFacts account)
    {
        private readonly Dictionary<long, int> _numbers = [];
        private IReadOnlyList<RelatedWord> _ownWords = [];
        private long _lastStep = -1;

        public SemaphoreSlim Gate { get; } = new(1);

        public KeywordIndex<long> Index { get; private set; } = new([], account.Network.Reach);

        public async Task TakeInAsync(NpgsqlConnection connection, CancellationToken cancellation)
        {
            var (last, kept) = await connection.QuerySingleAsync<(long Last, long Kept)>(
                "select last_step_id, history_from from account where id = @Id",
                new { account.Id }
            );
            if (last == _lastStep)
            {
                return;
            }

            var own = await OwnWords.ReadAsync(connection, account.Id);
            if (!own.Select(Written).SequenceEqual(_ownWords.Select(Written)))
            {
                (_ownWords, _lastStep) = (own, -1);
            }

            if (_lastStep + 1 < kept || _lastStep < 0)
            {
                Index = new KeywordIndex<long>([], account.Network.ReachWith(_ownWords));
                _numbers.Clear();
                await FileAsync(connection, "k.account_id = @Id and not k.removed", 0, cancellation);
            }
            else
            {
                await FileAsync(
                    connection,
                    """
                    k.account_id = @Id and k.id in (
                      select b.id from keyword_before b where b.step_id > @since and b.account_id = @Id
                      union select i.id from step_insertion n join step p on p.id = n.step_id and p.account_id = @Id
                        join keyword i on i.id between n.first_id and n.last_id and i.account_id = @Id where n.step_id > @since and n.kind = 3)
                    """,
                    _lastStep,
                    cancellation
                );
            }

            _lastStep = last;
        }

        private static string Written(RelatedWord word) =>
            $"{word.Text}\u001f{string.Join('\u001f', word.Means)}\u001f{word.Nearness}";

        private async Task FileAsync(
            NpgsqlConnection connection,
            string which,
            long since,
            CancellationToken cancellation
        )
        {
            // What stops half way is filed anew from the start the next time.
            var before = _lastStep;
            _lastStep = -1;
            var rows = connection.QueryUnbufferedAsync<(long Id, string Text, short Match, bool Removed)>(
                $"select k.id, k.text, k.match_type, k.removed from keyword k where {which}",
                new { account.Id, since },
                commandTimeout: 600
            );
            await foreach (var row in rows.WithCancellation(cancellation))
            {
                if (_numbers.Remove(row.Id, out var number))
                {
                    Index.Remove(number);
                }

                if (!row.Removed && Index.Add(row.Id, row.Text, (MatchType)row.Match) is { } added)
                {
                    _numbers[row.Id] = added;
                }
            }

            _lastStep = before;
        }
    }
}
