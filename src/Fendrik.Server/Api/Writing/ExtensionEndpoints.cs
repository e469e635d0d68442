using Fendrik.Core.Items;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;
using Fendrik.Data.Accounts;
using Fendrik.Data.Extensions;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Writing;

/// <summary>What would show beside an ad at a moment.</summary>
/// <param name="Day">The day that it is asked for.</param>
/// <param name="LineRoom">Characters of the line of callouts.</param>
/// <param name="Considered">All that could show.</param>
public sealed record BesideAnswer(DateOnly Day, int LineRoom, IReadOnlyList<TracedExtension> Considered);

/// <summary>What is asked of extensions: where they stand, what would show, what they brought.</summary>
internal static class ExtensionEndpoints
{
    private const int MostRows = 600;
    private const int MinutesOfHour = 60;
    private const int HoursOfDay = 24;

    public static void MapExtensions(this RouteGroupBuilder account)
    {
        account.MapGet("/extensions/coverage", CoverageAsync).WithName("readExtensionCoverage");
        account.MapGet("/extensions/figures", FiguresAsync).WithName("readExtensionFigures");
        account.MapGet("/extensions/shown", ShownAsync).WithName("readShownExtensions");
    }

    private static async Task<Ok<Coverage>> CoverageAsync(
        int accountId,
        long? campaignId,
        long? adGroupId,
        ExtensionCoverage coverage,
        CancellationToken cancellation
    ) => TypedResults.Ok(await coverage.ReadAsync(accountId, campaignId, adGroupId, MostRows, cancellation));

    private static async Task<Ok<IReadOnlyList<ExtensionFigure>>> FiguresAsync(
        int accountId,
        long? campaignId,
        long? adGroupId,
        ExtensionFigures figures,
        CancellationToken cancellation
    ) => TypedResults.Ok(await figures.ReadAsync(accountId, campaignId, adGroupId, cancellation));

    /// <summary>What would show beside an ad there on a day of the week at an hour, from the account's day on.</summary>
    private static async Task<Ok<BesideAnswer>> ShownAsync(
        int accountId,
        long? campaignId,
        long? adGroupId,
        string? device,
        string? weekday,
        int? hour,
        ExtensionFigures figures,
        AccountToday today,
        Data.Steps.WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var on = QueryChoice.Of<Device>(device, "device") ?? Device.Phone;
        if (hour is < 0 or >= HoursOfDay)
        {
            throw new InvalidChangeException("hour", "The hours of a day are 0 to 23.");
        }

        var day = await today.ReadAsync(accountId, cancellation);
        if (QueryChoice.Of<DayOfWeek>(weekday, "weekday") is { } wanted)
        {
            const int DaysOfWeek = 7;
            day = day.AddDays(((int)wanted - (int)day.DayOfWeek + DaysOfWeek) % DaysOfWeek);
        }

        const int Noon = 12;
        var considered = await figures.ConsiderAsync(
            accountId,
            campaignId,
            adGroupId,
            new ShownAt(on, day, (hour ?? Noon) * MinutesOfHour),
            cancellation
        );
        var account = await workingCopy.FactsAsync(accountId, cancellation);
        return TypedResults.Ok(
            new BesideAnswer(
                day,
                account.Network.Extensions.CalloutLine.On(on),
                [.. considered.Select(TracedExtension.Of)]
            )
        );
    }
}
