using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>In which encoding a list was read, where that had to be found out.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126060000_EncodingOfLists")]
internal sealed class EncodingOfLists : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql("alter table intake add column encoding text");
}
