using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Places;

namespace Fendrik.Core.Tests.Places;

/// <summary>Places that the networks know, and how they are named.</summary>
public class GazetteerTests
{
    private static readonly ReadingGround Ground = ReadingGround.Plain(Currency.Of("GBP"));

    private static Reading Read(string text) => new PlaceValue().Read(text, Ground);

    [Theory]
    [InlineData("Leeds", "Leeds, Yorkshire, England, United Kingdom")]
    [InlineData("leeds , united kingdom", "Leeds, Yorkshire, England, United Kingdom")]
    [InlineData("tyneside", "Newcastle upon Tyne, North East England, England, United Kingdom")]
    [InlineData("Perth, Scotland", "Perth, Scotland, United Kingdom")]
    [InlineData("Perth, AU", "Perth, Western Australia, Australia")]
    [InlineData("GB-SCT", "Scotland, United Kingdom")]
    [InlineData("gb", "United Kingdom")]
    [InlineData("Ireland", "Ireland")]
    public void A_name_that_means_one_place_is_kept_by_its_full_name(string text, string fullName) =>
        Read(text).Value.ShouldBe(fullName);

    [Fact]
    public void A_name_that_means_several_places_is_asked()
    {
        Read("Perth")
            .Problem.ShouldBe(
                "“Perth” may be “Perth, Scotland, United Kingdom” or “Perth, Western Australia, Australia”; write which"
            );
        Read("newcastle").Problem!.Split(" or ").Length.ShouldBe(3);
    }

    [Theory]
    [InlineData("Atlantis")]
    [InlineData("Leeds, Scotland")]
    [InlineData(",")]
    public void What_no_network_knows_is_refused(string text) =>
        Read(text).Problem.ShouldNotBeNull().ShouldEndWith("write a country, a region or a town of it");

    [Fact]
    public void Every_place_is_found_by_its_full_name_alone() =>
        Gazetteer.All.ShouldAllBe(place => Gazetteer.Find(place.FullName).Single() == place);

    /// <summary>
    /// The worked example of R. W. Sinnott’s formula at Movable Type’s and other teaching pages: Land’s End (50° 03′ 59″ N, 5° 42′ 53″ W) to John o’ Groats
    /// (58° 38′ 38″ N, 3° 04′ 12″ W) is 968.9 km on a sphere of 6,371 km (quoted from memory).
    /// </summary>
    [Fact]
    public void Distances_are_those_of_a_great_circle()
    {
        static double Degrees(double degrees, double minutes, double seconds) =>
            degrees + minutes / 60 + seconds / 3600;
        var landsEnd = new GeoPoint(Degrees(50, 3, 59), -Degrees(5, 42, 53));
        var groats = new GeoPoint(Degrees(58, 38, 38), -Degrees(3, 4, 12));

        landsEnd.KilometresTo(groats).ShouldBe(968.9, 0.1);
        new GeoPoint(0, 0).KilometresTo(new GeoPoint(0, 180)).ShouldBe(Math.PI * GeoPoint.RadiusOfEarth, 1e-6);
    }

    [Theory]
    [InlineData("25", "25")]
    [InlineData("25 km", "25")]
    [InlineData("10mi", "16.1")]
    [InlineData("2.5 miles", "4")]
    public void A_radius_is_kept_in_kilometres(string text, string kilometres) =>
        new DistanceValue().Read(text, Ground).Value.ShouldBe(decimal.Parse(kilometres));

    [Theory]
    [InlineData("0")]
    [InlineData("-5")]
    [InlineData("far")]
    [InlineData("30000")]
    public void A_radius_that_is_none_is_refused(string text) =>
        new DistanceValue().Read(text, Ground).Problem.ShouldNotBeNull();
}
