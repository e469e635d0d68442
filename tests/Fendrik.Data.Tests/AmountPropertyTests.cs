using CsCheck;
using Fendrik.Core.Bidding;

namespace Fendrik.Data.Tests;

/// <summary>A property: what the database makes of an amount is what Core says, to the smallest coin of any currency.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class AmountPropertyTests(WorkingCopyFixture fixture)
{
    // Minor units by ISO 4217: two, none, three.
    [Theory]
    [InlineData("GBP")]
    [InlineData("JPY")]
    [InlineData("KWD")]
    public async Task The_database_changes_amounts_as_Core_does(string code)
    {
        var currency = Currency.Of(code);
        var floor = NetworkProfile.Of("ostrel").MinimumCpc(currency);
        var coin = currency.SmallestAmount;
        var coins = Gen.Long[(long)(floor / coin), 200_000];
        var change =
            from operation in Gen.OneOfConst(AmountOperation.Set, AmountOperation.AddAmount, AmountOperation.AddPercent)
            from value in Gen.Long[-95_00, 400_00]
            from roundTo in Gen.OneOfConst(0m, 1m, 5m, 25m)
            from least in Gen.OneOfConst(0L, 10L, 1_000L)
            from most in Gen.OneOfConst(0L, 5_000L)
            select new BidChange(
                operation,
                operation switch
                {
                    AmountOperation.Set => (Math.Abs(value) + 1) * coin,
                    AmountOperation.AddAmount => value * coin,
                    AmountOperation.AddPercent => value / 100m,
                    AmountOperation.Inherit => 0,
                },
                roundTo == 0 ? null : roundTo * coin,
                least == 0 ? null : least * coin,
                most == 0 ? null : most * coin
            );
        await Gen.Select(coins.Array[6], change)
            .SampleAsync(
                async drawn =>
                {
                    var (bids, bid) = drawn;
                    var account = await fixture.NewAccountAsync(currency: code);
                    await fixture.KeepAsync(
                        account,
                        "campaign,daily budget,ad group,ad group max cpc,keyword,max cpc\n"
                            + string.Concat(
                                bids.Select((each, place) => $"North,900000,Tuning,9000,word {place},{each * coin}\n")
                            )
                    );
                    var before = await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Keyword });

                    await fixture.DoAsync(
                        account,
                        Change.Amount(
                            [.. before.Select(WorkingCopyFixture.Reference)],
                            "maxCpc",
                            bid.Operation,
                            bid.Value,
                            bid.RoundTo,
                            bid.AtLeast,
                            bid.AtMost
                        )
                    );

                    var after = (
                        await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Keyword })
                    ).ToDictionary(row => row.Id);
                    foreach (var row in before)
                    {
                        after[row.Id].MaxCpc.ShouldBe(bid.Apply(row.MaxCpc, currency, floor), $"{row.MaxCpc} {bid}");
                    }
                },
                iter: 15,
                threads: 1
            );
    }
}
