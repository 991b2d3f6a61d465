using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Pantomet.Data.Migrations
{
    /// <inheritdoc />
    public partial class SideFiles : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Title",
                table: "JobPictures",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Dress",
                table: "JobDecisions",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "SideFiles",
                columns: table => new
                {
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Content = table.Column<string>(type: "TEXT", nullable: false),
                    Bytes = table.Column<long>(type: "INTEGER", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SideFiles", x => x.Name);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "SideFiles");

            migrationBuilder.DropColumn(
                name: "Title",
                table: "JobPictures");

            migrationBuilder.DropColumn(
                name: "Dress",
                table: "JobDecisions");
        }
    }
}
