using System.Globalization;

namespace Fendrik.Core.Accounts;

/// <summary>How an account writes its numbers, by a language tag of RFC 5646 such as <c>en-GB</c> or <c>de-DE</c>.</summary>
/// <remarks>The marks are those of Unicode's CLDR, as .NET carries them.</remarks>
public sealed record AccountLanguage
{
    /// <summary>British English, the usual one.</summary>
    public const string Usual = "en-GB";

    private AccountLanguage(string tag, string region, char decimalMark, char groupMark) =>
        (Tag, Region, DecimalMark, GroupMark) = (tag, region, decimalMark, groupMark);

    /// <summary>The language tag.</summary>
    public string Tag { get; }

    /// <summary>The country that it is spoken in, or mostly spoken in where the tag says none: ISO 3166.</summary>
    public string Region { get; }

    /// <summary>What stands before the decimal places: a full stop or a comma.</summary>
    public char DecimalMark { get; }

    /// <summary>What stands between groups of three digits, besides spaces: a comma or a full stop.</summary>
    public char GroupMark { get; }

    /// <summary>The language with this tag.</summary>
    /// <exception cref="ArgumentException">The tag is no language.</exception>
    public static AccountLanguage Of(string tag)
    {
        CultureInfo culture;
        try
        {
            culture = CultureInfo.GetCultureInfo(tag, predefinedOnly: true);
        }
        catch (CultureNotFoundException)
        {
            throw new ArgumentException($"“{tag}” is not a language tag.", nameof(tag));
        }

        var comma = culture.NumberFormat.NumberDecimalSeparator == ",";
        var region = new RegionInfo(CultureInfo.CreateSpecificCulture(tag).Name).TwoLetterISORegionName;
        return new AccountLanguage(tag, region, comma ? ',' : '.', comma ? '.' : ',');
    }
}
