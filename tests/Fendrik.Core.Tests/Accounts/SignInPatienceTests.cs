using Fendrik.Core.Accounts;

namespace Fendrik.Core.Tests.Accounts;

/// <summary>How long whoever types wrong passwords waits.</summary>
public class SignInPatienceTests
{
    public static TheoryData<AttemptsOf> All => [.. Enum.GetValues<AttemptsOf>()];

    [Theory]
    [MemberData(nameof(All))]
    public void The_first_wrong_ones_are_free(AttemptsOf of)
    {
        SignInPatience.WaitAfter(of, SignInPatience.FreeOf(of)).ShouldBe(TimeSpan.Zero);
        SignInPatience.WaitAfter(of, SignInPatience.FreeOf(of) + 1).ShouldBeGreaterThan(TimeSpan.Zero);
    }

    [Theory]
    [MemberData(nameof(All))]
    public void Each_one_after_them_doubles_the_wait_up_to_the_longest(AttemptsOf of)
    {
        for (var wrong = SignInPatience.FreeOf(of) + 1; wrong < 200; wrong++)
        {
            var (wait, next) = (SignInPatience.WaitAfter(of, wrong), SignInPatience.WaitAfter(of, wrong + 1));
            next.ShouldBe(wait * 2 < SignInPatience.Longest ? wait * 2 : SignInPatience.Longest);
        }
    }

    // OWASP ASVS 4.0.3, 2.2.1: no more than 100 failed attempts an hour on one account.
    [Fact]
    public void Nobody_tries_more_than_a_hundred_passwords_an_hour_on_one_person()
    {
        // Whoever waits as little as may be, from as many addresses as they like.
        var (at, tried) = (TimeSpan.Zero, 0);
        while (at < TimeSpan.FromHours(1))
        {
            tried++;
            at += SignInPatience.WaitAfter(AttemptsOf.PersonFromElsewhere, tried);
        }

        tried.ShouldBeLessThanOrEqualTo(100);
    }
}
