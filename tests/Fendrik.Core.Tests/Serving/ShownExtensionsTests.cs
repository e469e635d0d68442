using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.Auctions;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Kinds;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;

namespace Fendrik.Core.Tests.Serving;

public class ShownExtensionsTests
{
    private static readonly ExtensionRules Ostrel = NetworkProfile.Of("ostrel").Extensions;
    private static readonly ExtensionRules Pellow = NetworkProfile.Of("pellow").Extensions;
    private static readonly CalloutType Callouts = (CalloutType)ItemTypes.Of(ItemKind.Callout);
    private static readonly SitelinkType Sitelinks = (SitelinkType)ItemTypes.Of(ItemKind.Sitelink);
    private static readonly CallExtensionType Numbers = (CallExtensionType)ItemTypes.Of(ItemKind.CallExtension);

    /// <summary>A Tuesday at ten.</summary>
    private static readonly ShownAt Tuesday = new(Device.Desktop, new DateOnly(2026, 5, 12), 10 * 60);

    private static PlacedExtension OnAccount(long id, string text) => new(id, null, null, text);

    private static PlacedExtension OnCampaign(long id, string text) => new(id, 1, null, text);

    private static PlacedExtension OnGroup(long id, string text) => new(id, 1, 2, text);

    private static string[] Shown(
        ExtensionRules rules,
        ExtensionType type,
        PlacedExtension[] extensions,
        ShownAt? at = null,
        Func<long, ClickRecord>? recordOf = null
    ) =>
        [
            .. ShownExtensions
                .Choose(rules, type, extensions, at ?? Tuesday, recordOf ?? (_ => default))
                .Where(each => each.Shows)
                .Select(each => each.Extension.Text),
        ];

    private static readonly PlacedExtension[] OnEachLevel =
    [
        OnAccount(1, "28 years"),
        OnAccount(2, "Insured"),
        .. Enumerable.Range(3, 4).Select(id => OnCampaign(id, $"Campaign {id}")),
        OnGroup(7, "Stage"),
        OnGroup(8, "Interval"),
    ];

    [Fact]
    public void A_network_that_pools_levels_has_two_and_four_and_two_to_choose_from() =>
        ExtensionReach.CountOf(ExtensionLevels.Pooled, new ExtensionCounts(2, 4, 2)).ShouldBe(8);

    [Fact]
    public void A_network_of_the_nearest_level_has_only_those_of_the_ad_group() =>
        Shown(Pellow, Callouts, OnEachLevel).ShouldBe(["Stage", "Interval"]);

    [Fact]
    public void Those_that_did_best_show_wherever_they_stand() =>
        Shown(
                Ostrel,
                Callouts,
                OnEachLevel,
                recordOf: id => id is 2 or 8 ? new ClickRecord(30, 20) : new ClickRecord(10, 20)
            )
            .Take(2)
            .ShouldBe(["Insured", "Interval"]);

    [Fact]
    public void At_most_as_many_show_as_the_network_shows() =>
        Shown(Ostrel, Callouts, OnEachLevel).Length.ShouldBe(Ostrel.MostCallouts);

    [Fact]
    public void Two_short_callouts_show_where_a_long_one_leaves_no_room_for_a_second() =>
        Shown(
                Ostrel,
                Callouts,
                [OnAccount(1, "Walnut and rosewood works"), OnAccount(2, "28 years"), OnAccount(3, "Insured")],
                Tuesday with
                {
                    Device = Device.Phone,
                }
            )
            .ShouldBe(["28 years", "Insured"]);

    [Fact]
    public void A_single_callout_never_shows() =>
        ShownExtensions
            .Choose(Ostrel, Callouts, [OnAccount(1, "28 years")], Tuesday, _ => default)
            .ShouldHaveSingleItem()
            .Why.ShouldContain("from 2 on");

    /// <summary>What shows fits: at least two and at most four callouts (common practice, no source).</summary>
    [Fact]
    public void Callouts_that_show_are_two_to_four_and_fit_into_the_line() =>
        Gen.Select(Gen.String[Gen.Char['a', 'z'], 1, 25].Array[0, 8], Gen.Enum<Device>())
            .Sample(
                (texts, device) =>
                {
                    var shown = Shown(
                        Ostrel,
                        Callouts,
                        [.. texts.Select((text, id) => OnAccount(id, text))],
                        Tuesday with
                        {
                            Device = device,
                        }
                    );
                    shown.Length.ShouldBeOneOf(0, 2, 3, 4);
                    TextLength
                        .Of(string.Join(CalloutLine.Between, shown))
                        .ShouldBeLessThanOrEqualTo(Ostrel.CalloutLine.On(device));
                }
            );

    [Fact]
    public void A_number_shows_within_its_hours_only()
    {
        var number = OnAccount(1, "+441134960142") with
        {
            Hours = WeekHours.Of("Mon-Fri 08:00-17:30"),
            Shows = NumberShows.WithSite,
        };

        Shown(Ostrel, Numbers, [number]).ShouldHaveSingleItem();
        Shown(Ostrel, Numbers, [number], Tuesday with { Minute = 18 * 60 }).ShouldBeEmpty();
    }

    public static TheoryData<PlacedExtension> KeptAway =>
        new()
        {
            OnAccount(1, "Hire") with
            {
                State = ItemState.Paused,
            },
            OnAccount(1, "Hire") with
            {
                ShowsFrom = new DateOnly(2026, 5, 13),
            },
            OnAccount(1, "Hire") with
            {
                ShowsUntil = new DateOnly(2026, 5, 11),
            },
            OnAccount(1, "Hire") with
            {
                DevicePreference = Device.Phone,
            },
        };

    [Theory]
    [MemberData(nameof(KeptAway))]
    public void What_may_not_show_says_why(PlacedExtension extension)
    {
        var considered = ShownExtensions
            .Choose(Ostrel, Sitelinks, [extension], Tuesday, _ => default)
            .ShouldHaveSingleItem();

        considered.Shows.ShouldBeFalse();
        considered.Why.ShouldNotBeEmpty();
    }

    [Fact]
    public void One_that_is_paused_replaces_nothing_farther() =>
        Shown(Pellow, Sitelinks, [OnAccount(1, "Hire"), OnGroup(2, "Sales") with { State = ItemState.Paused }])
            .ShouldBe(["Hire"]);

    [Theory]
    [InlineData(0, Weight.Caution)]
    [InlineData(1, Weight.Caution)]
    [InlineData(2, Weight.Hint)]
    [InlineData(3, Weight.Hint)]
    [InlineData(4, null)]
    public void Fewer_than_two_callouts_in_reach_matter_more_than_fewer_than_four(int inReach, Weight? gap) =>
        ExtensionReach.GapOf(Ostrel, Callouts, inReach).ShouldBe(gap);
}
