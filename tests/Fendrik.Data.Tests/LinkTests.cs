using Dapper;
using Fendrik.Core.Checks;
using Fendrik.Core.Tracking;
using Fendrik.Data.Links;

namespace Fendrik.Data.Tests;

/// <summary>The links of an account: each distinct one once, with the template that is nearest, and what following them says of items.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class LinkTests(WorkingCopyFixture fixture)
{
    private const string List = """
        item,campaign,ad group,daily budget,ad group max cpc,keyword,match type,headline 1,headline 2,description 1,sitelink,landing page
        ,North,Tuning,25,1.00,piano tuning,exact,,,,,
        ,North,Tuning,,,piano tuner,exact,,,,,https://tarnandfell.example/tuner
        ,North,Tuning,,,,,Piano Tuning,Book Today,We tune.,,https://tarnandfell.example/tuning
        ,North,Hire,,1.10,piano hire,exact,,,,,
        ,North,Hire,,,,,Piano Hire,Book Today,We hire out.,,https://tarnandfell.example/tuning
        ,South,Hire,12,0.90,piano hire,broad,,,,,
        ,South,Hire,,,,,Hire A Piano,Book Today,We hire out.,,https://tarnandfell.example/tuning
        sitelink,,,,,,,,,,Prices,https://tarnandfell.example/prices
        """;

    private readonly LinkBook _book = new(fixture.Source, TimeProvider.System);

    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        return account;
    }

    private async Task SetTemplateAsync(int account, ItemKind kind, string name, string template) =>
        await fixture.DoAsync(
            account,
            new SetFields(
                new[]
                {
                    WorkingCopyFixture.Reference(
                        (await fixture.RowsAsync(account, new SheetRequest { Kind = kind })).First(row =>
                            row.Name == name
                        )
                    ),
                },
                new Dictionary<string, FieldInput> { ["trackingTemplate"] = template }
            )
        );

    [Fact]
    public async Task Each_distinct_page_stands_once_with_the_nearest_template()
    {
        var account = await AccountAsync();
        await SetTemplateAsync(account, ItemKind.Campaign, "South", "{+page}?from=south");
        await SetTemplateAsync(account, ItemKind.Keyword, "piano tuner", "{+page}{?keyword}");

        var used = await _book.UsedAsync(account, CancellationToken.None);

        used.Select(link => (link.Page[28..], link.Template, link.Items))
            .ShouldBe([
                ("prices", "", 1),
                ("tuner", "{+page}{?keyword}", 1),
                ("tuning", "", 2),
                ("tuning", "{+page}?from=south", 1),
            ]);
        used[1].Click.Keyword.Text.ShouldBe("piano tuner");
    }

    [Fact]
    public async Task Examples_are_of_what_one_is_looking_at()
    {
        var account = await AccountAsync();
        await SetTemplateAsync(account, ItemKind.Campaign, "South", "{+page}?from=south");

        (await _book.ExamplesAsync(account, null, null, CancellationToken.None))
            .Select(link => (link.Click.Campaign.Name, link.Template))
            .ShouldBe([("North", ""), ("South", "{+page}?from=south")]);
        var north = (await fixture.RowAsync(account, "North")).Id;
        (await _book.ExamplesAsync(account, north, null, CancellationToken.None))
            .Select(link => link.Click.AdGroup.Name)
            .ShouldBe(["Tuning", "Hire"], ignoreOrder: true);
    }

    [Fact]
    public async Task What_following_a_link_showed_is_found_at_the_items_that_lead_there_until_it_is_mended()
    {
        var account = await AccountAsync();
        var used = await _book.UsedAsync(account, CancellationToken.None);
        Task KeepAsync(int status) =>
            _book.KeepAsync(
                account,
                [
                    .. used.Select(link =>
                        (
                            link,
                            link.Page,
                            LinkVerdict.Of(
                                link.Page,
                                [
                                    new LinkHop(
                                        link.Page,
                                        link.Page.EndsWith("/tuner", StringComparison.Ordinal) ? status : 200,
                                        10
                                    ),
                                ],
                                LinkEnd.Answered
                            )
                        )
                    ),
                ],
                CancellationToken.None
            );
        await fixture.FindingsAsync(account);

        await KeepAsync(404);

        var found = (await fixture.FindingsAsync(account))
            .Where(each => each.Code == "link-error")
            .ShouldHaveSingleItem();
        (found.Kind, found.Field, found.Weight).ShouldBe((ItemKind.Keyword, "landingPage", Weight.Caution));
        (await _book.CheckedAsync(account, CancellationToken.None))[0].Message.ShouldBe("page answers 404");
        await KeepAsync(200);
        (await fixture.FindingsAsync(account)).ShouldNotContain(each => each.Code == "link-error");
    }

    [Theory]
    [InlineData("{+page", "tracking-template-unreadable")]
    [InlineData("{+page}{?devise}", "tracking-template-unknown-variable")]
    [InlineData("https://count.example/?to=", "tracking-template-page-lost")]
    public async Task A_template_that_would_lose_clicks_stops_publishing(string template, string code)
    {
        var account = await AccountAsync();

        await SetTemplateAsync(account, ItemKind.Campaign, "South", template);

        (await fixture.FindingsAsync(account)).ShouldContain(each =>
            each.Code == code && each.Weight == Weight.Blocker
        );
    }

    [Fact]
    public async Task What_is_due_tonight_is_begun_by_one_of_two_servers()
    {
        var account = await AccountAsync();
        var nightly = new NightlyLinks(fixture.Source);
        await nightly.ChooseAsync(account, "morag", chosen: true, CancellationToken.None);
        var tonight = new DateTimeOffset(2026, 1, 10, 4, 30, 0, TimeSpan.Zero);
        async Task<int> BeginAsync()
        {
            await using var connection = await fixture.Source.OpenConnectionAsync();
            await using var transaction = await connection.BeginTransactionAsync();
            var due = (await NightlyLinks.DueAsync(connection, "links", tonight))
                .Where(each => each == (account, "morag"))
                .ToList();
            foreach (var (id, person) in due)
            {
                await connection.ExecuteAsync(
                    "insert into job (account_id, person_id, kind, subject_id, state, done, cancel_requested, attempts, made_at) values (@id, @person, 'links', 0, 1, 0, false, 0, @tonight)",
                    new
                    {
                        id,
                        person,
                        tonight,
                    }
                );
            }

            await transaction.CommitAsync();
            return due.Count;
        }

        (await Task.WhenAll(BeginAsync(), BeginAsync())).Sum().ShouldBe(1);
    }

    [Fact]
    public async Task Links_are_followed_at_night_only_as_long_as_that_is_chosen()
    {
        var account = await AccountAsync();
        var nightly = new NightlyLinks(fixture.Source);
        (await nightly.IsChosenAsync(account, CancellationToken.None)).ShouldBeFalse();
        await nightly.ChooseAsync(account, "morag", chosen: true, CancellationToken.None);
        (await nightly.IsChosenAsync(account, CancellationToken.None)).ShouldBeTrue();
        await nightly.ChooseAsync(account, "morag", chosen: false, CancellationToken.None);
        (await nightly.IsChosenAsync(account, CancellationToken.None)).ShouldBeFalse();
    }
}
