using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Changes that a colleague is asked to look at before they are published, and what is said about them.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261212000000_SecondLooks")]
internal sealed class SecondLooks : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            create table second_look (
              id bigint generated always as identity primary key,
              account_id int not null references account(id),
              asked_by text not null,
              note text not null,
              state smallint not null check (state between 1 and 4),
              as_of bigint not null,
              made_at timestamptz not null,
              answered_by text,
              answered_at timestamptz,
              publish_id bigint
            );
            create index on second_look (account_id, id desc);
            create table second_look_item (
              look_id bigint not null references second_look(id) on delete cascade,
              kind smallint not null,
              item_id bigint not null,
              primary key (look_id, kind, item_id)
            );
            create table second_look_remark (
              id bigint generated always as identity primary key,
              look_id bigint not null references second_look(id) on delete cascade,
              kind smallint,
              item_id bigint,
              person_id text not null,
              text text not null,
              made_at timestamptz not null
            );
            create index on second_look_remark (look_id, id);
            """
        );
}
