using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Jobs;
using Pantomet.Application.Variants;
using Pantomet.Data;

namespace Pantomet.Application.Keeping;

/// <summary>How much lies in the data folder, and for what.</summary>
/// <param name="Originals">Bytes of originals, those of removed pictures and earlier ones included.</param>
/// <param name="Wanted">Bytes of files that jobs want.</param>
/// <param name="Unwanted">Bytes of files that no job needs; each is made again when it is needed.</param>
/// <param name="Previews">Bytes of small copies for the screen.</param>
/// <param name="MostUnwanted">How many bytes of files that no job needs are kept at most.</param>
/// <param name="Integrity">How far the slow check of all stored files is, and what it found.</param>
public sealed record StorageView(long Originals, long Wanted, long Unwanted, long Previews, long MostUnwanted, IntegrityView Integrity);

/// <summary>What was collected.</summary>
/// <param name="Files">How many files went.</param>
/// <param name="Bytes">What they weighed.</param>
public sealed record Collected(int Files, long Bytes);

/// <summary>
/// Collects what nothing wants: files that no job has a place for any more, least recently wanted first, until no more than a set amount is
/// left; and at once what nobody can ask for: files without a row, small copies of what is gone. Originals are never its business.
/// </summary>
public sealed partial class UnusedFileCollector(
    IServiceScopeFactory scopes,
    Writer writer,
    DataFolder folder,
    VariantStore store,
    IntegritySweep integrity,
    TimeProvider clock,
    ILogger<UnusedFileCollector> log
)
{
    /// <summary>What is kept unless somebody says otherwise: 2 GB.</summary>
    public const long UsualMost = 2_000_000_000;

    /// <summary>The most that can be asked for: 100 TB.</summary>
    public const long LargestMost = 100_000_000_000_000;

    private const int AtOnce = 400;

    // A file is stored a moment before its row: what is younger is left alone.
    private static readonly TimeSpan Young = TimeSpan.FromMinutes(10);

    // A small copy that nobody looked at for a month is made again in a tenth of a second when somebody does.
    private static readonly TimeSpan Forgotten = TimeSpan.FromDays(30);

    /// <summary>How much lies in the data folder.</summary>
    public async Task<StorageView> LookAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        var all = await db.Variants.SumAsync(row => row.Bytes, cancel);
        var unwanted = await Unwanted(db).SumAsync(row => row.Bytes, cancel);
        var originals = folder.Originals.Names().Sum(file => new FileInfo(file.Path).Length);
        var previews = new DirectoryInfo(folder.Previews).EnumerateFiles().Sum(file => file.Length);
        return new(originals, all - unwanted, unwanted, previews, await MostAsync(db, cancel), integrity.View());
    }

    /// <summary>Sets how much of what nothing wants is kept.</summary>
    /// <param name="bytes">From 0 to <see cref="LargestMost"/>.</param>
    /// <param name="cancel">Stops waiting.</param>
    public Task<bool> SetMostAsync(long bytes, CancellationToken cancel)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(bytes);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(bytes, LargestMost);
        return writer.WriteAsync<bool>(
            async db =>
            {
                await db.Settings.Where(row => row.Name == SettingRow.MostUnwanted).ExecuteDeleteAsync(CancellationToken.None);
                db.Settings.Add(new() { Name = SettingRow.MostUnwanted, Value = bytes.ToString(CultureInfo.InvariantCulture) });
                await db.SaveChangesAsync(CancellationToken.None);
                return (true, null);
            },
            cancel
        );
    }

    /// <summary>Collects once.</summary>
    /// <param name="most">How many bytes of what nothing wants are left; null for the setting.</param>
    /// <param name="cancel">Stops between steps.</param>
    public async Task<Collected> CollectAsync(long? most, CancellationToken cancel)
    {
        await CountWantedAsync(cancel);
        var collected = await CollectUnwantedAsync(most, cancel);
        var strays = await CollectStraysAsync(cancel);
        var all = new Collected(collected.Files + strays.Files, collected.Bytes + strays.Bytes);
        if (all.Files > 0)
        {
            Done(log, all.Files, all.Bytes);
        }

        return all;
    }

    private static IQueryable<Data.Variants.VariantRow> Unwanted(PantometDb db) =>
        db.Variants.Where(row => !db.Wants.Any(want => want.FileId == row.Id) && !db.PublishedFiles.Any(file => file.FileId == row.Id));

    private static async Task<long> MostAsync(PantometDb db, CancellationToken cancel) =>
        await db.Settings.Where(row => row.Name == SettingRow.MostUnwanted).Select(row => row.Value).FirstOrDefaultAsync(cancel) is { } set
            ? long.Parse(set, CultureInfo.InvariantCulture)
            : UsualMost;

    // In small steps: whoever decides meanwhile does not wait for all of them.
    private async Task CountWantedAsync(CancellationToken cancel)
    {
        var today = clock.GetUtcNow().UtcDateTime.Date;
        while (
            await writer.WriteAsync<int>(
                async db =>
                {
                    var due = db
                        .Variants.Where(row => row.WantedAt < today && db.Wants.Any(want => want.FileId == row.Id))
                        .Select(row => row.Id)
                        .Take(AtOnce);
                    var ids = await due.ToListAsync(CancellationToken.None);
                    await db
                        .Variants.Where(row => ids.Contains(row.Id))
                        .ExecuteUpdateAsync(set => set.SetProperty(row => row.WantedAt, today), CancellationToken.None);
                    return (ids.Count, null);
                },
                cancel
            ) == AtOnce
        )
        {
            cancel.ThrowIfCancellationRequested();
        }
    }

    private async Task<Collected> CollectUnwantedAsync(long? most, CancellationToken cancel)
    {
        var young = clock.GetUtcNow().UtcDateTime - Young;
        List<(string Id, long Bytes)> unwanted;
        await using (var scope = scopes.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
            most ??= await MostAsync(db, cancel);
            unwanted =
            [
                .. (
                    await Unwanted(db)
                        .Where(row => row.MadeAt < young)
                        .OrderBy(row => row.WantedAt)
                        .ThenBy(row => row.MadeAt)
                        .Select(row => new { row.Id, row.Bytes })
                        .ToListAsync(cancel)
                ).Select(row => (row.Id, row.Bytes)),
            ];
        }

        var left = unwanted.Sum(row => row.Bytes);
        List<string> going = [];
        foreach (var (id, bytes) in unwanted.TakeWhile(_ => left > most))
        {
            going.Add(id);
            left -= bytes;
        }

        var collected = new Collected(0, 0);
        foreach (var chunk in going.Chunk(AtOnce))
        {
            cancel.ThrowIfCancellationRequested();
            var some = await ForgetAsync(chunk, cancel);
            collected = new(collected.Files + some.Files, collected.Bytes + some.Bytes);
        }

        return collected;
    }

    // Whatever was wanted again meanwhile stays.
    private Task<Collected> ForgetAsync(string[] ids, CancellationToken cancel) =>
        writer.WriteAsync<Collected>(
            async db =>
            {
                var rows = await Unwanted(db).Where(row => ids.Contains(row.Id)).AsNoTracking().ToListAsync(CancellationToken.None);
                var gone = rows.Select(row => row.Id).ToList();
                await db.Variants.Where(row => gone.Contains(row.Id)).ExecuteDeleteAsync(CancellationToken.None);
                var hashes = rows.Select(row => row.ContentHash).ToHashSet();
                // Two recipes may have come to the same bytes.
                hashes.ExceptWith(
                    await db
                        .Variants.Where(row => hashes.Contains(row.ContentHash))
                        .Select(row => row.ContentHash)
                        .ToListAsync(CancellationToken.None)
                );
                return (new Collected(rows.Count, rows.Sum(row => row.Bytes)), () => Remove(hashes));
            },
            cancel
        );

    private void Remove(IEnumerable<string> hashes)
    {
        foreach (var hash in hashes.Where(hash => IsOld(folder.Variants.PathOf(hash))))
        {
            Delete(folder.Variants.PathOf(hash));
            Delete(store.SmallPath(hash));
        }
    }

    // Files without a row, small copies of what is gone, and those that nobody looks at any more.
    private async Task<Collected> CollectStraysAsync(CancellationToken cancel)
    {
        HashSet<ulong> variants,
            pictures;
        await using (var scope = scopes.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
            variants = await HeadsAsync(db.Variants.Select(row => row.ContentHash), cancel);
            pictures = await HeadsAsync(
                db.Pictures.Select(row => row.ContentHash).Concat(db.Revisions.Select(row => row.ContentHash)),
                cancel
            );
        }

        var collected = new Collected(0, 0);
        var strays = folder
            .Variants.Names()
            .Where(file => !variants.Contains(Head(file.Hash)))
            .Select(file => file.Path)
            .Concat(
                Directory
                    .EnumerateFiles(folder.Previews, "*.webp")
                    .Where(path =>
                        path.EndsWith("-made.webp", StringComparison.Ordinal)
                            ? !variants.Contains(Head(Path.GetFileName(path)))
                            : IsOlder(path, Forgotten) || !pictures.Contains(Head(Path.GetFileName(path)))
                    )
            );
        foreach (var path in strays.Where(IsOld))
        {
            cancel.ThrowIfCancellationRequested();
            collected = new(collected.Files + 1, collected.Bytes + new FileInfo(path).Length);
            Delete(path);
        }

        return collected;
    }

    // Eight bytes of a hash tell one from the other, at a tenth of the memory.
    private static async Task<HashSet<ulong>> HeadsAsync(IQueryable<string> hashes, CancellationToken cancel)
    {
        var heads = new HashSet<ulong>();
        await foreach (var hash in hashes.AsAsyncEnumerable().WithCancellation(cancel))
        {
            heads.Add(Head(hash));
        }

        return heads;
    }

    private static ulong Head(string name) =>
        ulong.TryParse(name.AsSpan(0, Math.Min(16, name.Length)), NumberStyles.HexNumber, CultureInfo.InvariantCulture, out var head)
            ? head
            : 0;

    private bool IsOld(string path) => IsOlder(path, Young);

    private bool IsOlder(string path, TimeSpan age) => File.GetLastWriteTimeUtc(path) < clock.GetUtcNow().UtcDateTime - age;

    private static void Delete(string path)
    {
        try
        {
            File.Delete(path);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            // It is a stray the next time.
        }
    }

    [LoggerMessage(Level = LogLevel.Information, Message = "Collected {Files} files that nothing wants, {Bytes} bytes.")]
    private static partial void Done(ILogger log, int files, long bytes);
}
