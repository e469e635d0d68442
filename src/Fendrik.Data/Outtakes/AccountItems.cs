using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Intake;
using Fendrik.Data.Steps;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Data.Outtakes;

/// <summary>
/// All items of an account, or the selected ones, as rows for a file: parents first, within a kind by campaign, ad group
/// and text. Rows are streamed; what stays in memory is the names of campaigns, lists and ad groups.
/// </summary>
internal sealed class AccountItems(
    NpgsqlConnection connection,
    int accountId,
    bool selectedOnly,
    CancellationToken cancellation
)
{
    /// <summary>Ad groups whose rows are asked for at once: enough that asking costs nothing, few enough to be sorted in memory.</summary>
    private const int GroupsAtOnce = 500;

    private sealed record Group(long Id, string Campaign, string Name);

    /// <summary>Most headlines and descriptions that an ad has.</summary>
    public async Task<(int Headlines, int Descriptions)> TextCountsAsync() =>
        await connection.QuerySingleAsync<(int, int)>(
            Command(
                $"select coalesce(max(cardinality(i.headlines)), 0), coalesce(max(cardinality(i.descriptions)), 0) from text_ad i where {Mine(ItemKind.TextAd)}"
            )
        );

    /// <summary>How many rows there will be.</summary>
    public async Task<long> CountAsync()
    {
        long count = 0;
        foreach (var table in ItemTable.All)
        {
            count += await connection.ExecuteScalarAsync<long>(
                Command(
                    table.Kind == ItemKind.NegativeList
                        ? $"select coalesce(sum(1 + cardinality(i.campaign_ids)), 0) from negative_list i where {Mine(table.Kind)}"
                        : $"select count(*) from {table.Name} i where {Mine(table.Kind)}"
                )
            );
        }

        return count;
    }

    public async IAsyncEnumerable<IntakeRow> RowsAsync()
    {
        await foreach (var row in CampaignsAsync())
        {
            yield return row;
        }

        await foreach (var row in AdGroupsAsync())
        {
            yield return row;
        }

        await foreach (var row in ListsAsync())
        {
            yield return row;
        }

        await foreach (var row in KeywordsAsync())
        {
            yield return row;
        }

        await foreach (var row in NegativesAsync())
        {
            yield return row;
        }

        await foreach (var row in AdsAsync())
        {
            yield return row;
        }
    }

    private IAsyncEnumerable<IntakeRow> CampaignsAsync() =>
        ReadAsync(
            $"""
            select i.name, i.state, i.daily_budget, i.start_date, i.end_date, i.networks, i.labels
            from campaign i where {Mine(ItemKind.Campaign)} order by i.name_key
            """,
            null,
            reader => new IntakeRow
            {
                RowNumber = 0,
                Kind = ItemKind.Campaign,
                Campaign = reader.GetString(0),
                State = (ItemState)reader.GetInt16(1),
                DailyBudget = Optional<decimal>(reader, 2),
                StartDate = Optional<DateOnly>(reader, 3),
                EndDate = Optional<DateOnly>(reader, 4),
                Networks = (SiteKinds)reader.GetInt16(5),
                Labels = Labels(reader, 6),
            }
        );

    private IAsyncEnumerable<IntakeRow> AdGroupsAsync() =>
        ReadAsync(
            $"""
            select c.name, i.name, i.state, i.max_cpc, i.labels
            from ad_group i join campaign c on c.id = i.campaign_id where {Mine(
                ItemKind.AdGroup
            )} order by c.name_key, i.name_key
            """,
            null,
            reader => new IntakeRow
            {
                RowNumber = 0,
                Kind = ItemKind.AdGroup,
                Campaign = reader.GetString(0),
                AdGroup = reader.GetString(1),
                State = (ItemState)reader.GetInt16(2),
                AdGroupMaxCpc = Optional<decimal>(reader, 3),
                Labels = Labels(reader, 4),
            }
        );

    /// <summary>A list with its labels, then a row for each campaign that it holds for.</summary>
    private IAsyncEnumerable<IntakeRow> ListsAsync() =>
        ReadAsync(
            $"""
            select i.name, c.name, case when c.name is null then i.labels else array[]::text[] end
            from negative_list i
            join lateral (select null::text as name, '' as name_key
              union all select c.name, c.name_key from campaign c where c.id = any(i.campaign_ids) and not c.removed) c on true
            where {Mine(ItemKind.NegativeList)} order by i.name_key, c.name_key
            """,
            null,
            reader => new IntakeRow
            {
                RowNumber = 0,
                Kind = ItemKind.NegativeList,
                NegativeList = reader.GetString(0),
                Campaign = reader.IsDBNull(1) ? "" : reader.GetString(1),
                Labels = Labels(reader, 2),
            }
        );

    private IAsyncEnumerable<IntakeRow> KeywordsAsync() =>
        InGroupsAsync(
            ItemTable.Of(ItemKind.Keyword),
            "i.text, i.match_type, i.state, i.max_cpc, i.final_url, i.labels",
            "i.text_key, i.match_type",
            (group, reader) =>
                new IntakeRow
                {
                    RowNumber = 0,
                    Kind = ItemKind.Keyword,
                    Campaign = group.Campaign,
                    AdGroup = group.Name,
                    Text = reader.GetString(1),
                    Match = (MatchType)reader.GetInt16(2),
                    State = (ItemState)reader.GetInt16(3),
                    MaxCpc = Optional<decimal>(reader, 4),
                    FinalUrl = reader.IsDBNull(5) ? null : reader.GetString(5),
                    Labels = Labels(reader, 6),
                }
        );

    private IAsyncEnumerable<IntakeRow> NegativesAsync() =>
        ReadAsync(
            $"""
            select l.name, c.name, g.name, i.text, i.match_type, i.labels
            from negative_keyword i
            left join negative_list l on l.id = i.list_id left join campaign c on c.id = i.campaign_id left join ad_group g on g.id = i.ad_group_id
            where {Mine(
                ItemKind.NegativeKeyword
            )} order by l.name_key nulls last, c.name_key, g.name_key nulls first, i.text_key, i.match_type
            """,
            null,
            reader => new IntakeRow
            {
                RowNumber = 0,
                Kind = ItemKind.NegativeKeyword,
                NegativeList = reader.IsDBNull(0) ? "" : reader.GetString(0),
                Campaign = reader.IsDBNull(1) ? "" : reader.GetString(1),
                AdGroup = reader.IsDBNull(2) ? "" : reader.GetString(2),
                Text = reader.GetString(3),
                Match = (MatchType)reader.GetInt16(4),
                Labels = Labels(reader, 5),
            }
        );

    private IAsyncEnumerable<IntakeRow> AdsAsync() =>
        InGroupsAsync(
            ItemTable.Of(ItemKind.TextAd),
            "i.state, i.headlines, i.descriptions, i.display_path, i.final_url, i.device_preference, i.labels",
            "i.headlines, i.content_key",
            (group, reader) =>
                new IntakeRow
                {
                    RowNumber = 0,
                    Kind = ItemKind.TextAd,
                    Campaign = group.Campaign,
                    AdGroup = group.Name,
                    State = (ItemState)reader.GetInt16(1),
                    Headlines = reader.GetFieldValue<string[]>(2),
                    Descriptions = reader.GetFieldValue<string[]>(3),
                    DisplayPath = reader.GetFieldValue<string[]>(4),
                    FinalUrl = reader.GetString(5) is { Length: > 0 } url ? url : null,
                    DevicePreference = reader.IsDBNull(6) ? null : (Device)reader.GetInt16(6),
                    Labels = Labels(reader, 7),
                }
        );

    /// <summary>Rows of ad groups, some groups at a time: the order of a million rows is found without sorting them at once.</summary>
    private async IAsyncEnumerable<IntakeRow> InGroupsAsync(
        ItemTable table,
        string columns,
        string order,
        Func<Group, NpgsqlDataReader, IntakeRow> row
    )
    {
        var withRows = selectedOnly
            ? $"g.id in (select i.ad_group_id from {table.Name} i where {ItemSelection.Holds(table.Kind)})"
            : "true";
        var groups = (
            await connection.QueryAsync<Group>(
                Command(
                    $"""
                    select g.id, c.name as campaign, g.name from ad_group g join campaign c on c.id = g.campaign_id
                    where g.account_id = @accountId and not g.removed and {withRows} order by c.name_key, g.name_key
                    """
                )
            )
        ).ToArray();
        for (var first = 0; first < groups.Length; first += GroupsAtOnce)
        {
            var some = groups.AsMemory(first, Math.Min(GroupsAtOnce, groups.Length - first));
            var rows = ReadAsync(
                $"""
                select g.place::int, {columns} from unnest(@groups) with ordinality as g(id, place)
                join {table.Name} i on i.ad_group_id = g.id where {Mine(table.Kind)} order by g.place, {order}
                """,
                new NpgsqlParameter<long[]>("groups", [.. some.Span.ToArray().Select(group => group.Id)]),
                reader => row(some.Span[reader.GetInt32(0) - 1], reader)
            );
            await foreach (var each in rows)
            {
                yield return each;
            }
        }
    }

    private string Mine(ItemKind kind) =>
        "i.account_id = @accountId and not i.removed" + (selectedOnly ? $" and {ItemSelection.Holds(kind)}" : "");

    private async IAsyncEnumerable<IntakeRow> ReadAsync(
        string sql,
        NpgsqlParameter? parameter,
        Func<NpgsqlDataReader, IntakeRow> row
    )
    {
        await using var command = new NpgsqlCommand(sql, connection) { CommandTimeout = 600 };
        command.Parameters.Add(new NpgsqlParameter<int>("accountId", NpgsqlDbType.Integer) { TypedValue = accountId });
        if (parameter is not null)
        {
            command.Parameters.Add(parameter);
        }

        await using var reader = await command.ExecuteReaderAsync(cancellation);
        while (await reader.ReadAsync(cancellation))
        {
            yield return row(reader);
        }
    }

    private CommandDefinition Command(string sql) =>
        new(sql, new { accountId }, commandTimeout: 600, cancellationToken: cancellation);

    private static T? Optional<T>(NpgsqlDataReader reader, int column)
        where T : struct => reader.IsDBNull(column) ? null : reader.GetFieldValue<T>(column);

    private static IReadOnlyList<string>? Labels(NpgsqlDataReader reader, int column) =>
        reader.GetFieldValue<string[]>(column) is { Length: > 0 } labels ? labels : null;
}
