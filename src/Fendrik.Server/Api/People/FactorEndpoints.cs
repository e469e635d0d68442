using Fendrik.Data.Model;
using Fendrik.Data.People;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;

namespace Fendrik.Server.Api.People;

/// <summary>Whether a second factor is asked for.</summary>
/// <param name="IsOn">True where it is.</param>
/// <param name="RecoveryLeft">How many recovery codes are left.</param>
public sealed record FactorState(bool IsOn, int RecoveryLeft);

/// <summary>What a device is given.</summary>
/// <param name="Secret">The secret as it is typed.</param>
/// <param name="Address">The same as an address, which devices read from a picture.</param>
public sealed record FactorSecret(string Secret, string Address);

/// <summary>What a person shows to change how they sign in.</summary>
/// <param name="Password">Their password.</param>
/// <param name="Code">A code of the second factor, where it is on.</param>
public sealed record FactorProof(string Password, string? Code = null);

/// <summary>A code that a device shows.</summary>
/// <param name="Code">The code.</param>
public sealed record FactorCode(string Code);

/// <summary>Codes for whoever has lost the device; each holds once.</summary>
/// <param name="Codes">The codes. They are told once.</param>
public sealed record RecoveryCodes(IReadOnlyList<string> Codes);

/// <summary>A second factor beside the password: codes of a device (RFC 6238), and recovery codes.</summary>
internal static class FactorEndpoints
{
    public static void MapSecondFactor(this RouteGroupBuilder own)
    {
        own.MapGet("/second-factor", ReadAsync).WithName("readSecondFactor");
        own.MapPost("/second-factor", BeginAsync).WithName("beginSecondFactor");
        own.MapPost("/second-factor/confirm", ConfirmAsync).WithName("confirmSecondFactor");
        own.MapPost("/second-factor/codes", RenewAsync).WithName("renewRecoveryCodes");
        own.MapPost("/second-factor/off", OffAsync).WithName("turnSecondFactorOff");
    }

    private static async Task<Ok<FactorState>> ReadAsync(
        HttpContext context,
        FactorBook factors,
        CancellationToken cancellation
    )
    {
        var person = context.User.PersonId();
        return TypedResults.Ok(
            new FactorState(
                await factors.FindAsync(person, cancellation) is { Confirmed: true },
                await factors.RecoveryLeftAsync(person, cancellation)
            )
        );
    }

    /// <summary>Nothing is asked for yet: a device that was not set up right would lock its person out.</summary>
    private static async Task<Ok<FactorSecret>> BeginAsync(
        FactorProof body,
        HttpContext context,
        UserManager<Person> people,
        PasswordDesk desk,
        CancellationToken cancellation
    )
    {
        var person = await ProvenAsync(context, people, desk, body, cancellation);
        var secret =
            await desk.BeginFactorAsync(person, cancellation)
            ?? throw new InvalidChangeException("password", "A second factor is on already. Turn it off first.");
        return TypedResults.Ok(new FactorSecret(TimeCodes.Written(secret), TimeCodes.AddressOf(secret, person.Email!)));
    }

    private static async Task<Ok<RecoveryCodes>> ConfirmAsync(
        FactorCode body,
        HttpContext context,
        UserManager<Person> people,
        FactorBook factors,
        PasswordDesk desk,
        CancellationToken cancellation
    )
    {
        var person = await SelfAsync(context, people);
        if (await factors.FindAsync(person.Id, cancellation) is not { Confirmed: false })
        {
            throw new InvalidChangeException("code", "There is nothing to confirm. Begin anew.");
        }

        return await desk.UseCodeAsync(person, body.Code ?? "", cancellation)
            ? TypedResults.Ok(new RecoveryCodes(await desk.NewRecoveryCodesAsync(person, cancellation)))
            : throw new InvalidChangeException(
                "code",
                "That is not what the device should show now. Look whether its clock is right, and type the next code."
            );
    }

    private static async Task<Ok<RecoveryCodes>> RenewAsync(
        FactorProof body,
        HttpContext context,
        UserManager<Person> people,
        FactorBook factors,
        PasswordDesk desk,
        CancellationToken cancellation
    )
    {
        var person = await ProvenAsync(context, people, desk, body, cancellation);
        return await factors.FindAsync(person.Id, cancellation) is { Confirmed: true }
            ? TypedResults.Ok(new RecoveryCodes(await desk.NewRecoveryCodesAsync(person, cancellation)))
            : throw new InvalidChangeException("code", "There is no second factor that these would be for.");
    }

    private static async Task<NoContent> OffAsync(
        FactorProof body,
        HttpContext context,
        UserManager<Person> people,
        FactorBook factors,
        PasswordDesk desk,
        CancellationToken cancellation
    )
    {
        var person = await ProvenAsync(context, people, desk, body, cancellation);
        await factors.RemoveAsync(person.Id, cancellation);
        return TypedResults.NoContent();
    }

    private static async Task<Person> SelfAsync(HttpContext context, UserManager<Person> people) =>
        await people.GetUserAsync(context.User)
        ?? throw new InvalidChangeException("password", "You are not signed in any more.");

    /// <summary>Who took over a screen has neither the password nor the device, and tries neither at leisure.</summary>
    private static async Task<Person> ProvenAsync(
        HttpContext context,
        UserManager<Person> people,
        PasswordDesk desk,
        FactorProof proof,
        CancellationToken cancellation
    )
    {
        var person = await SelfAsync(context, people);
        var showing = await desk.LookAsync(person.UserName!, proof.Password ?? "", proof.Code, context, cancellation);
        return showing.How switch
        {
            Shown.Right => person,
            Shown.Wrong => throw new InvalidChangeException(
                "password",
                string.IsNullOrWhiteSpace(proof.Code)
                    ? "That is not your password."
                    : "The password or the code is not right."
            ),
            Shown.NeedsCode => throw new InvalidChangeException("code", "Type the code that your device shows."),
            Shown.Waits => throw new InvalidChangeException("password", showing.WaitText),
        };
    }
}
