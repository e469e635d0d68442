using Fendrik.Core.Tracking;
using Fendrik.Data.Links;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Fendrik.Server.Jobs;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Writing;

/// <summary>A tracking template to be tried.</summary>
/// <param name="Template">The template; empty for none, nothing for the one that holds.</param>
/// <param name="CampaignId">Whose clicks it is tried on; none for all.</param>
/// <param name="AdGroupId">Likewise.</param>
public sealed record TemplateToTry(string? Template, long? CampaignId = null, long? AdGroupId = null);

/// <summary>A click on a real item, and where it would lead.</summary>
/// <param name="Campaign">Its campaign.</param>
/// <param name="AdGroup">Its ad group.</param>
/// <param name="Keyword">The keyword.</param>
/// <param name="Page">The landing page.</param>
/// <param name="Address">Where it leads; none when the template cannot be read.</param>
/// <param name="Problems">What is wrong with that.</param>
public sealed record TriedClick(
    string Campaign,
    string AdGroup,
    string Keyword,
    string Page,
    string? Address,
    IReadOnlyList<LinkProblem> Problems
);

/// <summary>What a template makes of real clicks.</summary>
/// <param name="Problems">What is wrong with it whatever is clicked.</param>
/// <param name="Clicks">A few clicks.</param>
public sealed record TemplateTried(IReadOnlyList<LinkProblem> Problems, IReadOnlyList<TriedClick> Clicks);

/// <summary>Whether links are followed every night.</summary>
/// <param name="Chosen">True when they are.</param>
public sealed record NightlyChoice(bool Chosen);

/// <summary>What links lead to: templates, and what following them showed.</summary>
internal static class LinkEndpoints
{
    public static void MapLinks(this RouteGroupBuilder account)
    {
        account.MapGet("/links/variables", Variables).WithName("readTrackingVariables");
        account.MapPost("/links/try", TryAsync).WithName("tryTemplate").Needs(AccountRight.Look);
        account.MapGet("/links/checks", ChecksAsync).WithName("readLinkChecks");
        account.MapPost("/links/checks", BeginAsync).WithName("checkLinks");
        account.MapGet("/links/nightly", NightlyAsync).WithName("readNightlyLinks");
        account.MapPut("/links/nightly", ChooseNightlyAsync).WithName("chooseNightlyLinks");
    }

    /// <summary>What a template can say of a click: the same for every account.</summary>
    private static Ok<IReadOnlyList<TrackingVariable>> Variables(int accountId) =>
        TypedResults.Ok(TrackingVariable.All);

    private static async Task<Ok<TemplateTried>> TryAsync(
        int accountId,
        TemplateToTry request,
        LinkBook book,
        CancellationToken cancellation
    )
    {
        if (request.Template is { Length: > UriTemplate.Longest })
        {
            throw new InvalidChangeException(
                "template",
                $"A template has at most {UriTemplate.Longest:N0} characters. Shorten it."
            );
        }

        var examples = await book.ExamplesAsync(accountId, request.CampaignId, request.AdGroupId, cancellation);
        var clicks = examples
            .Select(example =>
            {
                var link = TrackedLink.Of(request.Template ?? example.Template, example.Click);
                return new TriedClick(
                    example.Click.Campaign.Name,
                    example.Click.AdGroup.Name,
                    example.Click.Keyword.Text,
                    example.Page,
                    link.Address,
                    link.Problems
                );
            })
            .ToList();
        return TypedResults.Ok(new TemplateTried(OfTemplate(request.Template), clicks));
    }

    private static List<LinkProblem> OfTemplate(string? template) =>
        string.IsNullOrWhiteSpace(template) ? []
        : UriTemplate.TryRead(template, out var read, out var problem) ? [.. TrackedLink.ProblemsOf(read)]
        : [TrackedLink.Unreadable(problem)];

    private static async Task<Ok<IReadOnlyList<CheckedLink>>> ChecksAsync(
        int accountId,
        LinkBook book,
        CancellationToken cancellation
    ) => TypedResults.Ok(await book.CheckedAsync(accountId, cancellation));

    private static async Task<Ok<JobView>> BeginAsync(
        int accountId,
        HttpContext context,
        JobDesk jobs,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            await jobs.BeginAsync(new JobOrder(accountId, context.User.PersonId(), JobKind.Links), cancellation)
        );

    private static async Task<Ok<NightlyChoice>> NightlyAsync(
        int accountId,
        NightlyLinks nightly,
        CancellationToken cancellation
    ) => TypedResults.Ok(new NightlyChoice(await nightly.IsChosenAsync(accountId, cancellation)));

    private static async Task<Ok<NightlyChoice>> ChooseNightlyAsync(
        int accountId,
        NightlyChoice choice,
        HttpContext context,
        NightlyLinks nightly,
        CancellationToken cancellation
    )
    {
        await nightly.ChooseAsync(accountId, context.User.PersonId(), choice.Chosen, cancellation);
        return TypedResults.Ok(choice);
    }
}
