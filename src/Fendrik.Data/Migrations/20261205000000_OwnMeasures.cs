using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>
/// Measures that an account's people make of the others, alerts by any measure with what they found, and the network's moment of each publish.
/// </summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261205000000_OwnMeasures")]
internal sealed class OwnMeasures : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            alter table publish add column network_at timestamptz;
            create table own_measure (
              account_id integer not null references account (id) on delete cascade,
              name text not null,
              formula text not null,
              form smallint not null
            );
            create unique index on own_measure (account_id, lower(name));
            create table alert (
              id bigint generated always as identity primary key,
              account_id integer not null references account (id) on delete cascade,
              measure text not null,
              above boolean not null,
              threshold numeric(18,6) not null,
              days integer not null,
              each_day boolean not null,
              each_campaign boolean not null,
              campaign_id bigint
            );
            create index on alert (account_id);
            -- What an alert found stays as it was found, whatever conversions come in later.
            create table alert_found (
              alert_id bigint not null references alert (id) on delete cascade,
              day date not null,
              campaign_id bigint not null,
              figure numeric(18,6) not null,
              cost numeric(14,3) not null,
              primary key (alert_id, day, campaign_id)
            );
            """
        );
}
