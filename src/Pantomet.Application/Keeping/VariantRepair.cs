using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Jobs;
using Pantomet.Application.Variants;
using Pantomet.Core.Jobs;
using Pantomet.Core.Recipes;
using Pantomet.Core.Rules;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Data.Variants;

namespace Pantomet.Application.Keeping;

/// <summary>Makes files again that are missing or damaged, by the recipes that they were made by.</summary>
public sealed class VariantRepair(IServiceScopeFactory scopes, FileDesk desk)
{
    /// <summary>Makes files again.</summary>
    /// <param name="hashes">The SHA-256 of the files that are missing or damaged.</param>
    /// <param name="tells">Told how many are done, and of how many.</param>
    /// <param name="cancel">Stops between encodes.</param>
    /// <returns>How many of them were made.</returns>
    public async Task<int> RunAsync(IReadOnlyCollection<string> hashes, Action<int, int>? tells, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(hashes);
        var (wanted, made, done) = (await WantedAsync(hashes, cancel), new HashSet<string>(StringComparer.Ordinal), 0);
        foreach (var (hash, file) in wanted)
        {
            if ((await desk.MakeAsync(file, urgent: false, cancel)).Made(file.Id) is not null)
            {
                made.Add(hash);
            }

            tells?.Invoke(++done, wanted.Count);
        }

        return made.Count;
    }

    private async Task<IReadOnlyList<(string Hash, WantedFile File)>> WantedAsync(
        IReadOnlyCollection<string> hashes,
        CancellationToken cancel
    )
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        var wanted = new List<(string, WantedFile)>();
        foreach (var some in hashes.Chunk(500))
        {
            var rows = await db
                .Variants.AsNoTracking()
                .Where(row => some.Contains(row.ContentHash))
                .Join(db.Pictures.AsNoTracking(), row => row.PictureId, picture => picture.Id, (row, picture) => new { row, picture })
                .ToListAsync(cancel);
            wanted.AddRange(
                rows.Select(one => (one.row.ContentHash, WantedOf(one.row, one.picture)))
                    .Where(one => one.Item2 is not null)
                    .Select(one => (one.ContentHash, one.Item2!))
            );
        }

        return wanted;
    }

    // Null for files of before there were recipes: their jobs make them when they are opened.
    private static WantedFile? WantedOf(VariantRow row, PictureRow picture)
    {
        if (row.Recipe.Length == 0)
        {
            return null;
        }

        var recipe = Recipe.Parse(row.Recipe);
        return RulesReader.TryReadSlot(recipe.Rule, out var slot, out _)
            ? new(row.Id, recipe, picture, slot!, new FileRequest(VariantStore.PlanOf(recipe), recipe.Format, recipe.Quality))
            : null;
    }
}
