using System.Globalization;
using System.Text.Json.Serialization;
using System.Text.RegularExpressions;
using Fluid.Ast;

namespace Fendrik.Core.AdText.Insertion;

/// <summary>What a text may insert.</summary>
public enum InsertedName
{
    /// <summary>The searched words, as the network inserts them.</summary>
    Keyword = 1,

    /// <summary>Name of the ad group.</summary>
    AdGroup = 2,

    /// <summary>Name of the campaign.</summary>
    Campaign = 3,

    /// <summary>Where the person is.</summary>
    Place = 4,

    /// <summary>Days until a day begins in the account's time zone.</summary>
    Countdown = 5,
}

/// <summary>Capital letters of what is inserted.</summary>
public enum InsertedCase
{
    /// <summary>As it is.</summary>
    AsWritten = 1,

    /// <summary>The first letter large.</summary>
    FirstLetter = 2,

    /// <summary>The first letter of every word large.</summary>
    EveryWord = 3,
}

/// <summary>Words that are inserted into a text for each search, as a writer thinks of them.</summary>
/// <param name="Name">What is inserted.</param>
/// <param name="Case">Its capital letters.</param>
/// <param name="Fallback">What stands there when it is unknown, too long, or over.</param>
/// <param name="Day">The day of a countdown; none for anything else.</param>
public sealed partial record Insertion(InsertedName Name, InsertedCase Case, string Fallback, DateOnly? Day)
{
    /// <summary>The insertion in Liquid, as it stands in a text.</summary>
    /// <exception cref="ArgumentException">It has no fallback, or a countdown no day.</exception>
    public string Write()
    {
        var fallback = Items.Values.ValueType.Single(Fallback).Replace('"', '”');
        if (fallback.Length == 0 || fallback.Contains("}}", StringComparison.Ordinal))
        {
            throw new ArgumentException("Write what stands there when the words do not fit.");
        }

        var source =
            Name != InsertedName.Countdown ? InsertionLanguage.Written(Name)
            : Day is { } day
                ? $"\"{day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)}\" | {InsertionLanguage.Countdown}"
            : throw new ArgumentException("Say which day is counted down to.");
        var letters = Case switch
        {
            InsertedCase.AsWritten => "",
            InsertedCase.FirstLetter => " | capitalize",
            InsertedCase.EveryWord => $" | {InsertionLanguage.EachWord}",
        };
        return $"{{{{ {source}{letters} | default: \"{fallback}\" }}}}";
    }

    /// <summary>In a few words, for a chip.</summary>
    [JsonIgnore]
    public string Chip => $"{What}, else “{Fallback}”";

    /// <summary>In words, with its letters.</summary>
    public override string ToString() =>
        Case switch
        {
            InsertedCase.AsWritten => Chip,
            InsertedCase.FirstLetter => $"{What} with a large first letter, else “{Fallback}”",
            InsertedCase.EveryWord => $"{What} with Every Word large, else “{Fallback}”",
        };

    private string What =>
        Name switch
        {
            InsertedName.Keyword => "searched words",
            InsertedName.AdGroup => "name of the ad group",
            InsertedName.Campaign => "name of the campaign",
            InsertedName.Place => "where the person is",
            InsertedName.Countdown => $"days until {Day?.ToString("d MMM yyyy", CultureInfo.InvariantCulture)}",
        };

    /// <summary>A text in parts: what is written, and what is inserted. An insertion that says more than this is left as written.</summary>
    public static IReadOnlyList<LinePart> PartsOf(string text)
    {
        var parts = new List<LinePart>();
        var from = 0;
        foreach (Match found in Brackets().Matches(text))
        {
            if (found.Index > from)
            {
                parts.Add(new LinePart(text[from..found.Index], null));
            }

            parts.Add(new LinePart(found.Value, Of(found.Value)));
            from = found.Index + found.Length;
        }

        if (from < text.Length)
        {
            parts.Add(new LinePart(text[from..], null));
        }

        return parts;
    }

    private static Insertion? Of(string written)
    {
        if (
            InsertionLanguage.Read(written).Template is not { } template
            || template.Statements is not [OutputStatement { Expression: FilterExpression { Name: "default" } outer }]
        )
        {
            return null;
        }

        var fallback = ((LiteralExpression)outer.Parameters[0].Expression).Value.ToStringValue();
        var (expression, letters) = outer.Input switch
        {
            FilterExpression { Name: "capitalize" } first => (first.Input, InsertedCase.FirstLetter),
            FilterExpression { Name: InsertionLanguage.EachWord } each => (each.Input, InsertedCase.EveryWord),
            var plain => (plain, InsertedCase.AsWritten),
        };
        return expression switch
        {
            MemberExpression { Segments: [IdentifierSegment named] } => new Insertion(
                InsertionLanguage.Names[named.Identifier],
                letters,
                fallback,
                null
            ),
            FilterExpression { Name: InsertionLanguage.Countdown } counts => new Insertion(
                InsertedName.Countdown,
                letters,
                fallback,
                InsertionLanguage.DayOf(counts.Input)
            ),
            _ => null,
        };
    }

    [GeneratedRegex(@"\{\{.*?\}\}", RegexOptions.CultureInvariant)]
    private static partial Regex Brackets();
}

/// <summary>A part of a line.</summary>
/// <param name="Text">The part as it is written.</param>
/// <param name="Inserts">What is inserted there; none for plain text.</param>
public sealed record LinePart(string Text, Insertion? Inserts)
{
    /// <summary>What is inserted, in a few words; none for plain text.</summary>
    public string? Chip => Inserts?.Chip;
}
