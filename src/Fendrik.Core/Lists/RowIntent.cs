namespace Fendrik.Core.Lists;

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

/// <summary>How people write what a row asks for.</summary>
public static class RowIntents
{
    /// <summary>Reads what a row asks for; none when the word is no such thing.</summary>
    public static RowIntent? Read(string cell) =>
        TextIdentity.Of(cell) switch
        {
            "add or change" or "add and change" or "both" => RowIntent.AddAndChange,
            "add" or "new" or "create" => RowIntent.Add,
            "change" or "update" or "edit" or "set" => RowIntent.Change,
            "remove" or "delete" or "take away" => RowIntent.Remove,
            _ => null,
        };
}
