using System.ComponentModel.DataAnnotations;
using System.Security.Cryptography;
using System.Text;
using Fendrik.Data.People;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.WebUtilities;

namespace Fendrik.Server.Api.People;

/// <summary>Somebody who works on the account.</summary>
/// <param name="PersonId">Who.</param>
/// <param name="Name">What they are called.</param>
/// <param name="Email">Their e-mail address.</param>
/// <param name="Role">What they are here.</param>
/// <param name="IsSelf">True for who asks.</param>
public sealed record MemberView(string PersonId, string Name, string Email, AccountRole Role, bool IsSelf);

/// <summary>A role that can be given.</summary>
/// <param name="Role">The role.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Meaning">What somebody of it does.</param>
public sealed record RoleChoice(AccountRole Role, string Name, string Meaning);

/// <summary>Who works on an account.</summary>
/// <param name="Members">Those who do, owners first.</param>
/// <param name="Invitations">Those who were asked; told to owners only.</param>
/// <param name="Roles">What people can be, the least first.</param>
public sealed record PeopleAnswer(
    IReadOnlyList<MemberView> Members,
    IReadOnlyList<Invitation> Invitations,
    IReadOnlyList<RoleChoice> Roles
);

/// <summary>Whom to ask, and as what.</summary>
/// <param name="Email">Their e-mail address.</param>
/// <param name="Role">What they will be.</param>
public sealed record NewInvitation(string Email, AccountRole Role);

/// <summary>An invitation that was made.</summary>
/// <param name="Invitation">The invitation.</param>
/// <param name="Key">What the link holds. It is told once, and is not kept.</param>
public sealed record MadeInvitation(Invitation Invitation, string Key);

/// <summary>What a member is to be.</summary>
/// <param name="Role">The role.</param>
public sealed record NewRole(AccountRole Role);

/// <summary>Who works on an account, as what.</summary>
internal static class PeopleEndpoints
{
    private const int BytesOfKey = 32;
    private const int LongestEmail = 200;

    public static void MapPeople(this RouteGroupBuilder account)
    {
        account.MapGet("/people", ListAsync).WithName("listPeople");
        account.MapPut("/people/{personId}", ChangeAsync).WithName("changeRole").Needs(AccountRight.People);
        account.MapDelete("/people/{personId}", RemoveAsync).WithName("removePerson").Needs(AccountRight.People);
        account.MapPost("/invitations", InviteAsync).WithName("invite").Needs(AccountRight.People);
        account
            .MapDelete("/invitations/{invitationId:guid}", WithdrawAsync)
            .WithName("withdrawInvitation")
            .Needs(AccountRight.People);
    }

    /// <summary>What is kept of the key in a link.</summary>
    public static byte[] HashOf(string key) => SHA256.HashData(Encoding.UTF8.GetBytes(key));

    private static async Task<Ok<PeopleAnswer>> ListAsync(
        int accountId,
        HttpContext context,
        MemberBook members,
        InvitationBook invitations,
        CancellationToken cancellation
    )
    {
        var self = context.User.PersonId();
        var all = await members.ListAsync(accountId, cancellation);
        var mayInvite = all.Any(each => each.PersonId == self && each.Role.May(AccountRight.People));
        return TypedResults.Ok(
            new PeopleAnswer(
                [
                    .. all.Select(each => new MemberView(
                        each.PersonId,
                        each.Name,
                        each.Email,
                        each.Role,
                        each.PersonId == self
                    )),
                ],
                mayInvite ? await invitations.ListAsync(accountId, cancellation) : [],
                [
                    .. Enum.GetValues<AccountRole>()
                        .Select(role => new RoleChoice(role, AccountRoles.NameOf(role), AccountRoles.MeaningOf(role))),
                ]
            )
        );
    }

    private static async Task<NoContent> ChangeAsync(
        int accountId,
        string personId,
        NewRole body,
        MemberBook members,
        CancellationToken cancellation
    )
    {
        await members.ChangeAsync(accountId, personId, Known(body.Role), cancellation);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RemoveAsync(
        int accountId,
        string personId,
        MemberBook members,
        CancellationToken cancellation
    )
    {
        await members.RemoveAsync(accountId, personId, cancellation);
        return TypedResults.NoContent();
    }

    private static async Task<Ok<MadeInvitation>> InviteAsync(
        int accountId,
        NewInvitation body,
        HttpContext context,
        InvitationBook invitations,
        CancellationToken cancellation
    )
    {
        var email = (body.Email ?? "").Trim();
        if (email.Length > LongestEmail || !new EmailAddressAttribute().IsValid(email))
        {
            throw new InvalidChangeException("email", "Write one e-mail address, such as name@company.example.");
        }

        var key = WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(BytesOfKey));
        var invitation = await invitations.AddAsync(
            accountId,
            email,
            Known(body.Role),
            context.User.PersonId(),
            HashOf(key),
            cancellation
        );
        return TypedResults.Ok(new MadeInvitation(invitation, key));
    }

    private static async Task<NoContent> WithdrawAsync(
        int accountId,
        Guid invitationId,
        InvitationBook invitations,
        CancellationToken cancellation
    ) =>
        await invitations.WithdrawAsync(accountId, invitationId, cancellation)
            ? TypedResults.NoContent()
            : throw new InvalidChangeException("invitation", "It was used or taken back already.");

    private static AccountRole Known(AccountRole role) =>
        Enum.IsDefined(role) ? role : throw new InvalidChangeException("role", "Choose what they will be.");
}
