using System.Globalization;
using System.Threading.RateLimiting;
using Microsoft.AspNetCore.RateLimiting;

namespace Fendrik.Server.Access;

/// <summary>
/// How often somebody may ask for what costs much: files that are brought in, what reads an account whole, and trying to get in. Each server counts for itself;
/// what waits for wrong passwords is counted in the database (see <see cref="PasswordDesk"/>).
/// </summary>
internal static class RequestLimits
{
    /// <summary>Bringing files in.</summary>
    public const string Uploads = "uploads";

    /// <summary>What reads much of an account: files that are taken out, traces of many searches.</summary>
    public const string WholeReads = "whole-reads";

    /// <summary>Signing in and joining, by whomever.</summary>
    public const string Entrance = "entrance";

    /// <summary>Sets the limits up.</summary>
    /// <param name="services">The services.</param>
    /// <param name="scale">How many times the usual may be asked for.</param>
    public static void Add(IServiceCollection services, int scale) =>
        services.AddRateLimiter(options =>
        {
            options.RejectionStatusCode = StatusCodes.Status429TooManyRequests;
            options.AddPolicy(Uploads, context => Bucket(PersonOf(context), 20, TimeSpan.FromSeconds(3), scale));
            options.AddPolicy(WholeReads, context => Bucket(PersonOf(context), 30, TimeSpan.FromSeconds(1), scale));
            options.AddPolicy(
                Entrance,
                context => Bucket(SignInTickets.NetworkOf(context), 60, TimeSpan.FromSeconds(1), scale)
            );
            // RFC 6585, section 4: the answer says what happened, and when to come back.
            options.OnRejected = async (refused, _) =>
            {
                var wait = refused.Lease.TryGetMetadata(MetadataName.RetryAfter, out var known)
                    ? known
                    : TimeSpan.FromSeconds(1);
                var seconds = Math.Max(1, (int)Math.Ceiling(wait.TotalSeconds));
                refused.HttpContext.Response.Headers.RetryAfter = seconds.ToString(CultureInfo.InvariantCulture);
                await Results
                    .Problem(
                        title: $"That was asked for very often. Nothing was done; try again in {(seconds == 1 ? "a second" : $"{seconds} seconds")}.",
                        statusCode: StatusCodes.Status429TooManyRequests
                    )
                    .ExecuteAsync(refused.HttpContext);
            };
        });

    private static string PersonOf(HttpContext context) =>
        context.User.Identity?.IsAuthenticated == true ? context.User.PersonId() : SignInTickets.NetworkOf(context);

    private static RateLimitPartition<string> Bucket(string whose, int most, TimeSpan each, int scale) =>
        RateLimitPartition.GetTokenBucketLimiter(
            whose,
            _ => new TokenBucketRateLimiterOptions
            {
                TokenLimit = most * scale,
                TokensPerPeriod = scale,
                ReplenishmentPeriod = each,
                QueueLimit = 0,
            }
        );
}
