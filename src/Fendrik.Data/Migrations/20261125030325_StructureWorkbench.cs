using System;
using System.Text.Json;
using Fendrik.Data.Setup;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Fendrik.Data.Migrations
{
    /// <inheritdoc />
    public partial class StructureWorkbench : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "network_sequence",
                table: "account",
                type: "bigint",
                nullable: false,
                defaultValue: 0L
            );

            migrationBuilder.AddColumn<long>(
                name: "revision",
                table: "account",
                type: "bigint",
                nullable: false,
                defaultValue: 0L
            );

            migrationBuilder.CreateTable(
                name: "intake_mapping",
                columns: table => new
                {
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    header_key = table.Column<string>(type: "text", nullable: false),
                    fields = table.Column<int[]>(type: "integer[]", nullable: false),
                    used_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_intake_mapping", x => new { x.account_id, x.header_key });
                }
            );

            migrationBuilder.CreateTable(
                name: "live_difference",
                columns: table => new
                {
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    kind = table.Column<short>(type: "smallint", nullable: false),
                    item_id = table.Column<long>(type: "bigint", nullable: false),
                    agreed = table.Column<JsonDocument>(type: "jsonb", nullable: true),
                    theirs = table.Column<JsonDocument>(type: "jsonb", nullable: true),
                    found_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey(
                        "pk_live_difference",
                        x => new
                        {
                            x.account_id,
                            x.kind,
                            x.item_id,
                        }
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "saved_view",
                columns: table => new
                {
                    id = table
                        .Column<long>(type: "bigint", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    person_id = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    body = table.Column<JsonDocument>(type: "jsonb", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_saved_view", x => x.id);
                    table.ForeignKey(
                        name: "fk_saved_view_account_account_id",
                        column: x => x.account_id,
                        principalTable: "account",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateIndex(
                name: "ix_saved_view_account_id_person_id_name",
                table: "saved_view",
                columns: new[] { "account_id", "person_id", "name" },
                unique: true
            );

            migrationBuilder.Sql(FendrikDatabase.Script("structure-workbench"));
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException(
                "Going back would lose labels and shared lists; restore a copy of the database instead."
            );
    }
}
