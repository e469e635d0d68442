namespace Fendrik.Core.Tracking.Conversions;

/// <summary>The tag by which a network hears of what people do on a page: a script that says when it tells.</summary>
public static class PageTags
{
    /// <summary>The attribute by which it is known.</summary>
    public const string Attribute = "data-conversion-tag";

    /// <summary>It tells when something is sent or bought.</summary>
    public const string OnSend = "on-send";

    /// <summary>It tells when the page is loaded.</summary>
    public const string OnLoad = "on-load";

    /// <summary>Name of the parameter by which links carry the click id.</summary>
    public const string ClickId = "click_id";

    /// <summary>The tag of a network, as it is put on a page.</summary>
    /// <param name="network">Short name of the network.</param>
    /// <param name="when">When it tells.</param>
    public static string Snippet(string network, string when = OnSend) =>
        $"<script defer src=\"https://tags.{network}.example/tell.js\" {Attribute}=\"{when}\"></script>";
}
