using System.Collections.Frozen;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;
using Pantomet.Data;
using Pantomet.Data.Live;

namespace Pantomet.Application.Live;

/// <summary>A slot as it is stored with what was published.</summary>
/// <param name="Rule">The slot as in a rules file.</param>
/// <param name="Width">How wide it is shown at density 1, in CSS pixels.</param>
/// <param name="Height">How high.</param>
internal sealed record StoredSlot(string Rule, int Width, int Height);

/// <summary>Everything that is published, in memory, by address; read again whenever something is published or unpublished.</summary>
public sealed partial class LiveLinkStore(IServiceScopeFactory scopes, ILogger<LiveLinkStore> log) : IDisposable
{
    private readonly SemaphoreSlim _reading = new(1, 1);
    private volatile FrozenDictionary<string, LivePlace>? _places;
    private readonly Lock _gate = new();
    private int _changes;

    /// <summary>Every place by its address behind <c>/live/</c>.</summary>
    public async ValueTask<FrozenDictionary<string, LivePlace>> PlacesAsync(CancellationToken cancel)
    {
        if (_places is { } known)
        {
            return known;
        }

        await _reading.WaitAsync(cancel);
        try
        {
            // What was read while something changed may be from before.
            while (true)
            {
                if (_places is { } read)
                {
                    return read;
                }

                var changes = Volatile.Read(ref _changes);
                var places = await ReadAsync(cancel);
                lock (_gate)
                {
                    if (changes == _changes)
                    {
                        _places = places;
                    }
                }
            }
        }
        finally
        {
            _reading.Release();
        }
    }

    /// <summary>Forgets what is known; what was counted meanwhile is given back.</summary>
    public IReadOnlyCollection<LivePlace> Forget()
    {
        FrozenDictionary<string, LivePlace>? before;
        lock (_gate)
        {
            _changes++;
            (before, _places) = (_places, null);
        }

        return before is null ? [] : before.Values;
    }

    /// <summary>Every place that is known now.</summary>
    public IReadOnlyCollection<LivePlace> Known => _places is { } known ? known.Values : [];

    private async Task<FrozenDictionary<string, LivePlace>> ReadAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        var keys = await db
            .Publications.AsNoTracking()
            .Where(row => row.UnpublishedAt == null)
            .ToDictionaryAsync(row => row.Id, row => row.Key, cancel);
        var rows = await db.PublishedPlaces.AsNoTracking().ToListAsync(cancel);
        var files = (await db.PublishedFiles.AsNoTracking().OrderBy(row => row.Ordinal).ToListAsync(cancel)).ToLookup(row => row.PlaceId);
        return rows.Where(row => keys.ContainsKey(row.PublicationId))
            .GroupBy(row => (row.PublicationId, row.Path))
            .Select(same => new LivePlace(
                same.Key.PublicationId,
                same.Key.Path,
                [
                    .. same.OrderByDescending(row => row.ExpiresAt is null)
                        .ThenByDescending(row => row.At)
                        .Select(row => ReadableOf(row, files[row.Id]))
                        .OfType<LiveVersion>(),
                ]
            ))
            .Where(place => place.Versions.Count > 0)
            .ToFrozenDictionary(place => $"{keys[place.Publication]}/{place.Path}", StringComparer.Ordinal);
    }

    // One that cannot be read answers no more; all others do.
    private LiveVersion? ReadableOf(PublishedPlaceRow row, IEnumerable<PublishedFileRow> files)
    {
        try
        {
            return VersionOf(row, files);
        }
        catch (Exception fault)
            when (fault is InvalidDataException or JsonException or FormatException or ArgumentException or NotSupportedException)
        {
            Unreadable(log, fault, row.Path, row.Version);
            return null;
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "What is published at {Path}, version {Version}, cannot be read and answers no more.")]
    private static partial void Unreadable(ILogger log, Exception fault, string path, string version);

    /// <summary>One place as it was published.</summary>
    public static LiveVersion VersionOf(PublishedPlaceRow row, IEnumerable<PublishedFileRow> files)
    {
        ArgumentNullException.ThrowIfNull(row);
        var bySlot = files.ToLookup(file => file.Slot);
        var slots = StoredJson
            .Read<List<StoredSlot>>(row.Slots)
            .Select(stored =>
                RulesReader.TryReadSlot(stored.Rule, out var slot, out var fault)
                    ? new LiveSlot(slot!, new PixelSize(stored.Width, stored.Height), RungsOf(bySlot[slot!.Key]))
                    : throw new InvalidDataException(fault!.ToString())
            )
            .Where(slot => slot.Rungs.Count > 0);
        return new(
            row.Version,
            row.PictureId,
            StoredJson.Read<PictureFacts>(row.Facts),
            row.Alternative,
            row.At,
            row.ExpiresAt,
            [.. slots]
        );
    }

    private static List<LiveRung> RungsOf(IEnumerable<PublishedFileRow> files) =>
        [
            .. files
                .Select(row => (row.Descriptor, File: new LiveFile(row.FileId, row.Recipe, row.Allowed)))
                .GroupBy(one => one.File.Recipe.Size)
                .Select(same => new LiveRung(
                    same.Key.Width,
                    same.Key.Height,
                    same.First().Descriptor,
                    [.. same.Select(one => one.File).DistinctBy(file => file.Id)]
                ))
                .OrderBy(rung => rung.Width),
        ];

    /// <inheritdoc/>
    public void Dispose() => _reading.Dispose();
}
