using System.Runtime.CompilerServices;
using Fendrik.Core.Matching;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation.People;

/// <summary>Tells what somebody who types some words most likely wants: the need whose own phrases share most words with them.</summary>
public static class NeedFinder
{
    private const int Samples = 60;
    private const double LeastShared = 0.5;

    private static readonly ConditionalWeakTable<Need, IReadOnlyList<HashSet<string>>> Said = [];

    /// <summary>The need; none when the words are nobody's.</summary>
    public static Need? Of(IReadOnlyList<Need> needs, IReadOnlyList<string> words)
    {
        var searched = words.Select(Plurals.Singular).ToHashSet(StringComparer.Ordinal);
        var best = needs
            .Select(need =>
                (
                    Need: need,
                    Shared: SamplesOf(need)
                        .Max(said => said.Count(searched.Contains) / (double)Math.Max(said.Count, searched.Count))
                )
            )
            .MaxBy(each => each.Shared);
        return best.Shared >= LeastShared ? best.Need : null;
    }

    /// <summary>Some of what is typed for a need, always the same, without a place.</summary>
    public static IEnumerable<string> TextsOf(Need need)
    {
        for (var sample = 0; sample < Samples; sample++)
        {
            var chance = new Chance((ulong)need.Number, (ulong)sample);
            yield return chance
                .Pick(Purpose.Phrase, need.Phrases[sample % need.Phrases.Count], each => each.Weight)
                .Phrase.Write(chance, "");
        }
    }

    private static IReadOnlyList<HashSet<string>> SamplesOf(Need need) =>
        Said.GetValue(
            need,
            static each =>
                [
                    .. TextsOf(each)
                        .Select(text => Words.Of(text).Select(Plurals.Singular).ToHashSet(StringComparer.Ordinal)),
                ]
        );
}
