using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Pantomet.Data.Migrations
{
    /// <inheritdoc />
    public partial class PageWords : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Edge",
                table: "Variants",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "StandIn",
                table: "Variants",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "Ornament",
                table: "JobPictures",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Edge",
                table: "Variants");

            migrationBuilder.DropColumn(
                name: "StandIn",
                table: "Variants");

            migrationBuilder.DropColumn(
                name: "Ornament",
                table: "JobPictures");
        }
    }
}
