using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Phrases that are kept for ads, and what rivals were seen to say.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261128010000_Ideas")]
internal sealed class Ideas : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            create table idea (
              id bigint generated always as identity primary key,
              account_id integer not null references account (id) on delete cascade,
              text text not null,
              text_key text not null,
              person_id text not null,
              made_at timestamptz not null,
              unique (account_id, text_key)
            );
            create table rival_text (
              account_id integer not null references account (id) on delete cascade,
              rival text not null,
              headline text not null,
              description text not null,
              first_seen timestamptz not null,
              last_seen timestamptz not null,
              searches integer not null,
              primary key (account_id, rival, headline, description)
            );
            """
        );
}
