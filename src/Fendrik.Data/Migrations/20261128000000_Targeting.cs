using Fendrik.Core.Items;
using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Placements and audiences on campaigns and ad groups, and what came of them by day.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261128000000_Targeting")]
internal sealed class Targeting : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder)
    {
        migrationBuilder.Sql(
            new ItemShape(
                "placement",
                14,
                [Level.Campaign, Level.AdGroup],
                [
                    "text text not null",
                    "text_key text not null",
                    "state smallint not null",
                    "side smallint not null",
                    "max_cpc numeric(14,3)",
                ],
                ["text_key"]
            ).Create()
        );
        migrationBuilder.Sql(
            new ItemShape(
                "audience",
                15,
                [Level.Campaign, Level.AdGroup],
                [
                    "text text not null",
                    "text_key text not null",
                    "state smallint not null",
                    "used smallint not null",
                    "modifier numeric(14,3)",
                ],
                ["text_key"]
            ).Create()
        );
        migrationBuilder.Sql(
            """
            create table reached_day (
              account_id integer not null,
              day date not null,
              campaign_id bigint not null,
              ad_group_id bigint not null,
              reached_by smallint not null,
              name text not null,
              impressions bigint not null,
              clicks bigint not null,
              cost numeric not null,
              conversions numeric not null,
              value numeric not null
            ) partition by range (day);
            create index on reached_day (account_id, day);

            create or replace function ensure_performance_month(a_day date) returns void language plpgsql as $$
            declare
              first_day date := date_trunc('month', a_day);
              next_month date := first_day + interval '1 month';
              suffix text := to_char(first_day, 'YYYYMM');
              part text;
            begin
              foreach part in array array['performance', 'performance_day', 'search_term_day', 'standing_day', 'rival_day', 'quality_day', 'extension_day', 'combination_day', 'reached_day'] loop
                execute format('create table if not exists %I partition of %I for values from (%L) to (%L)', part || '_' || suffix, part, first_day, next_month);
              end loop;
            end $$;
            """
        );
    }
}
