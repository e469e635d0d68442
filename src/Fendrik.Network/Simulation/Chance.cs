using Fendrik.Network.Simulation.People;
using MathNet.Numerics;

namespace Fendrik.Network.Simulation;

/// <summary>What something is drawn for. A purpose that is added shifts no other draw.</summary>
public enum Purpose
{
    /// <summary>How many people come to have a need in an hour.</summary>
    Searches = 1,

    /// <summary>What is typed, of all that people with the need type.</summary>
    Phrase = 2,

    /// <summary>What is filled in there.</summary>
    Slot = 3,

    /// <summary>Where a person lives.</summary>
    Home = 4,

    /// <summary>Where the person wants it.</summary>
    Wanted = 5,

    /// <summary>Whether the person is abroad.</summary>
    Abroad = 6,

    /// <summary>The device.</summary>
    Device = 7,

    /// <summary>The kind of site.</summary>
    Site = 8,

    /// <summary>The person's age.</summary>
    Age = 9,

    /// <summary>The person's gender.</summary>
    Gender = 10,

    /// <summary>Whether the person is in a hurry.</summary>
    Hurry = 11,

    /// <summary>What the person would pay.</summary>
    Limit = 12,

    /// <summary>How long the person waits for a page.</summary>
    Patience = 13,

    /// <summary>How the person types.</summary>
    Habit = 14,

    /// <summary>When in the hour the first search is made.</summary>
    Second = 15,

    /// <summary>How many searches the person makes.</summary>
    Count = 16,

    /// <summary>How long until the next search.</summary>
    Gap = 17,

    /// <summary>Whether a word is written wrongly, and how.</summary>
    Fault = 18,

    /// <summary>Whether a finger slips, and where.</summary>
    Slip = 19,

    /// <summary>Which of several ads shows.</summary>
    Ad = 20,

    /// <summary>Whether a campaign that makes its budget last takes part.</summary>
    Participation = 21,

    /// <summary>Whether a rival bids.</summary>
    RivalPresent = 22,

    /// <summary>How high a rival bids.</summary>
    RivalBid = 23,

    /// <summary>How a rival's bids drift in a week.</summary>
    RivalWeek = 24,

    /// <summary>When a rival's budget ends on a day.</summary>
    RivalBudget = 25,

    /// <summary>Who comes first among equal ranks.</summary>
    Lot = 26,

    /// <summary>Whether the person looks at a place.</summary>
    Look = 27,

    /// <summary>Whether an ad that is looked at is clicked.</summary>
    Click = 28,

    /// <summary>On what of the ad.</summary>
    ClickKind = 29,

    /// <summary>Whether the click was meant.</summary>
    Accident = 30,

    /// <summary>Whether the person gets in touch.</summary>
    Decision = 31,

    /// <summary>How far the person goes.</summary>
    Distance = 32,

    /// <summary>By which way the person gets in touch.</summary>
    Way = 33,

    /// <summary>Whether a call is answered.</summary>
    Answered = 34,

    /// <summary>How long people talk.</summary>
    Talk = 35,

    /// <summary>What getting in touch is worth.</summary>
    Value = 36,

    /// <summary>How long until the person decides.</summary>
    Delay = 37,

    /// <summary>How long until that is reported.</summary>
    Report = 38,

    /// <summary>What a need of an account's own trade is like.</summary>
    Derived = 39,

    /// <summary>Whether the person belongs to an audience.</summary>
    Audience = 40,

    /// <summary>Which content site it is.</summary>
    Content = 41,

    /// <summary>By how much reviewers are done before their time.</summary>
    Review = 42,

    /// <summary>Whether extensions that showed least go first.</summary>
    TryOut = 43,

    /// <summary>Whether lines of a responsive ad are put together by chance.</summary>
    TriesLines = 44,

    /// <summary>Which lines, then.</summary>
    TriedLine = 45,

    /// <summary>Whether ads take turns by chance where they go by success.</summary>
    TriesAds = 46,

    /// <summary>Whether the network takes somebody abroad to be interested in a place at home, and in which.</summary>
    Interest = 47,

    /// <summary>How far the network's estimate of a keyword errs.</summary>
    Estimate = 48,

    /// <summary>Whether somebody who wrote also calls, and how that goes.</summary>
    CallsToo = 49,

    /// <summary>How long it rings.</summary>
    Ring = 50,
}

/// <summary>
/// Reproducible chance: every draw is a function of the seed, the search, the purpose and an index. So any search can be made again
/// by itself, and the same person has the same luck whatever an account bids.
/// </summary>
/// <param name="seed">The account's seed.</param>
/// <param name="search">The search, or whatever else is drawn for.</param>
public readonly struct Chance(ulong seed, ulong search)
{
    /// <summary>From this mean on, counting one by one takes longer than transformed rejection.</summary>
    private const double SmallMean = 10;

    /// <summary>Most of the numbers that a hour's people of one need are counted by.</summary>
    private const int BitsOfPerson = 28;
    private const int BitsOfNeed = 9;
    private const int BitsOfSearch = 3;

    /// <summary>Names a search: when the person came to have the need, which need, which person, and which of the person's searches.</summary>
    /// <param name="hour">Hours since 1970: below 16 million.</param>
    /// <param name="need">Number of the need: below 512.</param>
    /// <param name="person">Which person, from 0.</param>
    /// <param name="search">Which search, from 0 to 7; 0 for what concerns the person.</param>
    public static ulong NameOf(long hour, int need, int person, int search = 0) =>
        (ulong)hour << (BitsOfNeed + BitsOfPerson + BitsOfSearch)
        | (ulong)need << (BitsOfPerson + BitsOfSearch)
        | (ulong)(person & ((1 << BitsOfPerson) - 1)) << BitsOfSearch
        | (uint)search;

    /// <summary>What the name of a search says.</summary>
    public static (long Hour, int Need, int Person, int Search) Read(ulong name) =>
        (
            (long)(name >> (BitsOfNeed + BitsOfPerson + BitsOfSearch)),
            (int)(name >> (BitsOfPerson + BitsOfSearch)) & ((1 << BitsOfNeed) - 1),
            (int)(name >> BitsOfSearch) & ((1 << BitsOfPerson) - 1),
            (int)name & ((1 << BitsOfSearch) - 1)
        );

    /// <summary>The name of the person who makes a search: that of the first search.</summary>
    public static ulong PersonOf(ulong name) => name & ~((1UL << BitsOfSearch) - 1);

    /// <summary>A number of 64 bits.</summary>
    public ulong Number(Purpose purpose, int index = 0)
    {
        var (one, two, _, _) = Philox.Draw(
            ((uint)search, (uint)(search >> 32), (uint)purpose, (uint)index),
            ((uint)seed, (uint)(seed >> 32))
        );
        return (ulong)two << 32 | one;
    }

    /// <summary>A number from 0 up to but without 1.</summary>
    public double Share(Purpose purpose, int index = 0) => (Number(purpose, index) >> 11) * (1.0 / (1UL << 53));

    /// <summary>True as often as a probability says.</summary>
    public bool Happens(Purpose purpose, double probability, int index = 0) => Share(purpose, index) < probability;

    /// <summary>A number of the normal distribution with mean 0 and deviation 1.</summary>
    public double Normal(Purpose purpose, int index = 0) =>
        MathNet.Numerics.Distributions.Normal.InvCDF(0, 1, Math.Max(Share(purpose, index), 1e-16));

    /// <summary>A number of the exponential distribution.</summary>
    public double Exponential(Purpose purpose, double mean, int index = 0) =>
        -mean * Math.Log(1 - Share(purpose, index));

    /// <summary>One of the items, by weight.</summary>
    public T Pick<T>(Purpose purpose, IReadOnlyList<T> items, Func<T, double> weight, int index = 0)
    {
        double all = 0;
        for (var each = 0; each < items.Count; each++)
        {
            all += weight(items[each]);
        }

        var at = Share(purpose, index) * all;
        for (var each = 0; each < items.Count; each++)
        {
            at -= weight(items[each]);
            if (at < 0)
            {
                return items[each];
            }
        }

        return items[^1];
    }

    /// <summary>
    /// How many things happen when this many are expected, by Poisson's distribution and without a ceiling: one by one for small
    /// means (Knuth), else by transformed rejection (Hörmann, “The transformed rejection method for generating Poisson random
    /// variables”, Insurance: Mathematics and Economics 12, 1993, algorithm PTRS).
    /// </summary>
    public int CountAround(Purpose purpose, double mean) =>
        mean < SmallMean ? CountOneByOne(purpose, mean) : CountByRejection(purpose, mean);

    private int CountOneByOne(Purpose purpose, double mean)
    {
        var limit = Math.Exp(-mean);
        var count = 0;
        for (var product = Share(purpose); product > limit; product *= Share(purpose, count))
        {
            count++;
        }

        return count;
    }

    private int CountByRejection(Purpose purpose, double mean)
    {
        var b = 0.931 + 2.53 * Math.Sqrt(mean);
        var a = -0.059 + 0.02483 * b;
        var inverseAlpha = 1.1239 + 1.1328 / (b - 3.4);
        var accepted = 0.9277 - 3.6224 / (b - 2);
        for (var index = 0; ; index += 2)
        {
            var u = Share(purpose, index) - 0.5;
            var v = Share(purpose, index + 1);
            var us = 0.5 - Math.Abs(u);
            var k = Math.Floor((2 * a / us + b) * u + mean + 0.43);
            if (us >= 0.07 && v <= accepted)
            {
                return (int)k;
            }

            if (k < 0 || (us < 0.013 && v > us))
            {
                continue;
            }

            if (
                Math.Log(v * inverseAlpha / (a / (us * us) + b))
                <= k * Math.Log(mean) - mean - SpecialFunctions.GammaLn(k + 1)
            )
            {
                return (int)k;
            }
        }
    }
}
