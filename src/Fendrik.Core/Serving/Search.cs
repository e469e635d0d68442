namespace Fendrik.Core.Serving;

/// <summary>A search that somebody makes.</summary>
/// <param name="Text">What is typed.</param>
/// <param name="Device">On which device.</param>
/// <param name="Site">On which kind of site; just one.</param>
/// <param name="Day">Day in the account's time zone.</param>
public sealed record Search(string Text, Device Device, SiteKinds Site, DateOnly Day);
