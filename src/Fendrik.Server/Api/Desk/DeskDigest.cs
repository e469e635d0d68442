using System.Globalization;
using System.Text;
using System.Text.Encodings.Web;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Alerts;
using Fendrik.Core.Reporting.Measures;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Own;
using Fendrik.Data.Steps;

namespace Fendrik.Server.Api.Desk;

/// <summary>The desk as a page of its own, to be sent to somebody or kept: the week beside the one before, alerts, and what is worth doing.</summary>
internal sealed class DeskDigest(
    DeskReader desk,
    ResultsReader results,
    AlertBook alerts,
    MeasureBook measures,
    PerformanceStore store,
    WorkingCopy workingCopy
)
{
    private const int Week = 7;

    private static readonly string[] Watched = ["cost", "clicks", "conversions", "costPerConversion", "value"];

    /// <summary>The page, as HTML that needs nothing else.</summary>
    public async Task<(DateOnly? Day, string Page)> ReadAsync(int accountId, CancellationToken cancellation)
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var last = (await store.ReportedToAsync(accountId, cancellation)).Day;
        var page = new StringBuilder();
        var title = $"{facts.Name}, {(last is { } to ? $"to {Written(to)}" : "no results yet")}";
        page.Append(
            $"<!doctype html><html lang=\"en-GB\"><head><meta charset=\"utf-8\"><title>{Safe(title)}</title><style>{Style}</style></head><body><h1>{Safe(title)}</h1>"
        );
        if (last is { } day)
        {
            var week = new Period(day.AddDays(1 - Week), day);
            var known = await measures.AllAsync(accountId, cancellation);
            await WeekAsync(page, accountId, week, known, facts.Currency, cancellation);
            await AlertsAsync(page, accountId, week, known, facts.Currency, cancellation);
        }

        page.Append("<h2>Worth doing, by the money in it</h2>");
        var items = await desk.ReadAsync(accountId, cancellation);
        page.Append(items.Count == 0 ? "<p>Nothing.</p>" : "<ol>");
        foreach (var item in items)
        {
            page.Append(
                $"<li><b>{Safe(item.Title)}</b>{(item.Worth is { } worth ? $" <span>{Safe(worth)}</span>" : "")}<br>{Safe(item.Says)}</li>"
            );
        }

        page.Append(items.Count == 0 ? "" : "</ol>").Append("</body></html>");
        return (last, page.ToString());
    }

    private async Task WeekAsync(
        StringBuilder page,
        int accountId,
        Period week,
        IReadOnlyList<Measure> known,
        Currency currency,
        CancellationToken cancellation
    )
    {
        var report = await results.ReadAsync(
            accountId,
            new ResultsRequest(week, ItemKind.Campaign, null, null),
            0,
            cancellation
        );
        var (now, before) = (report.MeasuredNow, report.MeasuredBefore);
        string In(Measure measure, decimal? figure) =>
            figure is { } one ? Safe(AlertWords.Written(one, measure, currency)) : "—";
        page.Append(
            "<h2>Seven days beside the seven before</h2><table><thead><tr><th></th><th>now</th><th>before</th><th>change</th></tr></thead><tbody>"
        );
        foreach (var measure in known.Where(each => Watched.Contains(each.Key) || each.Group == MeasureGroup.Own))
        {
            var (after, earlier) = (measure.Of(now), measure.Of(before));
            page.Append(
                $"<tr><th scope=\"row\">{Safe(measure.Title)}</th><td>{In(measure, after)}</td><td>{In(measure, earlier)}</td><td>{(Figures.Change(earlier, after) is { } change ? change.ToString("+0.0%;−0.0%;0.0%", CultureInfo.InvariantCulture) : "—")}</td></tr>"
            );
        }

        page.Append("</tbody></table>");
    }

    private async Task AlertsAsync(
        StringBuilder page,
        int accountId,
        Period week,
        IReadOnlyList<Measure> known,
        Currency currency,
        CancellationToken cancellation
    )
    {
        var kept = (await alerts.ListAsync(accountId, cancellation)).ToDictionary(each => each.Id, each => each.Alert);
        var found = await alerts.FoundAsync(accountId, week, cancellation);
        if (kept.Count == 0)
        {
            return;
        }

        page.Append("<h2>Alerts of the week</h2>").Append(found.Count == 0 ? "<p>None went off.</p>" : "<ul>");
        foreach (var each in found.Where(each => kept.ContainsKey(each.AlertId)))
        {
            var alert = kept[each.AlertId];
            var measure = known.First(one => one.Key == alert.Measure);
            page.Append(
                $"<li>{(each.Campaign is { } campaign ? $"<b>{Safe(campaign)}</b> " : "")}{Safe(AlertWords.Found(alert, measure, each.Figure, each.Day, currency))}</li>"
            );
        }

        page.Append(found.Count == 0 ? "" : "</ul>");
    }

    private static string Written(DateOnly day) => day.ToString("d MMMM yyyy", CultureInfo.InvariantCulture);

    private static string Safe(string text) => HtmlEncoder.Default.Encode(text);

    private const string Style =
        "body{font:15px/1.45 system-ui,sans-serif;color:#2a2230;max-width:46em;margin:2em auto;padding:0 1em}h1{font-size:1.5em}h2{font-size:1.1em;margin-top:1.6em}table{border-collapse:collapse}th,td{padding:.2em .8em;text-align:right;border-bottom:1px solid #ddd}th[scope]{text-align:left;font-weight:normal}li{margin:.5em 0}span{color:#6b5f73}";
}
