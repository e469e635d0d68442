using Dapper;
using Fendrik.Core.AdText.Patterns;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Commands.Patterns;

/// <summary>For which ad groups ads are made from a pattern.</summary>
/// <param name="CampaignId">Those of a campaign; none for all.</param>
/// <param name="AdGroupId">One ad group; none for all.</param>
/// <param name="OnlyWithoutAds">True for those that have no ad yet.</param>
/// <param name="Values">What the writer gives of them besides, as a table.</param>
public sealed record PatternPlaces(long? CampaignId, long? AdGroupId, bool? OnlyWithoutAds, string? Values);

/// <summary>Reads what patterns go by, ad group by ad group.</summary>
internal static class PatternGrounds
{
    private const int Days = 28;

    private const string Groups = """
        select g.id, g.name, c.name as campaign, k.text as keyword, coalesce(p.page, k.landing_page) as page
        from ad_group g join campaign c on c.id = g.campaign_id and not c.removed
        left join (
          select distinct on (k.ad_group_id) k.ad_group_id, k.text, k.landing_page from keyword k
          left join (
            select d.keyword_id, sum(d.clicks) as clicks from performance_day d join account a on a.id = d.account_id
            where d.account_id = @account and d.day > a.reported_to - @Days group by d.keyword_id) s on s.keyword_id = k.id
          where k.account_id = @account and not k.removed order by k.ad_group_id, s.clicks desc nulls last, char_length(k.text), k.text, k.id) k on k.ad_group_id = g.id
        left join (
          select distinct on (ad_group_id) ad_group_id, landing_page as page from (ADS) ads group by ad_group_id, landing_page
          order by ad_group_id, count(*) desc, landing_page) p on p.ad_group_id = g.id
        where g.account_id = @account and not g.removed and (@campaign::bigint is null or g.campaign_id = @campaign)
          and (@adGroup::bigint is null or g.id = @adGroup)
          and (not @onlyWithoutAds or not exists (select from (ANY) ads where ads.ad_group_id = g.id))
        order by c.name_key, g.name_key, g.id
        """;

    /// <summary>The ad groups with what is known of them.</summary>
    /// <exception cref="InvalidChangeException">The table of values cannot be read.</exception>
    public static async Task<IReadOnlyList<PatternGround>> ReadAsync(
        NpgsqlConnection connection,
        int account,
        PatternPlaces places,
        CancellationToken cancellation
    )
    {
        var (given, problem) = PatternValues.Read(places.Values);
        if (problem is not null)
        {
            throw new InvalidChangeException("values", problem);
        }

        var rows = await connection.QueryAsync<(long Id, string Name, string Campaign, string? Keyword, string? Page)>(
            new CommandDefinition(
                Groups
                    .Replace(
                        "(ADS)",
                        $"({AdTables.Where("account_id = @account and not removed and landing_page is not null")})",
                        StringComparison.Ordinal
                    )
                    .Replace(
                        "(ANY)",
                        $"({AdTables.Where("account_id = @account and not removed")})",
                        StringComparison.Ordinal
                    ),
                new
                {
                    account,
                    campaign = places.CampaignId,
                    adGroup = places.AdGroupId,
                    onlyWithoutAds = places.OnlyWithoutAds == true,
                    Days,
                },
                cancellationToken: cancellation
            )
        );
        return [.. rows.Select(row => Ground(row, given))];
    }

    private static PatternGround Ground(
        (long Id, string Name, string Campaign, string? Keyword, string? Page) row,
        IReadOnlyDictionary<string, IReadOnlyDictionary<string, string>> given
    )
    {
        var values = new Dictionary<string, string>(StringComparer.Ordinal)
        {
            ["theme"] = row.Name,
            ["keyword"] = row.Keyword ?? "",
            ["campaign"] = row.Campaign,
            ["page"] = row.Page ?? "",
        };
        foreach (var (field, value) in given.GetValueOrDefault(TextIdentity.Of(row.Name)) ?? Nothing)
        {
            values[field] = value;
        }

        return new PatternGround(row.Id, row.Name, row.Campaign, values);
    }

    private static readonly Dictionary<string, string> Nothing = [];
}
