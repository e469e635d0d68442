using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Sums of figures by item for the days that sheets show. Unlogged: after a crash they are added up again.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126021000_FigureSums")]
internal sealed class FigureSums : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            alter table account add column report_revision bigint not null default 0;
            create unlogged table figure_period (
              id bigint generated always as identity primary key,
              account_id integer not null references account (id) on delete cascade,
              kind smallint not null,
              first_day date not null,
              last_day date not null,
              report_revision bigint not null,
              unique (account_id, kind, first_day, last_day, report_revision)
            );
            create unlogged table figure_sum (
              period_id bigint not null references figure_period (id) on delete cascade,
              item_id bigint not null,
              impressions bigint not null,
              clicks bigint not null,
              cost numeric(14,3) not null,
              conversions numeric(14,3) not null,
              value numeric(14,3) not null,
              primary key (period_id, item_id)
            );
            """
        );
}
