namespace Fendrik.Core.Accounts;

/// <summary>What a person is at an account. Each may do what those before it may.</summary>
public enum AccountRole
{
    /// <summary>Looks at everything, takes it out as files, and says what they think of what is shown to them.</summary>
    Reader = 1,

    /// <summary>Changes the working copy.</summary>
    Editor = 2,

    /// <summary>Sends changes to the network, and does what costs money there.</summary>
    Publisher = 3,

    /// <summary>Says who else works here, and as what.</summary>
    Owner = 4,
}

/// <summary>What can be done at an account.</summary>
public enum AccountRight
{
    /// <summary>Look, ask, take out.</summary>
    Look,

    /// <summary>Change what is kept here.</summary>
    Change,

    /// <summary>Change what is outside: ads that run, numbers that are rented, who pays.</summary>
    Publish,

    /// <summary>Invite people, give them roles, remove them; rename and archive the account.</summary>
    People,
}

/// <summary>Which role may do what.</summary>
public static class AccountRoles
{
    /// <summary>True where a person of this role may do this.</summary>
    public static bool May(this AccountRole role, AccountRight right) => role >= LeastOf(right);

    /// <summary>True where this may be done at an account that is put away: it is looked at, and its owners bring it back.</summary>
    public static bool MayWhenArchived(AccountRight right) =>
        right switch
        {
            AccountRight.Look or AccountRight.People => true,
            AccountRight.Change or AccountRight.Publish => false,
        };

    /// <summary>The least role that may do this.</summary>
    public static AccountRole LeastOf(AccountRight right) =>
        right switch
        {
            AccountRight.Look => AccountRole.Reader,
            AccountRight.Change => AccountRole.Editor,
            AccountRight.Publish => AccountRole.Publisher,
            AccountRight.People => AccountRole.Owner,
        };

    /// <summary>What a role is called.</summary>
    public static string NameOf(AccountRole role) =>
        role switch
        {
            AccountRole.Reader => "reader",
            AccountRole.Editor => "editor",
            AccountRole.Publisher => "publisher",
            AccountRole.Owner => "owner",
        };

    /// <summary>What somebody of a role may do, in words that go on from “may”.</summary>
    public static string MeaningOf(AccountRole role) =>
        role switch
        {
            AccountRole.Reader => "look at everything, take it out, and say what you think of it",
            AccountRole.Editor => "look at everything and change the working copy",
            AccountRole.Publisher => "change the working copy, publish it, rent numbers and say who pays",
            AccountRole.Owner => "do everything, and say who works here",
        };

    /// <summary>What to tell somebody whose role may not do this.</summary>
    public static string RefusalOf(AccountRole role, AccountRight right) =>
        $"You are {(role is AccountRole.Editor or AccountRole.Owner ? "an" : "a")} {NameOf(role)} of this account: "
        + right switch
        {
            AccountRight.Look => "you may not look at it.",
            AccountRight.Change => "you may look, and not change.",
            AccountRight.Publish => "you may change the working copy, and not publish.",
            AccountRight.People => "you may not say who works here.",
        }
        + $" Ask an owner to make you {(LeastOf(right) is AccountRole.Editor or AccountRole.Owner ? "an" : "a")} {NameOf(LeastOf(right))}.";
}
