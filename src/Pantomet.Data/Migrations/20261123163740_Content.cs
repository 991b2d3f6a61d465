using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Pantomet.Data.Migrations
{
    /// <inheritdoc />
    public partial class Content : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<double>(
                name: "Likeness",
                table: "Variants",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Order",
                table: "Variants",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "WorstPlace",
                table: "Variants",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "JpegQuality",
                table: "Pictures",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Kind",
                table: "Pictures",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Suggestion",
                table: "Pictures",
                type: "TEXT",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Likeness",
                table: "Variants");

            migrationBuilder.DropColumn(
                name: "Order",
                table: "Variants");

            migrationBuilder.DropColumn(
                name: "WorstPlace",
                table: "Variants");

            migrationBuilder.DropColumn(
                name: "JpegQuality",
                table: "Pictures");

            migrationBuilder.DropColumn(
                name: "Kind",
                table: "Pictures");

            migrationBuilder.DropColumn(
                name: "Suggestion",
                table: "Pictures");
        }
    }
}
