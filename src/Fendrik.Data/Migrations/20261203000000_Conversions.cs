using Fendrik.Core.Items;
using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>What counts as success, which of it counts in which campaign, and each conversion that the network told of.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261203000000_Conversions")]
internal sealed class Conversions : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder)
    {
        migrationBuilder.Sql(
            new ItemShape(
                "conversion_action",
                17,
                [Level.Account],
                [
                    "name text not null",
                    "name_key text not null",
                    "state smallint not null",
                    "source smallint not null",
                    "address text",
                    "hearing smallint not null",
                    "least_seconds numeric(14,3)",
                    "fixed_value numeric(14,3)",
                    "average_sale numeric(14,3)",
                    "closing_rate numeric(14,3)",
                    "margin numeric(14,3)",
                    "worth smallint not null",
                    "counting smallint not null",
                    "window_days numeric(14,3)",
                    "steers smallint not null",
                    "account_goal smallint not null",
                ],
                ["name_key"]
            ).Create()
        );
        migrationBuilder.Sql(ItemShape.AddColumn("campaign", "goals text"));
        migrationBuilder.Sql(
            """
            create table conversion (
              account_id integer not null,
              day date not null,
              hour smallint not null,
              campaign_id bigint not null,
              ad_group_id bigint not null,
              keyword_id bigint not null,
              ad_id bigint not null,
              device smallint not null,
              action_id bigint not null,
              click_id text not null,
              clicked_at timestamptz not null,
              at timestamptz not null,
              told timestamptz not null,
              value numeric(14,3) not null,
              counts boolean not null,
              steers boolean not null
            ) partition by range (day);
            create index on conversion (account_id, day);
            create index on conversion (account_id, action_id, day);

            create table phone_call (
              account_id integer not null,
              day date not null,
              campaign_id bigint not null,
              ad_group_id bigint not null,
              keyword_id bigint not null,
              ad_id bigint not null,
              device smallint not null,
              from_ad boolean not null,
              click_id text not null,
              clicked_at timestamptz not null,
              cost numeric(14,3) not null,
              at timestamptz not null,
              rang integer not null,
              talked integer not null,
              call_end smallint not null,
              area text not null,
              caller text not null
            ) partition by range (day);
            create index on phone_call (account_id, day);
            create index on phone_call (account_id, at);

            alter table page_text add column tag smallint not null default 0;

            create or replace function ensure_performance_month(a_day date) returns void language plpgsql as $$
            declare
              first_day date := date_trunc('month', a_day);
              next_month date := first_day + interval '1 month';
              suffix text := to_char(first_day, 'YYYYMM');
              part text;
            begin
              foreach part in array array['performance', 'performance_day', 'search_term_day', 'standing_day', 'rival_day', 'quality_day', 'extension_day', 'combination_day', 'reached_day', 'pace_hour', 'conversion', 'phone_call'] loop
                execute format('create table if not exists %I partition of %I for values from (%L) to (%L)', part || '_' || suffix, part, first_day, next_month);
              end loop;
            end $$;
            """
        );
    }
}
