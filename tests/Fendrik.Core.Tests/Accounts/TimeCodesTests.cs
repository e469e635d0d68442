using System.Text;
using Fendrik.Core.Accounts;

namespace Fendrik.Core.Tests.Accounts;

/// <summary>Codes of a device, against the tables of the standards.</summary>
public class TimeCodesTests
{
    /// <summary>The secret of both tables.</summary>
    private static readonly byte[] Secret = Encoding.ASCII.GetBytes("12345678901234567890");

    private static readonly DateTimeOffset Epoch = DateTimeOffset.UnixEpoch;

    // RFC 6238, appendix B, SHA-1: the last six of the eight digits.
    [Theory]
    [InlineData(59, "287082")]
    [InlineData(1111111109, "081804")]
    [InlineData(1111111111, "050471")]
    [InlineData(1234567890, "005924")]
    [InlineData(2000000000, "279037")]
    [InlineData(20000000000, "353130")]
    public void Is_right_as_the_standard_tells(long seconds, string code) =>
        TimeCodes.StepOf(Secret, code, Epoch.AddSeconds(seconds), null).ShouldBe(seconds / 30);

    // RFC 4226, appendix D: the codes of the counts from 0 to 9.
    [Theory]
    [InlineData(0, "755224")]
    [InlineData(1, "287082")]
    [InlineData(2, "359152")]
    [InlineData(3, "969429")]
    [InlineData(4, "338314")]
    [InlineData(5, "254676")]
    [InlineData(6, "287922")]
    [InlineData(7, "162583")]
    [InlineData(8, "399871")]
    [InlineData(9, "520489")]
    public void Counts_steps_as_the_standard_below_it_tells(long count, string code) =>
        TimeCodes.StepOf(Secret, code, Epoch.AddSeconds(count * 30 + 7), null).ShouldBe(count);

    [Theory]
    [InlineData(-1, true)]
    [InlineData(1, true)]
    [InlineData(-2, false)]
    [InlineData(2, false)]
    public void Bears_a_clock_that_is_one_step_off(int steps, bool isRight) =>
        (TimeCodes.StepOf(Secret, "359152", Epoch.AddSeconds(60 + steps * 30), null) is not null).ShouldBe(isRight);

    // RFC 6238, section 5.2: "The verifier MUST NOT accept the second attempt of the OTP".
    [Fact]
    public void Holds_once()
    {
        var now = Epoch.AddSeconds(95);

        TimeCodes.StepOf(Secret, "969429", now, 3).ShouldBeNull();
        TimeCodes.StepOf(Secret, "359152", now, 3).ShouldBeNull();
        TimeCodes.StepOf(Secret, "338314", now, 3).ShouldBe(4);
    }

    [Theory]
    [InlineData("")]
    [InlineData("96942")]
    [InlineData("9694290")]
    [InlineData("96942a")]
    public void What_is_no_code_is_not_right(string code) =>
        TimeCodes.StepOf(Secret, code, Epoch.AddSeconds(95), null).ShouldBeNull();

    [Fact]
    public void Blanks_do_not_count() => TimeCodes.StepOf(Secret, " 969 429 ", Epoch.AddSeconds(95), null).ShouldBe(3);

    // RFC 4648, section 10: the base 32 of "foobar" is MZXW6YTBOI======.
    [Fact]
    public void Is_written_in_base_32() =>
        TimeCodes.Written(Encoding.ASCII.GetBytes("foobar")).Replace(" ", "").TrimEnd('=').ShouldBe("MZXW6YTBOI");
}
