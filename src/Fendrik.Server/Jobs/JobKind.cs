namespace Fendrik.Server.Jobs;

/// <summary>A kind of long work. In the database it goes by its name in small letters.</summary>
public enum JobKind
{
    /// <summary>Reading a file.</summary>
    Intake,

    /// <summary>Keeping what was read.</summary>
    Keep,

    /// <summary>Sending changes to the network.</summary>
    Publish,

    /// <summary>Moving the network's clock and taking in its reports.</summary>
    Clock,

    /// <summary>Following the links of an account.</summary>
    Links,

    /// <summary>Asking the network for estimates.</summary>
    Estimates,

    /// <summary>Reading an account that was on the network before.</summary>
    Connect,
}

/// <summary>Jobs wait only behind others of their lane.</summary>
public enum JobLane
{
    /// <summary>What goes to the network: money waits for it.</summary>
    Publishing,

    /// <summary>Files, small and large.</summary>
    Files,

    /// <summary>Reports.</summary>
    Reports,
}

/// <summary>What is said of each kind and lane.</summary>
public static class JobKinds
{
    /// <summary>The kind's name in the database.</summary>
    public static string Key(this JobKind kind) =>
        kind switch
        {
            JobKind.Intake => "intake",
            JobKind.Keep => "keep",
            JobKind.Publish => "publish",
            JobKind.Clock => "clock",
            JobKind.Links => "links",
            JobKind.Estimates => "estimates",
            JobKind.Connect => "connect",
        };

    /// <summary>The kind with a name in the database.</summary>
    public static JobKind Of(string key) => Enum.GetValues<JobKind>().Single(kind => kind.Key() == key);

    /// <summary>The lane in which jobs of the kind wait.</summary>
    public static JobLane Lane(this JobKind kind) =>
        kind switch
        {
            JobKind.Intake or JobKind.Keep => JobLane.Files,
            JobKind.Publish => JobLane.Publishing,
            JobKind.Clock or JobKind.Links or JobKind.Estimates or JobKind.Connect => JobLane.Reports,
        };

    /// <summary>What somebody must be allowed to, to stop a job of the kind.</summary>
    public static AccountRight Right(this JobKind kind) =>
        kind switch
        {
            JobKind.Intake or JobKind.Keep or JobKind.Links or JobKind.Estimates => AccountRight.Change,
            JobKind.Publish or JobKind.Clock => AccountRight.Publish,
            JobKind.Connect => AccountRight.People,
        };

    /// <summary>How many jobs of the lane a server does at once; of each account one at a time.</summary>
    public static int Workers(this JobLane lane) =>
        lane switch
        {
            JobLane.Publishing => 3,
            JobLane.Files => 2,
            JobLane.Reports => 1,
        };

    /// <summary>The longest that one job may take, so that the others of its lane come to their turn. Networks have their own pace.</summary>
    public static TimeSpan? LongestTime(this JobKind kind) =>
        kind switch
        {
            JobKind.Intake => TimeSpan.FromMinutes(15),
            JobKind.Keep => TimeSpan.FromMinutes(30),
            JobKind.Publish => null,
            JobKind.Clock or JobKind.Connect => null,
            JobKind.Links or JobKind.Estimates => TimeSpan.FromMinutes(30),
        };

    /// <summary>The kinds of a lane by their names in the database.</summary>
    public static string[] KeysOf(JobLane lane) =>
        [.. Enum.GetValues<JobKind>().Where(kind => kind.Lane() == lane).Select(Key)];
}
