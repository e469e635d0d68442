using Fendrik.Core.Items;
using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Words that stand for one another in an account.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126130000_RelatedWords")]
internal sealed class RelatedWords : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder)
    {
        migrationBuilder.Sql(
            new ItemShape(
                "related_words",
                10,
                [Level.Account],
                [
                    "text text not null",
                    "text_key text not null",
                    "means text[] not null default '{}'",
                    "nearness smallint not null default 1",
                ],
                ["text_key"]
            ).Create()
        );
        // What negatives keep away is judged by another rule from here on: the checks look at everything once more.
        migrationBuilder.Sql("delete from check_run");
    }
}
