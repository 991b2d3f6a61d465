using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Pantomet.Data.Migrations
{
    /// <inheritdoc />
    public partial class Publications : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "FetchCounts",
                columns: table => new
                {
                    PublicationId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Path = table.Column<string>(type: "TEXT", nullable: false),
                    Fetches = table.Column<long>(type: "INTEGER", nullable: false),
                    Unchanged = table.Column<long>(type: "INTEGER", nullable: false),
                    Bytes = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_FetchCounts", x => new { x.PublicationId, x.Path });
                });

            migrationBuilder.CreateTable(
                name: "Publications",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    JobId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    WithdrawnAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Publications", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "PublishedPlaces",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PublicationId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Path = table.Column<string>(type: "TEXT", nullable: false),
                    PictureId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Version = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    ExpiresAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    Alternative = table.Column<string>(type: "TEXT", nullable: true),
                    Facts = table.Column<string>(type: "TEXT", nullable: false),
                    Slots = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PublishedPlaces", x => x.Id);
                    table.ForeignKey(
                        name: "FK_PublishedPlaces_Publications_PublicationId",
                        column: x => x.PublicationId,
                        principalTable: "Publications",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "PublishedFiles",
                columns: table => new
                {
                    PlaceId = table.Column<int>(type: "INTEGER", nullable: false),
                    Ordinal = table.Column<int>(type: "INTEGER", nullable: false),
                    FileId = table.Column<string>(type: "TEXT", nullable: false),
                    Recipe = table.Column<string>(type: "TEXT", nullable: false),
                    Slot = table.Column<string>(type: "TEXT", nullable: false),
                    Descriptor = table.Column<string>(type: "TEXT", nullable: false),
                    LetThrough = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PublishedFiles", x => new { x.PlaceId, x.Ordinal });
                    table.ForeignKey(
                        name: "FK_PublishedFiles_PublishedPlaces_PlaceId",
                        column: x => x.PlaceId,
                        principalTable: "PublishedPlaces",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Publications_JobId",
                table: "Publications",
                column: "JobId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Publications_Key",
                table: "Publications",
                column: "Key",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_PublishedFiles_FileId",
                table: "PublishedFiles",
                column: "FileId");

            migrationBuilder.CreateIndex(
                name: "IX_PublishedPlaces_PictureId",
                table: "PublishedPlaces",
                column: "PictureId");

            migrationBuilder.CreateIndex(
                name: "IX_PublishedPlaces_PublicationId_Path",
                table: "PublishedPlaces",
                columns: new[] { "PublicationId", "Path" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "FetchCounts");

            migrationBuilder.DropTable(
                name: "PublishedFiles");

            migrationBuilder.DropTable(
                name: "PublishedPlaces");

            migrationBuilder.DropTable(
                name: "Publications");
        }
    }
}
