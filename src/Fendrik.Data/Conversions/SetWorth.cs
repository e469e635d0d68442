using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Data.Accounts;
using Fendrik.Data.Commands;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Conversions;

/// <summary>What a lead is worth, as people type it.</summary>
/// <param name="AverageSale">What a customer pays on average.</param>
/// <param name="ClosingRate">How many of a hundred leads become customers.</param>
/// <param name="Margin">How much of a hundred of the sale is left.</param>
public sealed record TypedWorth(string AverageSale, string ClosingRate, string Margin)
{
    /// <summary>Reads it.</summary>
    /// <exception cref="InvalidChangeException">A part cannot be read, or is missing; it is named.</exception>
    public LeadWorth Read(ReadingGround ground)
    {
        decimal Of(string name, string text)
        {
            var field = ItemTypes.Of(ItemKind.ConversionAction)[name];
            var reading = field.Read(text, ground);
            if (reading.Problem is { } problem)
            {
                throw new InvalidChangeException(name, $"{field.Label} {problem}.");
            }

            return reading.Value as decimal?
                ?? throw new InvalidChangeException(
                    name,
                    $"{field.Label} is missing. Average sale, closing rate and margin are needed together."
                );
        }

        return new LeadWorth(Of("averageSale", AverageSale), Of("closingRate", ClosingRate), Of("margin", Margin));
    }
}

/// <summary>Works out what a conversion is worth from what a sale brings, and keeps both.</summary>
/// <param name="ActionId">The action.</param>
/// <param name="Worth">What it is worked out from.</param>
public sealed record SetWorth(long ActionId, TypedWorth Worth) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var worth = Worth.Read(context.Account.Ground);
        var value = worth.Value(context.Account.Currency);
        var table = ItemTable.Of(ItemKind.ConversionAction);
        var name = (await ConversionActions.ReadAsync(context.Connection, context.Account.Id, default))
            .FirstOrDefault(action => action.Id == ActionId)
            ?.Name;
        if (name is null)
        {
            throw new InvalidChangeException("actionId", "This conversion action is gone. Look at the list again.");
        }

        var changed = await new CellUpdate(
            context,
            table,
            [
                (
                    ActionId,
                    new Dictionary<Field, object?>
                    {
                        [table.Type["averageSale"]] = worth.AverageSale,
                        [table.Type["closingRate"]] = worth.ClosingRate,
                        [table.Type["margin"]] = worth.Margin,
                        [table.Type["fixedValue"]] = value,
                        [table.Type["worth"]] = (short)ConversionWorth.Fixed,
                    }
                ),
            ]
        ).ApplyAsync();
        return new StepOutcome($"Value “{name}” at {new Money(value, context.Account.Currency)}", changed);
    }
}
