using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Searches that are kept as tests of the account, what checks find that lies in no single item, and who pays an account.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126190000_SavedSearches")]
internal sealed class SavedSearches : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            alter table account add column payer text;
            update account set payer = 'Whoever paid before';

            create table saved_search (
              id bigint generated always as identity primary key,
              account_id integer not null references account on delete cascade,
              text text not null,
              text_key text not null,
              device smallint not null,
              site smallint not null,
              place text,
              expectation smallint not null,
              ad_group_id bigint,
              made_by text not null,
              made_at timestamptz not null,
              -- What came of it when it was run last, on which day, and where the keywords stand that it reached.
              holds boolean,
              told text,
              day date,
              campaigns bigint[] not null default '{}',
              ad_groups bigint[] not null default '{}'
            );
            create unique index on saved_search (account_id, text_key, device, site, coalesce(place, ''));

            create table account_finding (
              account_id integer not null references account on delete cascade,
              weight smallint not null,
              code text not null,
              saved_search_id bigint references saved_search on delete cascade,
              message text not null,
              detail text not null
            );
            create index on account_finding (account_id);
            create index on account_finding (saved_search_id);
            """
        );
}
