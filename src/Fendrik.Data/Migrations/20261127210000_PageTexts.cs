using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>What stands on the landing pages of an account.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261127210000_PageTexts")]
internal sealed class PageTexts : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            create table page_text (
              account_id integer not null references account (id) on delete cascade,
              page text not null,
              title text not null,
              headings text[] not null,
              body text not null,
              can_get_in_touch boolean not null,
              milliseconds integer not null,
              read_at timestamptz not null,
              primary key (account_id, page)
            );
            """
        );
}
