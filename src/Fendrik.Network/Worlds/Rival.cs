namespace Fendrik.Network.Worlds;

/// <summary>Someone else who bids. Columns of rivals.tsv.</summary>
/// <param name="Number">Its number in the draws and in reports, from 1.</param>
/// <param name="Name">Who.</param>
/// <param name="Regions">Where it shows, by region.</param>
/// <param name="From">First hour of the day in which it shows.</param>
/// <param name="To">Hour before which it stops.</param>
/// <param name="Bid">What it bids in pounds, before the drift of the week.</param>
/// <param name="Drift">Spread of the drift's logarithm.</param>
/// <param name="Quality">Quality score: 1 to 10.</param>
/// <param name="Appeal">What people see in its ads: 1 is usual.</param>
/// <param name="Active">Share of searches in which it takes part.</param>
/// <param name="Ends">Hour at which its budget ends on average; 24 for one that lasts.</param>
/// <param name="Since">First day; none when it was always there.</param>
/// <param name="Headline">Headline of its ad.</param>
/// <param name="Description">Description of its ad.</param>
public sealed record Rival(
    int Number,
    string Name,
    IReadOnlySet<string> Regions,
    double From,
    double To,
    double Bid,
    double Drift,
    int Quality,
    double Appeal,
    double Active,
    double Ends,
    DateOnly? Since,
    string Headline,
    string Description
);
