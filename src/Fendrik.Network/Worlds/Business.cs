namespace Fendrik.Network.Worlds;

/// <summary>A form on a page.</summary>
public enum FormState
{
    /// <summary>There is none.</summary>
    None = 0,

    /// <summary>It can be filled in and sent.</summary>
    Works = 1,

    /// <summary>It is there, but cannot be sent.</summary>
    Broken = 2,
}

/// <summary>The network's tag on a page.</summary>
public enum TagState
{
    /// <summary>It is there, and tells what people do.</summary>
    Works = 0,

    /// <summary>It is not there.</summary>
    Missing = 1,

    /// <summary>It stands in the wrong place: it tells of a form that was sent whenever the page is looked at.</summary>
    EveryVisit = 2,
}

/// <summary>A landing page as people find it.</summary>
/// <param name="Address">Host and beginning of the path.</param>
/// <param name="Name">Its title.</param>
/// <param name="Needs">What it is for.</param>
/// <param name="Words">The words on it.</param>
/// <param name="Place">Where the business is; none when that does not matter.</param>
/// <param name="Desktop">Milliseconds until it can be used on a desktop.</param>
/// <param name="Phone">The same on a phone.</param>
/// <param name="Line">The telephone line on it.</param>
/// <param name="Form">Its form on desktops.</param>
/// <param name="FormOnPhones">Its form on phones.</param>
/// <param name="Booking">The booking site that it leads to.</param>
/// <param name="Price">The price on it, in pounds.</param>
/// <param name="Down">Days on which it cannot be reached.</param>
/// <param name="Tag">The network's tag on it.</param>
public sealed record LandingPage(
    string Address,
    string Name,
    IReadOnlySet<string> Needs,
    IReadOnlyList<string> Words,
    Place? Place,
    int Desktop,
    int Phone,
    PhoneLine? Line,
    FormState Form,
    FormState FormOnPhones,
    BookingSite? Booking,
    double? Price,
    IReadOnlyList<(DateOnly First, DateOnly Last)> Down,
    TagState Tag = TagState.Works
)
{
    /// <summary>True on a day on which it cannot be reached.</summary>
    public bool IsDownOn(DateOnly day) => Down.Any(span => span.First <= day && day <= span.Last);

    /// <summary>Milliseconds until it can be used.</summary>
    public int LoadsIn(Device device) => device == Device.Desktop ? Desktop : Phone;

    /// <summary>Its form on a device.</summary>
    public FormState FormOn(Device device) => device == Device.Phone ? FormOnPhones : Form;
}

/// <summary>Another company's site where visits are booked.</summary>
/// <param name="Host">Its domain.</param>
/// <param name="Name">Its name.</param>
/// <param name="Form">Its form on desktops.</param>
/// <param name="FormOnPhones">Its form on phones.</param>
/// <param name="Drops">Days on which its pages drop what an address carries.</param>
/// <param name="SendsBack">True when it sends its confirmations to whoever asks for them.</param>
public sealed record BookingSite(
    string Host,
    string Name,
    FormState Form,
    FormState FormOnPhones,
    IReadOnlyList<(DateOnly First, DateOnly Last)> Drops,
    bool SendsBack
)
{
    /// <summary>True on a day on which a click id that came along in the link arrives at the confirmation.</summary>
    public bool KeepsIdOn(DateOnly day) => !Drops.Any(span => span.First <= day && day <= span.Last);

    /// <summary>Its form on a device.</summary>
    public FormState FormOn(Device device) => device == Device.Phone ? FormOnPhones : Form;
}

/// <summary>A telephone line.</summary>
/// <param name="Number">E.164.</param>
/// <param name="Name">Whose it is.</param>
/// <param name="Hours">When somebody is there, Monday first; none on days without.</param>
/// <param name="Answered">How likely a call is answered then.</param>
/// <param name="Engaged">How likely the line is engaged then.</param>
/// <param name="Talk">Median of the seconds that people talk.</param>
/// <param name="Spread">Spread of its logarithm.</param>
public sealed record PhoneLine(
    string Number,
    string Name,
    IReadOnlyList<(double From, double To)?> Hours,
    double Answered,
    double Engaged,
    double Talk,
    double Spread
)
{
    /// <summary>True when somebody is there.</summary>
    /// <param name="day">Day in the account's time zone.</param>
    /// <param name="hour">Hour of the clock on the wall, with its minutes as a fraction.</param>
    public bool IsStaffed(DayOfWeek day, double hour) =>
        Hours[((int)day + 6) % 7] is { } open && open.From <= hour && hour < open.To;
}
