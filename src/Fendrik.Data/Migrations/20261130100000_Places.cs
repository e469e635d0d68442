using Fendrik.Core.Items;
using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Where campaigns show, whom their places reach, and what campaigns are for.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261130100000_Places")]
internal sealed class Places : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder)
    {
        migrationBuilder.Sql(
            new ItemShape(
                "place",
                16,
                [Level.Campaign],
                [
                    "text text not null",
                    "text_key text not null",
                    "radius numeric(14,3)",
                    "side smallint not null",
                    "modifier numeric(14,3)",
                ],
                ["text_key"]
            ).Create()
        );
        migrationBuilder.Sql(ItemShape.AddColumn("campaign", "people smallint not null default 1"));
        migrationBuilder.Sql(ItemShape.AddColumn("campaign", "objective smallint not null default 1"));
        migrationBuilder.Sql(ItemShape.AddColumn("campaign", "conversion_may_cost numeric(14,3)"));
        migrationBuilder.Sql(
            """
            alter table campaign alter column people drop default, alter column objective drop default;
            alter table campaign_before alter column people drop default, alter column objective drop default;
            select set_config('fendrik.step', '0', true);
            update campaign set live = live || '{"people": 1}' where live is not null and not live ? 'people';

            -- The places and audiences of campaigns on the network while the figures of a day were made.
            create table targeted_day (
              account_id integer not null,
              day date not null,
              campaign_id bigint not null,
              kind smallint not null,
              text text not null,
              radius numeric,
              side smallint not null,
              modifier numeric
            );
            create index on targeted_day (account_id, campaign_id, day);
            """
        );
    }
}
