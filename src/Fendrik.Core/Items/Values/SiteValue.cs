using Fendrik.Core.Checks;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Items.Values;

/// <summary>A site, or a page of it with all below: <c>bigdays.example</c>, <c>bigdays.example/venues</c>.</summary>
public sealed class SiteValue() : TextValue(LongestName)
{
    /// <inheritdoc/>
    public override bool CapitalsCount => false;

    /// <summary>Reads an address with or without its scheme; what is kept is the domain in small letters and the path.</summary>
    public override Reading Read(string text, ReadingGround ground)
    {
        var read = base.Read(text, ground);
        return read.Problem is not null ? read
            : Normal((string)read.Value!) is { } site ? new Reading(site)
            : Reading.Wrong(
                $"“{Reading.Shortened(text)}” is no site; write it like bigdays.example or bigdays.example/venues, without what follows a ?"
            );
    }

    /// <summary>True when a page is the one meant, or stands below it, on that domain or one below.</summary>
    /// <param name="site">The site or page, as it is kept.</param>
    /// <param name="page">A page: domain and path.</param>
    public static bool Covers(string site, string page)
    {
        var (siteHost, sitePath) = Parts(site);
        var (host, path) = Parts(page);
        return (host == siteHost || host.EndsWith("." + siteHost, StringComparison.Ordinal))
            && (sitePath.Length == 0 || path == sitePath || path.StartsWith(sitePath + "/", StringComparison.Ordinal));
    }

    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report)
    {
        if (Normal((string)value) != (string)value)
        {
            yield return report.Blocker(
                field,
                "wrong",
                "is no site",
                $"“{value}” is no site. Write it like bigdays.example or bigdays.example/venues."
            );
        }

        foreach (var finding in base.Check(field, value, limits, report))
        {
            yield return finding;
        }
    }

    private static (string Host, string Path) Parts(string page) =>
        page.IndexOf('/', StringComparison.Ordinal) is var slash and >= 0
            ? (page[..slash], page[slash..].TrimEnd('/'))
            : (page, "");

    private static string? Normal(string text)
    {
        var address = text.Contains("://", StringComparison.Ordinal) ? text : "https://" + text;
        return
            Uri.TryCreate(address, UriKind.Absolute, out var uri)
            && (uri.Scheme == Uri.UriSchemeHttp || uri.Scheme == Uri.UriSchemeHttps)
            && uri is { HostNameType: UriHostNameType.Dns, UserInfo: "", IsDefaultPort: true, Query: "", Fragment: "" }
            && uri.IdnHost.Contains('.', StringComparison.Ordinal)
            ? uri.IdnHost.ToLowerInvariant() + uri.AbsolutePath.TrimEnd('/')
            : null;
    }
}
