using System.Collections.Immutable;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Engine;
using Pantomet.Application.Jobs;
using Pantomet.Core.Dressing;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Rules;
using Pantomet.Imaging.Dressing;

namespace Pantomet.Application.Destinations;

/// <summary>A logo or a font that rules can name.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Bytes">Its weight.</param>
/// <param name="Content">The name of its content: another one is another file.</param>
public sealed record SideFileView(string Name, long Bytes, string Content);

/// <summary>The names of logos and fonts as they are now.</summary>
/// <param name="ByName">The names of contents by those that rules give.</param>
/// <param name="Exchanges">How often a file under a known name was exchanged or removed.</param>
public sealed record SideNames(ImmutableDictionary<string, string> ByName, long Exchanges)
{
    /// <summary>No names.</summary>
    public static readonly SideNames None = new(ImmutableDictionary<string, string>.Empty, 0);

    /// <summary>The name of the file that has this content hash; null where there is none.</summary>
    public string NameOf(string name) => ByName.GetValueOrDefault(name, name);

    /// <summary>A slot, its files by the names of their content.</summary>
    public Slot Named(Slot slot) => slot.WithFiles(NameOf, name => ByName.ContainsKey(name) ? null : RuleTexts.ThereIsNoFile(name));
}

/// <summary>
/// The logos and fonts that rules name, in the data folder: each lies under the name of its content, so that what was published keeps the
/// mark it was published with.
/// </summary>
public sealed class SideFileStore
{
    private readonly IServiceScopeFactory _scopes;
    private readonly DataFolder _folder;
    private readonly ImagingProcessPool _processes;
    private readonly TimeProvider _clock;

    /// <summary>The store in a data folder.</summary>
    public SideFileStore(IServiceScopeFactory scopes, DataFolder folder, ImagingProcessPool processes, TimeProvider clock)
    {
        (_scopes, _folder, _processes, _clock) = (scopes, folder, processes, clock);
        SideFiles.Use(folder.SideFiles);
    }

    /// <summary>The most files that are kept.</summary>
    public const int MostFiles = 200;

    private volatile SideNames? _names;

    /// <summary>The names as they are now; none before they are read.</summary>
    public SideNames Now => _names ?? SideNames.None;

    /// <summary>True once the names are read.</summary>
    public bool IsRead => _names is not null;

    /// <summary>Reads the names, once.</summary>
    public async Task<SideNames> NamesAsync(CancellationToken cancel)
    {
        if (_names is { } known)
        {
            return known;
        }

        await using var scope = _scopes.CreateAsyncScope();
        return _names = await FromAsync(scope.ServiceProvider.GetRequiredService<PantometDb>(), cancel);
    }

    /// <summary>What is there, by name.</summary>
    public async Task<IReadOnlyList<SideFileView>> AllAsync(CancellationToken cancel)
    {
        await using var scope = _scopes.CreateAsyncScope();
        return await scope
            .ServiceProvider.GetRequiredService<PantometDb>()
            .SideFiles.AsNoTracking()
            .OrderBy(row => row.Name)
            .Select(row => new SideFileView(row.Name, row.Bytes, row.Content))
            .ToListAsync(cancel);
    }

    /// <summary>Where a file lies; null when there is none of the name.</summary>
    public async Task<string?> PathOfAsync(string name, CancellationToken cancel) =>
        (await NamesAsync(cancel)).ByName.TryGetValue(name, out var content) ? Path.Combine(_folder.SideFiles, content) : null;

    /// <summary>Adds a file, or exchanges the one of the same name; a sentence when it cannot be used.</summary>
    /// <param name="name">The name that rules give it.</param>
    /// <param name="content">Its content.</param>
    /// <param name="writer">The door for writing.</param>
    /// <param name="jobs">Told that slots may look otherwise.</param>
    /// <param name="cancel">Stops before anything is stored.</param>
    public async Task<string?> AddAsync(string name, Stream content, Writer writer, OpenJobs jobs, CancellationToken cancel)
    {
        if (SideFile.Fault(name, [.. SideFile.MarkEndings, .. SideFile.FontEndings]) is { } noName)
        {
            return char.ToUpperInvariant(noName[0]) + noName[1..] + ".";
        }

        // The ending stays: it says what the file is looked at as.
        var part = Path.Combine(_folder.SideFiles, $"{Guid.NewGuid():N}.part{Path.GetExtension(name).ToLowerInvariant()}");
        try
        {
            await using (var file = File.Create(part))
            {
                await content.CopyToAsync(file, cancel);
            }

            var bytes = await File.ReadAllBytesAsync(part, cancel);
            if ((SideFiles.Fault(bytes, part) ?? await RuleFiles.NotDrawnAsync(part, _processes, cancel)) is { } fault)
            {
                return fault.Replace(Path.GetFileName(part), name, StringComparison.Ordinal);
            }

            var stored = SideFiles.NameOf(bytes, Path.GetExtension(name));
            File.Move(part, Path.Combine(_folder.SideFiles, stored), overwrite: true);
            return await writer.WriteAsync<string?>(
                async db =>
                {
                    if (await db.SideFiles.FindAsync(name) is { } known)
                    {
                        if (known.Content == stored)
                        {
                            return (null, null);
                        }

                        (known.Content, known.Bytes, known.At) = (stored, bytes.LongLength, _clock.GetUtcNow().UtcDateTime);
                        await CountExchangeAsync(db);
                    }
                    else if (await db.SideFiles.CountAsync() >= MostFiles)
                    {
                        return (RuleTexts.AtMostLogosAndFontsCan(MostFiles), null);
                    }
                    else
                    {
                        db.SideFiles.Add(
                            new()
                            {
                                Name = name,
                                Content = stored,
                                Bytes = bytes.LongLength,
                                At = _clock.GetUtcNow().UtcDateTime,
                            }
                        );
                    }

                    await db.SaveChangesAsync();
                    return (null, await TakenAsync(db, jobs));
                },
                cancel
            );
        }
        finally
        {
            File.Delete(part);
        }
    }

    /// <summary>Takes a file away; what was published with it keeps it. False when there is none.</summary>
    public Task<bool> RemoveAsync(string name, Writer writer, OpenJobs jobs, CancellationToken cancel) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                if (await db.SideFiles.Where(row => row.Name == name).ExecuteDeleteAsync() == 0)
                {
                    return (false, null);
                }

                await CountExchangeAsync(db);
                return (true, await TakenAsync(db, jobs));
            },
            cancel
        );

    // What is laid out by the book looks at its files again.
    private async Task<Action> TakenAsync(PantometDb db, OpenJobs jobs)
    {
        var (book, names) = (await RuleStore.BookAsync(db, CancellationToken.None), await FromAsync(db, CancellationToken.None));
        return () =>
        {
            _names = names;
            jobs.SetBook(book);
        };
    }

    private static async Task CountExchangeAsync(PantometDb db)
    {
        var count = await ExchangesAsync(db, CancellationToken.None) + 1;
        await db.Settings.Where(row => row.Name == SettingRow.SideFileExchanges).ExecuteDeleteAsync();
        db.Settings.Add(new() { Name = SettingRow.SideFileExchanges, Value = count.ToString(CultureInfo.InvariantCulture) });
        await db.SaveChangesAsync();
    }

    private static async Task<SideNames> FromAsync(PantometDb db, CancellationToken cancel)
    {
        var rows = await db.SideFiles.AsNoTracking().ToDictionaryAsync(row => row.Name, row => row.Content, cancel);
        return new(rows.ToImmutableDictionary(StringComparer.Ordinal), await ExchangesAsync(db, cancel));
    }

    private static async Task<long> ExchangesAsync(PantometDb db, CancellationToken cancel) =>
        await db.Settings.Where(row => row.Name == SettingRow.SideFileExchanges).Select(row => row.Value).FirstOrDefaultAsync(cancel)
            is { } set
            ? long.Parse(set, CultureInfo.InvariantCulture)
            : 0;
}
