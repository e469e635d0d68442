using System.Globalization;

namespace Fendrik.Core.Reporting;

/// <summary>What a campaign truly does, whatever its switch says.</summary>
public enum CampaignCondition
{
    /// <summary>It shows.</summary>
    Running = 1,

    /// <summary>Somebody paused it.</summary>
    Paused = 2,

    /// <summary>Its first day is to come.</summary>
    NotBegun = 3,

    /// <summary>Its last day is over.</summary>
    Ended = 4,

    /// <summary>None of its ads is approved, and some are being reviewed.</summary>
    InReview = 5,

    /// <summary>All of its ads were refused.</summary>
    Refused = 6,

    /// <summary>Today's budget is spent.</summary>
    OutOfBudget = 7,

    /// <summary>Nobody pays the account.</summary>
    NoPayer = 8,

    /// <summary>The network does not know it yet.</summary>
    NotPublished = 9,

    /// <summary>It has no ad, or no running one, that could show.</summary>
    NothingToShow = 10,
}

/// <summary>What there is to know of a campaign as the network has it.</summary>
/// <param name="IsLive">True where the network has it.</param>
/// <param name="HasPayer">True where somebody pays the account.</param>
/// <param name="State">Its switch.</param>
/// <param name="Start">Its first day; none for at once.</param>
/// <param name="End">Its last; none for open.</param>
/// <param name="Approved">Running ads that are approved.</param>
/// <param name="InReview">Running ads that are being reviewed.</param>
/// <param name="Refused">Running ads that were refused.</param>
/// <param name="StoppedMinute">The minute of today at which its budget was spent; none where it lasts, or nothing is known of today.</param>
public sealed record CampaignTruth(
    bool IsLive,
    bool HasPayer,
    ItemState State,
    DateOnly? Start,
    DateOnly? End,
    int Approved,
    int InReview,
    int Refused,
    int? StoppedMinute
)
{
    private const int MinutesOfHour = 60;

    /// <summary>What it does on a day: of several reasons for not showing, the one that has to go first.</summary>
    /// <param name="today">The day in the account's time zone.</param>
    public CampaignCondition On(DateOnly today) =>
        !IsLive ? CampaignCondition.NotPublished
        : State == ItemState.Paused ? CampaignCondition.Paused
        : End < today ? CampaignCondition.Ended
        : !HasPayer ? CampaignCondition.NoPayer
        : Start > today ? CampaignCondition.NotBegun
        : Approved == 0 && InReview > 0 ? CampaignCondition.InReview
        : Approved == 0 && Refused > 0 ? CampaignCondition.Refused
        : Approved == 0 ? CampaignCondition.NothingToShow
        : StoppedMinute is not null ? CampaignCondition.OutOfBudget
        : CampaignCondition.Running;

    /// <summary>What a condition is called.</summary>
    public static string NameOf(CampaignCondition condition) =>
        condition switch
        {
            CampaignCondition.Running => "running",
            CampaignCondition.Paused => "paused",
            CampaignCondition.NotBegun => "not begun",
            CampaignCondition.Ended => "ended",
            CampaignCondition.InReview => "in review",
            CampaignCondition.Refused => "refused",
            CampaignCondition.OutOfBudget => "out of budget",
            CampaignCondition.NoPayer => "no payer",
            CampaignCondition.NotPublished => "not published",
            CampaignCondition.NothingToShow => "nothing to show",
        };

    /// <summary>Why it does what it does, in a sentence.</summary>
    /// <param name="today">The day in the account's time zone.</param>
    public string InWords(DateOnly today)
    {
        static string Day(DateOnly? day) => day?.ToString("d MMM yyyy", CultureInfo.InvariantCulture) ?? "";
        return On(today) switch
        {
            CampaignCondition.Running when Refused > 0 =>
                $"It shows, but {Refused} of its {Approved + InReview + Refused} ads were refused.",
            CampaignCondition.Running => "It shows.",
            CampaignCondition.Paused => "Somebody paused it.",
            CampaignCondition.NotBegun => $"It begins on {Day(Start)}.",
            CampaignCondition.Ended => $"Its last day was {Day(End)}.",
            CampaignCondition.InReview => "Its ads are being reviewed: nothing shows until one is approved.",
            CampaignCondition.Refused => "All of its ads were refused.",
            CampaignCondition.OutOfBudget => string.Create(
                CultureInfo.InvariantCulture,
                $"Today's budget was spent at {StoppedMinute / MinutesOfHour:00}:{StoppedMinute % MinutesOfHour:00}."
            ),
            CampaignCondition.NoPayer => "Nobody pays the account: nothing shows.",
            CampaignCondition.NotPublished => "It is in the working copy only.",
            CampaignCondition.NothingToShow => "It has no running ad that could show.",
        };
    }
}
