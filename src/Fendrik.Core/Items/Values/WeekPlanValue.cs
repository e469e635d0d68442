using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Items.Values;

/// <summary>Hours of the week with modifiers, kept as <see cref="WeekPlan"/> writes them; the whole week as it is, is nothing.</summary>
public sealed class WeekPlanValue : ValueType
{
    /// <inheritdoc/>
    public override Storage Storage => Storage.Text;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Text;

    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground) =>
        WeekPlan.Read(text, out var problem) is { } plan
            ? new Reading(plan.IsAlways ? "" : plan.ToString())
            : Reading.Wrong(problem!);

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) => (string)value;

    /// <inheritdoc/>
    public override string? InWords(object value, Currency currency) =>
        ((string)value).Replace(" -", " −", StringComparison.Ordinal);

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) =>
        Json.Text(element) is not { } text ? null
        : WeekPlan.Read(text, out var problem) is not null ? text
        : throw new JsonException(problem);

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) => json.WriteStringValue((string)value);

    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report)
    {
        var plan = WeekPlan.Of((string)value);
        if (plan.Range.Highest > limits.HighestPercent)
        {
            var highest = PercentValue.Words(limits.HighestPercent.Value);
            yield return report.Blocker(
                field,
                "high",
                $"a modifier above {highest}",
                $"{report.Network.Name} takes no modifier above {highest}. Lower that of {WordsOf(plan.Spans.MaxBy(each => each.Percent))}."
            );
        }

        if (plan.Spans.All(each => each.Percent == PercentValue.Lowest))
        {
            yield return report.Caution(
                field,
                "hours-never",
                "never shows",
                "All its hours have a modifier of −100%, so that it never shows. Raise one, or pause the campaign."
            );
        }
    }

    private static string WordsOf(PlannedSpan span) =>
        $"{WeekText.Short(span.Day)} {WeekText.Clock(span.From)}–{WeekText.Clock(span.To)}";
}
