using System.Globalization;
using Fendrik.Core.Checks;

namespace Fendrik.Core.Tracking;

/// <summary>One step of following a link.</summary>
/// <param name="Address">What was asked for.</param>
/// <param name="Status">HTTP status of the answer (RFC 9110).</param>
/// <param name="Milliseconds">Until the page can be used.</param>
public sealed record LinkHop(string Address, int Status, int Milliseconds);

/// <summary>Why following a link ended.</summary>
public enum LinkEnd
{
    /// <summary>Something answered that leads no further.</summary>
    Answered = 1,

    /// <summary>It came back to an address that it had been at.</summary>
    Circle = 2,

    /// <summary>It was led on too often.</summary>
    TooManyHops = 3,

    /// <summary>Nobody answered in time.</summary>
    NoAnswer = 4,

    /// <summary>It leads where a link from outside must not: into a private network, or to no web address.</summary>
    NotAllowed = 5,
}

/// <summary>What following a link showed.</summary>
/// <param name="Weight">How much it matters; none when all is well.</param>
/// <param name="Code">Stable name of what is the matter; empty when all is well.</param>
/// <param name="Message">A short line.</param>
/// <param name="Detail">A sentence that says what to do; empty when all is well.</param>
/// <param name="Final">Where it ended.</param>
/// <param name="Milliseconds">How long the last page took.</param>
public sealed record LinkVerdict(
    Weight? Weight,
    string Code,
    string Message,
    string Detail,
    string Final,
    int Milliseconds
)
{
    /// <summary>From here on people on phones begin to leave before they have seen anything.</summary>
    /// <remarks>Common practice, no source.</remarks>
    public const int SlowMilliseconds = 3_000;

    private const int FirstError = 400;

    /// <summary>Judges what following a link showed.</summary>
    /// <param name="asked">The address of the link.</param>
    /// <param name="hops">What was asked for on the way, in order; none when nothing answered at all.</param>
    /// <param name="end">Why it ended.</param>
    public static LinkVerdict Of(string asked, IReadOnlyList<LinkHop> hops, LinkEnd end)
    {
        var last = hops.Count > 0 ? hops[^1] : new LinkHop(asked, 0, 0);
        LinkVerdict Told(Weight? weight, string code, string message, string detail) =>
            new(weight, code, message, detail, last.Address, last.Milliseconds);
        return end switch
        {
            LinkEnd.Circle => Told(
                Checks.Weight.Caution,
                "link-circle",
                "redirects in a circle",
                $"{Short(last.Address)} leads back to where it came from. Nobody reaches a page: enter the address where it should end."
            ),
            LinkEnd.TooManyHops => Told(
                Checks.Weight.Caution,
                "link-hops",
                $"redirected {hops.Count.ToString(CultureInfo.InvariantCulture)} times",
                "The way to the page is too long; it was left there. Enter the address where it ends."
            ),
            LinkEnd.NoAnswer => Told(
                Checks.Weight.Caution,
                "link-no-answer",
                "page does not answer",
                $"{Short(last.Address)} did not answer in time. Every click would be paid for nothing while it is so."
            ),
            LinkEnd.NotAllowed => Told(
                Checks.Weight.Caution,
                "link-not-allowed",
                "no address of the public web",
                $"{Short(last.Address)} cannot be reached from outside, or is no web address. Enter one that anybody can open."
            ),
            LinkEnd.Answered when last.Status >= FirstError => Told(
                Checks.Weight.Caution,
                "link-error",
                $"page answers {last.Status.ToString(CultureInfo.InvariantCulture)}",
                $"{Short(last.Address)} answers with an error. Every click would be paid for nothing while it is so."
            ),
            LinkEnd.Answered => OfPage(asked, hops, Told),
        };
    }

    private static LinkVerdict OfPage(
        string asked,
        IReadOnlyList<LinkHop> hops,
        Func<Weight?, string, string, string, LinkVerdict> told
    )
    {
        var last = hops[^1];
        var lost = TrackedLink
            .NamesIn(asked)
            .Except(TrackedLink.NamesIn(last.Address), StringComparer.Ordinal)
            .ToArray();
        return DomainOf(asked) != DomainOf(last.Address)
                ? told(
                    Checks.Weight.Caution,
                    "link-other-domain",
                    "leads to another domain",
                    $"It ends at {DomainOf(last.Address)}. Reviewers refuse an ad whose page is elsewhere than it says."
                )
            : lost.Length > 0
                ? told(
                    Checks.Weight.Caution,
                    "link-parameters-lost",
                    "redirect drops parameters",
                    $"On the way to {Short(last.Address)} {string.Join(", ", lost)} {(lost.Length == 1 ? "is" : "are")} lost: the client’s own books cannot tell what brought a sale. Enter the address where it ends."
                )
            : last.Milliseconds > SlowMilliseconds
                ? told(
                    Checks.Weight.Hint,
                    "link-slow",
                    string.Create(CultureInfo.InvariantCulture, $"page takes {last.Milliseconds / 1000.0:0.0} s"),
                    "People on phones leave before they see anything, and the page fit of the quality score suffers. Make the page lighter."
                )
            : hops.Count > 1 ? told(null, "", "moved, all parameters arrive", "")
            : told(null, "", "fine", "");
    }

    private static string DomainOf(string address)
    {
        var host = Uri.TryCreate(address, UriKind.Absolute, out var uri) ? uri.IdnHost.ToLowerInvariant() : address;
        return host.StartsWith("www.", StringComparison.Ordinal) ? host[4..] : host;
    }

    private static string Short(string address) => address.Length <= 80 ? address : address[..80] + "…";
}
