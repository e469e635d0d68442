using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fendrik.Data.Migrations
{
    /// <inheritdoc />
    public partial class ReviewSequence : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "review_sequence",
                table: "account",
                type: "bigint",
                nullable: false,
                defaultValue: 0L
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(name: "review_sequence", table: "account");
        }
    }
}
