using System.Globalization;
using System.Text;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Doors;

/// <summary>
/// The other service companies: the landing pages of the demo's businesses, the booking site that they lead to and the telephone
/// carrier. Small, but real: what the world says of them is what one finds there.
/// </summary>
internal static class OutsideDoor
{
    private const string Html = "text/html; charset=utf-8";

    public static void Map(WebApplication app)
    {
        app.MapGet("/outside/pages/{**address}", Page);
        app.MapGet("/outside/bookings/{host}", Booking);
        app.MapPost("/outside/bookings/{host}", BookAsync).DisableAntiforgery();
        app.MapPost("/outside/sent/{**address}", SendAsync).DisableAntiforgery();
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

        if (world.Bookings.Any(site => site.Host == World.Bare(address)))
        {
            return Booking(World.Bare(address), device, day, context);
        }

        if (world.PageOf(address) is not { } page || !world.IsPage(address))
        {
            return Results.Content(
                PageMarkup.Whole("There is no such page", "<p>There is no such page.</p>"),
                Html,
                Encoding.UTF8,
                StatusCodes.Status404NotFound
            );
        }

        if (day is { } asked && page.IsDownOn(asked))
        {
            return Results.StatusCode(StatusCodes.Status503ServiceUnavailable);
        }

        var on = DeviceOf(device);
        context.Response.Headers["Server-Timing"] = string.Create(
            CultureInfo.InvariantCulture,
            $"load;dur={page.LoadsIn(on)}"
        );
        return Results.Content(PageMarkup.Of(page, on), Html);
    }

    /// <summary>The page of a booking site; a click id in its address comes along into the form on days on which the site keeps it.</summary>
    private static IResult Booking(string host, string? device, DateOnly? day, HttpContext context)
    {
        if (World.Shipped.Bookings.FirstOrDefault(site => site.Host == host) is not { } site)
        {
            return Results.NotFound();
        }

        var sent = context.Request.Query[PageTags.ClickId].ToString();
        return Results.Content(
            PageMarkup.Of(
                site,
                DeviceOf(device),
                sent.Length > 0 && (day is not { } on || site.KeepsIdOn(on)) ? sent : null
            ),
            Html
        );
    }

    /// <summary>A booking; refused where the form cannot be sent.</summary>
    private static async Task<IResult> BookAsync(string host, string? device, HttpContext context) =>
        World.Shipped.Bookings.FirstOrDefault(site => site.Host == host) is not { } site ? Results.NotFound()
        : site.FormOn(DeviceOf(device)) == FormState.Works
            ? Results.Content(PageMarkup.Thanks(await ClickIdAsync(context), TagState.Works), Html)
        : CannotBeSent();

    /// <summary>A form or an order that is sent from a landing page.</summary>
    private static async Task<IResult> SendAsync(string address, string? device, HttpContext context) =>
        World.Shipped.Bookings.Any(site => site.Host == World.Bare(address))
            ? await BookAsync(World.Bare(address), device, context)
        : World.Shipped.PageOf(address) is not { } page ? Results.NotFound()
        : page.FormOn(DeviceOf(device)) == FormState.Broken ? CannotBeSent()
        : Results.Content(PageMarkup.Thanks(await ClickIdAsync(context), page.Tag), Html);

    private static async Task<string?> ClickIdAsync(HttpContext context) =>
        context.Request.HasFormContentType
        && (await context.Request.ReadFormAsync())[PageTags.ClickId].ToString() is { Length: > 0 } id
            ? id
            : null;

    private static IResult CannotBeSent() =>
        Results.Problem(
            "The form cannot be sent on this device.",
            statusCode: StatusCodes.Status422UnprocessableEntity
        );

    private static Device DeviceOf(string? device) => device == "phone" ? Device.Phone : Device.Desktop;

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
}
