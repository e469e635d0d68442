using Dapper;
using Fendrik.Core.Bidding;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;

namespace Fendrik.Data.Commands;

/// <summary><see cref="BidChange.Apply"/> as SQL; a property test holds the two together.</summary>
internal static class AmountChanges
{
    /// <summary>A change with the bounds that a person gave, read as amounts are read everywhere.</summary>
    public static BidChange Bounded(BidChange change, AmountBounds? bounds, AccountFacts account)
    {
        var bounded = change with
        {
            RoundTo = Read("roundTo", "Step", bounds?.RoundTo, account),
            AtLeast = Read("atLeast", "At least", bounds?.AtLeast, account),
            AtMost = Read("atMost", "At most", bounds?.AtMost, account),
        };
        if (bounded.Problem() is { } problem)
        {
            throw new InvalidChangeException("value", problem);
        }

        return bounded.Step(account.Currency) % account.Currency.SmallestAmount == 0
            ? bounded
            : throw new InvalidChangeException(
                "roundTo",
                $"{account.Currency.Code} has no amounts finer than {account.Currency.SmallestAmount}. Choose a step that is a multiple of it."
            );
    }

    public static void AddParameters(DynamicParameters parameters, Field field, BidChange change, AccountFacts account)
    {
        var floor = FloorOf(field, change, account);
        parameters.Add($"a_{field.Column}_value", change.Value);
        parameters.Add($"a_{field.Column}_step", change.Step(account.Currency));
        parameters.Add($"a_{field.Column}_floor", floor);
        parameters.Add($"a_{field.Column}_ceiling", Math.Max(floor, change.AtMost ?? BidChange.Ceiling));
    }

    /// <summary>The lowest that a change may come to: what the network takes, or the person's own floor.</summary>
    public static decimal FloorOf(Field field, BidChange change, AccountFacts account) =>
        change.Floor(
            account.Network.LimitsOf(field.Of, field).LeastIn(account.Currency) ?? account.Currency.SmallestAmount
        );

    /// <summary>The amount after the change, of an amount now.</summary>
    public static string Next(Field field, BidChange change, string now) =>
        Next(
            change.Operation,
            now,
            $"@a_{field.Column}_value::numeric",
            $"@a_{field.Column}_step",
            $"@a_{field.Column}_floor",
            $"@a_{field.Column}_ceiling"
        );

    /// <summary>The amount after a change whose parts are SQL themselves.</summary>
    public static string Next(
        AmountOperation operation,
        string now,
        string value,
        string step,
        string floor,
        string ceiling
    )
    {
        string Held(string rounded) => $"least(greatest({rounded}, {floor}), {ceiling})";
        string Rounded(string raw) => $"round(({raw}) / {step}) * {step}";
        return operation switch
        {
            AmountOperation.Set => Held(Rounded(value)),
            AmountOperation.AddAmount => $"{Held(Rounded($"{now} + {value}"))} + 0 * {now}",
            AmountOperation.AddPercent =>
                $"""
                {Held(
                    $"case when {value} > 0 then greatest({Rounded($"{now} * (1 + {value} / 100)")}, (floor({now} / {step}) + 1) * {step}) when {value} < 0 then least({Rounded($"{now} * (1 + {value} / 100)")}, (ceil({now} / {step}) - 1) * {step}) else {Rounded(now)} end"
                )} + 0 * {now}
                """,
            AmountOperation.Inherit => "null::numeric",
        };
    }

    /// <summary>Why an amount can be neither raised nor lowered.</summary>
    public static string NothingToChange(Field field) =>
        field.InheritedFrom is { } kind
            ? $"It has no {field.LowLabel} to raise or lower, nor has its {ItemTypes.Of(kind).Noun}; set one."
            : $"It has no {field.LowLabel} of its own to raise or lower; set one.";

    private static decimal? Read(string name, string label, string? text, AccountFacts account)
    {
        if (string.IsNullOrWhiteSpace(text))
        {
            return null;
        }

        var amount = AmountText.Read(text, account.Currency, account.Language);
        return amount is { Problem: null, Sign: null, IsPercent: false }
            ? amount.Number
            : throw new InvalidChangeException(
                name,
                $"{label} {amount.Problem ?? $"“{Reading.Shortened(text)}” is not an amount; write it like 0.05"}."
            );
    }
}
