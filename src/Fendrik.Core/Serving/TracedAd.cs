using Fendrik.Core.Items.Values;
using Fendrik.Core.Tracking;

namespace Fendrik.Core.Serving;

/// <summary>What the person sees.</summary>
/// <param name="Kind">Kind of ad.</param>
/// <param name="Id">The ad.</param>
/// <param name="Headlines">Its headlines.</param>
/// <param name="Descriptions">Its descriptions.</param>
/// <param name="DisplayPath">What is shown behind the domain.</param>
/// <param name="LandingPage">Where it leads.</param>
/// <param name="Beside">What could show beside it.</param>
/// <param name="Click">Where a click leads; none without a tracking template.</param>
/// <param name="Calls">The number that a tap calls, as people of its country write it; none for an ad that leads to a page.</param>
public sealed record TracedAd(
    ItemKind Kind,
    long Id,
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    IReadOnlyList<string> DisplayPath,
    string? LandingPage,
    IReadOnlyList<TracedExtension>? Beside = null,
    TracedClickAddress? Click = null,
    string? Calls = null
);

/// <summary>The address that a click would have.</summary>
/// <param name="From">The kind of item that says the template.</param>
/// <param name="Template">The template.</param>
/// <param name="Address">The address; none when the template cannot be read.</param>
/// <param name="Problems">What is wrong with it.</param>
public sealed record TracedClickAddress(
    ItemKind From,
    string Template,
    string? Address,
    IReadOnlyList<LinkProblem> Problems
);

/// <summary>Something that could show beside the ad.</summary>
/// <param name="Kind">Kind of extension.</param>
/// <param name="Id">The extension.</param>
/// <param name="From">The level that it stands at.</param>
/// <param name="Text">What it says; a number as people of its country write it.</param>
/// <param name="Lines">What a sitelink says more.</param>
/// <param name="Shows">True when it shows.</param>
/// <param name="Why">Why it does not; empty when it shows.</param>
/// <param name="LandingPage">Where a sitelink leads.</param>
/// <param name="Dials">What a tap on a number dials, by RFC 3966; none for what is no number.</param>
/// <param name="NumberOnly">True when every tap calls.</param>
public sealed record TracedExtension(
    ItemKind Kind,
    long Id,
    Level From,
    string Text,
    IReadOnlyList<string> Lines,
    bool Shows,
    string Why,
    string? LandingPage,
    string? Dials,
    bool NumberOnly
)
{
    /// <summary>As it is told.</summary>
    public static TracedExtension Of(ConsideredExtension considered)
    {
        var extension = considered.Extension;
        var number = extension.Shows is not null;
        return new TracedExtension(
            considered.Kind,
            extension.Id,
            extension.Level,
            number ? PhoneValue.National(extension.Text) : extension.Text,
            extension.Lines ?? [],
            considered.Shows,
            considered.Why,
            extension.LandingPage,
            number ? PhoneValue.Dialled(extension.Text) : null,
            extension.Shows == NumberShows.NumberOnly
        );
    }
}
