using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Accounts whose links are followed every night, and who wanted that.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261127230000_NightlyLinks")]
internal sealed class NightlyLinks : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            create table nightly_links (
              account_id integer primary key references account (id) on delete cascade,
              person_id text not null
            );
            """
        );
}
