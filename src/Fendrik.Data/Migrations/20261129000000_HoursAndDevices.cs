using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>When campaigns show in the week, modifiers of devices, and how daily budgets are spent.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261129000000_HoursAndDevices")]
internal sealed class HoursAndDevices : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder)
    {
        migrationBuilder.Sql(ItemShape.AddColumn("account_item", "answering_hours text"));
        migrationBuilder.Sql(ItemShape.AddColumn("campaign", "hours text"));
        foreach (var table in new[] { "campaign", "ad_group" })
        {
            foreach (var device in new[] { "desktop", "phone", "tablet" })
            {
                migrationBuilder.Sql(ItemShape.AddColumn(table, $"{device}_modifier numeric(14,3)"));
            }
        }

        migrationBuilder.Sql(ItemShape.AddColumn("campaign", "delivery smallint not null default 1"));
        migrationBuilder.Sql(
            """
            alter table campaign alter column delivery drop default;
            alter table campaign_before alter column delivery drop default;
            select set_config('fendrik.step', '0', true);
            update campaign set live = live || '{"delivery": 1}' where live is not null and not live ? 'delivery';

            -- The modifiers of campaigns on the network while the figures of a day were made; campaigns without any have none.
            create table modifier_day (
              account_id integer not null,
              day date not null,
              campaign_id bigint not null,
              hours text,
              desktop numeric,
              phone numeric,
              tablet numeric,
              primary key (account_id, day, campaign_id)
            );
            """
        );
    }
}
