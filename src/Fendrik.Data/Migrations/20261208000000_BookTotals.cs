using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Sales that the own books know by totals; 0 for an ad group, a keyword or a device that they do not know.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261208000000_BookTotals")]
internal sealed class BookTotals : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            create table book_total (
              account_id integer not null references account (id) on delete cascade,
              day date not null,
              campaign_id bigint not null,
              ad_group_id bigint not null,
              keyword_id bigint not null,
              device smallint not null,
              sales numeric(14,3) not null,
              value numeric(14,3) not null,
              primary key (account_id, day, campaign_id, ad_group_id, keyword_id, device)
            );
            """
        );
}
