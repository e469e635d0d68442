using Fendrik.Core.Bidding;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands;

/// <summary>What is to become of a part of the week, as a person says it.</summary>
/// <param name="Day">The day.</param>
/// <param name="From">Minutes after midnight.</param>
/// <param name="To">Minutes after midnight, up to but without.</param>
/// <param name="Shows">Whether ads show; none to leave that.</param>
/// <param name="Modifier">Per cent more or less, as it is typed; none to leave it.</param>
public sealed record WeekEdit(DayOfWeek Day, int From, int To, bool? Shows, string? Modifier);

/// <summary>A day of the week that becomes like another.</summary>
/// <param name="Day">The day that changes.</param>
/// <param name="Like">The day that it becomes like.</param>
public sealed record DayLike(DayOfWeek Day, DayOfWeek Like);

/// <summary>The modifier of a place or an audience on campaigns, as a person says it.</summary>
/// <param name="Kind">Place or audience.</param>
/// <param name="Text">Which.</param>
/// <param name="Modifier">Per cent more or less, as it is typed.</param>
/// <param name="Adds">True to add it; one that is there already is then told of and left as it is.</param>
public sealed record TargetModifier(ItemKind Kind, string Text, string Modifier, bool Adds = false);

/// <summary>Changes the hours of campaigns, each on top of its own, and modifiers of devices, in one step.</summary>
/// <param name="Items">The campaigns.</param>
/// <param name="Week">What becomes of parts of the week, in this order.</param>
/// <param name="Days">Days that become like others of the same campaign, after that.</param>
/// <param name="Targets">Modifiers of places and audiences.</param>
/// <param name="Values">Other fields that are set at the same time, such as modifiers of devices.</param>
public sealed record ChangeModifiers(
    ItemSet Items,
    IReadOnlyList<WeekEdit> Week,
    IReadOnlyDictionary<string, FieldInput> Values,
    IReadOnlyList<DayLike>? Days = null,
    IReadOnlyList<TargetModifier>? Targets = null
) : IWorkingCopyChange
{
    private const int MostEdits = 2_000;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var type = ItemTypes.Of(ItemKind.Campaign);
        var days = Days ?? [];
        var targets = Targets ?? [];
        var asked = Week.Count + days.Count + Values.Count + targets.Count;
        if (asked is 0 or > MostEdits)
        {
            throw new InvalidChangeException(
                "week",
                asked == 0
                    ? "Say which hours or modifiers are to be changed."
                    : $"At most {MostEdits:N0} parts of a week at once."
            );
        }

        var changes = Week.Select((edit, place) => Read(type, edit, place, context)).ToArray();
        var said = Values.Count == 0 ? [] : FieldInputs.Read(type, Values, context.Account.RelativeGround);
        var hours = type["hours"];
        var selection = await ItemSelection.TakeAsync(context, Items);
        if (selection.Tables.Any(table => table.Kind != ItemKind.Campaign))
        {
            throw new InvalidChangeException("items", "Hours stand on campaigns. Select campaigns.");
        }

        var changed = await new RowEdits(
            context,
            ItemTable.Of(ItemKind.Campaign),
            [.. said.Keys.Where(field => field != hours), hours],
            (_, values) => Edited(values, hours, said, changes, days)
        ).ApplyAsync(ItemSelection.Holds(ItemKind.Campaign), new { account = context.Account.Id });
        changed += await TargetsAsync(context, targets);
        var what =
            targets.Count > 0 ? "Set modifiers"
            : said.Count == 0 ? "Set hours"
            : said.Count == 1 && Week.Count + days.Count == 0 ? $"Set {said.Keys.First().LowLabel}"
            : "Set modifiers";
        var campaigns = targets.Count > 0 ? selection.CountOf(ItemKind.Campaign) : changed;
        return new StepOutcome($"{what} of {ItemTypes.Count(campaigns, [ItemKind.Campaign])}", changed);
    }

    /// <summary>Sets the modifiers of places and audiences on the selected campaigns; adds those that are to be added.</summary>
    private static async Task<int> TargetsAsync(StepContext context, IReadOnlyList<TargetModifier> targets)
    {
        var changed = 0;
        foreach (var (target, at) in targets.Select((each, at) => (each, at)))
        {
            if (target.Kind is not (ItemKind.Place or ItemKind.Audience))
            {
                throw new InvalidChangeException($"targets[{at}].kind", "Modifiers stand on places and audiences.");
            }

            var type = ItemTypes.Of(target.Kind);
            var said = new Dictionary<string, FieldInput>
            {
                [type.NameField!.Name] = new(target.Text),
                ["modifier"] = new(target.Modifier),
            };
            var values = FieldInputs.Read(type, said, context.Account.Ground);
            var table = ItemTable.Of(target.Kind);
            var mine = table.HasLevels ? " and i.ad_group_id is null" : "";
            var parameters = new
            {
                account = context.Account.Id,
                key = TextIdentity.Of(values[type.NameField] as string ?? ""),
                modifier = (decimal?)values[type["modifier"]],
            };
            if (target.Adds)
            {
                var campaigns = await context.QueryAsync<long>(
                    $"select s.id from selected s where s.kind = {(int)ItemKind.Campaign}"
                );
                var add = new AddItems(target.Kind, [said], new ItemPlaces { CampaignIds = [.. campaigns] });
                changed += (await add.ApplyAsync(context)).Items;
                continue;
            }

            changed += await context.ExecuteAsync(
                $"""
                update {table.Name} i set modifier = @modifier::numeric, {table.KeepLive}
                where i.account_id = @account and not i.removed{mine} and i.text_key = @key and i.modifier is distinct from @modifier::numeric
                  and i.campaign_id in (select s.id from selected s where s.kind = {(int)ItemKind.Campaign})
                """,
                parameters
            );
        }

        return changed;
    }

    private static RowEdit? Edited(
        ItemValues values,
        Field hours,
        IReadOnlyDictionary<Field, object?> said,
        PlanChange[] changes,
        IReadOnlyList<DayLike> days
    )
    {
        var differs = false;
        foreach (var (field, value) in said)
        {
            differs |= !Equals(values[field], field.OrNothing(value));
            values[field] = field.OrNothing(value);
        }

        if (changes.Length + days.Count > 0)
        {
            var before = values[hours] is string text ? WeekPlan.Of(text) : WeekPlan.Always;
            var plan = before.With(changes, out var problem);
            foreach (var (day, like) in days)
            {
                plan = plan?.With(day, like, out problem);
            }

            if (plan is null)
            {
                return new RowEdit(values, problem);
            }

            differs |= !plan.Equals(before);
            values[hours] = plan.IsAlways ? null : plan.ToString();
        }

        return differs ? new RowEdit(values) : null;
    }

    private static PlanChange Read(ItemType type, WeekEdit edit, int place, StepContext context)
    {
        decimal? percent = null;
        if (!string.IsNullOrWhiteSpace(edit.Modifier))
        {
            var reading = type["phoneModifier"].Type.Read(edit.Modifier, context.Account.RelativeGround);
            percent = reading.Problem is { } problem
                ? throw new InvalidChangeException($"week[{place}].modifier", $"The modifier {problem}.")
                : (decimal)reading.Value!;
        }

        return new PlanChange(edit.Day, edit.From, edit.To, edit.Shows, percent);
    }
}
