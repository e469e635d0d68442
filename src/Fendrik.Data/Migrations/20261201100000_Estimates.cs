using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Estimates as they were made, to be held against what happened.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261201100000_Estimates")]
internal sealed class Estimates : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            create table keyword_estimate (
              id bigint generated always as identity primary key,
              account_id integer not null,
              campaign_id bigint not null,
              keyword_id bigint not null,
              asked_on date not null,
              bid numeric(14,3),
              reason text,
              weeks jsonb not null,
              first_page numeric(14,3),
              top numeric(14,3),
              network_impressions double precision,
              network_clicks double precision,
              network_cost double precision,
              own_impressions double precision,
              own_clicks double precision,
              own_cost double precision
            );
            create index on keyword_estimate (account_id, keyword_id, id desc);
            create index on keyword_estimate (account_id, asked_on);
            """
        );
}
