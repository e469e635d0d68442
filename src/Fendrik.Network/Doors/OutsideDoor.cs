using System.Globalization;
using System.Text;
using System.Text.Encodings.Web;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Doors;

/// <summary>
/// The other service companies: the landing pages of the demo's businesses, the booking site that they lead to and the telephone
/// carrier. Small, but real: what the world says of them is what one finds there.
/// </summary>
internal static class OutsideDoor
{
    public static void Map(WebApplication app)
    {
        app.MapGet("/outside/pages/{**address}", Page);
        app.MapGet("/outside/bookings/{host}", Booking);
        app.MapPost("/outside/bookings/{host}", Book);
        app.MapGet("/outside/carrier/lines", () => World.Shipped.Lines.Select(LineOf));
        app.MapPost("/outside/carrier/calls", Call);
    }

    /// <summary>A page as a browser on a device gets it on a day.</summary>
    private static IResult Page(string address, string? device, DateOnly? day, HttpContext context)
    {
        var world = World.Shipped;
        if (world.MovedTo(address) is { } to)
        {
            // Whoever moved the page thought of it alone: parameters of the address do not come along.
            var circumstances = QueryString.Create(
                context.Request.Query.Where(each => each.Key is "device" or "day").OrderBy(each => each.Key)
            );
            return Results.Redirect($"/outside/pages/{to}{circumstances}", permanent: true);
        }

        if (world.PageOf(address) is not { } page || !world.IsPage(address))
        {
            return Results.Content(
                Html("There is no such page", "<p>There is no such page.</p>"),
                "text/html; charset=utf-8",
                Encoding.UTF8,
                StatusCodes.Status404NotFound
            );
        }

        if (day is { } asked && page.IsDownOn(asked))
        {
            return Results.StatusCode(StatusCodes.Status503ServiceUnavailable);
        }

        var on = device == "phone" ? Device.Phone : Device.Desktop;
        context.Response.Headers["Server-Timing"] = string.Create(
            CultureInfo.InvariantCulture,
            $"load;dur={page.LoadsIn(on)}"
        );
        return Results.Content(Html(page.Name, Body(page, on)), "text/html; charset=utf-8");
    }

    private static string Body(LandingPage page, Device device)
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

        return body.ToString();
    }

    private static IResult Booking(string host, string? device)
    {
        if (World.Shipped.Bookings.FirstOrDefault(site => site.Host == host) is not { } site)
        {
            return Results.NotFound();
        }

        var works = site.FormOn(device == "phone" ? Device.Phone : Device.Desktop) == FormState.Works;
        return Results.Content(
            Html(
                site.Name,
                $"<h1>{Safe(site.Name)}</h1>\n<form method=\"post\"><label>Day <input type=\"date\" name=\"day\" required></label><label>Name <input name=\"name\" required></label><button{(works ? "" : " disabled")}>Book</button></form>\n"
            ),
            "text/html; charset=utf-8"
        );
    }

    /// <summary>A booking; refused where the form cannot be sent.</summary>
    private static IResult Book(string host, string? device) =>
        World.Shipped.Bookings.FirstOrDefault(site => site.Host == host) is not { } site ? Results.NotFound()
        : site.FormOn(device == "phone" ? Device.Phone : Device.Desktop) == FormState.Works
            ? Results.Ok(new { booked = true })
        : Results.Problem(
            "The form cannot be sent on this device.",
            statusCode: StatusCodes.Status422UnprocessableEntity
        );

    /// <summary>A call to a line at a moment of the clock on its wall.</summary>
    private static IResult Call(CallToLine call) =>
        World.Shipped.Lines.FirstOrDefault(line => line.Number == call.Number) is not { } line
            ? Results.NotFound()
            : Results.Ok(new { staffed = line.IsStaffed(call.At.DayOfWeek, call.At.Hour + call.At.Minute / 60.0) });

    private sealed record CallToLine(string Number, DateTime At);

    private static object LineOf(PhoneLine line) =>
        new
        {
            line.Number,
            line.Name,
            hours = line.Hours.Select(day => day is { } open ? new[] { open.From, open.To } : null),
        };

    private static string Html(string title, string body) =>
        $"<!doctype html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\"><title>{Safe(title)}</title></head><body>\n{body}</body></html>\n";

    private static string Safe(string text) => HtmlEncoder.Default.Encode(text);
}
