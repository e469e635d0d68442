using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Changes that are held back from publishing.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126100000_HeldChanges")]
internal sealed class HeldChanges : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            create table held_change (
              account_id integer not null references account on delete cascade,
              kind smallint not null,
              item_id bigint not null,
              person_id text not null,
              held_at timestamptz not null,
              primary key (account_id, kind, item_id));
            """
        );
}
