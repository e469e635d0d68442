using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Desk;
using Fendrik.Core.Reporting;
using Fendrik.Server.Access;
using Fendrik.Server.Api.Results;
using Microsoft.AspNetCore.Http.HttpResults;
using Npgsql;

namespace Fendrik.Server.Api.Desk;

/// <summary>What is worth doing in an account.</summary>
/// <param name="Items">Blockers first, then by the money in it.</param>
public sealed record DeskAnswer(IReadOnlyList<DeskItem> Items);

/// <summary>One of a person's accounts in the last seven days that are reported.</summary>
/// <param name="AccountId">The account.</param>
/// <param name="Figures">What it brought, beside the seven days before.</param>
/// <param name="ReturnOnSpend">Value for each unit of money spent.</param>
/// <param name="BySales">True where conversions have values that are sent with them, so that return is what is looked at.</param>
public sealed record AccountOnDesk(int AccountId, ComparedFigures Figures, ComparedFigure ReturnOnSpend, bool BySales);

/// <summary>The start page: what is worth doing in an account, and how all accounts of a person stand.</summary>
internal static class DeskEndpoints
{
    public static void MapDesk(this RouteGroupBuilder account) =>
        account
            .MapGet(
                "/desk",
                async (int accountId, DeskReader desk, CancellationToken cancellation) =>
                    TypedResults.Ok(new DeskAnswer(await desk.ReadAsync(accountId, cancellation)))
            )
            .WithName("readDesk")
            .WithTags(nameof(DeskEndpoints));

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
                select a.id, s.* , exists (select from conversion_action c where c.account_id = a.id and not c.removed and c.source = @sale) as by_sales
                from account a join account_member m on m.account_id = a.id and m.person_id = @person
                cross join lateral (
                  select coalesce(sum(p.impressions) filter (where p.day > a.reported_to - 7), 0)::bigint as impressions, coalesce(sum(p.impressions) filter (where p.day <= a.reported_to - 7), 0)::bigint as impressions_before,
                    coalesce(sum(p.clicks) filter (where p.day > a.reported_to - 7), 0)::bigint as clicks, coalesce(sum(p.clicks) filter (where p.day <= a.reported_to - 7), 0)::bigint as clicks_before,
                    coalesce(sum(p.cost) filter (where p.day > a.reported_to - 7), 0) as cost, coalesce(sum(p.cost) filter (where p.day <= a.reported_to - 7), 0) as cost_before,
                    coalesce(sum(p.conversions) filter (where p.day > a.reported_to - 7), 0) as conversions, coalesce(sum(p.conversions) filter (where p.day <= a.reported_to - 7), 0) as conversions_before,
                    coalesce(sum(p.value) filter (where p.day > a.reported_to - 7), 0) as value, coalesce(sum(p.value) filter (where p.day <= a.reported_to - 7), 0) as value_before
                  from performance_day p where p.account_id = a.id and p.day > a.reported_to - 14
                ) s order by a.name, a.id
                """,
                new { person = context.User.PersonId(), sale = (short)Core.Items.ConversionSource.Sale },
                cancellationToken: cancellation
            )
        );
        return TypedResults.Ok<IReadOnlyList<AccountOnDesk>>([
            .. rows.Select(row => new AccountOnDesk(
                row.Id,
                ResultsEndpoints.Compare(
                    new Figures(row.Impressions, row.Clicks, row.Cost, row.Conversions, row.Value),
                    new Figures(
                        row.ImpressionsBefore,
                        row.ClicksBefore,
                        row.CostBefore,
                        row.ConversionsBefore,
                        row.ValueBefore
                    ),
                    null,
                    null
                ),
                ReturnOf(row),
                row.BySales
            )),
        ]);
    }

    private static ComparedFigure ReturnOf(Row row)
    {
        var (now, before) = (
            row.Cost > 0 ? row.Value / row.Cost : (decimal?)null,
            row.CostBefore > 0 ? row.ValueBefore / row.CostBefore : (decimal?)null
        );
        return new ComparedFigure(now, before, Figures.Change(before, now));
    }

    private sealed record Row
    {
        public int Id { get; init; }
        public long Impressions { get; init; }
        public long ImpressionsBefore { get; init; }
        public long Clicks { get; init; }
        public long ClicksBefore { get; init; }
        public decimal Cost { get; init; }
        public decimal CostBefore { get; init; }
        public decimal Conversions { get; init; }
        public decimal ConversionsBefore { get; init; }
        public decimal Value { get; init; }
        public decimal ValueBefore { get; init; }
        public bool BySales { get; init; }
    }
}
