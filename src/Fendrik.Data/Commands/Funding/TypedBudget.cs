using Fendrik.Data.Accounts;

namespace Fendrik.Data.Commands.Funding;

/// <summary>A daily budget as somebody typed it.</summary>
/// <param name="Amount">The amount; none where it is none.</param>
/// <param name="Problem">Why it is none, as a sentence; none where all is well.</param>
public readonly record struct TypedBudget(decimal? Amount, string? Problem)
{
    /// <summary>Reads one, as daily budgets are read everywhere; nothing typed is none.</summary>
    public static TypedBudget Read(string? text, AccountFacts account)
    {
        var field = ItemTypes.Of(ItemKind.Campaign)["dailyBudget"];
        var reading = string.IsNullOrWhiteSpace(text) ? default : field.Read(text, account.Ground);
        if (reading.Problem is { } problem)
        {
            return new TypedBudget(null, $"{field.Label} {problem}.");
        }

        return reading.Value is decimal amount
            ? new TypedBudget(amount, null)
            : new TypedBudget(null, "Say a daily budget.");
    }

    /// <summary>The amount.</summary>
    /// <param name="where">The field of the request that it stands in.</param>
    /// <exception cref="InvalidChangeException">It is none.</exception>
    internal decimal In(string where) => Amount ?? throw new InvalidChangeException(where, Problem!);
}
