using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Languages of the people whom campaigns reach, and what campaigns may spend in all.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261201200000_Languages")]
internal sealed class Languages : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder)
    {
        migrationBuilder.Sql(ItemShape.AddColumn("campaign", "languages text"));
        migrationBuilder.Sql(ItemShape.AddColumn("campaign", "total_budget numeric(14,3)"));
    }
}
