using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Tracking.Books;

/// <summary>What is needed to read own books.</summary>
/// <param name="Ground">The account's currency and language.</param>
/// <param name="Days">The account's time zone: times without an offset are of its clock.</param>
/// <param name="Now">The network's clock: nothing is brought in from the future.</param>
/// <param name="Actions">Names of the actions of the account.</param>
public sealed record BookGround(
    ReadingGround Ground,
    AccountDay Days,
    DateTimeOffset Now,
    IReadOnlyList<string> Actions
);

/// <summary>Reads own books: the columns are known by their headers, in any order; each line stands or falls by itself.</summary>
public sealed class BookReader
{
    private const string ClickId = "click id";
    private const string Action = "conversion action";
    private const string Time = "time";
    private const string Worth = "value";
    private const string Code = "currency";
    private const string Reference = "reference";
    private const string Change = "change";
    private const string Caller = "caller";
    private const string CallTime = "call time";
    private const string Address = "address";

    private static readonly Dictionary<string, string[]> Headers = new(StringComparer.Ordinal)
    {
        [ClickId] = [ClickId, "clickid", "click", "click number"],
        [Action] = [Action, "action", "conversion", "goal", "conversion name"],
        [Time] = [Time, "when", "date", "date and time", "conversion time", "sold at", "made at"],
        [Worth] = [Worth, "amount", "sale", "revenue", "price", "conversion value"],
        [Code] = [Code, "currency code"],
        [Reference] = [Reference, "order", "order id", "order number", "booking", "invoice", "number"],
        [Change] = [Change, "what", "status"],
        [Caller] = [Caller, "caller number", "phone", "phone number", "telephone"],
        [CallTime] = [CallTime, "called at", "time of call"],
        [Address] = [Address, "email", "e-mail", "mail address", "hashed address", "address hash"],
    };

    private static readonly string[] TakenBack =
    [
        "taken back",
        "cancelled",
        "canceled",
        "called off",
        "refunded",
        "refund",
        "withdrawn",
    ];

    private static readonly string[] Made = ["", "made", "sale", "sold", "booked", "new", "new value"];

    private static readonly string[] Times =
    [
        "yyyy-MM-dd HH:mm:ss",
        "yyyy-MM-dd HH:mm",
        "yyyy-MM-ddTHH:mm:ss",
        "yyyy-MM-ddTHH:mm",
        "dd/MM/yyyy HH:mm:ss",
        "dd/MM/yyyy HH:mm",
    ];

    private static readonly string[] Dates = ["yyyy-MM-dd", "dd/MM/yyyy"];

    private readonly BookGround _ground;
    private readonly Dictionary<string, int> _columns;
    private readonly HashSet<(string, string, BookChange)> _seen = [];

    private BookReader(BookGround ground, Dictionary<string, int> columns) => (_ground, _columns) = (ground, columns);

    /// <summary>Begins with the row of headers.</summary>
    /// <param name="header">The headers.</param>
    /// <param name="ground">What is known of the account.</param>
    /// <param name="problem">What is missing, as a sentence; none when all is well.</param>
    /// <returns>None when something is missing.</returns>
    public static BookReader? Begin(IReadOnlyList<string> header, BookGround ground, out string? problem)
    {
        var columns = new Dictionary<string, int>(StringComparer.Ordinal);
        for (var at = 0; at < header.Count; at++)
        {
            var name = TextIdentity.Of(header[at]).Replace('_', ' ');
            if (Headers.FirstOrDefault(each => each.Value.Contains(name)).Key is { } column)
            {
                columns.TryAdd(column, at);
            }
        }

        string[] keys = [ClickId, Caller, Address];
        problem =
            !keys.Any(columns.ContainsKey)
                ? "There is no column “click id”, “caller” or “address”: one of them says where a sale came from. The first row says what stands in each column; time is needed too, and conversion action, value, currency, reference and change are taken where they are."
            : !columns.ContainsKey(Time)
                ? "There is no column “time”. The first row says what stands in each column: time is needed beside the click id, the caller or the address."
            : ground.Actions.Count == 0 ? "There is no conversion action yet. Add the one that the list is about."
            : !columns.ContainsKey(Action) && ground.Actions.Count > 1
                ? "There is no column “conversion action”, and the account has several. Add the column."
            : null;
        return problem is null ? new BookReader(ground, columns) : null;
    }

    /// <summary>Reads a row behind the headers.</summary>
    /// <param name="row">Its number in the list, from 1.</param>
    /// <param name="cells">Its cells.</param>
    /// <param name="problem">Why it cannot be taken; none when it can.</param>
    /// <returns>None where it cannot be taken, and for a row that is empty.</returns>
    public BookLine? Read(int row, IReadOnlyList<string> cells, out BookProblem? problem)
    {
        problem = null;
        if (cells.All(string.IsNullOrWhiteSpace))
        {
            return null;
        }

        string Cell(string column) =>
            _columns.TryGetValue(column, out var at) && at < cells.Count ? cells[at].Trim() : "";
        BookProblem Wrong(string field, string what) => new(row, field, $"Row {row}, {field}: {what}");

        var change = ChangeOf(Cell(Change));
        var action = _columns.ContainsKey(Action) ? ActionOf(Cell(Action)) : _ground.Actions[0];
        var (at, whyNot) = MomentOf(Cell(Time));
        var worth = Cell(Worth).Length == 0 ? new Reading(null) : new AmountValue().Read(Cell(Worth), _ground.Ground);
        var code = Cell(Code);
        var (from, noKey) = KeyOf(Cell, at);
        var reference =
            Cell(Reference) is { Length: > 0 } named ? named
            : from is { Kind: BookKeyKind.Click } ? Cell(ClickId)
            // Without a name of its own a conversion is known by whom it came from, and when.
            : $"{from?.Value} {at.ToUniversalTime():yyyy-MM-ddTHH:mm:ss}";
        problem =
            noKey is { } lost ? Wrong(lost.Field, lost.What)
            : reference.Length > 200 ? Wrong(Reference, "it is too long to be one.")
            : change is null
                ? Wrong(Change, $"“{Reading.Shortened(Cell(Change))}” is unknown. Write taken back, or leave it empty.")
            : action is null
                ? Wrong(
                    Action,
                    $"“{Reading.Shortened(Cell(Action))}” is no conversion action. Choose one of {string.Join(", ", _ground.Actions.Take(6))}."
                )
            : whyNot is not null ? Wrong(Time, whyNot)
            : worth.Problem is { } wrong ? Wrong(Worth, $"it {wrong}.")
            : code.Length > 0 && !code.Equals(_ground.Ground.Currency.Code, StringComparison.OrdinalIgnoreCase)
                ? Wrong(
                    Code,
                    $"it is in {Reading.Shortened(code)}, and the account is kept in {_ground.Ground.Currency.Code}. Convert the value."
                )
            : !_seen.Add((action, reference, change.Value))
                ? Wrong(
                    Reference,
                    $"“{Reading.Shortened(reference)}” stands in a row above already; this one is left out."
                )
            : null;
        return problem is null
            ? new BookLine(row, reference, from!, action!, at, (decimal?)worth.Value, change!.Value)
            : null;
    }

    /// <summary>What a row is found by: its click, else the call, else the address.</summary>
    private (BookKey? Key, (string Field, string What)? Problem) KeyOf(Func<string, string> cell, DateTimeOffset at)
    {
        const int LongestClick = 100;
        if (cell(ClickId) is { Length: > 0 } click)
        {
            return click.Length > LongestClick
                ? (null, (ClickId, "it is too long to be one."))
                : (BookKey.OfClick(click), null);
        }

        if (cell(Caller) is { Length: > 0 } caller)
        {
            var number = new PhoneValue().Read(caller, _ground.Ground);
            if (number.Problem is { } wrong)
            {
                return (null, (Caller, $"it {wrong}."));
            }

            var (called, whyNot) = cell(CallTime) is { Length: > 0 } time ? MomentOf(time) : (at, null);
            return whyNot is null
                ? (new BookKey(BookKeyKind.Call, (string)number.Value!, called), null)
                : (null, (CallTime, whyNot));
        }

        return cell(Address) is not { Length: > 0 } address
                ? (
                    null,
                    (
                        _columns.ContainsKey(ClickId) ? ClickId
                        : _columns.ContainsKey(Caller) ? Caller
                        : Address,
                        "it is empty. Leave the row out, or find the click, the call or the address."
                    )
                )
            : BookKey.HashOf(address) is { } hash ? (new BookKey(BookKeyKind.Address, hash), null)
            : (
                null,
                (Address, $"“{Reading.Shortened(address)}” is neither an e-mail address nor a hash of 64 digits.")
            );
    }

    private static BookChange? ChangeOf(string text)
    {
        var word = TextIdentity.Of(text);
        return TakenBack.Contains(word) ? BookChange.TakenBack
            : Made.Contains(word) ? BookChange.Made
            : null;
    }

    private string? ActionOf(string text) =>
        _ground.Actions.FirstOrDefault(name => TextIdentity.Of(name) == TextIdentity.Of(text));

    /// <summary>A time with an offset is a moment; one without is of the account's clock; a day alone is its last second, or now.</summary>
    private (DateTimeOffset At, string? Problem) MomentOf(string text)
    {
        var culture = CultureInfo.InvariantCulture;
        DateTimeOffset moment;
        if (DateOnly.TryParseExact(text, Dates, culture, DateTimeStyles.None, out var day))
        {
            var (today, _) = _ground.Days.At(_ground.Now);
            if (day > today)
            {
                return (default, $"{text} is in the future.");
            }

            moment = _ground.Days.StartOf(day.AddDays(1)).AddSeconds(-1);
            return (moment > _ground.Now ? _ground.Now : moment, null);
        }

        if (DateTime.TryParseExact(text, Times, culture, DateTimeStyles.None, out var wall))
        {
            moment = _ground.Days.MomentOf(wall);
        }
        else if (
            !DateTimeOffset.TryParseExact(
                text,
                ["yyyy-MM-ddTHH:mm:ssK", "yyyy-MM-ddTHH:mmK", "yyyy-MM-dd HH:mm:sszzz", "yyyy-MM-dd HH:mm zzz"],
                culture,
                DateTimeStyles.AssumeUniversal,
                out moment
            )
        )
        {
            return (
                default,
                $"“{Reading.Shortened(text)}” is no time. Write it like 2026-05-11 14:30, with an offset such as +01:00 where it is not the account’s."
            );
        }

        return moment > _ground.Now ? (default, $"{text} is in the future.") : (moment, null);
    }
}
