using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Pantomet.Data.Migrations
{
    /// <inheritdoc />
    public partial class LibrarySearch : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Pictures_AddedAt",
                table: "Pictures");

            migrationBuilder.CreateIndex(
                name: "IX_Pictures_AddedAt_Name_RemovedAt",
                table: "Pictures",
                columns: new[] { "AddedAt", "Name", "RemovedAt" });

            migrationBuilder.CreateIndex(
                name: "IX_JobPictures_Keywords_Alternative_PictureId",
                table: "JobPictures",
                columns: new[] { "Keywords", "Alternative", "PictureId" },
                filter: "Keywords <> '' OR Alternative <> ''");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Pictures_AddedAt_Name_RemovedAt",
                table: "Pictures");

            migrationBuilder.DropIndex(
                name: "IX_JobPictures_Keywords_Alternative_PictureId",
                table: "JobPictures");

            migrationBuilder.CreateIndex(
                name: "IX_Pictures_AddedAt",
                table: "Pictures",
                column: "AddedAt");
        }
    }
}
