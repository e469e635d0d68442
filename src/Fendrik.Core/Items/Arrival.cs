namespace Fendrik.Core.Items;

/// <summary>What a field of a new item is when the list that brings it in does not say.</summary>
public enum Arrival
{
    /// <summary>The default of the field.</summary>
    Default,

    /// <summary>The day of the intake in the account's time zone, unless the list has a column of such days.</summary>
    Today,

    /// <summary>Running or paused, as was chosen for the list.</summary>
    AsChosen,
}
