using System.Globalization;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using AngleSharp.Html.Parser;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;
using Fendrik.Core.Tracking;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Data.Accounts;
using Fendrik.Data.Links;
using Fendrik.Server.Networks;

namespace Fendrik.Server.Links;

/// <summary>
/// Makes a visit as somebody would who clicked an ad, does what an action counts, and plays the tags that it finds on the way: what the
/// network hears of it is what was really carried along.
/// </summary>
public sealed class TestVisitor(PageVisitor pages, SearchNetworks networks, LinkBook links, AccountToday today)
{
    /// <summary>Most pages that are read to find one that leads to a booking site.</summary>
    private const int MostTried = 8;

    private const int MillisecondsOfSecond = 1_000;

    /// <summary>Follows a visit.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="action">What is to be done.</param>
    /// <param name="isDesktop">On a desktop, else on a phone.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    public async Task<FollowedVisit> FollowAsync(
        int accountId,
        ConversionAction action,
        bool isDesktop,
        CancellationToken cancellation
    )
    {
        var network = await networks.OfAccountAsync(accountId, cancellation);
        var id = await network.TestClickAsync(accountId, cancellation);
        var device = new VisitorsDevice(isDesktop, await today.ReadAsync(accountId, cancellation));
        var visit = new Visit(action, id, device);
        if (action.Source == ConversionSource.CallFromAd)
        {
            visit.Add("Call", $"the number beside an ad · {Talk(action)}", true, null, true);
            return await ToldAsync(network, accountId, visit, null, Seconds(action), cancellation);
        }

        if (await ArriveAsync(accountId, visit, cancellation) is not { } page)
        {
            return visit.End("The visit broke off before anything could be counted.");
        }

        return action.Source switch
        {
            ConversionSource.PageReached => await ByTagAsync(network, accountId, visit, page, 0, cancellation),
            ConversionSource.Form or ConversionSource.Sale => await SendAsync(
                network,
                accountId,
                visit,
                page,
                cancellation
            ),
            ConversionSource.Booking => await BookAsync(network, accountId, visit, page, cancellation),
            ConversionSource.CallFromSite or ConversionSource.CallFromAd => await CallAsync(
                network,
                accountId,
                visit,
                page,
                cancellation
            ),
        };
    }

    /// <summary>Clicks on an ad and opens its page.</summary>
    private async Task<OpenPage?> ArriveAsync(int accountId, Visit visit, CancellationToken cancellation)
    {
        var used = await links.UsedAsync(accountId, cancellation);
        var candidates = used.OrderByDescending(link => IsOf(visit.Action, link.Page))
            .ThenByDescending(link => link.Items)
            .Take(visit.Action.Source == ConversionSource.Booking ? MostTried : 1)
            .ToArray();
        if (candidates.Length == 0)
        {
            visit.Add("Click", "no ad leads to a page yet", false, null, false);
            return null;
        }

        OpenPage? first = null;
        foreach (var link in candidates)
        {
            var opened = await OpenAsync(link, visit, cancellation);
            first ??= opened;
            if (
                visit.Action.Source != ConversionSource.Booking
                || opened?.Html is { } html && BookingOf(html, visit.Action) is not null
            )
            {
                first = opened;
                break;
            }
        }

        var (page, click) = (first!, first!.Link.Click);
        visit.Title =
            $"{click.Campaign.Name} · {page.Final.Split('?')[0].Replace("https://", "", StringComparison.Ordinal)}";
        visit.Add(
            "Click",
            $"{click.AdGroup.Name} · click id {visit.ClickId[..4]}…{visit.ClickId[^2..]}",
            true,
            null,
            true
        );
        var seconds = (page.Milliseconds / (double)MillisecondsOfSecond).ToString("0.0", CultureInfo.InvariantCulture);
        if (page.Html is null)
        {
            visit.Add("Landing page", $"{page.Final} · {page.Problem ?? "it could not be read"}", false, "click", true);
            return null;
        }

        visit.Add(
            "Landing page",
            $"{Bare(page.Final)} · {TagInWords(page.Tag)} · {seconds} s",
            page is { KeepsId: true, Tag: PageTag.OnSend or PageTag.OnLoad },
            page.KeepsId ? "id carried" : "id lost",
            page.KeepsId
        );
        return page;
    }

    private async Task<OpenPage> OpenAsync(UsedLink link, Visit visit, CancellationToken cancellation)
    {
        var address = TrackedLink.Of(link.Template, link.Click with { ClickId = visit.ClickId }).Address ?? link.Page;
        // Networks hang the click id on every link, whether or not a template names it.
        if (!address.Contains(visit.ClickId, StringComparison.Ordinal))
        {
            address +=
                $"{(address.Contains('?', StringComparison.Ordinal) ? '&' : '?')}{PageTags.ClickId}={visit.ClickId}";
        }

        var verdict = await pages.VisitAsync(address, cancellation);
        var html = await pages.HtmlAsync(verdict.Final, visit.Device, cancellation);
        var document = html is null ? null : new HtmlParser().ParseDocument(html);
        return new OpenPage(
            link,
            verdict.Final,
            verdict.Milliseconds,
            document,
            document is null ? PageTag.Unread : PageParser.TagOf(document),
            verdict.Final.Contains(visit.ClickId, StringComparison.Ordinal),
            verdict.Message
        );
    }

    private async Task<FollowedVisit> SendAsync(
        ISearchNetwork network,
        int accountId,
        Visit visit,
        OpenPage page,
        CancellationToken cancellation
    )
    {
        var isForm = visit.Action.Source == ConversionSource.Form;
        if (isForm && page.Html!.QuerySelector("form") is null)
        {
            visit.Add("Form", "there is none on the page", false, null, true);
            return visit.End("There is no form where the ad leads to. Say on which page the form is.");
        }

        var thanks = await pages.SendAsync(Plain(page.Final), visit.Device, visit.Fields(page.KeepsId), cancellation);
        if (thanks is null)
        {
            visit.Add(isForm ? "Form" : "Order", "it cannot be sent on this device", false, "id carried", true);
            return visit.End("Nobody can get in touch on this device: what they want to send is lost.");
        }

        visit.Add(isForm ? "Form" : "Order", "sent", true, page.KeepsId ? "id carried" : "id lost", page.KeepsId);
        return await ByTagAsync(network, accountId, visit, page, 0, cancellation);
    }

    private async Task<FollowedVisit> BookAsync(
        ISearchNetwork network,
        int accountId,
        Visit visit,
        OpenPage page,
        CancellationToken cancellation
    )
    {
        var action = visit.Action;
        if (BookingOf(page.Html!, action) is not { } link)
        {
            visit.Add("Booking site", $"no landing page leads to {action.Address}", false, null, false);
            return visit.End("Nobody gets from an ad to this booking site.");
        }

        var carries = action.Hearing == ConversionHearing.CarriedId && page is { KeepsId: true, Tag: not PageTag.None };
        var host = new Uri(link).Host;
        var html = await pages.HtmlAsync(
            carries ? $"{link}?{PageTags.ClickId}={visit.ClickId}" : link,
            visit.Device,
            cancellation
        );
        var keeps = html is not null && html.Contains(visit.ClickId, StringComparison.Ordinal);
        visit.Add(
            "Booking site",
            html is null ? $"{host} · it could not be opened"
                : carries && !keeps ? $"{host} · it drops what the link carries"
                : $"{host} · {(keeps ? "it keeps the click id" : "it knows nothing of the click")}",
            html is not null && (keeps || action.Hearing == ConversionHearing.SentBack),
            carries ? "id carried" : "id not carried",
            carries || action.Hearing == ConversionHearing.SentBack
        );
        var thanks = html is null ? null : await pages.SendAsync(link, visit.Device, visit.Fields(keeps), cancellation);
        if (thanks is null)
        {
            visit.Add("Booking", "it cannot be made on this device", false, keeps ? "id carried" : "id lost", keeps);
            return visit.End(
                "The form of the booking site cannot be sent on this device: these visits are lost for good."
            );
        }

        var sentBack = action.Hearing == ConversionHearing.SentBack;
        var known = sentBack || thanks.Contains(visit.ClickId, StringComparison.Ordinal);
        visit.Add(
            "Confirmation",
            sentBack ? "the site sends it the next morning"
                : known ? "its tag tells the click id"
                : "its tag has no click to tell of",
            known,
            sentBack ? "sent back"
                : known ? "id carried"
                : "id lost",
            known
        );
        return await ToldAsync(network, accountId, visit, host, 0, cancellation, known);
    }

    private static Task<FollowedVisit> CallAsync(
        ISearchNetwork network,
        int accountId,
        Visit visit,
        OpenPage page,
        CancellationToken cancellation
    )
    {
        var number = page.Html!.QuerySelector("a[href^='tel:']")?.TextContent;
        if (number is null)
        {
            visit.Add("Call", "no number on the page", false, null, true);
            return Task.FromResult(visit.End("There is no number where the ad leads to."));
        }

        visit.Add(
            "Call",
            page.Tag == PageTag.None
                ? $"{number} · the tag that would show a tracked number is missing"
                : $"{number} as a tracked number · {Talk(visit.Action)}",
            page.Tag != PageTag.None,
            page.KeepsId ? "id carried" : "id lost",
            page.KeepsId
        );
        return ByTagAsync(network, accountId, visit, page, Seconds(visit.Action), cancellation);
    }

    private static Task<FollowedVisit> ByTagAsync(
        ISearchNetwork network,
        int accountId,
        Visit visit,
        OpenPage page,
        int seconds,
        CancellationToken cancellation
    ) =>
        ToldAsync(
            network,
            accountId,
            visit,
            Bare(page.Final),
            seconds,
            cancellation,
            page is { KeepsId: true, Tag: not PageTag.None }
        );

    private static async Task<FollowedVisit> ToldAsync(
        ISearchNetwork network,
        int accountId,
        Visit visit,
        string? address,
        int seconds,
        CancellationToken cancellation,
        bool known = true
    )
    {
        var action = visit.Action;
        var told = known
            ? await network.TellAsync(
                accountId,
                new ToldEvent(visit.ClickId, action.Source, address, seconds),
                cancellation
            )
            : new ToldAnswer(false, []);
        var counted = told.CountedBy.Contains(action.Id);
        visit.Add(
            "Network",
            !told.KnowsClick ? "nothing is heard of it"
                : counted ? $"counted as “{action.Name}”"
                : "heard, and counted by no action",
            counted,
            told.KnowsClick ? "told" : "nothing sent",
            told.KnowsClick
        );
        return counted
            ? visit.Counted(
                told.CountedBy.Count > 1
                    ? $"It counts. {told.CountedBy.Count - 1} other {(told.CountedBy.Count == 2 ? "action counts" : "actions count")} the same."
                    : "It counts."
            )
            : visit.End(
                told.KnowsClick
                    ? "The network hears of it, and its action does not count it: it is paused, looks elsewhere, or is not published yet."
                    : "The network never hears of it."
            );
    }

    private static string? BookingOf(IHtmlDocument html, ConversionAction action) =>
        html.QuerySelectorAll("a[href]")
            .Select(link => link.GetAttribute("href")!)
            .FirstOrDefault(href =>
                Uri.TryCreate(href, UriKind.Absolute, out var uri)
                && action.Address is { } site
                && SiteValue.Covers(site, uri.Host)
            );

    private static bool IsOf(ConversionAction action, string page) =>
        action.Source != ConversionSource.Booking && action.Address is { } site && SiteValue.Covers(site, Bare(page));

    private static string Bare(string page) =>
        Uri.TryCreate(page, UriKind.Absolute, out var uri) ? (uri.Host + uri.AbsolutePath).TrimEnd('/') : page;

    private static string Plain(string page) => new Uri(page).GetLeftPart(UriPartial.Path);

    private static int Seconds(ConversionAction action) => (int)(action.LeastSeconds ?? 1);

    private static string Talk(ConversionAction action) => $"a talk of {Seconds(action)} s";

    private static string TagInWords(PageTag tag) =>
        tag switch
        {
            PageTag.Unread or PageTag.None => "no tag",
            PageTag.OnSend => "tag found",
            PageTag.OnLoad => "a tag that tells too early",
        };

    private sealed record OpenPage(
        UsedLink Link,
        string Final,
        int Milliseconds,
        IHtmlDocument? Html,
        PageTag Tag,
        bool KeepsId,
        string? Problem
    );

    /// <summary>A visit on its way.</summary>
    private sealed class Visit(ConversionAction action, string clickId, VisitorsDevice device)
    {
        private readonly List<VisitHop> _hops = [];

        public ConversionAction Action => action;

        public string ClickId => clickId;

        public VisitorsDevice Device => device;

        public string Title { get; set; } = action.Name;

        public void Add(string name, string says, bool isFine, string? link, bool isCarried) =>
            _hops.Add(new VisitHop(name, says, isFine, link, isCarried));

        public Dictionary<string, string> Fields(bool withId) =>
            withId ? new() { [PageTags.ClickId] = clickId, ["name"] = "Test" } : new() { ["name"] = "Test" };

        public FollowedVisit End(string says) => new(Title, _hops, false, says);

        public FollowedVisit Counted(string says) => new(Title, _hops, true, says);
    }
}
