using System.Globalization;
using System.Text;
using System.Text.Encodings.Web;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Doors;

/// <summary>The HTML of landing pages and booking sites: what the world says of them is what stands in it.</summary>
internal static class PageMarkup
{
    /// <summary>The networks share the host of their tags in this world; which of them put it there does not matter to the page.</summary>
    private const string TagOwner = "search";

    /// <summary>A landing page as a browser on a device gets it.</summary>
    public static string Of(LandingPage page, Device device)
    {
        var body = new StringBuilder();
        body.Append(
            CultureInfo.InvariantCulture,
            $"<h1>{Safe(page.Name)}</h1>\n<p>{Safe(string.Join(' ', page.Words))}</p>\n"
        );
        if (page.Price is { } price)
        {
            body.Append(CultureInfo.InvariantCulture, $"<p>From <data value=\"{price}\">£{price}</data></p>\n");
        }

        if (page.Line is { } line)
        {
            body.Append(CultureInfo.InvariantCulture, $"<p><a href=\"tel:{line.Number}\">{line.Number}</a></p>\n");
        }

        if (page.FormOn(device) is not FormState.None and var form)
        {
            body.Append(
                CultureInfo.InvariantCulture,
                $"<form method=\"post\" action=\"/contact\"><label>Name <input name=\"name\" required></label><label>Message <textarea name=\"message\" required></textarea></label><button{(form == FormState.Broken ? " disabled" : "")}>Send</button></form>\n"
            );
        }

        if (page.Booking is { } booking)
        {
            body.Append(
                CultureInfo.InvariantCulture,
                $"<p><a href=\"https://{booking.Host}/\">Book a visit at {Safe(booking.Name)}</a></p>\n"
            );
        }

        return Whole(page.Name, body.ToString(), TagOf(page.Tag));
    }

    /// <summary>The page of a booking site, with the click id that came along where the site keeps it.</summary>
    public static string Of(BookingSite site, Device device, string? clickId)
    {
        var works = site.FormOn(device) == FormState.Works;
        var id = clickId is null
            ? ""
            : $"<input type=\"hidden\" name=\"{PageTags.ClickId}\" value=\"{Safe(clickId)}\">";
        return Whole(
            site.Name,
            $"<h1>{Safe(site.Name)}</h1>\n<form method=\"post\">{id}<label>Day <input type=\"date\" name=\"day\" required></label><label>Name <input name=\"name\" required></label><button{(works ? "" : " disabled")}>Book</button></form>\n",
            PageTags.Snippet(TagOwner)
        );
    }

    /// <summary>What a site shows to whoever has sent a form, bought or booked something.</summary>
    public static string Thanks(string? clickId, TagState tag) =>
        Whole(
            "Thank you",
            $"<h1>Thank you</h1>\n{(clickId is null ? "" : $"<input type=\"hidden\" name=\"{PageTags.ClickId}\" value=\"{Safe(clickId)}\">\n")}",
            TagOf(tag)
        );

    public static string Whole(string title, string body, string head = "") =>
        $"<!doctype html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\"><title>{Safe(title)}</title>{head}</head><body>\n{body}</body></html>\n";

    private static string TagOf(TagState tag) =>
        tag switch
        {
            TagState.Works => PageTags.Snippet(TagOwner),
            TagState.Missing => "",
            TagState.EveryVisit => PageTags.Snippet(TagOwner, PageTags.OnLoad),
        };

    private static string Safe(string text) => HtmlEncoder.Default.Encode(text);
}
