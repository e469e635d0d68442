using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Serving;

/// <summary>What should happen to a saved search.</summary>
public enum Expectation
{
    /// <summary>Some keyword answers it.</summary>
    Shows = 1,

    /// <summary>A keyword of one ad group answers it.</summary>
    ShowsFrom = 2,

    /// <summary>Nothing answers it.</summary>
    ShowsNot = 3,
}

/// <summary>A search with what should happen to it: a test of the account.</summary>
/// <param name="Text">What is typed: 1 to 400 characters.</param>
/// <param name="Device">On which device.</param>
/// <param name="Site">On which kind of site; just one.</param>
/// <param name="Place">Where the person is, by the network's name for it; none for anywhere.</param>
/// <param name="Expectation">What should happen.</param>
/// <param name="AdGroupId">The ad group that should answer, where one should; none otherwise.</param>
public sealed record SavedSearch(
    string Text,
    Device Device,
    SiteKinds Site,
    string? Place,
    Expectation Expectation,
    long? AdGroupId
)
{
    /// <summary>Name of the check that says that one fails.</summary>
    public const string Fails = "saved-search";

    /// <summary>What is wrong with it, and with which field; none when nothing is.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public (string Field, string Message)? Problem =>
        new TraceWish(Text, Device, Site, Place).Problem
        ?? (
            !Enum.IsDefined(Expectation) ? ("expectation", "Say whether it should show.")
            : Expectation == Expectation.ShowsFrom != AdGroupId is not null
                ? ("adGroupId", "Name the ad group that should answer, and only then.")
            : null
        );

    /// <summary>Holds it to what answers it.</summary>
    /// <param name="answer">What answers it.</param>
    /// <param name="adGroup">Name of the ad group that should answer; none when there is none or it is gone.</param>
    public SearchVerdict HoldTo(AnswerToSearch answer, string? adGroup) =>
        Expectation switch
        {
            Expectation.Shows => new SearchVerdict(answer.Chosen is not null, InWords(answer)),
            Expectation.ShowsNot => new SearchVerdict(answer.Chosen is null, InWords(answer)),
            Expectation.ShowsFrom when adGroup is null => new SearchVerdict(
                false,
                $"The ad group that should answer is gone. {InWords(answer)}"
            ),
            Expectation.ShowsFrom => new SearchVerdict(answer.Chosen?.Keyword.AdGroup.Id == AdGroupId, InWords(answer)),
        };

    /// <summary>What should happen, in words.</summary>
    /// <param name="adGroup">Name of the ad group that should answer.</param>
    public string ExpectedInWords(string? adGroup) =>
        Expectation switch
        {
            Expectation.Shows => "should show",
            Expectation.ShowsFrom => $"should show from “{adGroup ?? "an ad group that is gone"}”",
            Expectation.ShowsNot => "should not show",
        };

    /// <summary>What does happen, in a sentence.</summary>
    public static string InWords(AnswerToSearch answer)
    {
        if (answer.Chosen is { } chosen)
        {
            return $"It shows from “{chosen.Keyword.AdGroup.Name}” in “{chosen.Keyword.Campaign.Name}”, by {Written(chosen)}.";
        }

        if (!answer.HasPayer)
        {
            return "Nothing shows: the account has no payer.";
        }

        return answer.Nearest is { Hindrance: { } hindrance } nearest
            ? $"Nothing shows. {Written(nearest)} in “{nearest.Keyword.AdGroup.Name}” matches, but: {hindrance.Text}"
            : "Nothing shows: no keyword matches.";
    }

    private static string Written(Candidate candidate) =>
        $"“{candidate.Keyword.Keyword.Text}” ({Choices.NameOf(candidate.Keyword.Keyword.Match)})";
}

/// <summary>Whether a saved search does what it should.</summary>
/// <param name="Holds">True when it does.</param>
/// <param name="Told">What happens to it, in a sentence.</param>
public readonly record struct SearchVerdict(bool Holds, string Told);
