using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Pantomet.Data.Migrations
{
    /// <inheritdoc />
    public partial class Pairs : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Pictures_AddedAt_Name_RemovedAt",
                table: "Pictures");

            migrationBuilder.AddColumn<string>(
                name: "Parts",
                table: "Pictures",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_Pictures_AddedAt_Name_RemovedAt_Parts",
                table: "Pictures",
                columns: new[] { "AddedAt", "Name", "RemovedAt", "Parts" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Pictures_AddedAt_Name_RemovedAt_Parts",
                table: "Pictures");

            migrationBuilder.DropColumn(
                name: "Parts",
                table: "Pictures");

            migrationBuilder.CreateIndex(
                name: "IX_Pictures_AddedAt_Name_RemovedAt",
                table: "Pictures",
                columns: new[] { "AddedAt", "Name", "RemovedAt" });
        }
    }
}
