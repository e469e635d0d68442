using Fendrik.Core.Accounts;
using Fendrik.Core.Budgets;
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
        [Ad],
        []
    );

    private static ServedAccount Account(ServedKeyword[] keywords, params NegativeKeyword[] negatives) =>
        Account(true, keywords, negatives);

    private static ServedAccount Account(bool hasPayer, ServedKeyword[] keywords, params NegativeKeyword[] negatives) =>
        new(
            Ostrel,
            Pound,
            hasPayer,
            new IndexedKeywords(
                new KeywordIndex<ServedKeyword>(
                    keywords.Select(each =>
                        (
                            each with
                            {
                                Words = Ostrel.Reach.WordsOf(each.Keyword.Text),
                            },
                            each.Keyword.Text,
                            each.Keyword.Match
                        )
                    ),
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
        decimal spent = 0,
        bool takesPart = true
    ) =>
        account.Answer(
            new Search(text, Device.Phone, site, Day),
            campaign => new BudgetStanding(campaign.DailyBudget!.Value - spent, takesPart, 0.4),
            0,
            (keyword, _) => (int)keyword.Keyword.Id
        );

    [Theory]
    [InlineData(0)]
    [InlineData(0.99)]
    public void Ads_for_all_devices_give_way_to_one_for_just_this(double choice)
    {
        var forPhones = Ad with { Id = 10, DevicePreference = Device.Phone };
        var account = Account([Phrase with { Ads = [Ad, forPhones, Ad with { Id = 11 }] }]);

        long Shown(Device device) =>
            account
                .Answer(
                    new Search("piano tuner", device, SiteKinds.Search, Day),
                    null,
                    choice,
                    (keyword, _) => (int)keyword.Keyword.Id
                )
                .Chosen!.Ad!.Id;
        Shown(Device.Phone).ShouldBe(10);
        Shown(Device.Desktop).ShouldBe(choice == 0 ? 9 : 11);
    }

    [Theory]
    [InlineData(AdRotation.Even, 9)]
    [InlineData(AdRotation.BySuccess, 11)]
    public void Ads_take_turns_by_chance_or_by_what_they_brought(AdRotation rotation, long shown)
    {
        var account = Account([
            Phrase with
            {
                Campaign = Tuning with { Rotation = rotation },
                Ads = [Ad, Ad with { Id = 11 }, Ad with { Id = 10 }],
            },
        ]);

        account
            .Answer(
                new Search("piano tuner", Device.Desktop, SiteKinds.Search, Day),
                null,
                0,
                (keyword, _) => (int)keyword.Keyword.Id,
                ad => ad.Id
            )
            .Chosen!.Ad!.Id.ShouldBe(shown);
    }

    private static readonly CallAd Calls = new(
        12,
        2,
        ItemState.Running,
        "Tarn & Fell Pianos",
        "+441134960142",
        ["Ask A Tuner"],
        ["Ring and ask."],
        null,
        WeekHours.Of("Mon-Fri 08:00-17:30")
    );

    private static AnswerToSearch At(ServedAccount account, int minute) =>
        account.Answer(
            new Search("piano tuner", Device.Phone, SiteKinds.Search, Day, minute),
            null,
            0,
            (keyword, _) => (int)keyword.Keyword.Id
        );

    [Theory]
    [InlineData((17 * 60) + 29, 12)]
    [InlineData((17 * 60) + 30, 9)]
    public void A_call_ad_goes_before_ads_for_all_devices_on_phones_at_its_hours(int minute, long shown) =>
        At(Account([Phrase with { Ads = [Ad, Calls] }]), minute).Chosen!.Ad!.Id.ShouldBe(shown);

    [Fact]
    public void Nothing_answers_where_only_a_call_ad_could_show_and_it_is_not_its_hour() =>
        At(Account([Phrase with { Ads = [Calls] }]), 20 * 60)
            .Candidates.ShouldHaveSingleItem()
            .Hindrance!.Kind.ShouldBe(HindranceKind.NoAdAtThisHour);

    private static SearchTrace Traced(Ad ad, LineWorth? worth = null)
    {
        var account = Account([Phrase with { Ads = [ad] }]);
        var search = new Search("piano tuner york", Device.Phone, SiteKinds.Search, Day, 600, "York");
        return SearchTrace.Of(
            search,
            account.Answer(search, null, 0, (keyword, _) => (int)keyword.Keyword.Id),
            [Tuning],
            account,
            worth
        );
    }

    [Fact]
    public void A_trace_shows_inserted_words_as_the_person_sees_them() =>
        Traced(
            Ad with
            {
                Headlines =
                [
                    "{{ keyword | each_word | default: \"Tuner\" }}",
                    "Tuned In {{ place | default: \"The North\" }}",
                ],
            }
        )
            .Ad!.Headlines.ShouldBe(["Piano Tuner", "Tuned In York"]);

    private static readonly ResponsiveAd Responsive = new(
        13,
        2,
        ItemState.Running,
        ["One", "Two", "Three [1]", "Four"],
        ["First.", "Second."],
        [],
        "https://tarnandfell.example/tuning",
        null,
        null,
        "https://tarnandfell.example/m"
    );

    [Fact]
    public void A_responsive_ad_shows_the_lines_that_are_worth_most_where_they_may_stand()
    {
        var trace = Traced(Responsive, new LineWorth(line => line, line => line));

        trace.Ad!.Headlines.ShouldBe(["Three", "Four", "Two"]);
        trace.Ad.Descriptions.ShouldBe(["Second."]);
        trace.Notes.ShouldBeEmpty();
    }

    [Fact]
    public void Where_it_is_not_known_what_the_network_learnt_a_trace_says_so() =>
        Traced(Responsive).Notes.ShouldHaveSingleItem().ShouldContain("for the network to say");

    [Fact]
    public void An_ad_leads_to_its_page_for_phones_on_phones() =>
        (Responsive.PageOn(Device.Phone), Responsive.PageOn(Device.Desktop)).ShouldBe(
            ("https://tarnandfell.example/m", "https://tarnandfell.example/tuning")
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
            {
                HindranceKind.NoAdForDevice,
                Phrase with
                {
                    Ads = [Ad with { DevicePreference = Device.Desktop }, Ad with { DevicePreference = Device.Tablet }],
                }
            },
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
    public void Tells_which_keyword_would_have_answered_but_for_the_budget()
    {
        var dear = Phrase with { Keyword = Phrase.Keyword with { Id = 8, Text = "piano", MaxCpc = 3 } };

        var answer = Ask(Account([Phrase, dear]), takesPart: false);

        answer.Chosen.ShouldBeNull();
        answer.KeptByBudget!.Keyword.Keyword.Id.ShouldBe(8);
        answer
            .Candidates[0]
            .Hindrance!.Text.ShouldBe(
                "To make its budget last, the campaign takes part in 40 % of the searches of this hour, and not in this one."
            );
    }

    [Fact]
    public void Blames_the_budget_for_nothing_that_a_negative_keeps_away() =>
        Ask(Account([Phrase], new NegativeKeyword(70, 1, null, "york", MatchType.Phrase)), takesPart: false)
            .KeptByBudget.ShouldBeNull();

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

    [Fact]
    public void Answers_nothing_for_an_account_that_nobody_pays()
    {
        var account = Account(false, [Phrase]);

        var answer = Ask(account);

        (answer.Chosen, answer.Kind).ShouldBe((null, AnswerKind.NoPayer));
        answer.Candidates.ShouldHaveSingleItem().Hindrance.ShouldBeNull();
        SearchTrace
            .Of(new Search("piano tuner", Device.Phone, SiteKinds.Search, Day), answer, [Tuning], account)
            .HasPayer.ShouldBeFalse();
    }

    [Theory]
    [InlineData(Expectation.Shows, null, "piano tuner york", true)]
    [InlineData(Expectation.Shows, null, "accordion", false)]
    [InlineData(Expectation.ShowsNot, null, "accordion", true)]
    [InlineData(Expectation.ShowsNot, null, "piano tuner york", false)]
    [InlineData(Expectation.ShowsFrom, 2L, "piano tuner york", true)]
    [InlineData(Expectation.ShowsFrom, 3L, "piano tuner york", false)]
    [InlineData(Expectation.ShowsFrom, 2L, "accordion", false)]
    public void Holds_a_saved_search_to_what_should_happen(
        Expectation expected,
        long? group,
        string text,
        bool holds
    ) =>
        new SavedSearch(text, Device.Phone, SiteKinds.Search, null, expected, group)
            .HoldTo(Ask(Account([Phrase]), text), "Piano tuner")
            .Holds.ShouldBe(holds);

    [Fact]
    public void Says_what_happens_to_a_saved_search_and_what_is_in_the_way()
    {
        var search = new SavedSearch("x", Device.Phone, SiteKinds.Search, null, Expectation.ShowsFrom, 2);
        var negative = new NegativeKeyword(70, 1, null, "york", MatchType.Phrase);

        search
            .HoldTo(Ask(Account([Phrase])), "Piano tuner")
            .Told.ShouldBe("It shows from “Piano tuner” in “Tuning”, by “piano tuner” (phrase).");
        search
            .HoldTo(Ask(Account([Phrase], negative)), "Piano tuner")
            .Told.ShouldBe(
                "Nothing shows. “piano tuner” (phrase) in “Piano tuner” matches, but: -\"york\" on the campaign keeps it away."
            );
        search
            .HoldTo(Ask(Account([])), null)
            .Told.ShouldBe("The ad group that should answer is gone. Nothing shows: no keyword matches.");
    }

    [Theory]
    [InlineData("", Expectation.Shows, null, "text")]
    [InlineData("piano", Expectation.ShowsFrom, null, "adGroupId")]
    [InlineData("piano", Expectation.ShowsNot, 2L, "adGroupId")]
    [InlineData("piano", (Expectation)9, null, "expectation")]
    public void Names_what_is_wrong_with_a_saved_search(string text, Expectation expected, long? group, string field) =>
        new SavedSearch(text, Device.Phone, SiteKinds.Search, null, expected, group).Problem!.Value.Field.ShouldBe(
            field
        );
}
