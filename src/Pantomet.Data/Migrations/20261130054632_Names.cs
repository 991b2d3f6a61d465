using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Pantomet.Data.Migrations
{
    /// <summary>Placeholders, deliveries to receivers and their files get the names that the screens have for them.</summary>
    public partial class Names : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.RenameColumn(
                name: "StandIn",
                table: "Variants",
                newName: "Placeholder");

            migrationBuilder.CreateTable(
                name: "ReceiverDeliveries",
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
                    table.PrimaryKey("PK_ReceiverDeliveries", x => x.Id);
                    table.ForeignKey(
                        name: "FK_ReceiverDeliveries_Receivers_ReceiverId",
                        column: x => x.ReceiverId,
                        principalTable: "Receivers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ReceiverFiles",
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
                    table.PrimaryKey("PK_ReceiverFiles", x => new { x.JobId, x.ReceiverId, x.Path });
                    table.ForeignKey(
                        name: "FK_ReceiverFiles_Receivers_ReceiverId",
                        column: x => x.ReceiverId,
                        principalTable: "Receivers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.Sql(
                """
                INSERT INTO "ReceiverDeliveries" ("Id", "JobId", "ReceiverId", "State", "Trouble", "AskedAt", "EndedAt")
                SELECT "Id", "JobId", "ReceiverId", "State", "Trouble", "AskedAt", "EndedAt" FROM "Sendings";
                INSERT INTO "ReceiverFiles"
                  ("ReceiverId", "JobId", "Path", "PictureId", "Slot", "ContentHash", "Bytes", "State", "Said", "Shown", "HeldHash", "At")
                SELECT "ReceiverId", "JobId", "Path", "PictureId", "Slot", "ContentHash", "Bytes",
                  CASE "State" WHEN 'Taken' THEN 'Accepted' WHEN 'Failed' THEN 'NotDelivered' ELSE "State" END,
                  "Said", "Shown", "HeldHash", "At"
                FROM "SentFiles";
                DROP TABLE "Sendings";
                DROP TABLE "SentFiles";
                """
            );

            migrationBuilder.CreateIndex(
                name: "IX_ReceiverDeliveries_JobId_ReceiverId",
                table: "ReceiverDeliveries",
                columns: new[] { "JobId", "ReceiverId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_ReceiverDeliveries_ReceiverId",
                table: "ReceiverDeliveries",
                column: "ReceiverId");

            migrationBuilder.CreateIndex(
                name: "IX_ReceiverFiles_ReceiverId",
                table: "ReceiverFiles",
                column: "ReceiverId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("A data folder goes forward only.");
    }
}
