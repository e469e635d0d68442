using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>The address that a click passes through.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126000500_TrackingTemplate")]
internal sealed class TrackingTemplate : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder)
    {
        foreach (var table in new[] { "account_item", "campaign", "ad_group", "keyword" })
        {
            migrationBuilder.Sql(ItemShape.AddColumn(table, "tracking_template text"));
        }
    }
}
