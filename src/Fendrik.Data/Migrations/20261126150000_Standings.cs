using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>
/// How keywords stood in the searches that they could answer, who else showed, and quality scores, by day; and up to which moment of
/// the network's clock its reports are known.
/// </summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126150000_Standings")]
internal sealed class Standings : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            alter table account add column reports_heard timestamptz;

            create table standing_day (
              account_id integer not null,
              day date not null,
              campaign_id bigint not null,
              ad_group_id bigint not null,
              keyword_id bigint not null,
              impressions bigint not null,
              top bigint not null,
              first bigint not null,
              places bigint not null,
              lost_to_rank bigint not null,
              lost_to_budget bigint not null
            ) partition by range (day);
            create index on standing_day (account_id, day);

            create table rival_day (
              account_id integer not null,
              day date not null,
              campaign_id bigint not null,
              ad_group_id bigint not null,
              keyword_id bigint not null,
              rival text not null,
              shown_with bigint not null,
              above_us bigint not null
            ) partition by range (day);
            create index on rival_day (account_id, day);

            -- From a day on, until another is reported.
            create table quality_day (
              account_id integer not null,
              day date not null,
              keyword_id bigint not null,
              score smallint not null,
              click_likelihood smallint not null,
              text_fit smallint not null,
              page_fit smallint not null
            ) partition by range (day);
            create index on quality_day (account_id, day);
            create index on quality_day (account_id, keyword_id, day desc);

            create or replace function ensure_performance_month(a_day date) returns void language plpgsql as $$
            declare
              first_day date := date_trunc('month', a_day);
              next_month date := first_day + interval '1 month';
              suffix text := to_char(first_day, 'YYYYMM');
              part text;
            begin
              foreach part in array array['performance', 'performance_day', 'search_term_day', 'standing_day', 'rival_day', 'quality_day'] loop
                execute format('create table if not exists %I partition of %I for values from (%L) to (%L)', part || '_' || suffix, part, first_day, next_month);
              end loop;
            end $$;
            """
        );
}
