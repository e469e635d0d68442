using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>
/// How sure each guess of a column is, how many cells a column has filled, cells mended in place, and what an account chose once
/// for bare keywords and new campaigns.
/// </summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126110000_ListAsWorksheet")]
internal sealed class ListAsWorksheet : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            alter table intake add column confidence integer[] not null default '{}', add column filled_cells bigint[] not null default '{}',
              add column new_paused boolean not null default false;
            alter table account add column bare_match smallint, add column new_paused boolean;
            create table intake_mend (
              intake_id bigint not null, row_number integer not null, place integer not null, text text not null,
              primary key (intake_id, row_number, place));
            """
        );
}
