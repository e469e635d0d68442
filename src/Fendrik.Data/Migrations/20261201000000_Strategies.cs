using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Who sets the bids of campaigns, and where the network's strategies stand.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261201000000_Strategies")]
internal sealed class Strategies : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder)
    {
        migrationBuilder.Sql(ItemShape.AddColumn("campaign", "strategy smallint not null default 1"));
        migrationBuilder.Sql(ItemShape.AddColumn("campaign", "target_cpa numeric(14,3)"));
        migrationBuilder.Sql(ItemShape.AddColumn("campaign", "target_roas numeric(14,3)"));
        migrationBuilder.Sql(ItemShape.AddColumn("campaign", "lowest_bid numeric(14,3)"));
        migrationBuilder.Sql(ItemShape.AddColumn("campaign", "highest_bid numeric(14,3)"));
        migrationBuilder.Sql(
            """
            alter table campaign alter column strategy drop default;
            alter table campaign_before alter column strategy drop default;
            select set_config('fendrik.step', '0', true);
            update campaign set live = live || '{"strategy": 1}' where live is not null and not live ? 'strategy';

            -- Where the strategies of campaigns stood on the network at the last report.
            create table strategy_now (
              account_id integer not null,
              campaign_id bigint not null,
              strategy smallint not null,
              since date,
              level double precision not null,
              learning_days integer not null,
              learnt_from double precision not null,
              learning_needs integer not null,
              is_learning boolean not null,
              primary key (account_id, campaign_id)
            );
            """
        );
    }
}
