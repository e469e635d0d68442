using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Data.Items;

namespace Fendrik.Data.Results.Sums;

/// <summary>Adds up what each item brought, or where it stood, in two periods: from whole weeks and the days around them.</summary>
/// <param name="request">What is asked for.</param>
/// <param name="table">The kind of the items.</param>
/// <param name="ofDearest">True where only the keywords of the parameter <c>dearest</c> are asked for.</param>
/// <param name="parameters">What the queries go by; days are added.</param>
internal sealed class ItemSums(ResultsRequest request, ItemTable table, bool ofDearest, DynamicParameters parameters)
{
    private readonly SumsOf _of = ResultsSums.ForLines(request);
    private readonly string _column = table.Type.FigureColumn!;

    /// <summary>A query of one row for each item that has any.</summary>
    /// <param name="id">What the item's identity is called.</param>
    /// <param name="stands">True for where it stood, false for what it brought.</param>
    /// <param name="figures">Columns, and what their sums are called; those of the days before end in <c>_before</c>.</param>
    public string Sql(string id, bool stands, params (string Column, string Name)[] figures)
    {
        string Both(string figure) =>
            $"coalesce(sum({figure}) filter (where is_now), 0) as {figure}, coalesce(sum({figure}) filter (where not is_now), 0) as {figure}_before";
        var sums = string.Join(", ", figures.Select(figure => $"sum(p.{figure.Column}) as {figure.Name}"));
        // Each item is added up for each period by itself, since a day may be in both; these few sums are told apart.
        string OfDays((string From, string Days) part, bool isNow) =>
            $"""
            select p.{_column} as {id}, {(isNow ? "true" : "false")} as is_now, {sums} from {part.From} p
            where {ResultsSums.Within(request, _of, stands)}{(
                ofDearest ? " and p.keyword_id = any(@dearest)" : ""
            )} and {part.Days} group by 1
            """;
        string[] parts =
        [
            .. Parts(request.Period, "now", stands).Select(part => OfDays(part, isNow: true)),
            .. Parts(request.Before, "then", stands).Select(part => OfDays(part, isNow: false)),
        ];
        return $"select {id}, {string.Join(", ", figures.Select(figure => Both(figure.Name)))} from ({string.Join(" union all ", parts)}) p group by 1";
    }

    /// <summary>What adds up to a period: where it is read from, and which of it.</summary>
    private IEnumerable<(string From, string Days)> Parts(Period days, string name, bool stands)
    {
        var from = stands ? ResultsSums.Stood(_of) : ResultsSums.Brought(_of);
        parameters.Add($"{name}First", days.First);
        parameters.Add($"{name}Last", days.Last);
        if (days.WholeWeeks is not { } whole || ResultsSums.Weeks(_of, _column, stands) is not { } weeks)
        {
            return [(from, $"p.day between @{name}First and @{name}Last")];
        }

        parameters.Add($"{name}Monday", whole.First);
        parameters.Add($"{name}Sunday", whole.Last);
        return
        [
            (weeks, $"p.day between @{name}Monday and @{name}Sunday"),
            (from, $"p.day >= @{name}First and p.day < @{name}Monday"),
            (from, $"p.day > @{name}Sunday and p.day <= @{name}Last"),
        ];
    }
}
