using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Network.Simulation;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Serving;

/// <summary>Says where the strategies of an account stand.</summary>
public sealed class StrategyDesk(NetworkStore store)
{
    private const int SecondsOfHour = 3_600;

    /// <summary>The strategies of all campaigns whose bids are not people's alone.</summary>
    /// <returns>Empty where there is no such account.</returns>
    public async Task<IReadOnlyList<StrategyRow>> ReadAsync(string accountId, CancellationToken cancellation)
    {
        await using var connection = await store.OpenAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        if (await NetworkStore.FindAsync(connection, accountId) is not { } account)
        {
            return [];
        }

        var play = (await PlaySession.OpenAsync(connection, account, World.Shipped)).Play;
        var days = new AccountDay(account.TimeZone);
        var hour = account.Clock.ToUnixTimeSeconds() / SecondsOfHour;
        play.BeginDay(days.At(account.Clock).Day);
        play.Budgets.BeginHour(hour, play.Live.Campaigns);
        var since = (
            await connection.QueryAsync<(long Campaign, long Hour)>(
                """
                select campaign_id, min(hour) from (
                  select campaign_id, hour, strategy,
                    max(hour) filter (where strategy <> last) over (partition by campaign_id) as other, last
                  from (select campaign_id, hour, strategy, first_value(strategy) over (partition by campaign_id order by hour desc) as last
                    from campaign_hour where account_id = @accountId) h) r
                where strategy = last and (other is null or hour > other) group by campaign_id
                """,
                new { accountId }
            )
        ).ToDictionary(row => row.Campaign, row => row.Hour);
        return
        [
            .. from campaign in play.Live.Campaigns
            let now = play.Budgets.StrategyOf(campaign)
            where now is not null
            let learning = play.Budgets.LearningOf(campaign)
            orderby campaign.Id
            select new StrategyRow(
                campaign.Id,
                campaign.Strategy,
                since.TryGetValue(campaign.Id, out var first)
                    ? days.At(DateTimeOffset.FromUnixTimeSeconds(first * SecondsOfHour)).Day
                    : null,
                now.Level,
                learning.Days,
                learning.Conversions,
                learning.Needed,
                learning.IsLearning
            ),
        ];
    }
}
