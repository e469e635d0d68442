using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation.People;

/// <summary>How old somebody is.</summary>
public enum AgeBand
{
    /// <summary>18 to 34.</summary>
    Young = 1,

    /// <summary>35 to 54.</summary>
    Middle = 2,

    /// <summary>From 55 on.</summary>
    Old = 3,
}

/// <summary>Woman or man.</summary>
public enum Gender
{
    /// <summary>A woman.</summary>
    Female = 1,

    /// <summary>A man.</summary>
    Male = 2,
}

/// <summary>Somebody with a need. All that a person is follows from the name of the person's first search.</summary>
/// <param name="Home">Where the person searches from.</param>
/// <param name="Wanted">Where the person wants it.</param>
/// <param name="Device">The device.</param>
/// <param name="Age">The age.</param>
/// <param name="Gender">The gender.</param>
/// <param name="InHurry">True for somebody in a hurry.</param>
/// <param name="Limit">What the person would pay, against what is usual: 1.4 in the middle.</param>
/// <param name="Patience">Milliseconds for which the person waits for a page.</param>
/// <param name="Reach">How far the person goes, against what is usual.</param>
/// <param name="Habit">How the person types.</param>
public sealed record Person(
    Place Home,
    Place Wanted,
    Device Device,
    AgeBand Age,
    Gender Gender,
    bool InHurry,
    double Limit,
    double Patience,
    double Reach,
    Habit Habit
)
{
    private const double MiddlingLimit = 1.4;
    private const double SpreadOfLimit = 0.4;
    private const double MiddlingPatience = 4_200;
    private const double SpreadOfPatience = 0.45;

    /// <summary>The person of a name.</summary>
    public static Person Of(World world, Need need, in Chance chance)
    {
        var abroad = chance.Happens(Purpose.Abroad, need.Abroad);
        var home = abroad
            ? chance.Pick(Purpose.Home, world.Abroad, place => place.Population)
            : world.HomeOf(chance.Share(Purpose.Home));
        var wanted =
            !abroad && chance.Happens(Purpose.Wanted, need.Away) ? world.HomeOf(chance.Share(Purpose.Wanted, 1)) : home;
        var age = AgeOf(need, chance.Share(Purpose.Age));
        var hurry = chance.Happens(Purpose.Hurry, need.Urgent);
        return new Person(
            home,
            wanted,
            DeviceOf(need, age, chance.Share(Purpose.Device)),
            age,
            chance.Happens(Purpose.Gender, need.Female) ? Gender.Female : Gender.Male,
            hurry,
            MiddlingLimit * Math.Exp(SpreadOfLimit * chance.Normal(Purpose.Limit)),
            (hurry ? 0.8 : 1) * MiddlingPatience * Math.Exp(SpreadOfPatience * chance.Normal(Purpose.Patience)),
            Math.Exp(0.35 * chance.Normal(Purpose.Distance)),
            chance.Pick(Purpose.Habit, world.Habits, habit => habit.Share)
        );
    }

    private static AgeBand AgeOf(Need need, double share) =>
        share < need.Young ? AgeBand.Young
        : share < 1 - need.Old ? AgeBand.Middle
        : AgeBand.Old;

    private static Device DeviceOf(Need need, AgeBand age, double share)
    {
        // The young have a phone at hand, the old rather a tablet; taken together the shares stay near the need's.
        var phone = Math.Clamp(
            need.Phone
                + age switch
                {
                    AgeBand.Young => 0.12,
                    AgeBand.Middle => 0,
                    AgeBand.Old => -0.12,
                },
            0,
            1
        );
        return share < phone ? Device.Phone
            : share < phone + Math.Min(need.Tablet, 1 - phone) ? Device.Tablet
            : Device.Desktop;
    }
}
