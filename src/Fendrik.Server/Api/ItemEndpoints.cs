using System.Text.Json.Nodes;
using Fendrik.Core.Items.Kinds;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Data.Accounts;
using Fendrik.Data.Steps;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api;

/// <summary>Something to choose.</summary>
public sealed record ChoiceView(string Key, string Name);

/// <summary>A field of a kind, as the interface shows and edits it.</summary>
public sealed record FieldView(
    string Name,
    string Label,
    string LowLabel,
    string Meaning,
    string Example,
    ValueForm Form,
    IReadOnlyList<ChoiceView> Choices,
    bool IsName,
    bool IsClearable,
    bool IsNeeded,
    bool IsText,
    bool IsIdentity,
    bool IsSortable,
    bool IsUsual,
    int Width,
    ItemKind? InheritedFrom,
    object? Default,
    string? PartName,
    bool InsertsWords,
    int? Places,
    FieldLimits Limits
);

/// <summary>A kind of item, as the interface shows it.</summary>
public sealed record KindView(
    ItemKind Kind,
    string Noun,
    string Plural,
    IReadOnlyList<Level> Levels,
    Level? Holds,
    bool ComesAndGoes,
    bool HasFigures,
    bool IsReviewed,
    string? AdForm,
    IReadOnlyList<FieldView> Fields
);

internal static class ItemEndpoints
{
    public static void MapItems(this RouteGroupBuilder account) =>
        account.MapGet("/kinds", KindsAsync).WithName("listKinds");

    /// <summary>The form of JSON files, for whoever makes one; it says nothing of any account.</summary>
    public static void MapFileSchema(this IEndpointRouteBuilder routes) =>
        routes
            .MapGet(AccountFileSchema.Path, Ok<JsonObject> () => TypedResults.Ok(AccountFileSchema.Make()))
            .AllowAnonymous()
            .ExcludeFromDescription();

    private static async Task<Ok<IReadOnlyList<KindView>>> KindsAsync(
        int accountId,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var account = await workingCopy.FactsAsync(accountId, cancellation);
        return TypedResults.Ok<IReadOnlyList<KindView>>([.. ItemTypes.All.Select(type => View(type, account))]);
    }

    private static KindView View(ItemType type, AccountFacts account) =>
        new(
            type.Kind,
            type.Noun,
            type.Plural,
            type.Levels,
            type.Holds,
            type.ComesAndGoes,
            type.FigureColumn is not null,
            type.IsReviewed,
            (type as AdType)?.FormNoun,
            [.. type.Fields.Select(field => View(field, account))]
        );

    private static FieldView View(Field field, AccountFacts account) =>
        new(
            field.Name,
            field.Label,
            field.LowLabel,
            field.Meaning,
            field.Example,
            field.Type.Form,
            [.. field.Type.Choices.Select(choice => new ChoiceView(choice.Key, choice.Name))],
            field == field.Of.NameField,
            field.IsClearable,
            field.IsNeeded,
            field.IsText,
            field.IsIdentity,
            field.IsSortable,
            field.IsUsual,
            field.Width,
            field.InheritedFrom,
            field.Default is { } value ? field.Type.ForScreen(value) : null,
            (field.Type as LinesValue)?.Part,
            field.Type.InsertsWords,
            field.Type.Places is null ? null : account.Network.Responsive.PlacesOf(field.Name),
            account.Network.LimitsOf(field.Of, field)
        );
}
