using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;

namespace Fendrik.Core.Tests.Serving;

public class ServedAccountTests
{
    private static readonly DateOnly Day = new(2026, 5, 12);
    private static readonly NetworkProfile Ostrel = NetworkProfile.Of("ostrel");
    private static readonly Currency Pound = Currency.Of("GBP");
    private static readonly Campaign Tuning = new(
        1,
        "Tuning",
        ItemState.Running,
        40,
        null,
        null,
        SiteKinds.Search | SiteKinds.Partners
    );
    private static readonly AdGroup Group = new(2, 1, "Piano tuner", ItemState.Running, 1.10m);
    private static readonly TextAd Ad = new(
        9,
        2,
        ItemState.Running,
        ["Piano Tuner"],
        ["Same week."],
        [],
        "https://tarnandfell.example/tuning",
        null
    );
    private static readonly ServedKeyword Phrase = new(
        new Keyword(5, 2, "piano tuner", MatchType.Phrase, ItemState.Running, null, null),
        Group,
        Tuning,
        ReviewState.Approved,
        [Ad]
    );

    private static ServedAccount Account(ServedKeyword[] keywords, params NegativeKeyword[] negatives) =>
        new(
            Ostrel,
            Pound,
            new IndexedKeywords(
                new KeywordIndex<ServedKeyword>(
                    keywords.Select(each => (each, each.Keyword.Text, each.Keyword.Match)),
                    Ostrel.Reach
                )
            ),
            new KeywordIndex<PlacedNegative>(
                negatives.Select(each => (new PlacedNegative(each, []), each.Text, each.Match)),
                Ostrel.Reach.ForNegatives
            )
        );

    private static AnswerToSearch Ask(
        ServedAccount account,
        string text = "piano tuner york",
        SiteKinds site = SiteKinds.Search,
        decimal spent = 0
    ) =>
        account.Answer(
            new Search(text, Device.Phone, site, Day),
            _ => new BudgetDay(spent, 12, 24),
            0,
            (keyword, _) => (int)keyword.Keyword.Id
        );

    public static TheoryData<HindranceKind, ServedKeyword> Hindered =>
        new()
        {
            { HindranceKind.CampaignPaused, Phrase with { Campaign = Tuning with { State = ItemState.Paused } } },
            { HindranceKind.NoBudget, Phrase with { Campaign = Tuning with { DailyBudget = null } } },
            { HindranceKind.NotBegun, Phrase with { Campaign = Tuning with { StartDate = Day.AddDays(1) } } },
            { HindranceKind.Ended, Phrase with { Campaign = Tuning with { EndDate = Day.AddDays(-1) } } },
            { HindranceKind.SiteLeftOut, Phrase with { Campaign = Tuning with { Networks = SiteKinds.Content } } },
            { HindranceKind.BudgetSpent, Phrase with { Campaign = Tuning with { DailyBudget = 1 } } },
            { HindranceKind.AdGroupPaused, Phrase with { AdGroup = Group with { State = ItemState.Paused } } },
            { HindranceKind.KeywordPaused, Phrase with { Keyword = Phrase.Keyword with { State = ItemState.Paused } } },
            { HindranceKind.KeywordInReview, Phrase with { Review = ReviewState.Pending } },
            { HindranceKind.KeywordRefused, Phrase with { Review = ReviewState.Refused } },
            { HindranceKind.NoAd, Phrase with { Ads = [] } },
            { HindranceKind.NoMaxCpc, Phrase with { AdGroup = Group with { MaxCpc = null } } },
            { HindranceKind.BelowLowest, Phrase with { AdGroup = Group with { MaxCpc = 0.01m } } },
        };

    [Theory]
    [MemberData(nameof(Hindered), DisableDiscoveryEnumeration = true)]
    public void Says_what_keeps_a_keyword_that_matches_from_answering(HindranceKind kind, ServedKeyword keyword)
    {
        var answer = Ask(Account([keyword]), spent: 0.5m);

        answer.Chosen.ShouldBeNull();
        answer.Candidates.ShouldHaveSingleItem().Hindrance!.Kind.ShouldBe(kind);
    }

    [Fact]
    public void Names_the_negative_that_blocks_and_where_it_stands()
    {
        var negative = new NegativeKeyword(70, 1, null, "york", MatchType.Phrase);

        var hindrance = Ask(Account([Phrase], negative)).Candidates.ShouldHaveSingleItem().Hindrance!;

        (hindrance.Kind, hindrance.ItemKind, hindrance.ItemId).ShouldBe(
            (HindranceKind.Negative, ItemKind.NegativeKeyword, 70)
        );
        hindrance.Text.ShouldBe("-\"york\" on the campaign keeps it away.");
        Ask(Account([Phrase], negative), "piano tuner leeds").Chosen.ShouldNotBeNull();
    }

    [Fact]
    public void Lets_a_negative_of_another_ad_group_pass() =>
        Ask(Account([Phrase], new NegativeKeyword(70, 1, 3, "york", MatchType.Phrase))).Chosen.ShouldNotBeNull();

    [Fact]
    public void Chooses_by_the_rule_and_tells_it()
    {
        var dear = Phrase with
        {
            Keyword = Phrase.Keyword with { Id = 8, Text = "tuner", Match = MatchType.Broad, MaxCpc = 3 },
        };
        var exact = Phrase with { Keyword = Phrase.Keyword with { Id = 4, Match = MatchType.Exact } };

        var same = Ask(Account([Phrase, dear, exact]), "piano tuner");
        var longer = Ask(Account([Phrase, dear, exact]), "piano tuner york");

        (same.Chosen!.Keyword.Keyword.Id, same.Rule).ShouldBe((4, ChoiceRule.IsTheSearch));
        (longer.Chosen!.Keyword.Keyword.Id, longer.Rule).ShouldBe((8, ChoiceRule.HighestRank));
    }

    [Fact]
    public void Traces_a_search_with_the_campaigns_that_are_out_and_the_word_that_was_reached()
    {
        var broad = Phrase with { Keyword = Phrase.Keyword with { Text = "used pianos", Match = MatchType.Broad } };
        var account = Account([broad]);
        var search = new Search("second hand piano leeds", Device.Phone, SiteKinds.Search, Day);

        var trace = SearchTrace.Of(
            search,
            account.Answer(search, null, 0, (_, _) => 5),
            [Tuning, Tuning with { Id = 3, Name = "Hire", EndDate = Day.AddDays(-1) }],
            account
        );

        trace.Outcome.ShouldBe("“used pianos” answers");
        trace
            .Keywords.ShouldHaveSingleItem()
            .Why.ShouldBe("“used” by “second hand”, a synonym (95 %); “pianos” by “piano”, one or several");
        trace
            .Campaigns.Select(each => (each.Name, each.Hindrance?.Text))
            .ShouldBe([("Tuning", null), ("Hire", "The campaign ended on 11 May 2026.")]);
        trace.Ad!.Id.ShouldBe(9);
    }
}
