using Microsoft.EntityFrameworkCore;

namespace Pantomet.Data.Variants;

/// <summary>What is asked about made files.</summary>
/// <param name="db">The database.</param>
public sealed class VariantQueries(PantometDb db)
{
    /// <summary>A made file by its identity; null where there is none.</summary>
    public Task<VariantRow?> OneAsync(string id, CancellationToken cancel) =>
        db.Variants.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, cancel);
}
