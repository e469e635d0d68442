using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Negative lists are found by their labels as everything else is.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126000100_LabelsOfLists")]
internal sealed class LabelsOfLists : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            "create index negative_list_labels on negative_list using gin (labels) where labels <> '{}'"
        );
}
