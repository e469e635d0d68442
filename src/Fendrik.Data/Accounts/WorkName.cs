using System.Buffers.Text;

namespace Fendrik.Data.Accounts;

/// <summary>
/// Names a transaction by what it is for, in the 63 letters that PostgreSQL keeps as a session's application name: waiting
/// (<c>fw</c>) or holding (<c>fh</c>), the request, the person, what is being done.
/// </summary>
internal sealed record WorkName(bool Holds, Guid? RequestId, string? PersonId, AccountDoing Doing)
{
    private const string Nobody = "-";

    public static string OfWaiting(AccountWork work) => Of("fw", work);

    public static string OfHolding(AccountWork work) => Of("fh", work);

    /// <summary>Names of sessions that work on a request begin with one of these.</summary>
    public static string[] BeginningsOf(Guid requestId) => [$"fw {Short(requestId)} ", $"fh {Short(requestId)} "];

    /// <summary>Reads a name, or nothing when it is another's.</summary>
    public static WorkName? Read(string name) =>
        name.Split(' ') is [("fw" or "fh") and var state, var request, var person, var doing]
        && Enum.TryParse<AccountDoing>(doing, out var known)
            ? new WorkName(state == "fh", Long(request), PersonOf(person), known)
            : null;

    private static string Of(string state, AccountWork work) =>
        $"{state} {(work.RequestId is { } request ? Short(request) : Nobody)} {KeyOf(work.PersonId)} {work.Doing}";

    private static string KeyOf(string? personId) =>
        personId is null ? Nobody
        : Guid.TryParseExact(personId, "D", out var id) ? Short(id)
        : personId.Length <= 20 && !personId.Contains(' ') ? personId
        : Nobody;

    private static string? PersonOf(string key) =>
        key == Nobody ? null
        : Long(key) is { } id ? id.ToString("D")
        : key;

    private static string Short(Guid id) => Base64Url.EncodeToString(id.ToByteArray());

    private static Guid? Long(string key) =>
        key.Length == 22 && Base64Url.IsValid(key) ? new Guid(Base64Url.DecodeFromChars(key)) : null;
}
