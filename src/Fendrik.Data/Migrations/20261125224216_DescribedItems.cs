using System;
using System.Text.Json;
using Fendrik.Data.Model;
using Fendrik.Data.Setup;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Fendrik.Data.Migrations
{
    /// <inheritdoc />
    public partial class DescribedItems : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.RenameColumn(name: "fields_chosen", table: "intake", newName: "columns_chosen");

            migrationBuilder.AddColumn<string[]>(
                name: "columns",
                table: "intake_mapping",
                type: "text[]",
                nullable: false,
                defaultValue: new string[0]
            );

            migrationBuilder.AddColumn<string[]>(
                name: "columns",
                table: "intake",
                type: "text[]",
                nullable: false,
                defaultValue: new string[0]
            );

            migrationBuilder.AddColumn<long>(
                name: "history_from",
                table: "account",
                type: "bigint",
                nullable: false,
                defaultValue: 0L
            );

            migrationBuilder.AddColumn<string>(
                name: "language",
                table: "account",
                type: "text",
                nullable: false,
                defaultValue: "en-GB"
            );
            migrationBuilder.Sql(FendrikDatabase.Script("described-items"));
            migrationBuilder.Sql(new ItemShape("account_item", 7, [Level.Account], [], []).Create());
            migrationBuilder.Sql(FendrikDatabase.Script("account-item"));

            migrationBuilder.DropColumn(name: "fields", table: "intake_mapping");

            migrationBuilder.DropColumn(name: "fields", table: "intake");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("Going back is not needed: restore a copy of the database instead.");
    }
}
