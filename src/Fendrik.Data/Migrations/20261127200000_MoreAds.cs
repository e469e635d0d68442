using Fendrik.Core.Items;
using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Responsive ads and call ads, another page for phones, and what came of responsive ads by the lines that showed.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261127200000_MoreAds")]
internal sealed class MoreAds : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder)
    {
        migrationBuilder.Sql(ItemShape.AddColumn("text_ad", "phone_page text"));
        migrationBuilder.Sql(
            new ItemShape(
                "responsive_ad",
                12,
                [Level.AdGroup],
                [
                    "state smallint not null",
                    "headlines text[] not null default '{}'",
                    "descriptions text[] not null default '{}'",
                    "display_path text[] not null default '{}'",
                    "landing_page text",
                    "phone_page text",
                    "kept_apart text",
                    "device_preference smallint",
                    "content_key text not null",
                ],
                ["content_key"]
            ).Create()
        );
        migrationBuilder.Sql(
            new ItemShape(
                "call_ad",
                13,
                [Level.AdGroup],
                [
                    "state smallint not null",
                    "business_name text",
                    "call_number text",
                    "headlines text[] not null default '{}'",
                    "descriptions text[] not null default '{}'",
                    "landing_page text",
                    "measured smallint not null",
                    "hours text",
                    "content_key text not null",
                ],
                ["content_key"]
            ).Create()
        );
        migrationBuilder.Sql(
            """
            -- Figures name an ad by its number alone: kinds of ad number theirs from far apart.
            alter table responsive_ad alter column id restart with 1000000000000;
            alter table call_ad alter column id restart with 2000000000000;

            create table combination_day (
              account_id integer not null,
              day date not null,
              campaign_id bigint not null,
              ad_group_id bigint not null,
              ad_id bigint not null,
              headlines text[] not null,
              descriptions text[] not null,
              impressions bigint not null,
              clicks bigint not null,
              cost numeric not null,
              expected numeric not null,
              conversions numeric not null,
              value numeric not null
            ) partition by range (day);
            create index on combination_day (account_id, day);
            create index on combination_day (account_id, ad_id, day);

            create or replace function ensure_performance_month(a_day date) returns void language plpgsql as $$
            declare
              first_day date := date_trunc('month', a_day);
              next_month date := first_day + interval '1 month';
              suffix text := to_char(first_day, 'YYYYMM');
              part text;
            begin
              foreach part in array array['performance', 'performance_day', 'search_term_day', 'standing_day', 'rival_day', 'quality_day', 'extension_day', 'combination_day'] loop
                execute format('create table if not exists %I partition of %I for values from (%L) to (%L)', part || '_' || suffix, part, first_day, next_month);
              end loop;
            end $$;
            """
        );
    }
}
