using CsCheck;

namespace Fendrik.Server.Tests;

/// <summary>
/// What holds of every mix of edits, undos, interruptions, faults of the network and the database, readings of the live copy and
/// publishes by two people: the network has what was last confirmed, the working copy what was last edited, and every difference is
/// shown. The network is the real stand-in over HTTP; rows are read by SQL of the test's own.
/// </summary>
public sealed class AnyPublishTests(PublishWorldFixture fixture) : IClassFixture<PublishWorldFixture>
{
    /// <summary>
    /// As many sequences as the quarter of an hour for all tests has room for; more for a long run by the variable, each drawn anew.
    /// </summary>
    private static readonly int Sequences = int.TryParse(
        Environment.GetEnvironmentVariable("FENDRIK_PUBLISH_SEQUENCES"),
        out var asked
    )
        ? asked
        : 60;

    private static readonly Gen<int[]> Acts = Gen.Int[0, int.MaxValue].Array[1, 6];

    [Fact]
    public Task The_network_has_what_was_confirmed_the_working_copy_what_was_edited_and_every_difference_is_shown() =>
        Acts.SampleAsync(
            async acts =>
            {
                await using var world = await PublishWorld.MakeAsync(fixture);
                foreach (var act in acts)
                {
                    await world.ActAsync(act);
                }

                await world.EndAsync();
            },
            iter: Sequences,
            threads: 4
        );
}
