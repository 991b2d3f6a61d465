namespace Pantomet.Data.Variants;

/// <summary>Files of data folders that name what was asked for, and not yet a recipe.</summary>
/// <param name="db">A database whose connection is open, within its transaction.</param>
public sealed class OldFiles(PantometDb db) : IDisposable
{
    private readonly Statements _sql = new(db);

    /// <summary>All of them.</summary>
    public Task<List<(string Id, string Asked, string MadeAt)>> AllAsync() =>
        _sql.ReadAsync(
            "SELECT Id, \"Order\", MadeAt FROM Variants WHERE \"Order\" IS NOT NULL",
            row => (row.GetString(0), row.GetString(1), row.GetString(2))
        );

    /// <summary>Removes one whose text cannot be read.</summary>
    public Task RemoveAsync(string id) => _sql.RunAsync("DELETE FROM Variants WHERE Id = $1", id);

    /// <summary>Gives one its recipe.</summary>
    public Task SetRecipeAsync(string id, string recipeId, string want, string recipe, string madeAt) =>
        _sql.RunAsync(
            "UPDATE OR REPLACE Variants SET Id = $2, Want = $3, Recipe = $4, WantedAt = $5, \"Order\" = NULL WHERE Id = $1",
            id,
            recipeId,
            want,
            recipe,
            madeAt
        );

    /// <inheritdoc/>
    public void Dispose() => _sql.Dispose();
}
