using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>What people show besides their password, and wrong attempts that are waited for.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261211000000_SecondFactor")]
internal sealed class SecondFactor : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            create table second_factor (
              person_id text primary key references "AspNetUsers"(id) on delete cascade,
              -- Under the keys of the server: whoever reads the database cannot make codes.
              secret bytea not null,
              confirmed boolean not null default false,
              -- The last time step that was used: each code holds once.
              used_step bigint
            );
            create table recovery_code (
              person_id text not null references "AspNetUsers"(id) on delete cascade,
              code_hash bytea not null,
              primary key (person_id, code_hash)
            );
            -- Whose attempts they are is kept as a hash: of people who are not there nothing can be read.
            create table sign_in_wait (
              key_hash bytea primary key,
              wrong integer not null,
              last_at timestamptz not null,
              until timestamptz not null
            );
            create index on sign_in_wait (last_at);
            """
        );
}
