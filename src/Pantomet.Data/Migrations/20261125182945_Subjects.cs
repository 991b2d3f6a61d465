using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Pantomet.Data.Migrations
{
    /// <inheritdoc />
    public partial class Subjects : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "SubjectSought",
                table: "Pictures",
                type: "INTEGER",
                nullable: false,
                defaultValue: true);

            migrationBuilder.CreateIndex(
                name: "IX_Pictures_SubjectSought",
                table: "Pictures",
                column: "SubjectSought",
                filter: "SubjectSought = 0");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Pictures_SubjectSought",
                table: "Pictures");

            migrationBuilder.DropColumn(
                name: "SubjectSought",
                table: "Pictures");
        }
    }
}
