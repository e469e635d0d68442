using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Changes;
using Fendrik.Core.Intake;
using Fendrik.Core.Matching;
using NpgsqlTypes;

namespace Fendrik.Data.Steps;

/// <summary>
/// The rows of a copy. Kind by kind, parents first: which originals go where is written down in <c>copy_*</c> tables
/// with the numbers that the copies will have, edited there, and inserted from there.
/// </summary>
internal sealed class CopiedRows(
    StepContext context,
    CopyPlace place,
    CopyEdits edits,
    IReadOnlyList<TextEdit> replacements
)
{
    private readonly CopiedTexts _texts = new(context, edits, replacements);

    private readonly object _parameters = new
    {
        account = context.Account.Id,
        campaigns = place.CampaignIds.ToArray(),
        groups = place.AdGroupIds.ToArray(),
        match = (short?)edits.Match,
        factor = edits.BidFactor,
        device = (short?)edits.Device,
        anyDevice = edits.AnyDevice,
        state = (short?)edits.State,
        step = context.Account.Currency.SmallestAmount,
        floor = context.Account.Network.MinimumCpc,
        ceiling = BidChange.Ceiling,
    };

    public async Task<int> MakeAsync()
    {
        var made = await CampaignsAsync();
        made += await AdGroupsAsync();
        made += await WordsAsync(ItemTable.Of(ItemKind.Keyword));
        made += await WordsAsync(ItemTable.Of(ItemKind.NegativeKeyword));
        made += await AdsAsync();
        return made;
    }

    private async Task<int> CampaignsAsync()
    {
        await BeginAsync(
            "campaign",
            "select i.id, null::bigint, i.name from campaign i where i.id in (select id from selected where kind = 1)"
        );
        await _texts.EditAsync("campaign", TextIs.Name);
        await RefuseTwinsAsync(
            "campaign",
            "t.account_id = @account and t.name_key = e.key",
            "There is a campaign of this name already. Give the copies other names."
        );
        return await context.ExecuteAsync(
                """
                insert into campaign (id, account_id, name, name_key, state, daily_budget, start_date, end_date, networks, labels, removed, is_live, review)
                select e.new_id, @account, e.text, e.key, coalesce(@state, i.state), i.daily_budget, i.start_date, i.end_date, i.networks, i.labels, false, false, 0
                from copy_campaign e join campaign i on i.id = e.source_id order by e.new_id;
                """,
                _parameters
            )
            + await context.ExecuteAsync(
                $"""
                update negative_list i set campaign_ids = array(select unnest(i.campaign_ids) union select e.new_id from copy_campaign e where e.source_id = any(i.campaign_ids) order by 1), {ItemTable.KeepLive}
                where i.account_id = @account and not i.removed and exists (select from copy_campaign e where e.source_id = any(i.campaign_ids))
                """,
                _parameters
            );
    }

    private async Task<int> AdGroupsAsync()
    {
        const string selected =
            "ad_group i where not i.removed and i.id in (select id from selected where kind = 2) and i.campaign_id not in (select source_id from copy_campaign)";
        var where =
            place.CampaignIds.Count > 0
                ? $"select i.id, c.id, i.name from campaign c, {selected} and c.account_id = @account and c.id = any(@campaigns) and not c.removed"
                : $"select i.id, i.campaign_id, i.name from {selected}";
        await BeginAsync(
            "ad_group",
            $"select i.id, e.new_id, i.name from copy_campaign e join ad_group i on i.campaign_id = e.source_id and not i.removed union all {where}"
        );
        await _texts.EditAsync("ad_group", TextIs.Name);
        await RefuseTwinsAsync(
            "ad_group",
            "t.campaign_id = e.parent_id and t.name_key = e.key",
            "The campaign has an ad group of this name already. Give the copies other names."
        );
        return await context.ExecuteAsync(
            $"""
            insert into ad_group (id, account_id, campaign_id, name, name_key, state, max_cpc, labels, removed, is_live, review)
            select e.new_id, @account, e.parent_id, e.text, e.key, coalesce(@state, i.state), {Bid(
                "i.max_cpc"
            )}, i.labels, false, false, 0
            from copy_ad_group e join ad_group i on i.id = e.source_id order by e.new_id
            """,
            _parameters
        );
    }

    private async Task<int> WordsAsync(ItemTable table)
    {
        var negative = table.Kind == ItemKind.NegativeKeyword;
        var ofCampaigns = negative
            ? """
                 union all select i.id, -e.new_id, i.text from copy_campaign e join negative_keyword i on i.campaign_id = e.source_id and i.ad_group_id is null and not i.removed
                """
            : "";
        await BeginAsync(table.Name, InGroups(table, "i.text") + ofCampaigns + OwnCampaignNegatives(negative));
        await _texts.EditAsync(table.Name, TextIs.Words);

        // A campaign's own negatives have the campaign, with a minus, as parent.
        var twin = negative
            ? "coalesce(t.campaign_id, 0) = coalesce((select campaign_id from ad_group where id = e.parent_id), -e.parent_id) and coalesce(t.ad_group_id, 0) = greatest(e.parent_id, 0) and coalesce(t.list_id, 0) = 0"
            : "t.ad_group_id = e.parent_id";
        await RefuseTwinsAsync(
            table.Name,
            $"{twin} and t.text_key = e.key and t.match_type = coalesce(@match, o.match_type)",
            "The very same words with this match type are there already. Change something on the way."
        );
        return negative
            ? await context.ExecuteAsync(
                """
                insert into negative_keyword (id, account_id, campaign_id, ad_group_id, text, text_key, match_type, labels, removed, is_live, review)
                select e.new_id, @account, coalesce(g.campaign_id, -e.parent_id), g.id, e.text, e.key, coalesce(@match, i.match_type), i.labels, false, false, 0
                from copy_negative_keyword e join negative_keyword i on i.id = e.source_id left join ad_group g on g.id = e.parent_id order by e.new_id
                """,
                _parameters
            )
            : await context.ExecuteAsync(
                $"""
                insert into keyword (id, account_id, ad_group_id, text, text_key, match_type, state, max_cpc, final_url, labels, removed, is_live, review)
                select e.new_id, @account, e.parent_id, e.text, e.key, coalesce(@match, i.match_type), coalesce(@state, i.state),
                  {OwnBid()}, i.final_url, i.labels, false, false, 0
                from copy_keyword e join keyword i on i.id = e.source_id join ad_group g on g.id = i.ad_group_id order by e.new_id
                """,
                _parameters
            );
    }

    private async Task<int> AdsAsync()
    {
        var table = ItemTable.Of(ItemKind.TextAd);
        await BeginAsync("text_ad", InGroups(table, "null::text"));
        await context.ExecuteAsync(
            "create temp table copied_ad (id bigint primary key, headlines text[], descriptions text[], path text[], url text, device smallint, content_key text) on commit drop"
        );
        await RowPipe.RunAsync(
            context,
            "select i.id, i.headlines, i.descriptions, i.display_path, i.final_url, i.device_preference from text_ad i where i.id in (select source_id from copy_text_ad)",
            "copied_ad (id, headlines, descriptions, path, url, device, content_key)",
            reader => new CopiedAd(
                reader.GetInt64(0),
                _texts.Edited(reader.GetFieldValue<string[]>(1)),
                _texts.Edited(reader.GetFieldValue<string[]>(2)),
                _texts.Edited(reader.GetFieldValue<string[]>(3)),
                _texts.Edited(reader.GetString(4)),
                edits.AnyDevice ? null
                    : edits.Device is { } device ? device
                    : reader.IsDBNull(5) ? null
                    : (Device)reader.GetInt16(5)
            ),
            (importer, ad) =>
            {
                importer.Write(ad.Id, NpgsqlDbType.Bigint);
                importer.Write(ad.Headlines, NpgsqlDbType.Array | NpgsqlDbType.Text);
                importer.Write(ad.Descriptions, NpgsqlDbType.Array | NpgsqlDbType.Text);
                importer.Write(ad.Path, NpgsqlDbType.Array | NpgsqlDbType.Text);
                importer.Write(ad.Url, NpgsqlDbType.Text);
                if (ad.Device is { } device)
                {
                    importer.Write((short)device, NpgsqlDbType.Smallint);
                }
                else
                {
                    importer.WriteNull();
                }

                importer.Write(ad.ContentKey, NpgsqlDbType.Text);
            }
        );
        await context.ExecuteAsync(
            "update copy_text_ad e set key = a.content_key from copied_ad a where a.id = e.source_id"
        );
        await RefuseTwinsAsync(
            "text_ad",
            "t.ad_group_id = e.parent_id and t.content_key = e.key",
            "The ad group has this very ad already. Change something on the way, such as the device or a word."
        );
        return await context.ExecuteAsync(
            """
            insert into text_ad (id, account_id, ad_group_id, state, headlines, descriptions, display_path, final_url, device_preference, content_key, labels, removed, is_live, review)
            select e.new_id, @account, e.parent_id, coalesce(@state, i.state), a.headlines, a.descriptions, a.path, a.url, a.device, a.content_key, i.labels, false, false, 0
            from copy_text_ad e join text_ad i on i.id = e.source_id join copied_ad a on a.id = e.source_id order by e.new_id
            """,
            _parameters
        );
    }

    private sealed record CopiedAd(
        long Id,
        string[] Headlines,
        string[] Descriptions,
        string[] Path,
        string Url,
        Device? Device
    )
    {
        public string ContentKey => Texts.Hash(IntakeRow.AdKey(Headlines, Descriptions, Path, Url, Device));
    }

    /// <summary>What is inside copied ad groups, and what is selected by itself with the groups it goes to.</summary>
    private string InGroups(ItemTable table, string text)
    {
        var kind = (int)table.Kind;
        var selected =
            $"{table.Name} i join ad_group g on g.id = i.ad_group_id where i.id in (select id from selected where kind = {kind}) and i.ad_group_id not in (select source_id from copy_ad_group)";
        var targets =
            "(select t.id from ad_group t where t.account_id = @account and not t.removed and (t.id = any(@groups) or t.campaign_id = any(@campaigns))) t";
        return $"""
                select i.id, e.new_id, {text} from copy_ad_group e join {table.Name} i on i.ad_group_id = e.source_id and not i.removed
                union all
                """
            + (
                place.IsInPlace
                    ? $" select i.id, i.ad_group_id, {text} from {selected}"
                    : $" select i.id, t.id, {text} from {targets}, {selected}"
            );
    }

    private string OwnCampaignNegatives(bool negative)
    {
        const string selected =
            "negative_keyword i where i.id in (select id from selected where kind = 4) and i.ad_group_id is null and i.list_id is null";
        return !negative ? ""
            : place.IsInPlace ? $" union all select i.id, -i.campaign_id, i.text from {selected}"
            : place.CampaignIds.Count > 0
                ? $" union all select i.id, -c.id, i.text from campaign c, {selected} and c.account_id = @account and c.id = any(@campaigns) and not c.removed"
            : $" union all select i.id, t.id, i.text from ad_group t, {selected} and t.account_id = @account and t.id = any(@groups) and not t.removed";
    }

    private async Task BeginAsync(string table, string originals)
    {
        await context.ExecuteAsync(
            $"""
            create temp table copy_{table} (source_id bigint not null, parent_id bigint, text text, key text, new_id bigint not null default nextval(pg_get_serial_sequence('{table}', 'id'))) on commit drop
            """
        );
        var rows = await context.ExecuteAsync(
            $"insert into copy_{table} (source_id, parent_id, text) {originals}",
            _parameters
        );
        if (rows > CopyItems.MostCopies)
        {
            throw new InvalidChangeException(
                "items",
                $"This would make {rows:N0} copies; {CopyItems.MostCopies:N0} at most. Do it in parts."
            );
        }

        await context.ExecuteAsync($"create index on copy_{table} (source_id); analyze copy_{table}");
    }

    /// <summary>Takes out of the copies what has a twin where it goes, there already or among the copies.</summary>
    private async Task RefuseTwinsAsync(string table, string twin, string reason)
    {
        var kind = ItemTable.All.First(each => each.Name == table);
        var match = kind.Identity.Count > 1 ? ", coalesce(@match, o.match_type)" : "";
        await context.ExecuteAsync(
            $"""
            create temp table twin_{table} on commit drop as
            select e.new_id, e.source_id from copy_{table} e join {table} o on o.id = e.source_id
            where exists (select from {table} t where {twin} and not t.removed)
            union
            select new_id, source_id from (
              select e.new_id, e.source_id, row_number() over (partition by e.parent_id, e.key{match} order by e.new_id) as place
              from copy_{table} e join {table} o on o.id = e.source_id) numbered where place > 1
            """,
            _parameters
        );
        await context.RefuseAsync(kind, $"i.id in (select source_id from twin_{table})", reason, null);
        await context.ExecuteAsync(
            $"delete from copy_{table} e using twin_{table} w where w.new_id = e.new_id; analyze copy_{table}"
        );
    }

    /// <summary>A bid times the factor, rounded and held between the bounds, as <see cref="BidChange.Apply"/> does.</summary>
    private string Bid(string column) =>
        edits.BidFactor is null
            ? column
            : $"least(greatest(round({column} * @factor / @step) * @step, @floor), @ceiling) + 0 * {column}";

    /// <summary>A keyword that inherits its bid gets one of its own only where it would otherwise not be multiplied.</summary>
    private string OwnBid() =>
        edits.BidFactor is null
            ? "i.max_cpc"
            : $"case when i.max_cpc is null and e.parent_id in (select new_id from copy_ad_group) then null else {Bid("coalesce(i.max_cpc, g.max_cpc)")} end";
}
