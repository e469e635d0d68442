using Fendrik.Core.Reporting;
using Fendrik.Data.Results;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;

namespace Fendrik.Server.Api.Results;

/// <summary>Keeps results to some items: to campaigns that do one thing, or to what a saved view of the person lets through.</summary>
internal sealed class ResultsItems(CampaignConditions conditions, SavedViews views, SheetReader sheet)
{
    private const int MostItems = 200_000;

    /// <summary>The request, kept to what is asked.</summary>
    /// <exception cref="InvalidChangeException">There is no such condition or view, or it is of other items.</exception>
    public async Task<ResultsRequest> KeepAsync(
        int accountId,
        HttpContext context,
        ResultsRequest request,
        string? condition,
        string? view,
        CancellationToken cancellation
    )
    {
        var kept = await conditions.KeepAsync(accountId, request, condition, cancellation);
        if (view is null)
        {
            return kept;
        }

        var named =
            (await views.ListAsync(accountId, context.User.PersonId(), cancellation)).FirstOrDefault(each =>
                each.Name == view
            ) ?? throw new InvalidChangeException("view", $"You have no view “{view}” at this account.");
        if (named.Look.Request.Kind != request.Level)
        {
            throw new InvalidChangeException(
                "view",
                $"“{view}” shows other items. Choose its rows, or leave the view."
            );
        }

        var ids = await sheet.IdsAsync(accountId, named.Look.Request, MostItems + 1, cancellation);
        return ids.Count > MostItems
            ? throw new InvalidChangeException(
                "view",
                $"“{view}” lets more than {MostItems:N0} items through. Narrow it, or look at all of them."
            )
            : kept with
            {
                Items = ids,
            };
    }
}
