using System.Collections.Concurrent;
using Fendrik.Core.Networks;
using Fluid.Parser;

namespace Fendrik.Core.AdText.Insertion;

/// <summary>
/// A line of an ad as it is written: plain, or with words that are inserted for each search. What does not fit as a whole falls
/// back, so that no word is ever cut.
/// </summary>
public sealed class AdLine
{
    private const int MostRemembered = 50_000;

    private static readonly ConcurrentDictionary<string, AdLine> Known = new(StringComparer.Ordinal);

    private static int _remembered;

    private readonly FluidTemplate? _template;
    private readonly IReadOnlySet<InsertedName> _names;
    private readonly bool _countsDown;

    private AdLine(string text)
    {
        Written = text;
        (_template, Problem) = InsertionLanguage.Read(text);
        (_names, _countsDown) = _template is null
            ? (new HashSet<InsertedName>(), false)
            : InsertionLanguage.Used(_template);
        Fallback = Problem is null ? For(InsertedValues.Nothing, FieldLimits.None).Text : text;
    }

    /// <summary>The line as it is written.</summary>
    public string Written { get; }

    /// <summary>What is wrong with the inserted words, as a sentence; none when all is well.</summary>
    public string? Problem { get; }

    /// <summary>What stands there when nothing that is inserted is known or fits.</summary>
    public string Fallback { get; }

    /// <summary>Characters that it surely needs: those of its fallback, or of its countdown where that is longer.</summary>
    /// <param name="limits">How the network counts.</param>
    public int LengthFor(FieldLimits limits) =>
        Math.Max(
            limits.LengthOf(Fallback),
            _countsDown && _template is not null
                ? limits.LengthOf(InsertionLanguage.Write(_template, _ => null, DateTime.MinValue))
                : 0
        );

    /// <summary>True when words are inserted into a text, or meant to be.</summary>
    public static bool Inserts(string text) => InsertionLanguage.IsAsked(text);

    /// <summary>The line that a text is; none for plain text, which says what it says.</summary>
    public static AdLine? Of(string text)
    {
        if (!Inserts(text))
        {
            return null;
        }

        if (Known.TryGetValue(text, out var known))
        {
            return known;
        }

        // Its own count takes every lock that the dictionary has.
        if (Interlocked.Increment(ref _remembered) > MostRemembered)
        {
            Known.Clear();
            _remembered = 0;
        }

        return Known.GetOrAdd(text, static written => new AdLine(written));
    }

    /// <summary>What a text surely says: itself, or its fallbacks.</summary>
    public static string FallbackOf(string text) => Of(text)?.Fallback ?? text;

    /// <summary>Characters that a text surely needs.</summary>
    /// <param name="text">The text as it is written.</param>
    /// <param name="limits">How the network counts.</param>
    public static int LengthOf(string text, FieldLimits limits) =>
        Of(text) is { } line ? line.LengthFor(limits) : limits.LengthOf(text);

    /// <summary>A text for a person to read: inserted words are said in words, in brackets of their own.</summary>
    public static string InWords(string text) =>
        Inserts(text)
            ? string.Concat(
                Insertion.PartsOf(text).Select(part => part.Inserts is { } insertion ? $"‹{insertion}›" : part.Text)
            )
            : text;

    /// <summary>A text changed where it is written, not where words are inserted.</summary>
    public static string ChangedOutside(string text, Func<string, string> change) =>
        Inserts(text)
            ? string.Concat(
                Insertion
                    .PartsOf(text)
                    .Select(part =>
                        part.Text.StartsWith("{{", StringComparison.Ordinal) ? part.Text : change(part.Text)
                    )
            )
            : change(text);

    /// <summary>A text as somebody sees it.</summary>
    /// <param name="text">The text as it is written.</param>
    /// <param name="values">What is inserted.</param>
    /// <param name="limits">Most characters, and how they are counted.</param>
    public static InsertedText Seen(string text, InsertedValues values, FieldLimits limits) =>
        Of(text) is { } line ? line.For(values, limits) : new InsertedText(text, false);

    /// <summary>
    /// The line for one search: with all values; where that is too long, without the searched words; at last with nothing but its
    /// fallbacks.
    /// </summary>
    /// <param name="values">What is inserted.</param>
    /// <param name="limits">Most characters, and how they are counted.</param>
    public InsertedText For(InsertedValues values, FieldLimits limits)
    {
        if (_template is null)
        {
            return new InsertedText(Written, false);
        }

        foreach (var left in new[] { values, values with { Keyword = null } })
        {
            var text = InsertionLanguage.Write(_template, name => ValueOf(left, name), values.Clock);
            if (limits.Length is not { } longest || limits.LengthOf(text) <= longest)
            {
                return new InsertedText(text, _names.Any(name => ValueOf(left, name) is null or ""));
            }
        }

        return new InsertedText(InsertionLanguage.Write(_template, _ => null, values.Clock), true);
    }

    private static string? ValueOf(InsertedValues values, InsertedName name) =>
        name switch
        {
            InsertedName.Keyword => values.Keyword,
            InsertedName.AdGroup => values.AdGroup,
            InsertedName.Campaign => values.Campaign,
            InsertedName.Place => values.Place,
            InsertedName.Countdown => null,
        };
}
