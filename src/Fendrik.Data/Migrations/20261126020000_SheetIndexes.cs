using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>The sheet has indexes made from the descriptions; those that did the same before would only cost.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126020000_SheetIndexes")]
internal sealed class SheetIndexes : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            drop index if exists ix_keyword_account_id_text_key;
            drop index if exists ix_text_ad_account_id;
            drop index if exists ix_ad_group_account_id;
            drop index if exists ix_negative_keyword_account_id;
            """
        );
}
