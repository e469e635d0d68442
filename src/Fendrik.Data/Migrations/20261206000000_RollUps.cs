using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Sums that screens read in place of millions of facts; those of days that are there are made at once.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261206000000_RollUps")]
internal sealed class RollUps : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            create table performance_group (
              account_id integer not null,
              day date not null,
              campaign_id bigint not null,
              ad_group_id bigint not null,
              impressions bigint not null,
              clicks bigint not null,
              cost numeric(14,3) not null,
              conversions numeric(14,3) not null,
              value numeric(14,3) not null
            );
            create table performance_campaign (
              account_id integer not null,
              day date not null,
              campaign_id bigint not null,
              impressions bigint not null,
              clicks bigint not null,
              cost numeric(14,3) not null,
              conversions numeric(14,3) not null,
              value numeric(14,3) not null
            );
            create table standing_campaign (
              account_id integer not null,
              day date not null,
              campaign_id bigint not null,
              impressions bigint not null,
              top bigint not null,
              first bigint not null,
              places bigint not null,
              lost_to_rank bigint not null,
              lost_to_budget bigint not null
            );
            create table performance_slot (
              account_id integer not null,
              day date not null,
              hour smallint not null,
              campaign_id bigint not null,
              device smallint not null,
              site smallint not null,
              impressions bigint not null,
              clicks bigint not null,
              cost numeric(14,3) not null,
              conversions numeric(14,3) not null,
              value numeric(14,3) not null
            );
            create table standing_group (
              account_id integer not null,
              day date not null,
              campaign_id bigint not null,
              ad_group_id bigint not null,
              impressions bigint not null,
              top bigint not null,
              first bigint not null,
              places bigint not null,
              lost_to_rank bigint not null,
              lost_to_budget bigint not null
            );
            insert into performance_group
            select account_id, day, campaign_id, ad_group_id, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value)
            from performance_day group by 1, 2, 3, 4;
            insert into performance_slot
            select account_id, day, hour, campaign_id, device, site, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value)
            from performance group by 1, 2, 3, 4, 5, 6;
            insert into standing_group
            select account_id, day, campaign_id, ad_group_id, sum(impressions), sum(top), sum(first), sum(places), sum(lost_to_rank), sum(lost_to_budget)
            from standing_day group by 1, 2, 3, 4;
            insert into performance_campaign
            select account_id, day, campaign_id, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value) from performance_group group by 1, 2, 3;
            insert into standing_campaign
            select account_id, day, campaign_id, sum(impressions), sum(top), sum(first), sum(places), sum(lost_to_rank), sum(lost_to_budget) from standing_group group by 1, 2, 3;
            -- The dearest of half a million keywords are looked up one by one.
            create index on performance_day (keyword_id, day);
            create index on standing_day (keyword_id, day);
            create index on performance_campaign (account_id, day);
            create index on standing_campaign (account_id, day);
            create index on performance_group (account_id, day);
            create index on performance_slot (account_id, day);
            create index on standing_group (account_id, day);
            """
        );
}
