using Fendrik.Core.Lists;
using Fendrik.Data.Accounts;
using Fendrik.Data.Commands;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Intakes;

/// <summary>Brings a list that was read and judged into the working copy, as one step.</summary>
/// <param name="IntakeId">The list.</param>
/// <param name="Today">
/// The day from which new campaigns run when the list has no start dates at all; none to leave that open. A list with such a
/// column says it itself, also where a cell is empty.
/// </param>
public sealed record KeepIntake(long IntakeId, DateOnly? Today = null) : IWorkingCopyChange
{
    public AccountDoing Doing => AccountDoing.Intake;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var parameters = new
        {
            intake = IntakeId,
            account = context.Account.Id,
            Today,
        };
        await TakeAsync(context, parameters);
        var items = 0;
        var isLong = await Staging.IsLongAsync(context.Connection, IntakeId, context.Cancellation);
        var leaves = await Staging.LeavesOfAsync(context.Connection, IntakeId, isLong, context.Cancellation);
        foreach (
            var sql in Staging.Holders.SelectMany(table => Holders(table, isLong)).Concat(leaves.SelectMany(Leaves))
        )
        {
            items += Math.Max(0, await context.ExecuteAsync(sql, parameters));
        }

        await ItemSelection.BeginAsync(context.Connection);
        var removed = 0;
        if (await context.ExecuteAsync(Removals(), parameters) > 0)
        {
            removed = await RemoveItems.SelectedAsync(context);
        }

        var name = await context.ScalarAsync<string>("select file_name from intake where id = @intake", parameters);
        return new StepOutcome(
            items == 0 && removed > 0 ? $"Remove {removed:N0} items by {name}"
                : removed > 0 ? $"Bring in {items:N0} items and remove {removed:N0} by {name}"
                : $"Bring in {items:N0} items from {name}",
            items + removed
        );
    }

    /// <summary>What holds others: made, then known by its identity to what is in it; then what is changed of those that are there.</summary>
    private static IEnumerable<string> Holders(ItemTable table, bool isLong)
    {
        var staged = Staging.HoldersOf(table);
        var campaigns = Staging.HoldersOf(ItemTable.Of(ItemKind.Campaign));
        var inCampaign = table.Type.Holds == Level.AdGroup;
        var isList = table.Type.Holds == Level.List;
        var above = inCampaign ? $"join {campaigns} c on c.intake_id = @intake and c.name_key = h.campaign_key" : "";
        yield return $"""
            with made as (
              {table.Insert(
                $"from {staged} h {above} where h.intake_id = @intake and h.outcome = 1 order by h.first_row",
                [
                    ("account_id", "@account"),
                    .. inCampaign ? new[] { ("campaign_id", "c.item_id") } : [],
                    ("name", "h.name"),
                    ("name_key", "h.name_key"),
                    .. Staging.FieldsOf(table.Type).Select(field => (field.Column, NewOf(field))),
                    .. isList ? new[] { ("campaign_ids", CampaignsOf("'{}'::bigint[]")) } : [],
                ]
            )}
              returning id, name_key{(inCampaign ? ", campaign_id" : "")}
            )
            update {staged} h set item_id = made.id from made {(inCampaign ? $"join {campaigns} c on c.intake_id = @intake and c.item_id = made.campaign_id" : "")}
            where h.intake_id = @intake and h.name_key = made.name_key{(inCampaign ? " and h.campaign_key = c.name_key" : "")}
            """;
        var fields = NextValue.FieldsOf(table);
        var lists = isList ? $", campaign_ids = {CampaignsOf("i.campaign_ids")}" : "";
        yield return $"""
            update {table.Name} i set ({NextValue.Columns(table)}) = row({NextValue.Of(
                table,
                "h",
                "i"
            )}){lists}, {table.KeepLive}
            from {staged} h where h.intake_id = @intake and h.outcome = 2 and h.item_id = i.id
            """;
        if (isLong)
        {
            yield return $"analyze {staged}";
        }
    }

    /// <summary>What a field of a new holder is where the list does not say.</summary>
    private static string NewOf(Field field) =>
        field.Arrival switch
        {
            Arrival.Default => NextValue.New(field, "h"),
            Arrival.Today =>
                $"coalesce(h.{field.Column}, case when not exists (select from intake n where n.id = @intake and '{ListColumns.NameOf(field)}' = any(n.columns)) then @Today::date end)",
            Arrival.AsChosen =>
                $"coalesce(h.{field.Column}, case when (select n.new_paused from intake n where n.id = @intake) then {(int)ItemState.Paused} else {(int)ItemState.Running} end)::smallint",
        };

    /// <summary>What is in them: changed first, so that what is added finds its place free.</summary>
    private static IEnumerable<string> Leaves(ItemTable table)
    {
        if (NextValue.FieldsOf(table).Length > 0)
        {
            yield return $"""
                update {table.Name} i set ({NextValue.Columns(table)}) = row({NextValue.Of(
                    table,
                    "r",
                    "i"
                )}), {table.KeepLive}
                from intake_verdict v join intake_row r on r.intake_id = v.intake_id and r.row_number = v.row_number
                where v.intake_id = @intake and v.outcome = 2 and v.item_id = i.id and v.kind = {table.Number}
                """;
        }

        if (!table.Type.ComesAndGoes)
        {
            yield break;
        }

        string Alias(Level level) => level.ToString().ToLowerInvariant() + "s";
        var joins = table
            .Parents.Select(parent => parent.Level)
            .Select(level =>
                $"left join {Staging.HoldersOf(ItemTable.Of(ItemTypes.HolderOf(level)!.Kind))} {Alias(level)} on {Alias(level)}.intake_id = @intake and {(level == Level.AdGroup ? $"{Alias(level)}.campaign_key = r.campaign_key and " : "")}{Alias(level)}.name_key = r.{Staging.KeyOf(level)}"
            );
        yield return table.Insert(
            $"""
            from intake_verdict v join intake_row r on r.intake_id = v.intake_id and r.row_number = v.row_number {string.Join(
                ' ',
                joins
            )}
            where v.intake_id = @intake and v.kind = {table.Number} and v.outcome = 1
            order by {string.Concat(
                table.Parents.Select(parent => $"{Alias(parent.Level)}.item_id, ")
            )}r.item_key, r.row_number
            """,
            [
                ("account_id", "@account"),
                .. table.Parents.Select(parent => (parent.Column, $"{Alias(parent.Level)}.item_id")),
                .. Staging.FieldsOf(table.Type).Select(field => (field.Column, NextValue.New(field, "r"))),
                .. table
                    .Type.Fields.Where(field => field.KeyColumn is not null)
                    .Select(field => (field.KeyColumn!, "r.item_key")),
                .. table.Type.IsKnownByContent ? new[] { ("content_key", "r.item_key") } : [],
            ]
        );
    }

    private static string Removals() =>
        $"""
            insert into selected {string.Join(
                " union all ",
                Staging.Holders.Select(table =>
                    $"select {table.Number}, item_id from {Staging.HoldersOf(table)} where intake_id = @intake and outcome = 6 and item_id is not null"
                )
            )}
            union all select kind, item_id from intake_verdict where intake_id = @intake and outcome = 6 and kind = any(array[{string.Join(
                ", ",
                Staging.Leaves.Select(table => table.Number)
            )}])
            """;

    private async Task TakeAsync(StepContext context, object parameters)
    {
        var taken = await context.ScalarAsync<int>(
            "with taken as (update intake set state = 3, step_id = @step where id = @intake and account_id = @account and state = 2 returning 1) select count(*) from taken",
            new
            {
                intake = IntakeId,
                account = context.Account.Id,
                step = context.StepId,
            }
        );
        if (taken == 0)
        {
            throw new InvalidChangeException("intake", "This intake was kept or left already.");
        }

        // Staged rows do not survive a crash of the database; the file does.
        if (
            !await context.ScalarAsync<bool>(
                "select exists (select from intake_row where intake_id = @intake)",
                parameters
            )
        )
        {
            throw new InvalidChangeException(
                "intake",
                "The rows have to be read again. Press “Read again”, then bring them in."
            );
        }

        // The working copy may have moved on since the rows were judged.
        var fresh = await context.ScalarAsync<bool>(
            """
            select i.judged_at_step = a.last_step_id from intake i join account a on a.id = i.account_id where i.id = @intake
            """,
            parameters
        );
        if (!fresh)
        {
            await IntakeJudgement.JudgeAsync(context.Connection, IntakeId, context.Cancellation);
        }
    }

    /// <summary>The campaigns of a list after the rows of it: those before, those that are to share it, without those that no longer are.</summary>
    private static string CampaignsOf(string before) =>
        $$"""
            (select coalesce(array_agg(x.id order by x.id), '{}') from (
              select unnest({{before}}) as id
              union select c.item_id from intake_campaign c where c.intake_id = @intake and c.name_key = any(h.attach) and c.outcome not in (6, 7)
              except select c.item_id from intake_campaign c where c.intake_id = @intake and c.name_key = any(h.detach)) x)
            """;
}
