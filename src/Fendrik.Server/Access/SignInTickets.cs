using System.Net;
using System.Net.Sockets;
using System.Security.Claims;
using System.Security.Cryptography;
using System.Text;
using Fendrik.Data.People;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.WebUtilities;

namespace Fendrik.Server.Access;

/// <summary>
/// Keeps who is signed in in the database: the cookie is a key to it and nothing else, so that a sign-in that was ended is ended on every server at once, whoever has
/// a copy of the cookie.
/// </summary>
internal sealed class SignInTickets(
    SignInBook book,
    IDataProtectionProvider protection,
    IHttpContextAccessor http,
    TimeProvider clock
) : ITicketStore
{
    /// <summary>Where a request carries the identity of its sign-in.</summary>
    private const string IdItem = "fendrik.sign-in";

    private const int BytesOfKey = 32;
    private static readonly TimeSpan Usual = TimeSpan.FromDays(14);
    private readonly IDataProtector _protector = protection.CreateProtector("Fendrik.SignIns");

    public async Task<string> StoreAsync(AuthenticationTicket ticket)
    {
        var key = WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(BytesOfKey));
        var request = http.HttpContext?.Request;
        await book.AddAsync(
            HashOf(key),
            ticket.Principal.FindFirstValue(ClaimTypes.NameIdentifier) ?? "",
            Written(ticket),
            Expires(ticket),
            AddressOf(http.HttpContext),
            request?.Headers.UserAgent.ToString() ?? "",
            CancellationToken.None
        );
        return key;
    }

    public Task RenewAsync(string key, AuthenticationTicket ticket) =>
        book.RenewAsync(HashOf(key), Written(ticket), Expires(ticket), CancellationToken.None);

    public async Task<AuthenticationTicket?> RetrieveAsync(string key)
    {
        var context = http.HttpContext;
        if (await book.FindAsync(HashOf(key), context?.RequestAborted ?? default) is not { } found)
        {
            return null;
        }

        if (context is not null)
        {
            context.Items[IdItem] = found.Id;
        }

        try
        {
            return TicketSerializer.Default.Deserialize(_protector.Unprotect(found.Ticket));
        }
        catch (CryptographicException)
        {
            // Written under keys that are gone: whoever has it signs in again.
            return null;
        }
    }

    public Task RemoveAsync(string key) => book.EndAsync(HashOf(key), CancellationToken.None);

    /// <summary>The sign-in that a request is made by.</summary>
    public static Guid? IdOf(HttpContext context) => context.Items[IdItem] as Guid?;

    /// <summary>The address that a request comes from.</summary>
    public static string AddressOf(HttpContext? context) => context?.Connection.RemoteIpAddress?.ToString() ?? "";

    /// <summary>The network that a request comes from: whoever has one address of IPv6 has the 64 bits behind it too.</summary>
    public static string NetworkOf(HttpContext context)
    {
        const int BytesOfNetwork = 8;
        var address = context.Connection.RemoteIpAddress;
        if (address is null || address.AddressFamily != AddressFamily.InterNetworkV6 || address.IsIPv4MappedToIPv6)
        {
            return address?.MapToIPv4().ToString() ?? "";
        }

        var bytes = address.GetAddressBytes();
        Array.Clear(bytes, BytesOfNetwork, bytes.Length - BytesOfNetwork);
        return new IPAddress(bytes).ToString();
    }

    private byte[] Written(AuthenticationTicket ticket) =>
        _protector.Protect(TicketSerializer.Default.Serialize(ticket));

    private DateTimeOffset Expires(AuthenticationTicket ticket) =>
        ticket.Properties.ExpiresUtc ?? clock.GetUtcNow() + Usual;

    private static byte[] HashOf(string key) => SHA256.HashData(Encoding.UTF8.GetBytes(key));
}
