namespace Fendrik.Core.Serving;

/// <summary>A search that somebody makes.</summary>
/// <param name="Text">What is typed.</param>
/// <param name="Device">On which device.</param>
/// <param name="Site">On which kind of site; just one.</param>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="Minute">Minutes after midnight on the account's clock; none when no time in particular is meant.</param>
/// <param name="Place">Where the person is; none when that is not known.</param>
/// <param name="Page">The page of a content site, domain and path; none where it is not known.</param>
/// <param name="Audiences">Audiences that the network knows the person to be of; none for none.</param>
/// <param name="Interest">A place elsewhere that the network takes the person to be interested in; none for none.</param>
/// <param name="Language">The person's language by a tag of BCP 47; none where it is not known, and then any campaign reaches it.</param>
public sealed record Search(
    string Text,
    Device Device,
    SiteKinds Site,
    DateOnly Day,
    int? Minute = null,
    string? Place = null,
    string? Page = null,
    IReadOnlyList<string>? Audiences = null,
    string? Interest = null,
    string? Language = null
)
{
    /// <summary>The clock on the account's wall: at midnight when no time in particular is meant.</summary>
    public DateTime Clock => Day.ToDateTime(TimeOnly.MinValue).AddMinutes(Minute ?? 0);
}
