namespace Fendrik.Core.Intake;

/// <summary>What a row of a list asks for.</summary>
public enum RowIntent
{
    /// <summary>Add what is not there, change what is there and says otherwise.</summary>
    AddAndChange = 1,

    /// <summary>Add what is not there; leave what is there.</summary>
    Add = 2,

    /// <summary>Change what is there; add nothing.</summary>
    Change = 3,

    /// <summary>Take away what is there.</summary>
    Remove = 4,
}

/// <summary>Optional values that a row says to take away, by an empty cell in a list where empty cells do so.</summary>
[Flags]
public enum ClearedValues
{
    /// <summary>None.</summary>
    None = 0,

    /// <summary>The campaign's daily budget.</summary>
    DailyBudget = 1,

    /// <summary>The campaign's first day.</summary>
    StartDate = 2,

    /// <summary>The campaign's last day.</summary>
    EndDate = 4,

    /// <summary>Max CPC of the keyword or ad group.</summary>
    MaxCpc = 8,

    /// <summary>The keyword's own landing page.</summary>
    FinalUrl = 16,

    /// <summary>The labels.</summary>
    Labels = 32,
}
