using Fendrik.Core.Accounts;
using Fendrik.Core.Intake;
using Fendrik.Core.Matching;

namespace Fendrik.Data.Steps;

/// <summary>Adds a campaign.</summary>
public sealed record AddCampaign(string Name, decimal? DailyBudget) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var name = Texts.Checked("name", Name, "The name");
        await context.ExecuteAsync(
            """
            insert into campaign (account_id, name, name_key, state, daily_budget, networks, removed, is_live, review)
            values (@account, @name, @key, 1, @budget, 1, false, false, 0)
            """,
            new
            {
                account = context.Account.Id,
                name,
                key = TextIdentity.Of(name),
                budget = Texts.Amount("dailyBudget", DailyBudget, context.Account.Currency),
            }
        );
        return new StepOutcome($"Add campaign “{name}”", 1);
    }
}

/// <summary>Adds an ad group to a campaign.</summary>
public sealed record AddAdGroup(long CampaignId, string Name, decimal? MaxCpc) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var name = Texts.Checked("name", Name, "The name");
        var added = await context.ExecuteAsync(
            """
            insert into ad_group (account_id, campaign_id, name, name_key, state, max_cpc, removed, is_live, review)
            select @account, c.id, @name, @key, 1, @maxCpc, false, false, 0
            from campaign c where c.id = @CampaignId and c.account_id = @account and not c.removed
            """,
            new
            {
                account = context.Account.Id,
                CampaignId,
                name,
                key = TextIdentity.Of(name),
                maxCpc = Texts.Amount("maxCpc", MaxCpc, context.Account.Currency),
            }
        );
        return added == 1
            ? new StepOutcome($"Add ad group “{name}”", 1)
            : throw new InvalidChangeException("campaignId", "The campaign is not there any more. Choose another.");
    }
}

/// <summary>Adds keywords or negatives, one on a line, in the trade's notation.</summary>
public sealed record AddWords(
    long CampaignId,
    long? AdGroupId,
    string Lines,
    MatchType Match,
    bool Negative,
    decimal? MaxCpc
) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var words = WordLines.Read(Lines, Match, Negative);
        var parameters = new
        {
            account = context.Account.Id,
            CampaignId,
            AdGroupId,
            texts = words.Texts,
            keys = words.Keys,
            matches = words.Matches,
            maxCpc = Texts.Amount("maxCpc", MaxCpc, context.Account.Currency),
        };
        const string list =
            "(select distinct on (key, match) * from unnest(@texts, @keys, @matches) as l(text, key, match) order by key, match) l";
        var sql = Negative
            ? $"""
                insert into negative_keyword (account_id, campaign_id, ad_group_id, text, text_key, match_type, removed, is_live, review)
                select @account, c.id, g.id, l.text, l.key, l.match, false, false, 0
                from {list} join campaign c on c.id = @CampaignId and c.account_id = @account and not c.removed
                left join ad_group g on g.id = @AdGroupId and g.campaign_id = c.id and not g.removed
                where (@AdGroupId::bigint is null or g.id is not null) and not exists (select from negative_keyword t
                  where t.campaign_id = c.id and t.ad_group_id is not distinct from g.id and t.text_key = l.key and t.match_type = l.match and not t.removed)
                """
            : $"""
                insert into keyword (account_id, ad_group_id, text, text_key, match_type, state, max_cpc, removed, is_live, review)
                select @account, g.id, l.text, l.key, l.match, 1, @maxCpc, false, false, 0
                from {list} join ad_group g on g.id = @AdGroupId and g.account_id = @account and not g.removed
                where not exists (select from keyword t
                  where t.ad_group_id = g.id and t.text_key = l.key and t.match_type = l.match and not t.removed)
                """;
        var added = await context.ExecuteAsync(sql, parameters);
        if (added == 0)
        {
            throw new InvalidChangeException("lines", "All of them are there already, or the place is gone.");
        }

        if (added < words.Texts.Length)
        {
            context.Refused.Add(
                new RefusedItem(
                    Negative ? ItemKind.NegativeKeyword : ItemKind.Keyword,
                    0,
                    "",
                    $"{words.Texts.Length - added} were there already or came twice."
                ),
                words.Texts.Length - added
            );
        }

        return new StepOutcome(
            $"Add {ItemSelection.Describe(added, [Negative ? ItemKind.NegativeKeyword : ItemKind.Keyword])}",
            added
        );
    }
}

/// <summary>Adds a text ad, or changes one when <paramref name="AdId"/> is given.</summary>
public sealed record WriteTextAd(
    long? AdId,
    long AdGroupId,
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    IReadOnlyList<string> DisplayPath,
    string FinalUrl,
    Device? DevicePreference
) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var headlines = Lines("headlines", Headlines, AdTextRoom.Headlines);
        var descriptions = Lines("descriptions", Descriptions, AdTextRoom.Descriptions);
        var path = Lines("displayPath", DisplayPath, AdTextRoom.PathParts);
        var url = (FinalUrl ?? "").Trim();
        if (headlines.Length == 0)
        {
            throw new InvalidChangeException("headlines", "An ad needs a headline.");
        }

        if (url.Length > 0 && !Core.AdText.FinalUrl.IsValid(url))
        {
            throw new InvalidChangeException(
                "finalUrl",
                $"“{url}” is not a web address. Begin with https:// or a domain."
            );
        }

        var parameters = new
        {
            account = context.Account.Id,
            AdId,
            AdGroupId,
            headlines,
            descriptions,
            path,
            url,
            device = (short?)DevicePreference,
            key = Texts.Hash(IntakeRow.AdKey(headlines, descriptions, path, url, DevicePreference)),
        };
        if (AdId is null)
        {
            var added = await context.ExecuteAsync(
                """
                insert into text_ad (account_id, ad_group_id, state, headlines, descriptions, display_path, final_url, device_preference, content_key, removed, is_live, review)
                select @account, g.id, 1, @headlines, @descriptions, @path, @url, @device, @key, false, false, 0
                from ad_group g where g.id = @AdGroupId and g.account_id = @account and not g.removed
                """,
                parameters
            );
            return added == 1
                ? new StepOutcome($"Add ad “{headlines[0]}”", 1)
                : throw new InvalidChangeException("adGroupId", "The ad group is not there any more. Choose another.");
        }

        var changed = await context.ExecuteAsync(
            $"""
            update text_ad i set headlines = @headlines, descriptions = @descriptions, display_path = @path, final_url = @url,
              device_preference = @device, content_key = @key, {ItemTable.KeepLive}
            where i.id = @AdId and i.account_id = @account and not i.removed
              and (i.headlines, i.descriptions, i.display_path, i.final_url, i.device_preference)
                is distinct from (@headlines, @descriptions, @path, @url, @device::smallint)
            """,
            parameters
        );
        return new StepOutcome($"Change ad “{headlines[0]}”", changed);
    }

    private static string[] Lines(string field, IReadOnlyList<string> lines, int most)
    {
        var trimmed = lines.Select(line => line.Trim()).Where(line => line.Length > 0).ToArray();
        if (trimmed.Length > most)
        {
            throw new InvalidChangeException(field, $"These are {trimmed.Length}; an ad has room for {most}.");
        }

        foreach (var line in trimmed)
        {
            Texts.Check(field, line, "The text");
        }

        return trimmed;
    }
}
