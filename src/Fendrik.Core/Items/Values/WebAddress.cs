namespace Fendrik.Core.Items.Values;

/// <summary>Addresses of landing pages, with or without a scheme.</summary>
public static class WebAddress
{
    /// <summary>True for an http or https address (RFC 3986) whose host has a dot; without a scheme, https is meant.</summary>
    public static bool IsValid(string url) =>
        !HasBlanks(url)
        && Uri.TryCreate(
            url.Contains("://", StringComparison.Ordinal) ? url : "https://" + url,
            UriKind.Absolute,
            out var uri
        )
        && (uri.Scheme == "http" || uri.Scheme == "https")
        && uri.Host.Contains('.')
        && uri.UserInfo.Length == 0;

    private static bool HasBlanks(string url)
    {
        foreach (var character in url)
        {
            if (char.IsWhiteSpace(character) || char.IsControl(character))
            {
                return true;
            }
        }

        return false;
    }
}
