namespace Fendrik.Core.Accounts;

/// <summary>Whose wrong attempts are counted together.</summary>
public enum AttemptsOf
{
    /// <summary>Those on one person from one address.</summary>
    PersonFromAddress = 1,

    /// <summary>Those from one address, on whomever.</summary>
    Address = 2,

    /// <summary>Those on one person, from addresses where that person never signed in.</summary>
    PersonFromElsewhere = 3,
}

/// <summary>
/// How long whoever types wrong passwords waits: each wrong one doubles it. Those who try many people from one address wait, and those who try one person from
/// many addresses; the person, at an address where they signed in before, waits for nobody's attempts but their own, so that nobody can be locked out by others.
/// </summary>
public static class SignInPatience
{
    /// <summary>The longest wait.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromMinutes(15);

    /// <summary>After so long without a wrong attempt all are forgotten.</summary>
    public static readonly TimeSpan Forgets = TimeSpan.FromHours(12);

    private static readonly TimeSpan First = TimeSpan.FromSeconds(5);

    /// <summary>How many wrong attempts are free of a wait.</summary>
    public static int FreeOf(AttemptsOf of) =>
        of switch
        {
            AttemptsOf.PersonFromAddress => 4,
            // An office has one address.
            AttemptsOf.Address => 40,
            AttemptsOf.PersonFromElsewhere => 20,
        };

    /// <summary>How long to wait after so many wrong attempts.</summary>
    /// <param name="of">Whose.</param>
    /// <param name="wrong">How many, one after the other.</param>
    public static TimeSpan WaitAfter(AttemptsOf of, int wrong)
    {
        var beyond = wrong - FreeOf(of) - 1;
        return beyond < 0 ? TimeSpan.Zero
            : beyond > 20 ? Longest
            : TimeSpan.FromTicks(Math.Min(Longest.Ticks, First.Ticks << beyond));
    }
}
