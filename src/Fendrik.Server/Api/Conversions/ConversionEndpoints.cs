using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Data.Accounts;
using Fendrik.Data.Conversions;
using Fendrik.Data.Steps;
using Fendrik.Server.Links;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Conversions;

/// <summary>What counts, whether it still does, and what counts where.</summary>
internal static class ConversionEndpoints
{
    private const int UsualDays = 28;
    private const int DaysOfWeek = 7;

    public static void MapConversions(this RouteGroupBuilder account)
    {
        account.MapGet("/conversions", ReadAsync).WithName("readConversions");
        account.MapGet("/conversions/goals/{campaignId:long}", GoalsAsync).WithName("readGoals");
        account.MapPost("/conversions/{actionId:long}/test-visit", FollowAsync).WithName("followTestVisit");
        account.MapGet("/conversions/worth", WorthAsync).WithName("workOutWorth");
    }

    private static async Task<Ok<ConversionsAnswer>> ReadAsync(
        int accountId,
        ConversionReader reader,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var read = await reader.ReadAsync(accountId, UsualDays, cancellation);
        return TypedResults.Ok(
            new ConversionsAnswer(
                read.Period?.First,
                read.Period?.Last,
                [.. read.Actions.Select(action => ActionOf(action, read))],
                [
                    .. read
                        .Campaigns.OrderByDescending(campaign => read.Spent.GetValueOrDefault(campaign.Id).Cost)
                        .Select(campaign => new CampaignGoals(
                            campaign.Id,
                            read.Versions.GetValueOrDefault((ItemKind.Campaign, campaign.Id)),
                            campaign.Name,
                            campaign.State == ItemState.Paused,
                            campaign.Goals is not null,
                            [
                                .. read
                                    .Actions.Where(each => ConversionGoals.Counts(each.Action, campaign.Goals))
                                    .Select(each => each.Action.Id),
                            ],
                            read.Findings.Where(finding => finding.CampaignId == campaign.Id)
                                .Select(finding => (Weight?)finding.Weight)
                                .Max()
                        )),
                ],
                read.More,
                read.Findings,
                DelayOf(read),
                PageTags.Snippet(facts.Network.Id),
                read.PagesRead
            )
        );
    }

    private static ConversionActionAnswer ActionOf(AuditedAction audited, AccountConversions read)
    {
        var action = audited.Action;
        var days = read.Days[action.Id].ToDictionary(row => row.Day, row => row.Conversions);
        var steered = read
            .Campaigns.Where(campaign =>
                campaign.Bidding.NeedsConversions && ConversionGoals.Steers(action, campaign.Goals)
            )
            .ToArray();
        return new ConversionActionAnswer(
            action.Id,
            read.Versions.GetValueOrDefault((ItemKind.ConversionAction, action.Id)),
            action.Name,
            action.State == ItemState.Paused,
            CountsInWords(action),
            action.Address,
            action.Worth == ConversionWorth.Fixed ? action.FixedValue : null,
            read.Worths.GetValueOrDefault(action.Id)?.AverageSale,
            read.Worths.GetValueOrDefault(action.Id)?.ClosingRate,
            read.Worths.GetValueOrDefault(action.Id)?.Margin,
            read.Period is { } period
                ? [.. Enumerable.Range(0, period.Days).Select(at => days.GetValueOrDefault(period.First.AddDays(at)))]
                : [],
            days.Values.Sum(),
            read.Counted.Where(row => row.ActionId == action.Id).Sum(row => row.Value),
            action.Steers == YesNo.Yes,
            steered.Length switch
            {
                0 => null,
                1 => steered[0].Name,
                var many => $"{many} campaigns",
            },
            action.AccountGoal == YesNo.Yes,
            ConversionWords.Of(audited.Health),
            ConversionWords.WeightOf(audited.Health)
        );
    }

    private static string CountsInWords(ConversionAction action)
    {
        var counting = Choices.NameOf(Choices.ConversionCounting, (int)action.Counting);
        var source = Choices.NameOf(Choices.ConversionSource, (int)action.Source);
        return action.LeastSeconds is { } least && ConversionRule.IsCall(action.Source)
            ? $"{source} from {least:0} s, {counting}"
            : $"{source}, {counting}";
    }

    private static DelayAnswer? DelayOf(AccountConversions read)
    {
        if (read.Curve is not { } curve)
        {
            return null;
        }

        var days = read
            .Open.Select(open => new OpenDayAnswer(
                open.Day,
                open.SoFar,
                curve.IsKnown ? curve.Final(open.SoFar, open.Age) : null,
                curve.IsKnown ? curve.ToldBy(open.Age) : null
            ))
            .ToArray();
        var week = days.Take(DaysOfWeek).ToArray();
        var growth = curve.IsKnown
            ? ConversionWords.Growth(week.Sum(day => day.SoFar), week.Sum(day => day.Final ?? day.SoFar), week.Length)
            : null;
        return new DelayAnswer(
            growth is null ? ConversionWords.Of(curve) : $"{ConversionWords.Of(curve)} {growth}",
            days
        );
    }

    /// <summary>What a lead is worth, as it is typed.</summary>
    private static async Task<Ok<WorthAnswer>> WorthAsync(
        int accountId,
        string averageSale,
        string closingRate,
        string margin,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var worth = new TypedWorth(averageSale, closingRate, margin).Read(facts.Ground);
        return TypedResults.Ok(new WorthAnswer(worth.Value(facts.Currency), worth.InWords(facts.Currency)));
    }

    /// <summary>Follows a test visit, hop by hop. It changes nothing, and is in no report.</summary>
    private static async Task<Results<Ok<FollowedVisit>, NotFound>> FollowAsync(
        int accountId,
        long actionId,
        string? device,
        ConversionReader reader,
        TestVisitor visitor,
        CancellationToken cancellation
    )
    {
        var action = await reader.ActionAsync(accountId, actionId, cancellation);
        return action is null
            ? TypedResults.NotFound()
            : TypedResults.Ok(
                await visitor.FollowAsync(
                    accountId,
                    action,
                    QueryChoice.Of<Device>(device, "device") == Device.Desktop,
                    cancellation
                )
            );
    }

    private static async Task<Results<Ok<GoalsAnswer>, NotFound>> GoalsAsync(
        int accountId,
        long campaignId,
        long[]? actionIds,
        ConversionReader reader,
        CancellationToken cancellation
    )
    {
        if (await reader.CampaignAsync(accountId, campaignId, UsualDays, cancellation) is not { } past)
        {
            return TypedResults.NotFound();
        }

        var chosen = (actionIds ?? []).ToHashSet();
        var own = past
            .Actions.Where(action => ConversionGoals.Counts(action, past.Campaign.Goals))
            .Select(action => action.Id)
            .ToHashSet();
        GoalReading Read(HashSet<long> goals) =>
            GoalReading.Of(
                past.Counted.Select(row => (row.ActionId, row.Conversions, row.Value)),
                goals.Contains,
                past.Cost,
                past.Campaign.Bidding,
                past.Currency
            );
        string Names(HashSet<long> goals) =>
            goals.Count == 0
                ? "nothing"
                : string.Join(", ", past.Actions.Where(each => goals.Contains(each.Id)).Select(each => each.Name));
        return TypedResults.Ok(
            new GoalsAnswer(
                Read(own),
                Names(own),
                Read(chosen),
                Names(chosen),
                UsualDays,
                own.SetEquals(chosen),
                ConversionWords.Earlier(past.Counted.Where(row => row.ActionId == 0).Sum(row => row.Conversions))
            )
        );
    }
}
