using System.Diagnostics.CodeAnalysis;
using System.Globalization;
using System.Text;

namespace Fendrik.Core.Tracking;

/// <summary>A URI template of RFC 6570, all four levels.</summary>
/// <remarks>RFC 6570, “URI Template”, March 2012: section 2 for the syntax, section 3 for the expansion.</remarks>
public sealed class UriTemplate
{
    /// <summary>Longest template that is read, in UTF-16 units.</summary>
    public const int Longest = 4_000;

    private const int LongestPrefix = 9_999;

    private readonly IReadOnlyList<Part> _parts;

    private UriTemplate(string text, IReadOnlyList<Part> parts) => (Text, _parts) = (text, parts);

    /// <summary>The template as it was written.</summary>
    public string Text { get; }

    /// <summary>Names of the variables in it, in their order, each as often as it stands there.</summary>
    public IEnumerable<string> Variables => _parts.SelectMany(part => part.Variables).Select(each => each.Name);

    /// <summary>Reads a template.</summary>
    /// <param name="text">The template.</param>
    /// <param name="template">The template; none when it cannot be read.</param>
    /// <param name="problem">What is wrong with it, as the end of a sentence; none when all is well.</param>
    public static bool TryRead(
        string text,
        [NotNullWhen(true)] out UriTemplate? template,
        [NotNullWhen(false)] out string? problem
    )
    {
        template = null;
        if (text.Length > Longest)
        {
            problem = $"has {text.Length:N0} characters; {Longest:N0} at most";
            return false;
        }

        var parts = new List<Part>();
        var at = 0;
        while (at < text.Length)
        {
            var open = text.IndexOf('{', at);
            var literal = open < 0 ? text[at..] : text[at..open];
            if (ProblemOfLiteral(literal) is { } wrong)
            {
                problem = wrong;
                return false;
            }

            if (literal.Length > 0)
            {
                parts.Add(new Part(Encoded(literal, keepsReserved: true), null, []));
            }

            if (open < 0)
            {
                break;
            }

            var close = text.IndexOf('}', open);
            if (close < 0)
            {
                problem = $"has a brace that is not closed: “{Shortened(text[open..])}”";
                return false;
            }

            if (!TryReadExpression(text[(open + 1)..close], out var part, out problem))
            {
                return false;
            }

            parts.Add(part);
            at = close + 1;
        }

        (template, problem) = (new UriTemplate(text, parts), null);
        return true;
    }

    /// <summary>The address that the template makes of values; a variable without a value is left out.</summary>
    public string Expand(Func<string, TemplateValue?> valueOf)
    {
        var address = new StringBuilder();
        foreach (var part in _parts)
        {
            if (part.Operator is { } by)
            {
                Expand(address, by, part.Variables, valueOf);
            }
            else
            {
                address.Append(part.Literal);
            }
        }

        return address.ToString();
    }

    /// <summary>Section 3.2.1: how an operator writes its variables; appendix A has the same as a table.</summary>
    private static void Expand(
        StringBuilder address,
        Operator by,
        IReadOnlyList<Variable> variables,
        Func<string, TemplateValue?> valueOf
    )
    {
        var first = true;
        foreach (var variable in variables)
        {
            if (valueOf(variable.Name) is not { IsDefined: true } value)
            {
                continue;
            }

            address.Append(first ? by.First : by.Between);
            first = false;
            switch (value)
            {
                case TemplateValue.OfText { Text: var text }:
                    if (by.Named)
                    {
                        address.Append(variable.Name).Append(text.Length == 0 ? by.IfEmpty : "=");
                    }

                    address.Append(Encoded(Prefix(text, variable.Length), by.KeepsReserved));
                    break;
                case TemplateValue.OfList { Texts: var texts }:
                    ExpandList(address, by, variable, texts);
                    break;
                case TemplateValue.OfPairs { Pairs: var pairs }:
                    ExpandPairs(address, by, variable, pairs);
                    break;
            }
        }
    }

    private static void ExpandList(StringBuilder address, Operator by, Variable variable, IReadOnlyList<string> texts)
    {
        if (by.Named && !variable.Explodes)
        {
            address.Append(variable.Name).Append('=');
        }

        foreach (var (place, text) in texts.Index())
        {
            address.Append(
                place == 0 ? ""
                : variable.Explodes ? by.Between
                : ","
            );
            if (by.Named && variable.Explodes)
            {
                address.Append(variable.Name).Append(text.Length == 0 ? by.IfEmpty : "=");
            }

            address.Append(Encoded(text, by.KeepsReserved));
        }
    }

    private static void ExpandPairs(
        StringBuilder address,
        Operator by,
        Variable variable,
        IReadOnlyList<KeyValuePair<string, string>> pairs
    )
    {
        if (by.Named && !variable.Explodes)
        {
            address.Append(variable.Name).Append('=');
        }

        foreach (var (place, (name, text)) in pairs.Index())
        {
            address
                .Append(
                    place == 0 ? ""
                    : variable.Explodes ? by.Between
                    : ","
                )
                .Append(Encoded(name, by.KeepsReserved))
                .Append(
                    !variable.Explodes ? ","
                    : text.Length == 0 && by.Named ? by.IfEmpty
                    : "="
                )
                .Append(Encoded(text, by.KeepsReserved));
        }
    }

    private static bool TryReadExpression(
        string inside,
        [NotNullWhen(true)] out Part? part,
        [NotNullWhen(false)] out string? problem
    )
    {
        part = null;
        if (inside.Length == 0)
        {
            problem = "has empty braces; write the name of a variable between them";
            return false;
        }

        var by = Operator.Of(inside[0]);
        if (by is null && "=,!@|".Contains(inside[0], StringComparison.Ordinal))
        {
            problem = $"has “{inside[0]}” in {{{Shortened(inside)}}}, which has no meaning there yet";
            return false;
        }

        var variables = new List<Variable>();
        foreach (var written in (by is null ? inside : inside[1..]).Split(','))
        {
            if (ReadVariable(written) is not { } variable)
            {
                problem =
                    $"has {{{Shortened(inside)}}}, which names no variable; write one like {{keyword}}, or {{?device,match}}";
                return false;
            }

            variables.Add(variable);
        }

        (part, problem) = (new Part("", by ?? Operator.Plain, variables), null);
        return true;
    }

    /// <summary>Section 2.3 and 2.4: a name, then a length or a star.</summary>
    private static Variable? ReadVariable(string written)
    {
        var explodes = written.EndsWith('*');
        var text = explodes ? written[..^1] : written;
        int? length = null;
        if (text.IndexOf(':', StringComparison.Ordinal) is var colon and >= 0)
        {
            if (
                explodes
                || !int.TryParse(text[(colon + 1)..], NumberStyles.None, CultureInfo.InvariantCulture, out var most)
                || most is < 1 or > LongestPrefix
            )
            {
                return null;
            }

            (text, length) = (text[..colon], most);
        }

        return IsName(text) ? new Variable(text, length, explodes) : null;
    }

    private static bool IsName(string text)
    {
        for (var at = 0; at < text.Length; at++)
        {
            if (text[at] == '%' && IsEncoded(text, at))
            {
                at += 2;
            }
            else if (
                !char.IsAsciiLetterOrDigit(text[at])
                && text[at] != '_'
                && (text[at] != '.' || at == 0 || at == text.Length - 1 || text[at - 1] == '.')
            )
            {
                return false;
            }
        }

        return text.Length > 0;
    }

    /// <summary>Section 2.1: what may not stand between expressions.</summary>
    private static string? ProblemOfLiteral(string literal)
    {
        for (var at = 0; at < literal.Length; at++)
        {
            var character = literal[at];
            if (character == '}')
            {
                return "has a brace that was not opened";
            }

            if (
                character <= ' '
                || character is '"' or '\'' or '<' or '>' or '\\' or '^' or '`' or '|' or '\u007f'
                || character == '%' && !IsEncoded(literal, at)
            )
            {
                return $"has “{Shortened(literal[at..])}”, where a character may not stand in an address";
            }
        }

        return null;
    }

    private static bool IsEncoded(string text, int at) =>
        at + 2 < text.Length && char.IsAsciiHexDigit(text[at + 1]) && char.IsAsciiHexDigit(text[at + 2]);

    /// <summary>The first so many characters, as Unicode code points.</summary>
    private static string Prefix(string text, int? length)
    {
        if (length is not { } most || text.Length <= most)
        {
            return text;
        }

        var taken = new StringBuilder();
        foreach (var rune in text.EnumerateRunes().Take(most))
        {
            taken.Append(rune.ToString());
        }

        return taken.ToString();
    }

    /// <summary>Section 3.2.1: characters other than the unreserved (and the reserved, where they stay) as their UTF-8 in percent.</summary>
    private static string Encoded(string text, bool keepsReserved)
    {
        var encoded = new StringBuilder(text.Length);
        Span<byte> bytes = stackalloc byte[4];
        for (var at = 0; at < text.Length; )
        {
            var character = text[at];
            if (
                char.IsAsciiLetterOrDigit(character)
                || character is '-' or '.' or '_' or '~'
                || keepsReserved && ":/?#[]@!$&'()*+,;=".Contains(character, StringComparison.Ordinal)
            )
            {
                encoded.Append(character);
                at++;
            }
            else if (keepsReserved && character == '%' && IsEncoded(text, at))
            {
                encoded.Append(text, at, 3);
                at += 3;
            }
            else
            {
                Rune.DecodeFromUtf16(text.AsSpan(at), out var rune, out var taken);
                foreach (var each in bytes[..rune.EncodeToUtf8(bytes)])
                {
                    encoded.Append(CultureInfo.InvariantCulture, $"%{each:X2}");
                }

                at += taken;
            }
        }

        return encoded.ToString();
    }

    private static string Shortened(string text) => text.Length <= 30 ? text : text[..30] + "…";

    private sealed record Variable(string Name, int? Length, bool Explodes);

    private sealed record Part(string Literal, Operator? Operator, IReadOnlyList<Variable> Variables);

    /// <summary>A row of the table in appendix A.</summary>
    private sealed record Operator(string First, string Between, bool Named, string IfEmpty, bool KeepsReserved)
    {
        public static Operator Plain { get; } = new("", ",", false, "", false);

        public static Operator? Of(char sign) =>
            sign switch
            {
                '+' => new Operator("", ",", false, "", true),
                '#' => new Operator("#", ",", false, "", true),
                '.' => new Operator(".", ".", false, "", false),
                '/' => new Operator("/", "/", false, "", false),
                ';' => new Operator(";", ";", true, "", false),
                '?' => new Operator("?", "&", true, "=", false),
                '&' => new Operator("&", "&", true, "=", false),
                _ => null,
            };
    }
}
