using System.Security.Cryptography;
using System.Text;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Intake;

namespace Fendrik.Data.Steps;

/// <summary>Checks of single values that come with a change.</summary>
internal static class Texts
{
    public static string Checked(string field, string text, string what)
    {
        var single = string.Join(' ', (text ?? "").Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        Check(field, single, what);
        return single;
    }

    public static void Check(string field, string text, string what)
    {
        if (text.Length == 0)
        {
            throw new InvalidChangeException(field, $"{what} is empty.");
        }

        if (text.Length > RowReader.LongestKeyword)
        {
            throw new InvalidChangeException(
                field,
                $"{what} has {text.Length:N0} characters; {RowReader.LongestKeyword} at most."
            );
        }

        if (text.Any(char.IsControl))
        {
            throw new InvalidChangeException(field, $"{what} has control characters; remove them.");
        }
    }

    public static decimal? Amount(string field, decimal? amount, Currency currency) =>
        amount switch
        {
            null => null,
            <= 0 or > BidChange.Ceiling => throw new InvalidChangeException(
                field,
                "The amount must be above zero and at most 1,000,000."
            ),
            _ => currency.Round(amount.Value),
        };

    /// <summary>SHA-256 as hexadecimal digits: long keys must fit an index.</summary>
    public static string Hash(string text) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text)));
}
