using System.Text.Json.Serialization;
using Fendrik.Core.Accounts;
using Fendrik.Data.Steps;

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
