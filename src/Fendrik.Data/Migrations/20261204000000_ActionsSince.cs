using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>From which day on conversion actions could have counted: an action that was made yesterday is not judged by the weeks before.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261204000000_ActionsSince")]
internal sealed class ActionsSince : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            create table conversion_action_since (
              account_id integer not null references account (id) on delete cascade,
              action_id bigint not null,
              day date not null,
              primary key (account_id, action_id)
            );
            """
        );
}
