using Fendrik.Core.Checks;
using Fendrik.Core.Items.Kinds;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Serving;

/// <summary>How many extensions of a kind stand at each level above an ad, and at its own.</summary>
/// <param name="Account">On the account.</param>
/// <param name="Campaign">On the campaign.</param>
/// <param name="AdGroup">On the ad group.</param>
public readonly record struct ExtensionCounts(int Account, int Campaign, int AdGroup)
{
    /// <summary>Those of one level.</summary>
    public int At(Level level) =>
        level switch
        {
            Level.Account => Account,
            Level.Campaign => Campaign,
            Level.AdGroup => AdGroup,
            Level.List => 0,
        };
}

/// <summary>Which extensions an ad may show, by the level at which they stand.</summary>
public static class ExtensionReach
{
    private static readonly Level[] NearestFirst = [Level.AdGroup, Level.Campaign, Level.Account];

    /// <summary>The levels that take part, the nearest first.</summary>
    /// <param name="levels">The network's rule.</param>
    /// <param name="counts">How many stand where.</param>
    public static IReadOnlyList<Level> LevelsOf(ExtensionLevels levels, ExtensionCounts counts)
    {
        Level[] having = [.. NearestFirst.Where(level => counts.At(level) > 0)];
        return levels switch
        {
            ExtensionLevels.Pooled => having,
            ExtensionLevels.Nearest => [.. having.Take(1)],
        };
    }

    /// <summary>How many are in reach.</summary>
    public static int CountOf(ExtensionLevels levels, ExtensionCounts counts) =>
        LevelsOf(levels, counts).Sum(counts.At);

    /// <summary>The weight of having so few in reach; none when there are enough.</summary>
    public static Weight? GapOf(ExtensionRules rules, ExtensionType type, int inReach)
    {
        var (fewest, wanted) = type.InReach(rules);
        return inReach < fewest ? Weight.Caution
            : inReach < wanted ? Weight.Hint
            : null;
    }
}
