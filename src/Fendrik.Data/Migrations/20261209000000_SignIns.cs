using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Sign-ins, kept here and not in cookies: what is ended is ended at once, whoever has a copy.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261209000000_SignIns")]
internal sealed class SignIns : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            create table sign_in (
              id uuid primary key,
              key_hash bytea not null unique,
              person_id text not null,
              ticket bytea not null,
              made_at timestamptz not null,
              seen_at timestamptz not null,
              expires_at timestamptz not null,
              address text not null,
              browser text not null
            );
            create index on sign_in (person_id);
            create index on sign_in (expires_at);
            -- What was tried, and how it went: kept for a time.
            create table sign_in_log (
              id bigint generated always as identity primary key,
              person_id text not null,
              at timestamptz not null,
              went_well boolean not null,
              address text not null,
              browser text not null
            );
            create index on sign_in_log (person_id, at desc);
            """
        );
}
