using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Changes;
using Fendrik.Core.Serving;
using Fendrik.Data.Checking;
using Fendrik.Data.Commands.Copying;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

[Collection(nameof(WorkingCopyFixture))]
public class CheckTests(WorkingCopyFixture fixture)
{
    private async Task<string[]> FoundAsync(TunedAccount account) =>
        [
            .. (await fixture.FindingsAsync(account.Id))
                .Select(finding => $"{finding.Weight} {finding.Kind} {finding.ItemId} {finding.Code} {finding.Detail}")
                .Concat(
                    (await fixture.Checks.ListOfAccountAsync(account.Id, 1_000, CancellationToken.None)).Select(
                        finding => $"{finding.Weight} {finding.Code} {finding.SavedSearchId} {finding.Detail}"
                    )
                )
                .Order(StringComparer.Ordinal),
        ];

    /// <summary>Searches of every kind of expectation, some of which any change may touch.</summary>
    private async Task SaveSearchesAsync(TunedAccount account)
    {
        var group = (await account.RowsAsync(ItemKind.AdGroup))[0].Id;
        var texts = new[]
        {
            "piano tuning",
            "piano tuning free",
            "piano tuner near me",
            "paino hire",
            "pianos for hire",
            "stage piano hire free",
            "accordion",
        };
        await fixture.Searches.SaveAsync(
            account.Id,
            WorkingCopyFixture.Person,
            [
                .. texts.Select(
                    (text, place) =>
                        new SavedSearch(
                            text,
                            Device.Phone,
                            SiteKinds.Search,
                            null,
                            (Expectation)(place % 3 + 1),
                            place % 3 == 1 ? group : null
                        )
                ),
            ],
            CancellationToken.None
        );
    }

    [Fact]
    public async Task Finds_after_each_change_just_what_looking_at_everything_finds()
    {
        var keywords = TunedAccount.All(ItemKind.Keyword);
        var campaigns = TunedAccount.All(ItemKind.Campaign);
        var list = 0;
        var changes = new Func<TunedAccount, Task<IWorkingCopyChange>>[]
        {
            _ => Task.FromResult<IWorkingCopyChange>(Change.Amount(keywords, "maxCpc", AmountOperation.Inherit, 0)),
            _ =>
                Task.FromResult<IWorkingCopyChange>(
                    Change.Amount(TunedAccount.All(ItemKind.AdGroup), "maxCpc", AmountOperation.Inherit, 0)
                ),
            _ => Task.FromResult<IWorkingCopyChange>(Change.Amount(keywords, "maxCpc", AmountOperation.Set, 2m)),
            _ => Task.FromResult<IWorkingCopyChange>(new EditTexts(keywords, ["text"], TextOperation.Append, " free")),
            _ =>
                Task.FromResult<IWorkingCopyChange>(
                    new EditTexts(
                        TunedAccount.All(ItemKind.TextAd),
                        ["headlines"],
                        TextOperation.Append,
                        " that is much too long for a headline"
                    )
                ),
            _ => Task.FromResult<IWorkingCopyChange>(new RemoveItems(TunedAccount.All(ItemKind.TextAd))),
            _ => Task.FromResult<IWorkingCopyChange>(new RemoveItems(TunedAccount.All(ItemKind.NegativeKeyword))),
            _ =>
                Task.FromResult<IWorkingCopyChange>(
                    new CopyItems(
                        campaigns,
                        new CopyPlace([], []),
                        new CopyEdits { NamePattern = $"{{name}} {++list}" }
                    )
                ),
            async account => new AddNegativeList(
                $"List {++list}",
                [(await account.RowsAsync(ItemKind.Campaign))[0].Id],
                "hire",
                MatchType.Phrase
            ),
            async account => new ChangeReferences(
                TunedAccount.All(ItemKind.NegativeList),
                "campaignIds",
                [(await account.RowsAsync(ItemKind.Campaign))[0].Id],
                list % 2 == 0
            ),
            async account =>
                Change.Negatives(
                    new ItemPlaces([(await account.RowsAsync(ItemKind.Campaign))[^1].Id], [], []),
                    "tuner\nhire",
                    MatchType.Phrase,
                    false
                ),
            async account => new RemoveItems([
                WorkingCopyFixture.Reference((await account.RowsAsync(ItemKind.AdGroup))[0]),
            ]),
        };
        var random = new Random(3);
        var account = await TunedAccount.MakeAsync(fixture);
        await SaveSearchesAsync(account);
        for (var turn = 0; turn < 40; turn++)
        {
            var number = random.Next(changes.Length + 1);
            try
            {
                if (number == changes.Length)
                {
                    await account.UndoAsync();
                }
                else
                {
                    await account.DoAsync(await changes[number](account));
                }
            }
            catch (Exception error) when (error is InvalidChangeException or ArgumentOutOfRangeException)
            {
                // Nothing left to change in this way.
            }

            var little = await FoundAsync(account);
            var counts = await fixture.Checks.CountsAsync(account.Id, CancellationToken.None);
            await fixture.Checks.ForgetAsync(account.Id, CancellationToken.None);
            var all = await FoundAsync(account);

            little.ShouldBe(all, $"turn {turn}, change {number}");
            (counts.Blockers + counts.Cautions + counts.Hints).ShouldBe(all.Length);
        }
    }

    [Fact]
    public async Task Looks_again_at_what_the_network_refused()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await FoundAsync(account);
        var publish = await fixture.Publishes.BeginAsync(
            account.Id,
            WorkingCopyFixture.Person,
            null,
            CancellationToken.None
        );
        var batch = await fixture.Batches.NextAsync(publish!.Value, CancellationToken.None);

        await fixture.Answers.RecordAsync(
            publish.Value,
            batch!.First,
            batch.Next,
            [
                .. batch.Changes.Select(change => new NetworkAnswer(
                    change.Kind,
                    change.ItemId,
                    change.Kind == ItemKind.TextAd ? NetworkVerdict.Refused : NetworkVerdict.Accepted,
                    "Not so."
                )),
            ],
            CancellationToken.None
        );

        (await FoundAsync(account)).Count(found => found.Contains("refused Not so.")).ShouldBe(2);
    }
}
