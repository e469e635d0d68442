using System.Globalization;
using System.Net;
using System.Net.Sockets;
using System.Text;
using Fendrik.Core.AdText.Fit;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Tracking;

namespace Fendrik.Server.Links;

/// <summary>On what, and on which day, the stand-in is to see a visitor; a phone on no day in particular by itself.</summary>
/// <param name="IsDesktop">True for a desktop.</param>
/// <param name="Day">The day.</param>
public readonly record struct VisitorsDevice(bool IsDesktop, DateOnly? Day)
{
    internal string Query =>
        $"device={(IsDesktop ? "desktop" : "phone")}{(Day is { } day ? $"&day={day:yyyy-MM-dd}" : "")}";
}

/// <summary>
/// Follows a link as a phone would, and reads what is on a page. Addresses come from files and people: nothing in a private
/// network is ever asked, whatever name leads there, nor anything but the web. Hosts that end in <c>.example</c> are those of
/// the stand-in (RFC 2606), which plays them.
/// </summary>
public sealed class PageVisitor : IDisposable
{
    /// <summary>Most times that a link is followed on.</summary>
    public const int MostHops = 6;

    private const int LongestPage = 1_000_000;
    private const int FirstRedirect = 300;
    private const int LastRedirect = 399;
    private const string StandIn = "outside/pages/";

    private static readonly TimeSpan LongestReading = TimeSpan.FromSeconds(10);

    private readonly HttpClient _standIn;
    private readonly HttpClient _outside;
    private readonly TimeProvider _clock;

    /// <param name="configuration">Where the stand-in is.</param>
    /// <param name="clock">Measures how long a page takes.</param>
    public PageVisitor(IConfiguration configuration, TimeProvider clock)
    {
        _clock = clock;
        var timeout = TimeSpan.FromSeconds(configuration.GetValue("Fendrik:LinkTimeoutSeconds", 10));
        _standIn = new HttpClient(new SocketsHttpHandler { AllowAutoRedirect = false, UseProxy = false })
        {
            BaseAddress = new Uri(configuration["Fendrik:Network"] ?? "http://127.0.0.1/"),
            Timeout = timeout,
        };
        _standIn.DefaultRequestHeaders.Add("X-Network-Key", configuration["Fendrik:NetworkKey"] ?? "");
        _outside = new HttpClient(
            new SocketsHttpHandler
            {
                AllowAutoRedirect = false,
                UseProxy = false,
                ConnectTimeout = timeout,
                ConnectCallback = ConnectAsync,
            }
        )
        {
            Timeout = timeout,
        };
        _outside.DefaultRequestHeaders.UserAgent.ParseAdd("Fendrik-link-check");
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        _standIn.Dispose();
        _outside.Dispose();
    }

    /// <summary>Follows a link to its end, and says what it showed.</summary>
    public async Task<LinkVerdict> VisitAsync(string address, CancellationToken cancellation)
    {
        var whole = address.Contains("://", StringComparison.Ordinal) ? address : "https://" + address;
        var hops = new List<LinkHop>();
        var at = whole;
        while (true)
        {
            if (!WebAddress.IsValid(at))
            {
                return LinkVerdict.Of(whole, [.. hops, new LinkHop(at, 0, 0)], LinkEnd.NotAllowed);
            }

            if (hops.Any(hop => hop.Address == at))
            {
                return LinkVerdict.Of(whole, [.. hops, new LinkHop(at, 0, 0)], LinkEnd.Circle);
            }

            if (hops.Count > MostHops)
            {
                return LinkVerdict.Of(whole, hops, LinkEnd.TooManyHops);
            }

            try
            {
                var (hop, next) = await AskAsync(at, cancellation);
                hops.Add(hop);
                if (next is null)
                {
                    return LinkVerdict.Of(whole, hops, LinkEnd.Answered);
                }

                at = next;
            }
            catch (PrivateAddressException)
            {
                return LinkVerdict.Of(whole, [.. hops, new LinkHop(at, 0, 0)], LinkEnd.NotAllowed);
            }
            catch (HttpRequestException error) when (error.InnerException is PrivateAddressException)
            {
                return LinkVerdict.Of(whole, [.. hops, new LinkHop(at, 0, 0)], LinkEnd.NotAllowed);
            }
            catch (Exception error)
                when (error is HttpRequestException
                    || (error is OperationCanceledException && !cancellation.IsCancellationRequested)
                )
            {
                return LinkVerdict.Of(whole, [.. hops, new LinkHop(at, 0, 0)], LinkEnd.NoAnswer);
            }
        }
    }

    /// <summary>Reads what stands on a page that a link led to, as far as it is worth reading.</summary>
    /// <param name="page">The page as items name it.</param>
    /// <param name="final">Where its link ended.</param>
    /// <param name="milliseconds">Until it could be used.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    /// <returns>What stands there; none when it is no page, or could not be read.</returns>
    public async Task<PageText?> ReadAsync(
        string page,
        string final,
        int milliseconds,
        CancellationToken cancellation
    ) =>
        await HtmlAsync(final, new VisitorsDevice(), cancellation) is { } html
            ? PageParser.Read(page, html, milliseconds)
            : null;

    /// <summary>The HTML of a page, as far as it is worth reading; none when it is no page, or could not be read.</summary>
    public async Task<string?> HtmlAsync(string final, VisitorsDevice device, CancellationToken cancellation)
    {
        if (!WebAddress.IsValid(final))
        {
            return null;
        }

        // A page without an end is left after its first part.
        using var enough = CancellationTokenSource.CreateLinkedTokenSource(cancellation);
        enough.CancelAfter(LongestReading);
        try
        {
            var (client, address) = RequestOf(new Uri(final), device);
            using var response = await client.GetAsync(address, HttpCompletionOption.ResponseHeadersRead, enough.Token);
            if (
                !response.IsSuccessStatusCode
                || response.Content.Headers.ContentType?.MediaType is not ("text/html" or "application/xhtml+xml")
            )
            {
                return null;
            }

            await using var body = await response.Content.ReadAsStreamAsync(enough.Token);
            var html = new byte[LongestPage];
            var length = await body.ReadAtLeastAsync(html, html.Length, throwOnEndOfStream: false, enough.Token);
            return Encoding.UTF8.GetString(html, 0, length);
        }
        catch (Exception error)
            when (error is HttpRequestException or PrivateAddressException or IOException
                || (error is OperationCanceledException && !cancellation.IsCancellationRequested)
            )
        {
            return null;
        }
    }

    private (HttpClient Client, string Address) RequestOf(Uri uri, VisitorsDevice device = default) =>
        IsPlayed(uri)
            ? (
                _standIn,
                $"{StandIn}{uri.Host}{uri.AbsolutePath}{(uri.Query.Length > 0 ? uri.Query + "&" : "?")}{device.Query}"
            )
            : (_outside, uri.GetLeftPart(UriPartial.Query));

    /// <summary>True for a page that the stand-in plays.</summary>
    public static bool IsPlayed(Uri uri) => uri.Host.EndsWith(".example", StringComparison.OrdinalIgnoreCase);

    /// <summary>Sends a form of a page that the stand-in plays: nothing is ever sent to anybody else.</summary>
    /// <returns>The page that thanks for it; none when it cannot be sent.</returns>
    public async Task<string?> SendAsync(
        string page,
        VisitorsDevice device,
        IReadOnlyDictionary<string, string> fields,
        CancellationToken cancellation
    )
    {
        var uri = new Uri(page);
        if (!IsPlayed(uri))
        {
            return null;
        }

        using var form = new FormUrlEncodedContent(fields);
        using var response = await _standIn.PostAsync(
            $"outside/sent/{uri.Host}{uri.AbsolutePath}?{device.Query}",
            form,
            cancellation
        );
        return response.IsSuccessStatusCode ? await response.Content.ReadAsStringAsync(cancellation) : null;
    }

    /// <summary>Asks for one address. What is on the page stays there: it may be without end.</summary>
    private async Task<(LinkHop Hop, string? Next)> AskAsync(string address, CancellationToken cancellation)
    {
        var uri = new Uri(address);
        var played = IsPlayed(uri);
        var begun = _clock.GetTimestamp();
        var (client, request) = RequestOf(uri);
        using var response = await client.GetAsync(request, HttpCompletionOption.ResponseHeadersRead, cancellation);
        var status = (int)response.StatusCode;
        var hop = new LinkHop(
            address,
            status,
            LoadTimeOf(response) ?? (int)_clock.GetElapsedTime(begun).TotalMilliseconds
        );
        return status is >= FirstRedirect and <= LastRedirect && response.Headers.Location is { } location
            ? (hop, played ? Played(location) : new Uri(uri, location).AbsoluteUri)
            : (hop, null);
    }

    /// <summary>The address on the web that an address of the stand-in plays.</summary>
    private static string Played(Uri location)
    {
        var text = location.IsAbsoluteUri ? location.PathAndQuery : location.OriginalString;
        var page = text[(text.IndexOf(StandIn, StringComparison.Ordinal) + StandIn.Length)..];
        var (path, query) = page.Split('?', 2) is [var before, var after] ? (before, after) : (page, "");
        var own = query.Split('&', StringSplitOptions.RemoveEmptyEntries).Where(pair => pair != "device=phone");
        return "https://" + path + (own.Any() ? "?" + string.Join('&', own) : "");
    }

    /// <summary>Until the page can be used, where the server says so (Server Timing, W3C).</summary>
    private static int? LoadTimeOf(HttpResponseMessage response) =>
        response.Headers.TryGetValues("Server-Timing", out var values)
        && values
            .SelectMany(value => value.Split(';'))
            .FirstOrDefault(part => part.TrimStart().StartsWith("dur=", StringComparison.Ordinal))
            is { } part
        && double.TryParse(part.Trim()["dur=".Length..], NumberStyles.Float, CultureInfo.InvariantCulture, out var time)
            ? (int)time
            : null;

    private static async ValueTask<Stream> ConnectAsync(
        SocketsHttpConnectionContext context,
        CancellationToken cancellation
    )
    {
        var found = await Dns.GetHostAddressesAsync(context.DnsEndPoint.Host, cancellation);
        if (found.Length == 0 || found.Any(IsPrivate))
        {
            throw new PrivateAddressException();
        }

        // The very address that was looked at is connected to: the name may mean another one a moment later.
        var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            await socket.ConnectAsync(found[0], context.DnsEndPoint.Port, cancellation);
            return new NetworkStream(socket, ownsSocket: true);
        }
        catch
        {
            socket.Dispose();
            throw;
        }
    }

    /// <summary>Addresses that are nobody's on the public web: loopback, private, link-local, shared, multicast and reserved ones.</summary>
    public static bool IsPrivate(IPAddress address)
    {
        var plain = address.IsIPv4MappedToIPv6 ? address.MapToIPv4() : address;
        if (IPAddress.IsLoopback(plain))
        {
            return true;
        }

        var bytes = plain.GetAddressBytes();
        return plain.AddressFamily == AddressFamily.InterNetwork
            ? bytes[0] is 0 or 10 or 127 or >= 224
                || (bytes[0] == 100 && bytes[1] is >= 64 and < 128)
                || (bytes[0] == 169 && bytes[1] == 254)
                || (bytes[0] == 172 && bytes[1] is >= 16 and < 32)
                || (bytes[0] == 192 && bytes[1] == 168)
                || (bytes[0] == 192 && bytes[1] == 0 && bytes[2] is 0 or 2)
                || (bytes[0] == 198 && bytes[1] is 18 or 19)
            : plain.IsIPv6LinkLocal
                || plain.IsIPv6SiteLocal
                || plain.IsIPv6UniqueLocal
                || plain.IsIPv6Multicast
                || plain.Equals(IPAddress.IPv6Any)
                || bytes[0] == 0;
    }

    private sealed class PrivateAddressException() : IOException("An address of a private network.");
}
