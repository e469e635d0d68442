using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>
/// What a publish writes for each item: answers fit beside the changes they are of, and the account, whose row is locked anyway,
/// is not asked for again at each item.
/// </summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126022000_LeanPublishing")]
internal sealed class LeanPublishing : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            alter table publish_item set (fillfactor = 50);
            alter table check_due drop constraint check_due_account_id_fkey;
            """
        );
}
