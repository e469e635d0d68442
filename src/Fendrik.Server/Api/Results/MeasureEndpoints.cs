using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Measures;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Own;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Results;

/// <summary>A figure that results are read by.</summary>
/// <param name="Key">Its key.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Short">What it is called where there is little room.</param>
/// <param name="How">How it comes about.</param>
/// <param name="Form">How it is written.</param>
/// <param name="Group">What it tells of.</param>
/// <param name="IsUsual">True where it stands among the columns unless somebody chooses others.</param>
/// <param name="Formula">How somebody made it of the others; none for those that everybody has.</param>
public sealed record MeasureView(
    string Key,
    string Title,
    string Short,
    string How,
    MeasureForm Form,
    MeasureGroup Group,
    bool IsUsual,
    string? Formula
);

/// <summary>What somebody makes of the measures.</summary>
/// <param name="Formula">The formula.</param>
/// <param name="Form">How the result is written; none for how it usually is.</param>
public sealed record OwnMeasureBody(string Formula, MeasureForm? Form);

/// <summary>A formula that can be.</summary>
/// <param name="Formula">As it is written.</param>
/// <param name="Unit">In what its result is counted, in words.</param>
/// <param name="Form">How the result is written.</param>
/// <param name="IsMoney">True where the result is money, which is written as such.</param>
/// <param name="Now">What it is in the last 28 days; none where there is none.</param>
public sealed record FormulaReading(string Formula, string Unit, MeasureForm Form, bool IsMoney, decimal? Now);

/// <summary>The measures of an account.</summary>
internal static class MeasureEndpoints
{
    private const int DaysTried = 28;

    public static void MapMeasures(this RouteGroupBuilder account)
    {
        account.MapGet("/results/measures", ListAsync).WithName("listMeasures");
        account.MapPost("/results/measures/read", ReadAsync).WithName("readFormula").Needs(AccountRight.Look);
        account.MapPut("/results/measures/{name}", KeepAsync).WithName("keepMeasure");
        account.MapDelete("/results/measures/{name}", RemoveAsync).WithName("removeMeasure");
    }

    private static async Task<Ok<IReadOnlyList<MeasureView>>> ListAsync(
        int accountId,
        MeasureBook book,
        CancellationToken cancellation
    )
    {
        var own = await book.OwnAsync(accountId, cancellation);
        return TypedResults.Ok<IReadOnlyList<MeasureView>>([
            .. ResultMeasures.All.Select(measure => ViewOf(measure, null)),
            .. own.Select(each => ViewOf(each.ToMeasure(), each.Formula)),
        ]);
    }

    private static MeasureView ViewOf(Measure measure, string? formula) =>
        new(
            measure.Key,
            measure.Title,
            measure.Short,
            measure.How,
            measure.Form,
            measure.Group,
            measure.IsUsual,
            formula
        );

    /// <summary>Reads a formula that is being written, and what it would be in these weeks.</summary>
    private static async Task<Ok<FormulaReading>> ReadAsync(
        int accountId,
        OwnMeasureBody body,
        PerformanceStore store,
        ResultsReader reader,
        CancellationToken cancellation
    )
    {
        var formula = FormulaOf(body.Formula);
        decimal? now = null;
        if ((await store.ReportedToAsync(accountId, cancellation)).Day is { } last)
        {
            var report = await reader.ReadAsync(
                accountId,
                new ResultsRequest(new Period(last.AddDays(1 - DaysTried), last), ItemKind.Campaign, null, null),
                0,
                cancellation
            );
            now = formula.Of(report.MeasuredNow);
        }

        return TypedResults.Ok(
            new FormulaReading(
                formula.Text,
                formula.Unit.ToString(),
                formula.UsualForm == MeasureForm.Money ? MeasureForm.Money
                    : body.Form is MeasureForm.Share or MeasureForm.Whole ? body.Form.Value
                    : MeasureForm.Number,
                formula.UsualForm == MeasureForm.Money,
                now
            )
        );
    }

    private static async Task<NoContent> KeepAsync(
        int accountId,
        string name,
        OwnMeasureBody body,
        MeasureBook book,
        CancellationToken cancellation
    )
    {
        var formula = FormulaOf(body.Formula);
        await book.KeepAsync(
            accountId,
            new OwnMeasure(name, formula.Text, body.Form ?? formula.UsualForm),
            cancellation
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, NotFound>> RemoveAsync(
        int accountId,
        string name,
        MeasureBook book,
        CancellationToken cancellation
    ) => await book.RemoveAsync(accountId, name, cancellation) ? TypedResults.NoContent() : TypedResults.NotFound();

    private static MeasureFormula FormulaOf(string text)
    {
        try
        {
            return MeasureFormula.Read(text);
        }
        catch (FormulaException wrong)
        {
            throw MeasureBook.Told(wrong);
        }
    }
}
