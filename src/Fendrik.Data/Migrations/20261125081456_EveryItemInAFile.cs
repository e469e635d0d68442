using System;
using System.Text.Json;
using Fendrik.Data.Setup;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fendrik.Data.Migrations
{
    /// <inheritdoc />
    public partial class EveryItemInAFile : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(name: "request_id", table: "step", type: "uuid", nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "empty_clears",
                table: "intake",
                type: "boolean",
                nullable: false,
                defaultValue: false
            );

            migrationBuilder.AddColumn<short>(
                name: "intent",
                table: "intake",
                type: "smallint",
                nullable: false,
                defaultValue: (short)1
            );

            migrationBuilder.AddColumn<bool>(
                name: "remembered",
                table: "intake",
                type: "boolean",
                nullable: false,
                defaultValue: false
            );

            migrationBuilder.AddColumn<int[]>(
                name: "used_columns",
                table: "intake",
                type: "integer[]",
                nullable: false,
                defaultValueSql: "'{}'"
            );

            migrationBuilder.CreateTable(
                name: "outtake",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    person_id = table.Column<string>(type: "text", nullable: false),
                    made_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    wish = table.Column<JsonDocument>(type: "jsonb", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_outtake", x => x.id);
                    table.ForeignKey(
                        name: "fk_outtake_account_account_id",
                        column: x => x.account_id,
                        principalTable: "account",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateIndex(name: "ix_step_request_id", table: "step", column: "request_id", unique: true);

            migrationBuilder.Sql(FendrikDatabase.Script("every-item-in-a-file"));
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("Going back is not needed: restore a copy of the database instead.");
    }
}
