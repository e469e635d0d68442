using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>The rented number that a call went to, and what is known of where it came from.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261207000000_DialledNumbers")]
internal sealed class DialledNumbers : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            alter table phone_call add column dialled text not null default '';
            alter table phone_call add column origin smallint not null default 1;
            """
        );
}
