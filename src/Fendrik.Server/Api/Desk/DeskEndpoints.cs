using Dapper;
using Fendrik.Core.Checks;
using Fendrik.Core.Desk;
using Fendrik.Core.Reporting;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;
using Npgsql;

namespace Fendrik.Server.Api.Desk;

/// <summary>What is worth doing in an account.</summary>
/// <param name="Items">Blockers first, then by the money in it.</param>
public sealed record DeskAnswer(IReadOnlyList<DeskItem> Items);

/// <summary>One of a person's accounts in the last seven days that are reported.</summary>
/// <param name="AccountId">The account.</param>
/// <param name="Cost">What it cost.</param>
/// <param name="JudgedBy">What it is judged by, as it is written: the return where it counts sales, else what a conversion costs; none without.</param>
/// <param name="Change">How that changed against the seven days before, as a share.</param>
/// <param name="Blockers">What stops publishing.</param>
/// <param name="Cautions">What is likely a mistake.</param>
/// <param name="Conversions">What it brought.</param>
/// <param name="CostPerConversion">What one of them cost; none where there were none.</param>
/// <param name="ReportedTo">The last day that is reported; none for none.</param>
public sealed record AccountOnDesk(
    int AccountId,
    decimal Cost,
    string? JudgedBy,
    decimal? Change,
    int Blockers,
    int Cautions,
    decimal Conversions,
    decimal? CostPerConversion,
    DateOnly? ReportedTo
);

/// <summary>The start page: what is worth doing in an account, and how all accounts of a person stand.</summary>
internal static class DeskEndpoints
{
    public static void MapDesk(this RouteGroupBuilder account)
    {
        account
            .MapGet(
                "/desk",
                async (int accountId, DeskReader desk, CancellationToken cancellation) =>
                    TypedResults.Ok(new DeskAnswer(await desk.ReadAsync(accountId, cancellation)))
            )
            .WithName("readDesk")
            .WithTags(nameof(DeskEndpoints));
        account
            .MapGet("/desk/digest", DigestAsync)
            .WithName("readDigest")
            .Produces(StatusCodes.Status200OK, contentType: "text/html");
    }

    /// <summary>The desk as a file, to be sent to somebody or kept.</summary>
    private static async Task<FileContentHttpResult> DigestAsync(
        int accountId,
        DeskDigest digest,
        CancellationToken cancellation
    )
    {
        var (day, page) = await digest.ReadAsync(accountId, cancellation);
        return TypedResults.File(
            System.Text.Encoding.UTF8.GetBytes(page),
            "text/html; charset=utf-8",
            $"desk-{day ?? DateOnly.MinValue:yyyy-MM-dd}.html"
        );
    }

    public static void MapAccountsOnDesk(this IEndpointRouteBuilder routes) =>
        routes.MapGet("/api/desk/accounts", AccountsAsync).RequireAuthorization().WithName("readAccountsOnDesk");

    /// <summary>One query for all accounts: somebody may have fifty.</summary>
    private static async Task<Ok<IReadOnlyList<AccountOnDesk>>> AccountsAsync(
        HttpContext context,
        NpgsqlDataSource source,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<Row>(
            new CommandDefinition(
                """
                select a.id, a.currency, s.*, exists (select from conversion_action c where c.account_id = a.id and not c.removed and c.source = @sale) as by_sales,
                  a.reported_to, w.blockers, w.cautions
                from account a join account_member m on m.account_id = a.id and m.person_id = @person
                cross join lateral (
                  select count(*) filter (where f.weight = @blocker)::int as blockers, count(*) filter (where f.weight = @caution)::int as cautions
                  from (select account_id, weight from finding union all select account_id, weight from account_finding) f where f.account_id = a.id
                ) w
                cross join lateral (
                  select coalesce(sum(p.cost) filter (where p.day > a.reported_to - 7), 0) as cost, coalesce(sum(p.cost) filter (where p.day <= a.reported_to - 7), 0) as cost_before,
                    coalesce(sum(p.conversions) filter (where p.day > a.reported_to - 7), 0) as conversions,
                    coalesce(sum(p.conversions) filter (where p.day <= a.reported_to - 7), 0) as conversions_before,
                    coalesce(sum(p.value) filter (where p.day > a.reported_to - 7), 0) as value, coalesce(sum(p.value) filter (where p.day <= a.reported_to - 7), 0) as value_before
                  from performance_campaign p where p.account_id = a.id and p.day > a.reported_to - 14
                ) s order by a.name, a.id
                """,
                new
                {
                    person = context.User.PersonId(),
                    sale = (short)ConversionSource.Sale,
                    blocker = (short)Weight.Blocker,
                    caution = (short)Weight.Caution,
                },
                cancellationToken: cancellation
            )
        );
        return TypedResults.Ok<IReadOnlyList<AccountOnDesk>>([
            .. rows.Select(row =>
            {
                var (now, before) = (
                    new Figures(0, 0, row.Cost, row.Conversions, row.Value),
                    new Figures(0, 0, row.CostBefore, row.ConversionsBefore, row.ValueBefore)
                );
                var standing = AccountStanding.Of(now, before, row.BySales);
                return new AccountOnDesk(
                    row.Id,
                    row.Cost,
                    standing.InWords(Currency.Of(row.Currency)),
                    standing.Change,
                    row.Blockers,
                    row.Cautions,
                    row.Conversions,
                    now.CostPerConversion,
                    row.ReportedTo
                );
            }),
        ]);
    }

    private sealed record Row
    {
        public int Id { get; init; }
        public string Currency { get; init; } = "";
        public int Blockers { get; init; }
        public int Cautions { get; init; }
        public DateOnly? ReportedTo { get; init; }
        public decimal Cost { get; init; }
        public decimal CostBefore { get; init; }
        public decimal Conversions { get; init; }
        public decimal ConversionsBefore { get; init; }
        public decimal Value { get; init; }
        public decimal ValueBefore { get; init; }
        public bool BySales { get; init; }
    }
}
