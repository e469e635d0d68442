using System.Diagnostics;
using Dapper;
using Fendrik.Data.Outtakes;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Bench;

/// <summary>A million keywords in from a file and out into files, against COPY both ways.</summary>
internal sealed class FilesBench(NpgsqlDataSource source)
{
    private const int Keywords = 1_000_000;

    public async Task RunAsync()
    {
        var list = new LongList(source, Keywords);
        var file = list.File();
        var watch = Stopwatch.StartNew();
        await list.CopyAsync();
        var copy = watch.Elapsed.TotalMilliseconds;
        await AnalyzeAsync();
        watch.Restart();
        var account = await list.BringInAsync(file);
        var intake = watch.Elapsed.TotalMilliseconds;
        Measure.Print(
            $"intake of {Keywords:N0} keywords, from CSV to kept (baseline: COPY)",
            intake,
            copy,
            "at most 3 ×"
        );
        Console.WriteLine(
            $"  peak memory of this process: {Process.GetCurrentProcess().PeakWorkingSet64 / (1 << 20):N0} MB (goal: under 500 MB)"
        );
        File.Delete(file);
        await AnalyzeAsync();
        var copyOut = await Measure.MedianAsync(1, () => CopyOutAsync(account));
        foreach (var form in Enum.GetValues<OuttakeForm>())
        {
            watch.Restart();
            var target = new CountingStream();
            await new OuttakeFile(source, new WorkingCopy(source, TimeProvider.System)).WriteAsync(
                account,
                new OuttakeWish(form),
                target,
                CancellationToken.None
            );
            Measure.Print(
                $"outtake as {form}, {target.Length / (1 << 20):N0} MB (baseline: COPY TO)",
                watch.Elapsed.TotalMilliseconds,
                copyOut,
                form == OuttakeForm.Xlsx ? "none set" : "at most 2 ×"
            );
        }
    }

    private async Task AnalyzeAsync()
    {
        await using var connection = await source.OpenConnectionAsync();
        await connection.ExecuteAsync("vacuum analyze", commandTimeout: 1200);
    }

    /// <summary>The same rows with the names of what they belong to, in whatever order they lie.</summary>
    private async Task CopyOutAsync(int account)
    {
        await using var connection = await source.OpenConnectionAsync();
        using var reader = await connection.BeginTextExportAsync(
            $"copy (select c.name, g.name, k.text, k.match_type, k.max_cpc, k.state, k.landing_page, k.labels from keyword k join ad_group g on g.id = k.ad_group_id join campaign c on c.id = g.campaign_id where k.account_id = {account} and not k.removed) to stdout (format csv)"
        );
        var buffer = new char[1 << 16];
        while (await reader.ReadAsync(buffer) > 0) { }
    }

    /// <summary>Takes what is written and keeps nothing of it.</summary>
    private sealed class CountingStream : Stream
    {
        private long _length;

        public override bool CanRead => false;
        public override bool CanSeek => false;
        public override bool CanWrite => true;
        public override long Length => _length;
        public override long Position
        {
            get => _length;
            set => throw new NotSupportedException();
        }

        public override void Flush() { }

        public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException();

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();

        public override void Write(byte[] buffer, int offset, int count) => _length += count;
    }
}
