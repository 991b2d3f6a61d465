using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Pantomet.Data.Migrations
{
    /// <summary>Decisions, commands and states of folders get the names that the screens have for them.</summary>
    public partial class PlainNames : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.RenameColumn(
                name: "LetThrough",
                table: "PublishedFiles",
                newName: "Allowed");

            migrationBuilder.RenameColumn(
                name: "Looks",
                table: "Jobs",
                newName: "ToReview");

            migrationBuilder.RenameColumn(
                name: "Ornament",
                table: "JobPictures",
                newName: "Decorative");

            migrationBuilder.RenameColumn(
                name: "NoSuggestion",
                table: "JobPictures",
                newName: "SuggestionRejected");

            migrationBuilder.RenameColumn(
                name: "Loose",
                table: "JobDecisions",
                newName: "Unlinked");

            migrationBuilder.RenameColumn(
                name: "LetThrough",
                table: "JobDecisions",
                newName: "Allowed");

            migrationBuilder.RenameColumn(
                name: "Looks",
                table: "Cells",
                newName: "ToReview");

            migrationBuilder.RenameColumn(
                name: "WithdrawnAt",
                table: "Publications",
                newName: "UnpublishedAt");

            // Commands, and the ways back from them, are stored as JSON.
            migrationBuilder.Sql(
                $"""
                UPDATE "Commands" SET "Body" = {OldNames.Sql("Body")}, "Inverse" = {OldNames.Sql("Inverse")};
                UPDATE "PictureFolders" SET "State" = CASE "State"
                  WHEN 'Looking' THEN 'Scanning' WHEN 'Trying' THEN 'Previewing' WHEN 'Mending' THEN 'Optimising' ELSE "State" END;
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.RenameColumn(
                name: "UnpublishedAt",
                table: "Publications",
                newName: "WithdrawnAt");

            migrationBuilder.RenameColumn(
                name: "Allowed",
                table: "PublishedFiles",
                newName: "LetThrough");

            migrationBuilder.RenameColumn(
                name: "ToReview",
                table: "Jobs",
                newName: "Looks");

            migrationBuilder.RenameColumn(
                name: "Decorative",
                table: "JobPictures",
                newName: "Ornament");

            migrationBuilder.RenameColumn(
                name: "SuggestionRejected",
                table: "JobPictures",
                newName: "NoSuggestion");

            migrationBuilder.RenameColumn(
                name: "Unlinked",
                table: "JobDecisions",
                newName: "Loose");

            migrationBuilder.RenameColumn(
                name: "Allowed",
                table: "JobDecisions",
                newName: "LetThrough");

            migrationBuilder.RenameColumn(
                name: "ToReview",
                table: "Cells",
                newName: "Looks");
        }
    }
}
