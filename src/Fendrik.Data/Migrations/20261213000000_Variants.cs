using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Campaigns that are shown to colleagues, and what these propose for them.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261213000000_Variants")]
internal sealed class Variants : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            alter table second_look add column campaign_id bigint;
            alter table second_look drop constraint second_look_state_check;
            alter table second_look add constraint second_look_state_check check (state between 1 and 5);
            create table look_proposal (
              id bigint generated always as identity primary key,
              look_id bigint not null references second_look(id) on delete cascade,
              kind smallint not null,
              item_id bigint not null,
              before jsonb,
              after jsonb,
              person_id text not null,
              made_at timestamptz not null,
              step_id bigint,
              left_at timestamptz,
              decided_by text,
              decided_at timestamptz,
              check (before is not null or after is not null)
            );
            create index on look_proposal (look_id, id);
            """
        );
}
