namespace Fendrik.Server.Access;

/// <summary>What somebody must be allowed to, to call an endpoint of an account.</summary>
/// <param name="Right">The right.</param>
public sealed record EndpointRight(AccountRight Right)
{
    /// <summary>What an endpoint needs: what it says, or else looking for what is read and changing for all other.</summary>
    public static AccountRight Of(EndpointMetadataCollection metadata, string method) =>
        metadata.GetMetadata<EndpointRight>()?.Right
        ?? (HttpMethods.IsGet(method) ? AccountRight.Look : AccountRight.Change);
}

/// <summary>Says of endpoints what they need.</summary>
internal static class EndpointRights
{
    /// <summary>Only for people whose role has this right at the account.</summary>
    public static T Needs<T>(this T endpoint, AccountRight right)
        where T : IEndpointConventionBuilder => endpoint.WithMetadata(new EndpointRight(right));
}
