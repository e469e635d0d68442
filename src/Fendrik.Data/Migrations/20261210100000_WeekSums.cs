using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Sums of whole weeks, of which three months have thirteen; those of days that are there are made at once.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261210100000_WeekSums")]
internal sealed class WeekSums : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            create table performance_week (
              account_id integer not null,
              day date not null,
              campaign_id bigint not null,
              ad_group_id bigint not null,
              keyword_id bigint not null,
              impressions bigint not null,
              clicks bigint not null,
              cost numeric(14,3) not null,
              conversions numeric(14,3) not null,
              value numeric(14,3) not null
            );
            create table standing_week (
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
            );
            create table performance_group_week (like performance_group);
            create table standing_group_week (like standing_group);
            insert into performance_week
            select account_id, date_trunc('week', day)::date, campaign_id, ad_group_id, keyword_id, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value)
            from performance_day group by 1, 2, 3, 4, 5;
            insert into standing_week
            select account_id, date_trunc('week', day)::date, campaign_id, ad_group_id, keyword_id, sum(impressions), sum(top), sum(first), sum(places), sum(lost_to_rank), sum(lost_to_budget)
            from standing_day group by 1, 2, 3, 4, 5;
            insert into performance_group_week
            select account_id, date_trunc('week', day)::date, campaign_id, ad_group_id, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value)
            from performance_group group by 1, 2, 3, 4;
            insert into standing_group_week
            select account_id, date_trunc('week', day)::date, campaign_id, ad_group_id, sum(impressions), sum(top), sum(first), sum(places), sum(lost_to_rank), sum(lost_to_budget)
            from standing_group group by 1, 2, 3, 4;
            create index on performance_week (account_id, day);
            create index on performance_week (keyword_id, day);
            create index on standing_week (account_id, day);
            create index on standing_week (keyword_id, day);
            create index on performance_group_week (account_id, day);
            create index on standing_group_week (account_id, day);
            -- The dearest of half a million are read in their order.
            create index on figure_sum (period_id, cost desc, item_id) where cost > 0;
            """
        );
}
