using System.Security.Cryptography;
using System.Text;
using Fendrik.Data.Model;
using Fendrik.Data.People;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;

namespace Fendrik.Server.Access;

/// <summary>How an attempt to show who one is ended.</summary>
internal enum Shown
{
    /// <summary>They are who they say.</summary>
    Right,

    /// <summary>The password is not right, or the code, or there is no such person.</summary>
    Wrong,

    /// <summary>The password is right; a code of the second factor is missing.</summary>
    NeedsCode,

    /// <summary>After wrong attempts there is a wait.</summary>
    Waits,
}

/// <summary>The end of an attempt.</summary>
/// <param name="How">How it ended.</param>
/// <param name="Person">Whose it was; none where there is no such person.</param>
/// <param name="Wait">How long the wait is.</param>
internal sealed record Showing(Shown How, Person? Person, TimeSpan Wait)
{
    /// <summary>What to say of a wait.</summary>
    public string WaitText =>
        $"Too many attempts. Try again in {(Wait < TimeSpan.FromMinutes(1.5) ? $"{Math.Ceiling(Wait.TotalSeconds)} seconds" : $"{Math.Ceiling(Wait.TotalMinutes)} minutes")}.";
}

/// <summary>
/// Looks at what people show of themselves: a password, and a code where they have a second factor. Whether there is such a person cannot be told by the answer nor
/// by how long it takes.
/// </summary>
internal sealed class PasswordDesk(
    UserManager<Person> people,
    IPasswordHasher<Person> hasher,
    SignInBook signIns,
    AttemptBook attempts,
    FactorBook factors,
    IDataProtectionProvider protection,
    TimeProvider clock
)
{
    /// <summary>A password that nobody has, to look at where there is nobody: hashed once, with as much work as any.</summary>
    private static string? _nobodys;

    private readonly IDataProtector _protector = protection.CreateProtector("Fendrik.SecondFactors");

    /// <summary>Looks at an attempt from an address.</summary>
    /// <param name="email">Who they say they are.</param>
    /// <param name="password">Their password.</param>
    /// <param name="code">A code of their second factor, or a recovery code; none where they said none.</param>
    /// <param name="context">The request that they are shown by.</param>
    /// <param name="cancellation">Stops it.</param>
    public async Task<Showing> LookAsync(
        string email,
        string password,
        string? code,
        HttpContext context,
        CancellationToken cancellation
    )
    {
        var address = SignInTickets.NetworkOf(context);
        var person = await people.FindByNameAsync(email);
        var isHome = await signIns.IsHomeAsync(person?.Id ?? "", SignInTickets.AddressOf(context), cancellation);
        if (await attempts.BeginAsync(email, address, isHome, cancellation) is { } wait)
        {
            return new Showing(Shown.Waits, person, wait);
        }

        _nobodys ??= hasher.HashPassword(new Person(), Convert.ToHexString(RandomNumberGenerator.GetBytes(32)));
        var verified = hasher.VerifyHashedPassword(person ?? new Person(), person?.PasswordHash ?? _nobodys, password);
        if (verified == PasswordVerificationResult.Failed || person is null)
        {
            return new Showing(Shown.Wrong, person, TimeSpan.Zero);
        }

        if (await factors.FindAsync(person.Id, cancellation) is { Confirmed: true } factor)
        {
            if (string.IsNullOrWhiteSpace(code))
            {
                await attempts.NotWrongAsync(email, address, isHome, cancellation);
                return new Showing(Shown.NeedsCode, person, TimeSpan.Zero);
            }

            if (!await IsCodeAsync(person, factor, code, cancellation))
            {
                return new Showing(Shown.Wrong, person, TimeSpan.Zero);
            }
        }

        if (verified == PasswordVerificationResult.SuccessRehashNeeded)
        {
            // Made with less work than is usual now.
            person.PasswordHash = hasher.HashPassword(person, password);
            await people.UpdateAsync(person);
        }

        await attempts.RightAsync(email, address, isHome, cancellation);
        return new Showing(Shown.Right, person, TimeSpan.Zero);
    }

    /// <summary>Uses a code of a person's device: the first one confirms it.</summary>
    /// <returns>False where it is not right, or was used.</returns>
    public async Task<bool> UseCodeAsync(Person person, string code, CancellationToken cancellation) =>
        await factors.FindAsync(person.Id, cancellation) is { } factor
        && TimeCodes.StepOf(_protector.Unprotect(factor.Secret), code, clock.GetUtcNow(), factor.UsedStep) is { } step
        && await factors.UseAsync(person.Id, step, cancellation);

    /// <summary>Keeps a new secret, to be confirmed by a code.</summary>
    /// <returns>The secret; none where one holds already.</returns>
    public async Task<byte[]?> BeginFactorAsync(Person person, CancellationToken cancellation)
    {
        var secret = RandomNumberGenerator.GetBytes(TimeCodes.BytesOfSecret);
        return await factors.BeginAsync(person.Id, _protector.Protect(secret), cancellation) ? secret : null;
    }

    /// <summary>Makes recovery codes in place of those of before. They are told once.</summary>
    public async Task<IReadOnlyList<string>> NewRecoveryCodesAsync(Person person, CancellationToken cancellation)
    {
        const int Codes = 8;
        const int Letters = 12;
        // Letters and digits that are not taken for one another.
        string[] codes =
        [
            .. Enumerable
                .Range(0, Codes)
                .Select(_ => RandomNumberGenerator.GetString("ABCDEFGHJKMNPQRSTUVWXYZ23456789", Letters)),
        ];
        await factors.RenewRecoveryAsync(person.Id, [.. codes.Select(HashOf)], cancellation);
        return [.. codes.Select(each => string.Join('-', each.Chunk(4).Select(part => new string(part))))];
    }

    private async Task<bool> IsCodeAsync(
        Person person,
        KeptFactor factor,
        string code,
        CancellationToken cancellation
    ) =>
        TimeCodes.StepOf(_protector.Unprotect(factor.Secret), code, clock.GetUtcNow(), factor.UsedStep) is { } step
            ? await factors.UseAsync(person.Id, step, cancellation)
            : await factors.UseRecoveryAsync(person.Id, HashOf(code), cancellation);

    private static byte[] HashOf(string code) =>
        SHA256.HashData(Encoding.UTF8.GetBytes(string.Concat(code.Where(char.IsLetterOrDigit)).ToUpperInvariant()));
}
