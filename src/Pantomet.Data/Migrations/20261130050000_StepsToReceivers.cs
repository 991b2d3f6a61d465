using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Pantomet.Data.Migrations
{
    /// <summary>All steps from the first jobs to receivers, which were a migration each.</summary>
    public partial class StepsToReceivers : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            foreach (var step in MigrationSteps.All)
            {
                foreach (var (sql, alone) in step.Parts())
                {
                    migrationBuilder.Sql(sql, suppressTransaction: alone);
                }
            }
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new System.NotSupportedException("A data folder goes forward only.");
    }
}
