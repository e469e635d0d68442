using Dapper;
using Fendrik.Core.Items.Kinds;
using Fendrik.Core.Reporting;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>What is known of a campaign.</summary>
/// <param name="Id">The campaign.</param>
/// <param name="Name">Its name.</param>
/// <param name="Truth">How the network has it; nothing of today.</param>
public sealed record CampaignTruthRow(long Id, string Name, CampaignTruth Truth);

/// <summary>Reads what campaigns truly do.</summary>
public sealed class ConditionReader(NpgsqlDataSource source)
{
    /// <summary>The campaigns of the working copy that are not removed, as the network has them.</summary>
    public async Task<IReadOnlyList<CampaignTruthRow>> ReadAsync(
        int accountId,
        int most,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var campaign = ItemTable.Of(ItemKind.Campaign);
        var group = ItemTable.Of(ItemKind.AdGroup);
        // The switch that the network knows: that of before an edit which is not published.
        static string Live(ItemTable table, string row, string field, string type) =>
            $"case when {row}.live is not null then ({row}.live ->> '{field}')::{type} else {row}.{table.Type[field].Column} end";
        var ads = string.Join(
            " union all ",
            ItemTable
                .All.Where(table => table.Type is AdType)
                .Select(table =>
                    $"select a.ad_group_id, a.review from {table.Name} a where a.account_id = @accountId and a.is_live and {Live(table, "a", "state", "int")} = {(int)ItemState.Running}"
                )
        );
        var rows = await connection.QueryAsync<Row>(
            new CommandDefinition(
                $"""
                with shown as (
                  select g.campaign_id, count(*) filter (where a.review = {(int)ReviewState.Approved})::int as approved,
                    count(*) filter (where a.review = {(int)
                    ReviewState.Pending})::int as in_review, count(*) filter (where a.review = {(int)
                    ReviewState.Refused})::int as refused
                  from ({ads}) a join ad_group g on g.id = a.ad_group_id and g.is_live and {Live(
                    group,
                    "g",
                    "state",
                    "int"
                )} = {(int)ItemState.Running} group by 1
                )
                select c.id, c.name, c.is_live, nullif(n.payer, '') is not null as has_payer, {Live(
                    campaign,
                    "c",
                    "state",
                    "int"
                )} as state,
                  {Live(campaign, "c", "startDate", "date")} as start, {Live(
                    campaign,
                    "c",
                    "endDate",
                    "date"
                )} as "end",
                  coalesce(s.approved, 0) as approved, coalesce(s.in_review, 0) as in_review, coalesce(s.refused, 0) as refused
                from campaign c join account n on n.id = c.account_id left join shown s on s.campaign_id = c.id
                where c.account_id = @accountId and not c.removed order by c.name, c.id limit @most
                """,
                new { accountId, most },
                cancellationToken: cancellation
            )
        );
        return
        [
            .. rows.Select(row => new CampaignTruthRow(
                row.Id,
                row.Name,
                new CampaignTruth(
                    row.IsLive,
                    row.HasPayer,
                    row.State,
                    row.Start,
                    row.End,
                    row.Approved,
                    row.InReview,
                    row.Refused,
                    null
                )
            )),
        ];
    }

    private sealed record Row
    {
        public long Id { get; init; }
        public string Name { get; init; } = "";
        public bool IsLive { get; init; }
        public bool HasPayer { get; init; }
        public ItemState State { get; init; }
        public DateOnly? Start { get; init; }
        public DateOnly? End { get; init; }
        public int Approved { get; init; }
        public int InReview { get; init; }
        public int Refused { get; init; }
    }
}
