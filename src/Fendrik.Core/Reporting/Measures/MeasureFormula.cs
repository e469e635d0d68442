using System.Globalization;

namespace Fendrik.Core.Reporting.Measures;

/// <summary>
/// What somebody makes of the measures: names of measures and plain numbers with + − × ÷ and brackets, as in <c>(value − cost) ÷ clicks</c>. × and ÷ bind
/// closer than + and −; -, * and / may be typed for −, × and ÷. Only what is counted in the same unit can be added or taken away; a plain number can only
/// multiply or divide. There is nothing else that it can do.
/// </summary>
public sealed class MeasureFormula
{
    /// <summary>Longest formula, in characters.</summary>
    public const int Longest = 200;

    private const int Deepest = 20;

    private readonly Func<Measured, decimal?> _of;

    private MeasureFormula(string text, MeasureUnit unit, Func<Measured, decimal?> of) =>
        (Text, Unit, _of) = (text, unit, of);

    /// <summary>The formula as it is written: names in full, signs as they are printed.</summary>
    public string Text { get; }

    /// <summary>In what its result is counted.</summary>
    public MeasureUnit Unit { get; }

    /// <summary>How its result is written unless somebody says: money per anything as money, all else as a number.</summary>
    public MeasureForm UsualForm => Unit.Money == 1 ? MeasureForm.Money : MeasureForm.Number;

    /// <summary>The result for what was measured. None where a part is not known, or where something is divided by nothing.</summary>
    public decimal? Of(Measured measured)
    {
        try
        {
            return _of(measured);
        }
        catch (OverflowException)
        {
            return null;
        }
    }

    /// <summary>Reads a formula.</summary>
    /// <exception cref="FormulaException">It cannot be read, or its units do not fit.</exception>
    public static MeasureFormula Read(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (text.Length > Longest)
        {
            throw new FormulaException($"A formula has at most {Longest} characters.");
        }

        var reader = new Reader(text);
        var whole = reader.Whole();
        if (whole.Unit.Money is < 0 or > 1)
        {
            throw new FormulaException(
                $"The result would be {whole.Unit}, which nobody can read. Divide by an amount, or by none."
            );
        }

        return whole.HasMeasure
            ? new MeasureFormula(whole.Text, whole.Unit, whole.Of)
            : throw new FormulaException("There is no measure in it, only numbers. Name one, as in “cost ÷ clicks”.");
    }

    /// <summary>How tight a part of a formula holds together.</summary>
    private enum Bond
    {
        Sum = 1,
        Product = 2,
        Single = 3,
    }

    private sealed record Part(string Text, Bond Bond, MeasureUnit Unit, bool HasMeasure, Func<Measured, decimal?> Of)
    {
        /// <summary>The part as it stands inside a tighter one.</summary>
        public string Within(Bond bond) => Bond < bond ? $"({Text})" : Text;
    }

    private sealed class Reader(string text)
    {
        private static readonly Measure[] ByLength =
        [
            .. ResultMeasures.All.OrderByDescending(measure => measure.Title.Length),
        ];

        private int _at;
        private int _depth;

        public Part Whole()
        {
            var whole = Sum();
            return Next() == '\0'
                ? whole
                : throw Wrong("Here a sign is missing, or a bracket is closed that was never opened.");
        }

        private Part Sum()
        {
            var left = Product();
            while (Taken('+', '-', '−') is { } sign)
            {
                Next();
                var at = _at + 1;
                left = Together(left, Product(), isMinus: sign != '+', at);
            }

            return left;
        }

        private static Part Together(Part left, Part right, bool isMinus, int at)
        {
            if (left.Unit != right.Unit)
            {
                throw new FormulaException(
                    $"{left.Text} is {left.Unit}, {right.Text} is {right.Unit}: only what is counted in the same can be {(isMinus ? "taken away" : "added")}.",
                    at
                );
            }

            return new Part(
                $"{left.Text} {(isMinus ? "−" : "+")} {(isMinus ? right.Within(Bond.Product) : right.Text)}",
                Bond.Sum,
                left.Unit,
                left.HasMeasure || right.HasMeasure,
                isMinus
                    ? measured => left.Of(measured) - right.Of(measured)
                    : measured => left.Of(measured) + right.Of(measured)
            );
        }

        private Part Product()
        {
            var left = Single();
            while (Taken('×', '*', '÷', '/') is { } sign)
            {
                left = sign is '×' or '*' ? Times(left, Single()) : Per(left, Single());
            }

            return left;
        }

        private static Part Times(Part left, Part right) =>
            new(
                $"{left.Within(Bond.Product)} × {right.Within(Bond.Single)}",
                Bond.Product,
                left.Unit * right.Unit,
                left.HasMeasure || right.HasMeasure,
                measured => left.Of(measured) * right.Of(measured)
            );

        private static Part Per(Part left, Part right) =>
            new(
                $"{left.Within(Bond.Product)} ÷ {right.Within(Bond.Single)}",
                Bond.Product,
                left.Unit / right.Unit,
                left.HasMeasure || right.HasMeasure,
                measured => right.Of(measured) is { } below and not 0 ? left.Of(measured) / below : null
            );

        private Part Single()
        {
            if (Taken('(') is not null)
            {
                if (++_depth > Deepest)
                {
                    throw Wrong($"Brackets stand at most {Deepest} deep.");
                }

                var inner = Sum();
                _depth--;
                return Taken(')') is not null ? inner : throw Wrong("Here a bracket has to be closed.");
            }

            return char.IsAsciiDigit(Next()) ? Number() : Name();
        }

        private Part Number()
        {
            var from = _at;
            while (_at < text.Length && (char.IsAsciiDigit(text[_at]) || text[_at] == '.'))
            {
                _at++;
            }

            var written = text[from.._at];
            return decimal.TryParse(
                written,
                NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out var number
            )
                ? new Part(written, Bond.Single, MeasureUnit.None, false, _ => number)
                : throw new FormulaException($"“{written}” is no number. Write it as 1000 or 0.5.", from + 1);
        }

        private Part Name()
        {
            Next();
            var rest = text.AsSpan(_at);
            foreach (var measure in ByLength)
            {
                if (
                    rest.StartsWith(measure.Title, StringComparison.OrdinalIgnoreCase)
                    && (rest.Length == measure.Title.Length || !char.IsLetterOrDigit(rest[measure.Title.Length]))
                )
                {
                    _at += measure.Title.Length;
                    return new Part(LowName(measure), Bond.Single, measure.Unit, true, measure.Of);
                }
            }

            var end = 0;
            while (end < rest.Length && (char.IsLetterOrDigit(rest[end]) || rest[end] == ' '))
            {
                end++;
            }

            var written = rest[..end].Trim().ToString();
            throw Wrong(
                written.Length == 0
                    ? "Here a measure or a number is missing."
                    : $"“{written}” is no measure. Choose one from the list."
            );
        }

        /// <summary>The next character that is no blank, not taken yet.</summary>
        private char Next()
        {
            while (_at < text.Length && char.IsWhiteSpace(text[_at]))
            {
                _at++;
            }

            return _at < text.Length ? text[_at] : '\0';
        }

        private char? Taken(params ReadOnlySpan<char> any)
        {
            var next = Next();
            if (next == '\0' || !any.Contains(next))
            {
                return null;
            }

            _at++;
            return next;
        }

        private FormulaException Wrong(string message) => new(message, _at + 1);
    }

    /// <summary>A measure's name inside a sentence: abbreviations keep their capitals.</summary>
    internal static string LowName(Measure measure) =>
        measure.Title.Length > 1 && char.IsUpper(measure.Title[1])
            ? measure.Title
            : char.ToLowerInvariant(measure.Title[0]) + measure.Title[1..];
}
