using System.Globalization;
using Fluid;
using Fluid.Ast;
using Fluid.Parser;
using Fluid.Values;

namespace Fendrik.Core.AdText.Insertion;

/// <summary>
/// The part of Liquid that texts of ads are written in: output of a few names, through a few filters. There are no statements, so
/// that no text loops or branches; what a text means is Liquid's to say, not ours.
/// </summary>
internal static class InsertionLanguage
{
    /// <summary>Longest text that is read: several times what any network takes.</summary>
    public const int Longest = 1_000;

    /// <summary>Days of a countdown that still fit where its length is asked for.</summary>
    public const int MostDays = 999;

    public const string Countdown = "days_until";
    public const string EachWord = "each_word";
    private const string Clock = "clock";

    private static readonly FluidParser Parser = new();
    private static readonly TemplateOptions Options = WithFilters();

    /// <summary>The names, as they are written.</summary>
    public static IReadOnlyDictionary<string, InsertedName> Names { get; } =
        Enum.GetValues<InsertedName>()
            .Where(name => name != InsertedName.Countdown)
            .ToDictionary(Written, StringComparer.Ordinal);

    private static readonly string[] Filters = ["default", "capitalize", "upcase", "downcase", EachWord, Countdown];

    /// <summary>True when a text inserts something, or tries to.</summary>
    public static bool IsAsked(string text) =>
        text.Contains('{')
        && (text.Contains("{{", StringComparison.Ordinal) || text.Contains("{%", StringComparison.Ordinal));

    /// <summary>Reads a text.</summary>
    /// <returns>The template, or why there is none, as a sentence.</returns>
    public static (FluidTemplate? Template, string? Problem) Read(string text)
    {
        if (text.Length > Longest)
        {
            return (null, $"The text has {text.Length:N0} characters, too many to insert words into.");
        }

        if (!Parser.TryParse(text, out var read, out _) || read is not FluidTemplate template)
        {
            return (null, "The brackets of the inserted words do not close. Insert them anew.");
        }

        var problem = template.Statements.Select(ProblemOf).FirstOrDefault(each => each is not null);
        return problem is null ? (template, null) : (null, problem);
    }

    /// <summary>Writes a text out.</summary>
    /// <param name="template">The text.</param>
    /// <param name="valueOf">What stands for a name; none when it is not known.</param>
    /// <param name="clock">The clock for countdowns; none where they have passed.</param>
    public static string Write(FluidTemplate template, Func<InsertedName, string?> valueOf, DateTime? clock)
    {
        var context = new TemplateContext(Options);
        foreach (var (written, name) in Names)
        {
            context.SetValue(
                written,
                valueOf(name) is { Length: > 0 } value ? StringValue.Create(value) : NilValue.Instance
            );
        }

        if (clock is { } now)
        {
            context.AmbientValues[Clock] = now;
        }

        return Items.Values.ValueType.Single(template.Render(context));
    }

    /// <summary>The names that a text uses; whether it counts down.</summary>
    public static (IReadOnlySet<InsertedName> Names, bool CountsDown) Used(FluidTemplate template)
    {
        var names = new HashSet<InsertedName>();
        var counts = false;
        foreach (var output in template.Statements.OfType<OutputStatement>())
        {
            for (var expression = output.Expression; ; expression = ((FilterExpression)expression).Input)
            {
                counts |= expression is FilterExpression { Name: Countdown };
                if (expression is not FilterExpression)
                {
                    if (expression is MemberExpression { Segments: [IdentifierSegment named] })
                    {
                        names.Add(Names[named.Identifier]);
                    }

                    break;
                }
            }
        }

        return (names, counts);
    }

    /// <summary>A name as it is written.</summary>
    public static string Written(InsertedName name) =>
        name switch
        {
            InsertedName.Keyword => "keyword",
            InsertedName.AdGroup => "ad_group",
            InsertedName.Campaign => "campaign",
            InsertedName.Place => "place",
            InsertedName.Countdown => Countdown,
        };

    private static string? ProblemOf(Statement statement)
    {
        if (statement is TextSpanStatement)
        {
            return null;
        }

        if (statement is not OutputStatement output)
        {
            return "A text can insert words, but not decide or repeat.";
        }

        var expression = output.Expression;
        var outermost = true;
        var hasFallback = false;
        while (expression is FilterExpression filter)
        {
            if (!Filters.Contains(filter.Name))
            {
                return $"“{filter.Name}” cannot be done to inserted words; these can: {string.Join(", ", Filters)}.";
            }

            if (filter.Name == "default")
            {
                if (filter.Parameters is not [{ Expression: LiteralExpression }] || !outermost)
                {
                    return "The fallback is written last, between quotation marks.";
                }

                hasFallback = true;
            }

            if (filter.Name == Countdown && DayOf(filter.Input) is null)
            {
                return "A countdown needs a day, like \"2027-03-31\".";
            }

            expression = filter.Input;
            outermost = false;
        }

        return expression switch
        {
            MemberExpression { Segments: [IdentifierSegment { Identifier: var name }] } when Names.ContainsKey(name) =>
                hasFallback ? null : $"“{name}” needs a fallback for when it does not fit.",
            LiteralExpression => hasFallback ? null : "A countdown needs a fallback for when the day has passed.",
            MemberExpression => $"There is nothing of this name to insert; there are {string.Join(", ", Names.Keys)}.",
            _ => "Only names can be inserted, not calculations.",
        };
    }

    /// <summary>The day that an expression names; none when it names none.</summary>
    public static DateOnly? DayOf(Expression expression) =>
        expression is LiteralExpression literal
        && DateOnly.TryParseExact(
            literal.Value.ToStringValue(),
            "yyyy-MM-dd",
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var day
        )
            ? day
            : null;

    private static TemplateOptions WithFilters()
    {
        var options = new TemplateOptions { MaxSteps = 1_000, MaxRecursion = 10 };
        options.Filters.AddFilter(
            EachWord,
            (input, _, _) =>
                input.IsNil() ? NilValue.Instance : StringValue.Create(Letters.EachWord(input.ToStringValue()))
        );
        options.Filters.AddFilter(
            Countdown,
            (input, _, context) =>
                context.AmbientValues.TryGetValue(Clock, out var now)
                && DateOnly.TryParseExact(
                    input.ToStringValue(),
                    "yyyy-MM-dd",
                    CultureInfo.InvariantCulture,
                    DateTimeStyles.None,
                    out var day
                )
                    ? Left(day, (DateTime)now)
                    : NilValue.Instance
        );
        return options;
    }

    private static FluidValue Left(DateOnly day, DateTime now)
    {
        var days = day.DayNumber - DateOnly.FromDateTime(now).DayNumber;
        return days <= 0
            ? NilValue.Instance
            : StringValue.Create(
                $"{Math.Min(days, MostDays).ToString(CultureInfo.InvariantCulture)} day{(days == 1 ? "" : "s")}"
            );
    }
}
