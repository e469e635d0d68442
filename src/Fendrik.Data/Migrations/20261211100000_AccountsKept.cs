using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Accounts that were on a network before, accounts that are put away, and notes.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261211100000_AccountsKept")]
internal sealed class AccountsKept : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            -- What it was called on the network before; none for one that was made here.
            alter table account add column network_account text;
            create unique index on account (network_id, network_account) where network_account is not null;
            alter table account add column archived_at timestamptz;
            create table account_note (
              id bigint generated always as identity primary key,
              account_id int not null references account(id),
              day date not null,
              text text not null,
              person_id text not null,
              made_at timestamptz not null,
              changed_at timestamptz
            );
            create index on account_note (account_id, day desc, id desc);
            """
        );
}
