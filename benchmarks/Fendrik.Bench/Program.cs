using System.Globalization;
using Dapper;
using Fendrik.Bench;
using Fendrik.Data.Model;
using Fendrik.Data.Setup;
using Microsoft.EntityFrameworkCore;
using Npgsql;

CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
DefaultTypeMap.MatchNamesWithUnderscores = true;
var connection = args[0];
await using var source = NpgsqlDataSource.Create(connection);
await using (
    var context = new FendrikContext(
        FendrikDatabase.Configure(new DbContextOptionsBuilder<FendrikContext>(), connection).Options
    )
)
{
    await FendrikDatabase.PrepareAsync(context, source);
}

Measure.Head();
var part = args.ElementAtOrDefault(1) ?? "all";
if (part is "intake" or "all")
{
    await new IntakeBench(source).RunAsync();
}

if (part is "matching" or "all")
{
    await MatchingBench.RunAsync();
}

if (part is "writing" or "all")
{
    await new WritingBench(source).RunAsync();
}

if (part is "pricing" or "all")
{
    await new PricingBench(source).RunAsync();
}

if (part is "terms" or "all")
{
    await new TermBench(source).RunAsync();
}

if (part is "results" or "all")
{
    await new ResultsBench(source).RunAsync();
}

if (part is "world" or "all")
{
    await WorldBench.RunAsync();
}

if (part is "files" or "all")
{
    await new FilesBench(source).RunAsync();
}

if (part is "browser" or "all")
{
    await BrowserBench.RunAsync();
}

if (part is "publish" or "all")
{
    await PublishBench.RunAsync();
}

if (part is "load" or "all")
{
    await LoadBench.RunAsync();
}

if (part is "million" or "all")
{
    await new MillionBench(source).RunAsync();
}
