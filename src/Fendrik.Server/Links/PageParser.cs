using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using AngleSharp.Html.Parser;
using Fendrik.Core.AdText.Fit;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Tracking.Conversions;

namespace Fendrik.Server.Links;

/// <summary>Reads what people see on a page out of its HTML. Nothing of it is run, and nothing that it names is fetched.</summary>
public static class PageParser
{
    /// <summary>What stands first on a page says what it is about.</summary>
    private const int LongestBody = 6_000;
    private const int LongestLine = 300;
    private const int MostHeadings = 40;

    /// <summary>Reads a page.</summary>
    /// <param name="address">The page.</param>
    /// <param name="html">Its HTML, whatever state that is in.</param>
    /// <param name="milliseconds">Until it can be used.</param>
    public static PageText Read(string address, string html, int milliseconds)
    {
        using var document = new HtmlParser().ParseDocument(html);
        var tag = TagOf(document);
        foreach (var unseen in document.QuerySelectorAll("script, style, noscript, template").ToArray())
        {
            unseen.Remove();
        }

        return new PageText(
            address,
            Line(document.Title ?? ""),
            [
                .. document
                    .QuerySelectorAll("h1, h2, h3")
                    .Select(heading => Line(heading.TextContent))
                    .Where(text => text.Length > 0)
                    .Take(MostHeadings),
            ],
            Cut(TextValue.Single(Kept(document.Body?.TextContent ?? "")), LongestBody),
            CanGetInTouch(document),
            milliseconds,
            tag
        );
    }

    /// <summary>The network's tag: a script that says when it tells.</summary>
    internal static PageTag TagOf(IHtmlDocument document) =>
        document
            .QuerySelectorAll($"script[{PageTags.Attribute}]")
            .Select(tag => tag.GetAttribute(PageTags.Attribute))
            .FirstOrDefault() switch
        {
            null => PageTag.None,
            PageTags.OnLoad => PageTag.OnLoad,
            _ => PageTag.OnSend,
        };

    private static bool CanGetInTouch(IHtmlDocument document) =>
        document.QuerySelectorAll("a[href]").Any(IsContact)
        || document
            .QuerySelectorAll("form")
            .Any(form =>
                form.QuerySelectorAll("button:not([type=button]):not([type=reset]), input[type=submit]")
                    .Any(button => !button.HasAttribute("disabled"))
            );

    private static bool IsContact(IElement link) =>
        link.GetAttribute("href") is { } href
        && (
            href.StartsWith("tel:", StringComparison.OrdinalIgnoreCase)
            || link.TextContent.Contains("book", StringComparison.OrdinalIgnoreCase)
        );

    private static string Line(string text) => Cut(TextValue.Single(Kept(text)), LongestLine);

    /// <summary>Control characters are nothing that anybody reads, and cannot be kept.</summary>
    private static string Kept(string text) =>
        string.Concat(text.Select(each => char.IsControl(each) || char.IsSurrogate(each) ? ' ' : each));

    private static string Cut(string text, int longest) => text.Length <= longest ? text : text[..longest];
}
