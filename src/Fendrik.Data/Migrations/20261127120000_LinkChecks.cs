using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>What following the links of an account showed.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261127120000_LinkChecks")]
internal sealed class LinkChecks : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            create table link_check (
              account_id integer not null references account (id) on delete cascade,
              key text not null,
              page text not null,
              template text not null,
              address text not null,
              items bigint not null,
              weight smallint,
              code text not null,
              message text not null,
              detail text not null,
              final text not null,
              milliseconds integer not null,
              checked_at timestamptz not null,
              primary key (account_id, key)
            );
            """
        );
}
