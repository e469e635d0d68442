namespace Fendrik.Network.Worlds;

/// <summary>How far somebody is with a need.</summary>
public enum Stage
{
    /// <summary>Looks what there is.</summary>
    Look = 0,

    /// <summary>Compares who has it.</summary>
    Compare = 1,

    /// <summary>Wants it now.</summary>
    Act = 2,
}

/// <summary>By which way people get in touch.</summary>
public enum Way
{
    /// <summary>By telephone.</summary>
    Call = 1,

    /// <summary>By a form on the page.</summary>
    Form = 2,

    /// <summary>By a booking on another company's site.</summary>
    Booking = 3,

    /// <summary>By buying in the shop.</summary>
    Purchase = 4,
}

/// <summary>Why people search. Columns of needs.tsv.</summary>
public sealed record Need
{
    /// <summary>Its number in the names of searches, from 0.</summary>
    public required int Number { get; init; }

    /// <summary>Its name.</summary>
    public required string Id { get; init; }

    /// <summary>People of 100,000 who come to have it in a week.</summary>
    public required double People { get; init; }

    /// <summary>How that lies over the 168 hours of a week, Monday first: 1 is usual.</summary>
    public required IReadOnlyList<double> Week { get; init; }

    /// <summary>How it lies over the year: 1 is usual.</summary>
    public required Season Season { get; init; }

    /// <summary>Share of searches on phones.</summary>
    public required double Phone { get; init; }

    /// <summary>Share on tablets.</summary>
    public required double Tablet { get; init; }

    /// <summary>Share of people below 35.</summary>
    public required double Young { get; init; }

    /// <summary>Share of people from 55 on.</summary>
    public required double Old { get; init; }

    /// <summary>Share of women.</summary>
    public required double Female { get; init; }

    /// <summary>Share of people in a hurry.</summary>
    public required double Urgent { get; init; }

    /// <summary>Median of what getting in touch is worth, in pounds.</summary>
    public required double Worth { get; init; }

    /// <summary>Spread of its logarithm.</summary>
    public required double Spread { get; init; }

    /// <summary>How far people go for it, in kilometres.</summary>
    public required double Far { get; init; }

    /// <summary>How people get in touch, with weights.</summary>
    public required IReadOnlyList<(Way Way, double Weight)> Ways { get; init; }

    /// <summary>How likely somebody who finds all that is wanted gets in touch; 0 for those who want nothing of the kind.</summary>
    public required double Earnest { get; init; }

    /// <summary>Hours between two searches of a person, on average, and until a decision.</summary>
    public required double Gap { get; init; }

    /// <summary>Searches after the first, on average.</summary>
    public required double Searches { get; init; }

    /// <summary>Share of people who search from elsewhere in the country.</summary>
    public required double Away { get; init; }

    /// <summary>Share of people who search from abroad, and want it there.</summary>
    public required double Abroad { get; init; }

    /// <summary>What is left of it on holidays.</summary>
    public required double Holiday { get; init; }

    /// <summary>What is left of it in school holidays.</summary>
    public required double School { get; init; }

    /// <summary>Growth in a year: 0.1 is a tenth.</summary>
    public required double Trend { get; init; }

    /// <summary>How likely a usual ad is clicked by somebody who looks at it.</summary>
    public required double Clicks { get; init; }

    /// <summary>Bid in pounds that a middling score needs above the results.</summary>
    public required double Top { get; init; }

    /// <summary>The same below them.</summary>
    public required double Bottom { get; init; }

    /// <summary>What is typed, by stage.</summary>
    public required IReadOnlyList<IReadOnlyList<(Phrase Phrase, double Weight)>> Phrases { get; init; }
}

/// <summary>How something lies over the year, by the middles of the months.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Months">January first: 1 is usual.</param>
public sealed record Season(string Name, IReadOnlyList<double> Months)
{
    /// <summary>The factor of a day, in a straight line between the middles of months.</summary>
    public double On(DateOnly day)
    {
        var at = day.Month - 1 + (day.Day - 0.5) / DateTime.DaysInMonth(day.Year, day.Month) - 0.5;
        var before = (int)Math.Floor(at);
        var share = at - before;
        return Months[(before + 12) % 12] * (1 - share) + Months[(before + 13) % 12] * share;
    }
}
