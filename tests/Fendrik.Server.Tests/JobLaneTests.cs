using System.Text;
using Fendrik.Server.Jobs;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests;

/// <summary>Work waits only behind its own kind, and nobody's behind all of another's.</summary>
public class JobLaneTests
{
    private static string Of(int account, string path) => $"/api/accounts/{account}/{path}";

    private static byte[] List(int rows)
    {
        var list = new StringBuilder("campaign,daily budget,ad group,ad group max cpc,keyword,match type\n");
        for (var row = 0; row < rows; row++)
        {
            list.Append($"Tuning,25,Group {row / 50},1.10,piano tuning {row},exact\n");
        }

        return Encoding.UTF8.GetBytes(list.ToString());
    }

    private static async Task<System.Text.Json.JsonElement> BeginAsync(int account, Visitor visitor, byte[] list) =>
        (await visitor.UploadAsync(Of(account, "intakes?fileName=list.csv"), list)).GetProperty("job");

    private static async Task<string> StateAsync(int account, Visitor visitor, System.Text.Json.JsonElement job) =>
        (await visitor.ReadAsync(Of(account, $"jobs/{job.GetProperty("id").GetInt64()}")))
            .GetProperty("state")
            .GetString()!;

    [Fact]
    public async Task A_publish_does_not_wait_behind_files_nor_one_persons_file_behind_all_of_anothers()
    {
        await using var host = await ServerHost.StartAsync();
        var (busy, owner, _) = await host.NewAccountAsync();
        var (quiet, other, _) = await host.NewAccountAsync();
        await MadeRequest.FillAsync(other, quiet);
        var large = List(60_000);
        var jobs = new List<System.Text.Json.JsonElement>();
        for (var file = 0; file < JobLane.Files.Workers() + 2; file++)
        {
            jobs.Add(await BeginAsync(busy, owner, large));
        }

        var published = await other.JobAsync(quiet, await other.PostAsync(Of(quiet, "publishes"), new { }));
        var small = await other.JobAsync(quiet, await BeginAsync(quiet, other, List(10)));

        (published.GetProperty("state").GetString(), small.GetProperty("state").GetString()).ShouldBe(("done", "done"));
        (await StateAsync(busy, owner, jobs[^1])).ShouldBe("waiting");
        foreach (var job in jobs)
        {
            await owner.PostAsync(Of(busy, $"jobs/{job.GetProperty("id").GetInt64()}/cancel"));
        }

        foreach (var job in jobs)
        {
            (await owner.JobAsync(busy, job, seconds: 60))
                .GetProperty("state")
                .GetString()
                .ShouldBeOneOf("cancelled", "done");
        }

        owner.Dispose();
        other.Dispose();
    }

    [Fact]
    public void Every_kind_has_a_name_of_its_own_and_a_lane_with_workers()
    {
        var kinds = Enum.GetValues<JobKind>();

        kinds.Select(kind => kind.Key()).ShouldBeUnique();
        kinds.ShouldAllBe(kind => JobKinds.Of(kind.Key()) == kind && kind.Lane().Workers() > 0);
    }
}
