using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>How budgets lasted through the hours of days, and what an account may spend in a month.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261130000000_Budgets")]
internal sealed class Budgets : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder)
    {
        migrationBuilder.Sql(ItemShape.AddColumn("account_item", "month_budget numeric(14,3)"));
        migrationBuilder.Sql(
            """
            create table pace_hour (
              account_id integer not null,
              day date not null,
              hour smallint not null,
              campaign_id bigint not null,
              budget numeric,
              impressions bigint not null,
              lost_to_rank bigint not null,
              lost_to_budget bigint not null,
              stopped_minute smallint
            ) partition by range (day);
            create index on pace_hour (account_id, day);

            create or replace function ensure_performance_month(a_day date) returns void language plpgsql as $$
            declare
              first_day date := date_trunc('month', a_day);
              next_month date := first_day + interval '1 month';
              suffix text := to_char(first_day, 'YYYYMM');
              part text;
            begin
              foreach part in array array['performance', 'performance_day', 'search_term_day', 'standing_day', 'rival_day', 'quality_day', 'extension_day', 'combination_day', 'reached_day', 'pace_hour'] loop
                execute format('create table if not exists %I partition of %I for values from (%L) to (%L)', part || '_' || suffix, part, first_day, next_month);
              end loop;
            end $$;
            """
        );
    }
}
