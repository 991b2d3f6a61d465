using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Pantomet.Data.Migrations
{
    /// <inheritdoc />
    public partial class Receivers : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Receivers",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Rule = table.Column<string>(type: "TEXT", nullable: false),
                    Secret = table.Column<string>(type: "TEXT", nullable: true),
                    AddedAt = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Receivers", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Sendings",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    JobId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ReceiverId = table.Column<Guid>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Trouble = table.Column<string>(type: "TEXT", nullable: true),
                    AskedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    EndedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Sendings", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Sendings_Receivers_ReceiverId",
                        column: x => x.ReceiverId,
                        principalTable: "Receivers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "SentFiles",
                columns: table => new
                {
                    ReceiverId = table.Column<Guid>(type: "TEXT", nullable: false),
                    JobId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Path = table.Column<string>(type: "TEXT", nullable: false),
                    PictureId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Slot = table.Column<string>(type: "TEXT", nullable: false),
                    ContentHash = table.Column<string>(type: "TEXT", nullable: false),
                    Bytes = table.Column<long>(type: "INTEGER", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Said = table.Column<string>(type: "TEXT", nullable: false),
                    Shown = table.Column<string>(type: "TEXT", nullable: false),
                    HeldHash = table.Column<string>(type: "TEXT", nullable: true),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SentFiles", x => new { x.JobId, x.ReceiverId, x.Path });
                    table.ForeignKey(
                        name: "FK_SentFiles_Receivers_ReceiverId",
                        column: x => x.ReceiverId,
                        principalTable: "Receivers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Survivals",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    ReceiverId = table.Column<Guid>(type: "TEXT", nullable: false),
                    JobId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Path = table.Column<string>(type: "TEXT", nullable: false),
                    ContentHash = table.Column<string>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Trouble = table.Column<string>(type: "TEXT", nullable: true),
                    Tried = table.Column<string>(type: "TEXT", nullable: false),
                    AskedAt = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Survivals", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Survivals_Receivers_ReceiverId",
                        column: x => x.ReceiverId,
                        principalTable: "Receivers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Sendings_JobId_ReceiverId",
                table: "Sendings",
                columns: new[] { "JobId", "ReceiverId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Sendings_ReceiverId",
                table: "Sendings",
                column: "ReceiverId");

            migrationBuilder.CreateIndex(
                name: "IX_SentFiles_ReceiverId",
                table: "SentFiles",
                column: "ReceiverId");

            migrationBuilder.CreateIndex(
                name: "IX_Survivals_JobId_ReceiverId_Path",
                table: "Survivals",
                columns: new[] { "JobId", "ReceiverId", "Path" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Survivals_ReceiverId",
                table: "Survivals",
                column: "ReceiverId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Sendings");

            migrationBuilder.DropTable(
                name: "SentFiles");

            migrationBuilder.DropTable(
                name: "Survivals");

            migrationBuilder.DropTable(
                name: "Receivers");
        }
    }
}
