using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace Pantomet.Data;

/// <summary>Lets the migration tool build the model without the application.</summary>
internal sealed class DesignTimeFactory : IDesignTimeDbContextFactory<PantometDb>
{
    public PantometDb CreateDbContext(string[] args) =>
        new(new DbContextOptionsBuilder<PantometDb>().UseSqlite("Data Source=:memory:").Options);
}
