using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;
using Npgsql;

namespace Fendrik.Data.Accounts;

/// <summary>What commands and checks need to know of an account.</summary>
public sealed record AccountFacts(
    int Id,
    string Name,
    Currency Currency,
    NetworkProfile Network,
    string TimeZone,
    AccountLanguage Language,
    string? Payer
)
{
    /// <summary>What values are read and written by.</summary>
    public ReadingGround Ground => new(Currency, Language);

    /// <summary>The same where <c>+10%</c> may raise what is there.</summary>
    public ReadingGround RelativeGround => new(Currency, Language, Relative: true);

    internal static async Task<AccountFacts> ReadAsync(NpgsqlConnection connection, int accountId)
    {
        var row = await connection.QuerySingleAsync<(
            string Name,
            string Currency,
            string NetworkId,
            string TimeZone,
            string Language,
            string? Payer
        )>(
            "select name, currency, network_id, time_zone, language, payer from account where id = @accountId",
            new { accountId }
        );
        return new AccountFacts(
            accountId,
            row.Name,
            Currency.Of(row.Currency),
            NetworkProfile.Of(row.NetworkId),
            row.TimeZone,
            AccountLanguage.Of(row.Language),
            row.Payer
        );
    }
}

/// <summary>A change that cannot be done as asked, with what to do instead.</summary>
public sealed class InvalidChangeException(string field, string message) : Exception(message)
{
    /// <summary>The field of the request that is wrong.</summary>
    public string Field { get; } = field;
}
