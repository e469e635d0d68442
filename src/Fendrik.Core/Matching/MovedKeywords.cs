namespace Fendrik.Core.Matching;

/// <summary>
/// Keywords of an account that came, went or changed, and which searches that can have touched: those that one of them matches or
/// matched, and those with a word that has become, or is no longer, one that is bid on, since only then it may be a slip of another.
/// </summary>
public sealed class MovedKeywords
{
    private readonly KeywordIndex<bool> _now;
    private readonly KeywordIndex<bool> _before;
    private readonly HashSet<string> _turned;

    /// <summary>Files them.</summary>
    /// <param name="before">As they were; without those that came.</param>
    /// <param name="now">As they are; without those that went.</param>
    /// <param name="reach">Which word reaches which.</param>
    /// <param name="timesBidOn">
    /// How many keywords of the account now have a class of words; none where that is not known: then each of their words may have
    /// turned.
    /// </param>
    public MovedKeywords(
        IReadOnlyCollection<(string Text, MatchType Match)> before,
        IReadOnlyCollection<(string Text, MatchType Match)> now,
        WordReach reach,
        Func<string, int>? timesBidOn
    )
    {
        _before = new KeywordIndex<bool>(before.Select(each => (true, each.Text, each.Match)), reach);
        _now = new KeywordIndex<bool>(now.Select(each => (true, each.Text, each.Match)), reach);
        _turned =
        [
            .. before
                .Concat(now)
                .SelectMany(each => reach.WordsOf(each.Text))
                .Select(reach.ClassOf)
                .Distinct()
                .Where(@class => timesBidOn is null || timesBidOn(@class) == _now.TimesBidOn(@class)),
        ];
    }

    /// <summary>True when the keywords that match a search may be others than before; false only when they are not.</summary>
    /// <param name="words">The words of the search.</param>
    public bool CanTouch(IReadOnlyList<string> words) =>
        _now.TryFindAny(words, out _)
        || _before.TryFindAny(words, out _)
        || words.Any(word => _turned.Contains(_now.Reach.ClassOf(word)));
}
