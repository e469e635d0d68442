using Fendrik.Core.Checks;
using Fendrik.Core.Networks;
using Fendrik.Core.Tracking;

namespace Fendrik.Core.Items.Values;

/// <summary>A tracking template: a URI template of RFC 6570 over what is known of a click.</summary>
public sealed class TrackingTemplateValue() : TextValue
{
    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report)
    {
        foreach (var finding in base.Check(field, value, limits, report))
        {
            yield return finding;
        }

        if (!UriTemplate.TryRead((string)value, out var template, out var problem))
        {
            var unreadable = TrackedLink.Unreadable(problem);
            yield return report.Blocker(field, unreadable.Code, unreadable.Message, unreadable.Detail);
            yield break;
        }

        foreach (var found in TrackedLink.ProblemsOf(template))
        {
            yield return report.Blocker(field, found.Code, found.Message, found.Detail);
        }
    }
}
