using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Tracking;

/// <summary>Something about a link that is worth knowing before somebody clicks it.</summary>
/// <param name="Weight">How much it weighs.</param>
/// <param name="Code">Stable name of the check.</param>
/// <param name="Message">A short line.</param>
/// <param name="Detail">A sentence that says what to do.</param>
public sealed record LinkProblem(Weight Weight, string Code, string Message, string Detail);

/// <summary>Where a click leads, and what is wrong with it.</summary>
/// <param name="Address">The address; none when the template cannot be read.</param>
/// <param name="Problems">What is worth knowing.</param>
public sealed record TrackedLink(string? Address, IReadOnlyList<LinkProblem> Problems)
{
    private const string PageFirst = "{+" + TrackingVariable.Page + "}";

    /// <summary>
    /// Makes the address of a click. A template that begins with the landing page goes on in its query: where the page has
    /// parameters of its own the template's are added to them, and a fragment stays at the end.
    /// </summary>
    /// <param name="template">The template that holds; none for none.</param>
    /// <param name="click">What is known of the click.</param>
    public static TrackedLink Of(string? template, TrackedClick click)
    {
        if (string.IsNullOrWhiteSpace(template))
        {
            return new TrackedLink(click.LandingPage, []);
        }

        if (!UriTemplate.TryRead(template, out var read, out var problem))
        {
            return new TrackedLink(
                null,
                [Blocker("unreadable", "template cannot be read", $"The template {problem}.")]
            );
        }

        var problems = new List<LinkProblem>(ProblemsOf(read));
        var address = Expanded(read, click);
        problems.AddRange(ProblemsOf(address, click));
        return new TrackedLink(address, problems);
    }

    /// <summary>A template that cannot be read.</summary>
    /// <param name="problem">What is wrong with it, as the end of a sentence.</param>
    public static LinkProblem Unreadable(string problem) =>
        Blocker("unreadable", "template cannot be read", $"The template {problem}.");

    /// <summary>What is wrong with a template by itself, whatever is clicked.</summary>
    public static IEnumerable<LinkProblem> ProblemsOf(UriTemplate template)
    {
        foreach (var name in template.Variables.Distinct().Where(name => TrackingVariable.Of(name) is null))
        {
            yield return Blocker(
                "unknown-variable",
                $"{{{name}}} is no variable",
                $"Nothing is known of a click by the name “{name}”. Choose one of {string.Join(", ", TrackingVariable.All.Select(each => each.Name))}."
            );
        }

        if (!template.Variables.Contains(TrackingVariable.Page))
        {
            yield return Blocker(
                "page-lost",
                "landing page is lost",
                "The template has no {page}: every click would lead to the same address. Begin it with {+page}, or hand {page} to the redirect."
            );
        }
    }

    private static string Expanded(UriTemplate template, TrackedClick click)
    {
        if (
            !template.Text.StartsWith(PageFirst, StringComparison.Ordinal)
            || !UriTemplate.TryRead(template.Text[PageFirst.Length..], out var rest, out _)
        )
        {
            return template.Expand(name => ValueOf(click, name));
        }

        var page = Whole(click.LandingPage);
        var (head, fragment) = Parted(page, '#');
        var more = rest.Expand(name => ValueOf(click, name));
        if (head.Contains('?', StringComparison.Ordinal) && more.StartsWith('?'))
        {
            more = (head.EndsWith('?') || head.EndsWith('&') ? "" : "&") + more[1..];
        }
        else if (!head.Contains('?', StringComparison.Ordinal) && more.StartsWith('&'))
        {
            more = "?" + more[1..];
        }

        return head + more + (fragment.Length > 0 && !more.Contains('#', StringComparison.Ordinal) ? fragment : "");
    }

    private static IEnumerable<LinkProblem> ProblemsOf(string address, TrackedClick click)
    {
        if (!WebAddress.IsValid(address))
        {
            yield return Blocker(
                "no-address",
                "no web address comes of it",
                "What the template makes is not a web address. Begin it with {+page}, or with https:// and the address of the redirect."
            );
            yield break;
        }

        var own = NamesIn(Whole(click.LandingPage)).ToHashSet(StringComparer.Ordinal);
        foreach (var (name, times) in NamesIn(address).CountBy(name => name).Where(each => each.Value > 1))
        {
            yield return new LinkProblem(
                Weight.Caution,
                "doubled-parameter",
                $"parameter {name} comes {(times == 2 ? "twice" : $"{times} times")}",
                own.Contains(name)
                    ? $"The landing page says {name} itself and the template says it again: which of the two counts is up to the site. Take it out of one."
                    : $"The template says {name} more than once: which counts is up to the site. Leave one."
            );
        }
    }

    /// <summary>Names of the parameters of an address, in their order.</summary>
    public static IEnumerable<string> NamesIn(string address)
    {
        var (head, _) = Parted(address, '#');
        var (_, query) = Parted(head, '?');
        return query
            .TrimStart('?')
            .Split('&', StringSplitOptions.RemoveEmptyEntries)
            .Select(pair => Uri.UnescapeDataString(Parted(pair, '=').Before));
    }

    private static string Whole(string page) =>
        page.Contains("://", StringComparison.Ordinal) ? page : "https://" + page;

    private static (string Before, string After) Parted(string text, char at)
    {
        var place = text.IndexOf(at, StringComparison.Ordinal);
        return place < 0 ? (text, "") : (text[..place], text[place..]);
    }

    private static TemplateValue? ValueOf(TrackedClick click, string name) =>
        (name == TrackingVariable.Page ? Whole(click.LandingPage) : click[name]) is { } text
            ? new TemplateValue.OfText(text)
            : null;

    private static LinkProblem Blocker(string code, string message, string detail) =>
        new(Weight.Blocker, code, message, detail);
}
