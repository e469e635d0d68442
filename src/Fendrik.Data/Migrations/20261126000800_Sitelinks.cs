using Fendrik.Core.Items;
using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Further links under ads.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126000800_Sitelinks")]
internal sealed class Sitelinks : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            new ItemShape(
                "sitelink",
                9,
                [Level.Account, Level.Campaign, Level.AdGroup],
                [
                    "text text not null",
                    "text_key text not null",
                    "lines text[] not null default '{}'",
                    "landing_page text",
                ],
                ["text_key"]
            ).Create()
        );
}
