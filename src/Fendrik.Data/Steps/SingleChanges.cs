using Fendrik.Core.Accounts;
using Fendrik.Core.Intake;
using Fendrik.Core.Matching;

namespace Fendrik.Data.Steps;

/// <summary>Edits the name of a campaign or ad group, or the words of a keyword or negative.</summary>
public sealed record SetText(ItemReference Item, string Text) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var text = string.Join(' ', Text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        var (column, key) = Item.Kind switch
        {
            ItemKind.Campaign or ItemKind.AdGroup or ItemKind.NegativeList => ("name", "name_key"),
            ItemKind.Keyword or ItemKind.NegativeKeyword => ("text", "text_key"),
            _ => throw new InvalidChangeException("items", "An ad has headlines and descriptions; edit those."),
        };
        Texts.Check("text", text, column == "name" ? "The name" : "The keyword");
        MatchType? match = null;
        if (column == "text")
        {
            var noted = KeywordNotation.Read(text);
            if (noted.Problem is { } problem)
            {
                throw new InvalidChangeException("text", $"“{text}”: {problem}.");
            }

            (text, match) = (noted.Text, noted.Match);
        }

        var table = ItemTable.Of(Item.Kind);
        var setMatch = match is null ? "" : "match_type = @match, ";
        var changed = await context.ExecuteAsync(
            $"""
            update {table.Name} i set {column} = @text, {key} = @key, {setMatch}{ItemTable.KeepLive}
            where i.id = @id and i.account_id = @account and not i.removed and (i.{column} <> @text{(
                match is null ? "" : " or i.match_type <> @match"
            )})
            """,
            new
            {
                id = Item.Id,
                account = context.Account.Id,
                text,
                key = TextIdentity.Of(text),
                match = (short?)match,
            }
        );
        return new StepOutcome($"Reword {ItemSelection.Noun(Item.Kind)} as “{text}”", changed);
    }
}

/// <summary>Edits dates and networks of a campaign.</summary>
public sealed record SetCampaignSettings(long CampaignId, DateOnly? StartDate, DateOnly? EndDate, SiteKinds Networks)
    : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (Networks is SiteKinds.None or > (SiteKinds)7)
        {
            throw new InvalidChangeException("networks", "Choose at least one place to show.");
        }

        if (StartDate > EndDate)
        {
            throw new InvalidChangeException("endDate", "The end date is before the start date.");
        }

        var changed = await context.ExecuteAsync(
            $"""
            update campaign i set start_date = @StartDate, end_date = @EndDate, networks = @networks, {ItemTable.KeepLive}
            where i.id = @CampaignId and i.account_id = @account and not i.removed
              and (i.start_date, i.end_date, i.networks) is distinct from (@StartDate::date, @EndDate::date, @networks::smallint)
            """,
            new
            {
                CampaignId,
                StartDate,
                EndDate,
                networks = (short)Networks,
                account = context.Account.Id,
            }
        );
        return new StepOutcome("Change the settings of a campaign", changed);
    }
}

/// <summary>Sets or clears the landing page of keywords.</summary>
public sealed record SetFinalUrl(ItemSet Items, string? FinalUrl) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var url = string.IsNullOrWhiteSpace(FinalUrl) ? null : FinalUrl.Trim();
        if (url is not null && !Core.AdText.FinalUrl.IsValid(url))
        {
            throw new InvalidChangeException(
                "finalUrl",
                $"“{url}” is not a web address. Begin with https:// or a domain."
            );
        }

        await ItemSelection.TakeAsync(context, Items);
        var changed = await context.ExecuteAsync(
            $"""
            update keyword i set final_url = @url, {ItemTable.KeepLive}
            where {ItemSelection.Holds(ItemKind.Keyword)} and i.final_url is distinct from @url
            """,
            new { url }
        );
        return new StepOutcome(
            $"{(url is null ? "Clear" : "Set")} the final URL of {ItemSelection.Describe(changed, [ItemKind.Keyword])}",
            changed
        );
    }
}
