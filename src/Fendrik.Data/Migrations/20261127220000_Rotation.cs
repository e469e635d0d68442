using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>How the ads of a campaign take turns.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261127220000_Rotation")]
internal sealed class Rotation : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder)
    {
        migrationBuilder.Sql(ItemShape.AddColumn("campaign", "rotation smallint not null default 1"));
        migrationBuilder.Sql(
            """
            alter table campaign alter column rotation drop default;
            alter table campaign_before alter column rotation drop default;
            select set_config('fendrik.step', '0', true);
            update campaign set live = live || '{"rotation": 1}' where live is not null and not live ? 'rotation';
            """
        );
    }
}
