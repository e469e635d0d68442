using Fendrik.Core.Items;
using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Short advantages under ads.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126000700_Callouts")]
internal sealed class Callouts : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            new ItemShape(
                "callout",
                8,
                [Level.Account, Level.Campaign, Level.AdGroup],
                ["text text not null", "text_key text not null"],
                ["text_key"]
            ).Create()
        );
}
