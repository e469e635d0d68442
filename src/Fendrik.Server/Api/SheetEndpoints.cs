using Fendrik.Core.Reporting;
using Fendrik.Data.Cleaning;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Data.Variants;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api;

/// <summary>What totals are asked for: all that the filter lets through, or the items named.</summary>
public sealed record TotalsRequest(SheetRequest Where, IReadOnlyList<ItemReference>? Items);

/// <summary>Sums with the ratios that follow from them.</summary>
public sealed record TotalsAnswer(
    long Items,
    long Impressions,
    long Clicks,
    decimal Cost,
    decimal Conversions,
    decimal Value,
    decimal? ClickThroughRate,
    decimal? ConversionRate,
    decimal? CostPerConversion
);

public sealed record PlaceRequest(SheetRequest Where, ItemReference Item);

public sealed record PlaceAnswer(long? Place);

public sealed record LabelCount(string Label, long Items);

internal static class SheetEndpoints
{
    private const int MostNamed = 50_000;

    public static void MapSheet(this RouteGroupBuilder account)
    {
        account.MapPost("/sheet", SheetAsync).WithName("readSheet").Needs(AccountRight.Look);
        account.MapPost("/sheet/count", CountAsync).WithName("countSheet").Needs(AccountRight.Look);
        account.MapPost("/sheet/totals", TotalsAsync).WithName("readTotals").Needs(AccountRight.Look);
        account.MapPost("/sheet/place", PlaceAsync).WithName("findPlace").Needs(AccountRight.Look);
        account.MapGet("/sheet/fields", ListFields).WithName("listSheetFields");
        account.MapGet("/labels", LabelsAsync).WithName("listLabels");
        account.MapGet("/views", ViewsAsync).WithName("listViews");
        account.MapPut("/views/{name}", SaveViewAsync).WithName("saveView").Needs(AccountRight.Look);
        account.MapDelete("/views/{name}", RemoveViewAsync).WithName("removeView").Needs(AccountRight.Look);
    }

    private static async Task<Ok<SheetPage>> SheetAsync(
        int accountId,
        SheetRequest request,
        VariantSheets reader,
        CancellationToken cancellation
    ) => TypedResults.Ok(await reader.ReadAsync(accountId, request, cancellation));

    private static async Task<Ok<SheetCount>> CountAsync(
        int accountId,
        SheetRequest request,
        VariantSheets reader,
        CancellationToken cancellation
    ) => TypedResults.Ok(await reader.CountAsync(accountId, request, cancellation));

    private static async Task<Ok<TotalsAnswer>> TotalsAsync(
        int accountId,
        TotalsRequest request,
        VariantSheets reader,
        CancellationToken cancellation
    )
    {
        if (request.Items?.Count > MostNamed)
        {
            throw new InvalidChangeException("items", $"At most {MostNamed:N0} items can be named; use a filter.");
        }

        var totals = await reader.TotalsAsync(accountId, request.Where, request.Items, cancellation);
        var figures = totals.Figures;
        return TypedResults.Ok(
            new TotalsAnswer(
                totals.Items,
                figures.Impressions,
                figures.Clicks,
                figures.Cost,
                figures.Conversions,
                figures.Value,
                figures.ClickThroughRate,
                figures.ConversionRate,
                figures.CostPerConversion
            )
        );
    }

    private static async Task<Ok<PlaceAnswer>> PlaceAsync(
        int accountId,
        PlaceRequest request,
        VariantSheets reader,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(new PlaceAnswer(await reader.PlaceAsync(accountId, request.Where, request.Item, cancellation)));

    private static Ok<IReadOnlyList<SheetField>> ListFields(int accountId) => TypedResults.Ok(SheetFields.All);

    private static async Task<Ok<IReadOnlyList<LabelCount>>> LabelsAsync(
        int accountId,
        SavedViews views,
        CancellationToken cancellation
    )
    {
        var labels = await views.LabelsAsync(accountId, cancellation);
        return TypedResults.Ok<IReadOnlyList<LabelCount>>([
            .. labels.Select(label => new LabelCount(label.Label, label.Items)),
        ]);
    }

    private static async Task<Ok<IReadOnlyList<NamedView>>> ViewsAsync(
        int accountId,
        HttpContext context,
        SavedViews views,
        CancellationToken cancellation
    ) => TypedResults.Ok(await views.ListAsync(accountId, context.User.PersonId(), cancellation));

    private static async Task<NoContent> SaveViewAsync(
        int accountId,
        string name,
        SheetLook look,
        HttpContext context,
        SavedViews views,
        CancellationToken cancellation
    )
    {
        await views.SaveAsync(accountId, context.User.PersonId(), name, look, cancellation);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, NotFound>> RemoveViewAsync(
        int accountId,
        string name,
        HttpContext context,
        SavedViews views,
        CancellationToken cancellation
    ) =>
        await views.RemoveAsync(accountId, context.User.PersonId(), name, cancellation)
            ? TypedResults.NoContent()
            : TypedResults.NotFound();
}
