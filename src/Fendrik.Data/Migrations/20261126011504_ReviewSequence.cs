using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>How far the network's list of reviews has been read.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126011504_ReviewSequence")]
internal sealed class ReviewSequence : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql("alter table account add column review_sequence bigint not null default 0");
}
