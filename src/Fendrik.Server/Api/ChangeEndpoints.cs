using System.Text.Json;
using System.Text.Json.Serialization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Data.Model;
using Fendrik.Data.Publishing;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api;

/// <summary>A change as the client asks for it. Which parts count depends on its kind.</summary>
[JsonPolymorphic(
    TypeDiscriminatorPropertyName = "type",
    UnknownDerivedTypeHandling = JsonUnknownDerivedTypeHandling.FailSerialization
)]
[JsonDerivedType(typeof(SetStateCommand), "setState")]
[JsonDerivedType(typeof(ChangeAmountCommand), "changeAmount")]
[JsonDerivedType(typeof(SetMatchTypeCommand), "setMatchType")]
[JsonDerivedType(typeof(RemoveCommand), "remove")]
[JsonDerivedType(typeof(SetTextCommand), "setText")]
[JsonDerivedType(typeof(SetCampaignSettingsCommand), "setCampaignSettings")]
[JsonDerivedType(typeof(SetFinalUrlCommand), "setFinalUrl")]
[JsonDerivedType(typeof(AddCampaignCommand), "addCampaign")]
[JsonDerivedType(typeof(AddAdGroupCommand), "addAdGroup")]
[JsonDerivedType(typeof(AddWordsCommand), "addWords")]
[JsonDerivedType(typeof(WriteTextAdCommand), "writeTextAd")]
public abstract record Command
{
    internal abstract IWorkingCopyChange ToChange();
}

public sealed record SetStateCommand(IReadOnlyList<ItemReference> Items, ItemState State) : Command
{
    internal override IWorkingCopyChange ToChange() => new SetState(Items, State);
}

public sealed record ChangeAmountCommand(
    IReadOnlyList<ItemReference> Items,
    AmountField Field,
    Core.Bidding.AmountOperation Operation,
    decimal Value
) : Command
{
    internal override IWorkingCopyChange ToChange() => new ChangeAmount(Items, Field, Operation, Value);
}

public sealed record SetMatchTypeCommand(IReadOnlyList<ItemReference> Items, MatchType Match) : Command
{
    internal override IWorkingCopyChange ToChange() => new SetMatchType(Items, Match);
}

public sealed record RemoveCommand(IReadOnlyList<ItemReference> Items) : Command
{
    internal override IWorkingCopyChange ToChange() => new RemoveItems(Items);
}

public sealed record SetTextCommand(ItemReference Item, string Text) : Command
{
    internal override IWorkingCopyChange ToChange() => new SetText(Item, Text);
}

public sealed record SetCampaignSettingsCommand(
    long CampaignId,
    DateOnly? StartDate,
    DateOnly? EndDate,
    IReadOnlyList<string> Networks
) : Command
{
    internal override IWorkingCopyChange ToChange() =>
        new SetCampaignSettings(CampaignId, StartDate, EndDate, NetworkNames.Read(Networks));
}

public sealed record SetFinalUrlCommand(IReadOnlyList<ItemReference> Items, string? FinalUrl) : Command
{
    internal override IWorkingCopyChange ToChange() => new SetFinalUrl(Items, FinalUrl);
}

public sealed record AddCampaignCommand(string Name, decimal? DailyBudget) : Command
{
    internal override IWorkingCopyChange ToChange() => new AddCampaign(Name, DailyBudget);
}

public sealed record AddAdGroupCommand(long CampaignId, string Name, decimal? MaxCpc) : Command
{
    internal override IWorkingCopyChange ToChange() => new AddAdGroup(CampaignId, Name, MaxCpc);
}

public sealed record AddWordsCommand(
    long CampaignId,
    long? AdGroupId,
    string Lines,
    MatchType Match,
    bool Negative,
    decimal? MaxCpc
) : Command
{
    internal override IWorkingCopyChange ToChange() =>
        new AddWords(CampaignId, AdGroupId, Lines, Match, Negative, MaxCpc);
}

public sealed record WriteTextAdCommand(
    long? AdId,
    long AdGroupId,
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    IReadOnlyList<string> DisplayPath,
    string FinalUrl,
    Device? DevicePreference
) : Command
{
    internal override IWorkingCopyChange ToChange() =>
        new WriteTextAd(AdId, AdGroupId, Headlines, Descriptions, DisplayPath, FinalUrl, DevicePreference);
}

/// <summary>Networks as a list of names, so that nobody has to add up flags.</summary>
internal static class NetworkNames
{
    public static SiteKinds Read(IEnumerable<string> names)
    {
        var networks = SiteKinds.None;
        foreach (var name in names)
        {
            networks |= name switch
            {
                "search" => SiteKinds.Search,
                "partners" => SiteKinds.Partners,
                "content" => SiteKinds.Content,
                _ => throw new InvalidChangeException("networks", $"“{name}” is not search, partners or content."),
            };
        }

        return networks;
    }
}

/// <summary>One item before and after, field by field.</summary>
public sealed record ChangeLine(
    ItemKind Kind,
    long Id,
    string Name,
    string? Campaign,
    string? AdGroup,
    RowChange Change,
    IReadOnlyList<FieldDifference> Differences,
    string? ReviewReason
);

/// <summary>What a command did or would do.</summary>
public sealed record CommandAnswer(
    long? StepId,
    string Label,
    int Items,
    IReadOnlyList<RefusedItem> Refused,
    IReadOnlyList<ChangeLine> Changes
);

public sealed record PendingAnswer(IReadOnlyList<PendingCount> Counts, IReadOnlyList<ChangeLine> Lines);

internal static class ChangeEndpoints
{
    private const int LargestPage = 500;

    public static void MapChanges(this RouteGroupBuilder account)
    {
        account.MapPost("/sheet", SheetAsync).WithName("readSheet");
        account.MapPost("/commands", CommandAsync).WithName("runCommand");
        account.MapPost("/undo", UndoAsync).WithName("undo");
        account.MapPost("/redo", RedoAsync).WithName("redo");
        account.MapGet("/history", HistoryAsync).WithName("listHistory");
        account.MapGet("/history/{stepId:long}", StepAsync).WithName("readStep");
        account.MapGet("/pending", PendingAsync).WithName("listPending");
    }

    private static async Task<Ok<SheetPage>> SheetAsync(
        int accountId,
        SheetRequest request,
        SheetReader reader,
        CancellationToken cancellation
    ) => TypedResults.Ok(await reader.ReadAsync(accountId, request, cancellation));

    private static async Task<Ok<CommandAnswer>> CommandAsync(
        int accountId,
        Command command,
        bool? preview,
        HttpContext context,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var result = await workingCopy.ApplyAsync(
            accountId,
            context.User.PersonId(),
            command.ToChange(),
            preview == true,
            cancellation
        );
        var currency = (await workingCopy.FactsAsync(accountId, cancellation)).Currency;
        return TypedResults.Ok(Answer(result, currency));
    }

    private static async Task<Ok<CommandAnswer>> UndoAsync(
        int accountId,
        HttpContext context,
        StepHistory history,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    ) =>
        await RevertAsync(
            await history.UndoAsync(accountId, context.User.PersonId(), cancellation),
            "There is nothing to undo.",
            accountId,
            workingCopy,
            cancellation
        );

    private static async Task<Ok<CommandAnswer>> RedoAsync(
        int accountId,
        HttpContext context,
        StepHistory history,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    ) =>
        await RevertAsync(
            await history.RedoAsync(accountId, context.User.PersonId(), cancellation),
            "There is nothing to redo.",
            accountId,
            workingCopy,
            cancellation
        );

    private static async Task<Ok<CommandAnswer>> RevertAsync(
        StepResult? result,
        string nothing,
        int accountId,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            Answer(
                result ?? throw new InvalidChangeException("step", nothing),
                (await workingCopy.FactsAsync(accountId, cancellation)).Currency
            )
        );

    private static async Task<Ok<IReadOnlyList<HistoryEntry>>> HistoryAsync(
        int accountId,
        long? before,
        StepHistory history,
        CancellationToken cancellation
    ) => TypedResults.Ok(await history.ListAsync(accountId, before, 100, cancellation));

    private static async Task<Results<Ok<List<ChangeLine>>, NotFound>> StepAsync(
        int accountId,
        long stepId,
        StepHistory history,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var changes = await history.ChangesOfAsync(accountId, stepId, LargestPage, cancellation);
        var currency = (await workingCopy.FactsAsync(accountId, cancellation)).Currency;
        return changes is null
            ? TypedResults.NotFound()
            : TypedResults.Ok(changes.Select(change => Line(change, currency)).ToList());
    }

    private static async Task<Ok<PendingAnswer>> PendingAsync(
        int accountId,
        int? offset,
        PendingChanges pending,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var currency = (await workingCopy.FactsAsync(accountId, cancellation)).Currency;
        var counts = await pending.CountAsync(accountId, cancellation);
        var changes = await pending.ListAsync(accountId, Math.Max(0, offset ?? 0), LargestPage, cancellation);
        return TypedResults.Ok(
            new PendingAnswer(
                counts,
                [
                    .. changes.Select(change => new ChangeLine(
                        change.Kind,
                        change.Id,
                        change.Name,
                        change.Campaign,
                        change.AdGroup,
                        change.Change,
                        FieldDifferences.Between(change.Before, change.After, currency),
                        change.ReviewReason
                    )),
                ]
            )
        );
    }

    private static CommandAnswer Answer(StepResult result, Currency currency) =>
        new(
            result.StepId,
            result.Label,
            result.Items,
            result.Refused,
            [.. result.Changes.Select(change => Line(change, currency))]
        );

    private static ChangeLine Line(ItemChange change, Currency currency) =>
        new(
            change.Kind,
            change.Id,
            FieldDifferences.NameOf(change.Kind, (change.After ?? change.Before)!.Value),
            null,
            null,
            change.Before is null ? RowChange.New
                : change.After is null ? RowChange.Removed
                : RowChange.Edited,
            FieldDifferences.Between(change.Before, change.After, currency),
            null
        );
}
