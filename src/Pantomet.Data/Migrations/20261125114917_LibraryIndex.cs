using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Pantomet.Data.Migrations
{
    /// <inheritdoc />
    public partial class LibraryIndex : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateIndex(
                name: "IX_Pictures_AddedAt",
                table: "Pictures",
                column: "AddedAt");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Pictures_AddedAt",
                table: "Pictures");
        }
    }
}
