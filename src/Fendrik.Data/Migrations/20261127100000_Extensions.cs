using Fendrik.Core.Items;
using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Numbers beside ads; extensions have a state, days and hours; and what came of them, by day.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261127100000_Extensions")]
internal sealed class Extensions : Migration
{
    private static readonly string[] When = ["shows_from date", "shows_until date", "hours text"];

    protected override void Up(MigrationBuilder migrationBuilder)
    {
        foreach (var table in new[] { "callout", "sitelink" })
        {
            migrationBuilder.Sql(ItemShape.AddColumn(table, "state smallint not null default 1"));
            migrationBuilder.Sql(
                $"alter table {table} alter column state drop default; alter table {table}_before alter column state drop default;"
            );
            foreach (var column in When)
            {
                migrationBuilder.Sql(ItemShape.AddColumn(table, column));
            }

            // What both sides agreed on is said in full: a state that nobody had changed was running.
            migrationBuilder.Sql(
                $"select set_config('fendrik.step', '0', true); update {table} set live = live || '{{\"state\": 1}}' where live is not null and not live ? 'state'"
            );
        }

        migrationBuilder.Sql(
            new ItemShape(
                "call_extension",
                11,
                [Level.Account, Level.Campaign, Level.AdGroup],
                [
                    "state smallint not null",
                    "text text not null",
                    "text_key text not null",
                    "shows smallint not null",
                    "measured smallint not null",
                    "device_preference smallint",
                    .. When,
                ],
                ["text_key"]
            ).Create()
        );
        migrationBuilder.Sql(
            """
            create table extension_day (
              account_id integer not null,
              day date not null,
              campaign_id bigint not null,
              ad_group_id bigint not null,
              kind smallint not null,
              extension_id bigint not null,
              impressions bigint not null,
              clicks bigint not null,
              own_clicks bigint not null,
              cost numeric not null,
              expected numeric not null,
              conversions numeric not null,
              value numeric not null
            ) partition by range (day);
            create index on extension_day (account_id, day);
            create index on extension_day (account_id, kind, extension_id, day);

            create or replace function ensure_performance_month(a_day date) returns void language plpgsql as $$
            declare
              first_day date := date_trunc('month', a_day);
              next_month date := first_day + interval '1 month';
              suffix text := to_char(first_day, 'YYYYMM');
              part text;
            begin
              foreach part in array array['performance', 'performance_day', 'search_term_day', 'standing_day', 'rival_day', 'quality_day', 'extension_day'] loop
                execute format('create table if not exists %I partition of %I for values from (%L) to (%L)', part || '_' || suffix, part, first_day, next_month);
              end loop;
            end $$;
            """
        );
    }
}
