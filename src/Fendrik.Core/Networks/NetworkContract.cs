using System.Text.Json;
using Fendrik.Core.Accounts;

namespace Fendrik.Core.Networks;

/// <summary>What a change sent to a network does.</summary>
public enum ChangeAction
{
    /// <summary>The item is to be as given, whether it was there or not.</summary>
    Put = 1,

    /// <summary>The item is to be gone; with it all that belongs to it.</summary>
    Remove = 2,
}

/// <summary>One item to be changed on the network.</summary>
/// <param name="Kind">Kind of item.</param>
/// <param name="ItemId">Identity, given by Fendrik.</param>
/// <param name="Action">Put or remove.</param>
/// <param name="Item">The whole item as JSON when it is put.</param>
/// <param name="Seen">
/// Version of the item on the network that the sender knows, 0 when it is not there; where the network has another, the change
/// is not carried out. None when the sender does not care.
/// </param>
public sealed record NetworkChange(
    ItemKind Kind,
    long ItemId,
    ChangeAction Action,
    JsonElement? Item,
    long? Seen = null
);

/// <summary>What a network says to one change.</summary>
public enum NetworkVerdict
{
    /// <summary>The network has the item as it was sent (and serves it now or, for ads and keywords, once reviewed).</summary>
    Accepted = 1,

    /// <summary>The network does not take it as it is.</summary>
    Refused = 2,

    /// <summary>The item there is not the one that the sender had seen; nothing was changed.</summary>
    ChangedSince = 3,
}

/// <summary>What became of one change.</summary>
/// <param name="Kind">Kind of item.</param>
/// <param name="ItemId">The item.</param>
/// <param name="Verdict">Whether it was carried out.</param>
/// <param name="Reason">Why it was refused, for a person.</param>
/// <param name="Version">Version of the item on the network now; 0 when it was never there or is not known.</param>
/// <param name="Item">The item there when it is another than the sender had seen; none when it is gone.</param>
public sealed record NetworkAnswer(
    ItemKind Kind,
    long ItemId,
    NetworkVerdict Verdict,
    string? Reason = null,
    long Version = 0,
    JsonElement? Item = null
);

/// <summary>What the reviewers say of one item.</summary>
public sealed record NetworkReview(ItemKind Kind, long ItemId, ReviewState State, string? Reason);

/// <summary>What the reviewers said, in the order of their saying it; a part of it when it is much.</summary>
/// <param name="Last">Number of the last review told of: ask with it for what comes after.</param>
/// <param name="Reviews">The reviews; none when nothing came after.</param>
public sealed record NetworkReviews(long Last, IReadOnlyList<NetworkReview> Reviews);

/// <summary>An item as the network has it.</summary>
/// <param name="Kind">Kind of item.</param>
/// <param name="ItemId">The item.</param>
/// <param name="Item">Its published fields; none when it is gone.</param>
/// <param name="Version">Number of its last change: greater than that of any change before it in the account.</param>
public sealed record NetworkItem(ItemKind Kind, long ItemId, JsonElement? Item, long Version);

/// <summary>Items that changed on the network, whoever changed them; a part of them when they are many.</summary>
/// <param name="Last">Number of the last change told of: ask with it for what comes after.</param>
/// <param name="Items">The items as they are now, each once; none when nothing came after.</param>
public sealed record NetworkItems(long Last, IReadOnlyList<NetworkItem> Items);

/// <summary>A place that a network knows.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Region">The part of the country.</param>
/// <param name="Country">ISO 3166-1 code.</param>
public sealed record NetworkPlace(string Name, string Region, string Country);

/// <summary>What became of a search of the past.</summary>
public enum SearchFate
{
    /// <summary>An ad was shown.</summary>
    Shown = 1,

    /// <summary>Bid × quality won no place.</summary>
    LostToRank = 2,

    /// <summary>The daily budget did not reach for it.</summary>
    LostToBudget = 3,

    /// <summary>A negative kept every keyword away.</summary>
    Blocked = 4,
}

/// <summary>A search of the past, to be opened.</summary>
/// <param name="Name">Its name on the network.</param>
/// <param name="At">When it was made.</param>
/// <param name="Text">What was typed.</param>
/// <param name="Device">On which device.</param>
/// <param name="Site">On which kind of site.</param>
/// <param name="Place">Where the person was.</param>
/// <param name="Fate">What became of it.</param>
/// <param name="KeywordId">The keyword that answered or would have; none when a negative kept all away.</param>
/// <param name="Price">What a click cost there; none when nothing was shown.</param>
/// <param name="Clicked">True when it was clicked.</param>
public sealed record SampleSearch(
    string Name,
    DateTimeOffset At,
    string Text,
    Device Device,
    SiteKinds Site,
    string Place,
    SearchFate Fate,
    long? KeywordId,
    decimal? Price,
    bool Clicked
);

/// <summary>A search to be traced on the live copy as it is now.</summary>
/// <param name="Text">What is typed: 1 to 400 characters.</param>
/// <param name="Device">On which device.</param>
/// <param name="Site">On which kind of site; just one.</param>
/// <param name="Place">Where the person is, by the network's name for it; none for nowhere in particular: then all rivals may bid.</param>
/// <param name="Hour">Hour of the clock on the wall, 0 to 23; none for now.</param>
/// <param name="Page">The page of a content site, domain and path; none for none in particular: then placements do not decide.</param>
/// <param name="Audiences">Audiences that the person is of, by the network's names; none for none.</param>
/// <param name="Language">The person's language, by a tag of BCP 47 or its English name; none for any: then languages do not decide.</param>
public sealed record TraceWish(
    string Text,
    Device Device,
    SiteKinds Site,
    string? Place = null,
    int? Hour = null,
    string? Page = null,
    IReadOnlyList<string>? Audiences = null,
    string? Language = null
)
{
    private const int MostAudiences = 50;

    /// <summary>The tag of the language; none for any.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public string? Tag => string.IsNullOrWhiteSpace(Language) ? null : LanguageTag.Read(Language)?.Tag;

    /// <summary>Longest search.</summary>
    public const int LongestText = 400;

    /// <summary>What is wrong with it, and with which field; none when nothing is.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public (string Field, string Message)? Problem =>
        Text is not { Length: > 0 and <= LongestText } ? ("text", $"A search has 1 to {LongestText} characters.")
        : !Enum.IsDefined(Device) ? ("device", "There is no such device.")
        : Site is not (SiteKinds.Search or SiteKinds.Partners or SiteKinds.Content)
            ? ("site", "A search is made on one kind of site.")
        : Hour is < 0 or > 23 ? ("hour", "The hours of a day are 0 to 23.")
        : Page is { Length: > LongestText } ? ("page", $"A page has at most {LongestText} characters.")
        : Audiences is { } of
        && (of.Count > MostAudiences || of.Any(each => each is not { Length: > 0 and <= LongestText }))
            ? ("audiences", "Choose audiences of the network.")
        : !string.IsNullOrWhiteSpace(Language) && Tag is null
            ? (
                "language",
                $"“{Language.Trim()}” is no language that is known: write its English name, or a tag such as cy or en-GB."
            )
        : null;
}

/// <summary>The network's clock: simulated, so it moves only when it is told to.</summary>
/// <param name="Now">The moment on the network.</param>
/// <param name="FirstDay">First day of the account on the network.</param>
/// <param name="LastFullDay">Last day that is over in the account's time zone, for which reports are final.</param>
public sealed record NetworkClock(DateTimeOffset Now, DateOnly FirstDay, DateOnly? LastFullDay);

/// <summary>Who pays an account on a network. Without a payer, items are taken and reviewed, but nothing serves.</summary>
/// <param name="Name">Name of who pays: 1 to 120 characters; none when nobody does.</param>
public sealed record AccountPayer(string? Name)
{
    /// <summary>Longest name.</summary>
    public const int LongestName = 120;

    /// <summary>What is wrong with it; none when nothing is.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public string? Problem =>
        Name is not null && (string.IsNullOrWhiteSpace(Name) || Name.Length > LongestName || Name.Any(char.IsControl))
            ? $"The name of a payer has 1 to {LongestName} characters."
            : null;
}

/// <summary>Something that reviewers refused, to be read again by another.</summary>
/// <param name="Kind">Kind of the item.</param>
/// <param name="ItemId">The item.</param>
/// <param name="Word">Why it should be let through, in the words of whoever asks.</param>
public sealed record Appeal(ItemKind Kind, long ItemId, string Word)
{
    /// <summary>Longest word.</summary>
    public const int LongestWord = 500;

    /// <summary>What is wrong with it; none when nothing is.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public string? Problem =>
        string.IsNullOrWhiteSpace(Word) ? "Say in a few words why it should be let through."
        : Word.Length > LongestWord ? $"At most {LongestWord} characters are read."
        : null;
}

/// <summary>What becomes of an appeal.</summary>
public enum AppealAnswer
{
    /// <summary>Another reviewer reads it.</summary>
    Taken = 1,

    /// <summary>It is not refused, or not there.</summary>
    NotRefused = 2,

    /// <summary>It was read again already, and stays refused until it is changed.</summary>
    ReadAgainBefore = 3,
}
