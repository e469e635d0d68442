using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>What people are at an account, and who was asked to join it. Those who were there before may do what they could: everything.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261210000000_Roles")]
internal sealed class Roles : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            alter table account_member add column role smallint not null default 4 check (role between 1 and 4);
            alter table account_member alter column role drop default;
            create index on account_member (account_id);
            create table invitation (
              id uuid primary key,
              -- Of the key in the link only a hash is kept: whoever reads the database cannot join by it.
              key_hash bytea not null unique,
              account_id int not null references account(id),
              email text not null,
              role smallint not null check (role between 1 and 4),
              asked_by text not null,
              made_at timestamptz not null,
              expires_at timestamptz not null
            );
            create index on invitation (account_id);
            """
        );
}
