namespace Fendrik.Data.Accounts;

/// <summary>What somebody is doing to an account, for those who wait behind.</summary>
public enum AccountDoing
{
    /// <summary>A change of some rows.</summary>
    Edit,

    /// <summary>Keeping a list that was read.</summary>
    Intake,

    /// <summary>Copying items.</summary>
    Copy,

    /// <summary>Changing texts.</summary>
    Texts,

    /// <summary>Removing items, or bringing them back.</summary>
    Remove,

    /// <summary>Taking back steps.</summary>
    Revert,

    /// <summary>Writing down what the network answered.</summary>
    Publish,

    /// <summary>Writing down what is live.</summary>
    Live,

    /// <summary>Saving searches, or removing them.</summary>
    Searches,
}

/// <summary>The words for each.</summary>
public static class AccountDoings
{
    /// <summary>As it is said of somebody: “Morag Kerr is …”.</summary>
    public static string InWords(this AccountDoing doing) =>
        doing switch
        {
            AccountDoing.Edit => "changing items",
            AccountDoing.Intake => "bringing in a list",
            AccountDoing.Copy => "copying items",
            AccountDoing.Texts => "changing texts",
            AccountDoing.Remove => "removing items",
            AccountDoing.Revert => "taking back a step",
            AccountDoing.Publish => "publishing",
            AccountDoing.Live => "reading the live copy",
            AccountDoing.Searches => "saving searches",
        };
}
