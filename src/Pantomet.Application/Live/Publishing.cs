using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Jobs;
using Pantomet.Application.Pages;
using Pantomet.Application.Variants;
using Pantomet.Core.Jobs;
using Pantomet.Core.Naming;
using Pantomet.Core.Rules;
using Pantomet.Data;
using Pantomet.Data.Live;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Live;

/// <summary>One file of a place as the job has it now.</summary>
/// <param name="Wanted">The file.</param>
/// <param name="Allowed">True when it is handed over although it breaks a limit.</param>
public sealed record FileNow(WantedFile Wanted, bool Allowed);

/// <summary>One picture in one place as the job has it now.</summary>
/// <param name="Path">What its address goes on with.</param>
/// <param name="Place">The slot, or the slots of a group.</param>
/// <param name="Cells">The picture in each of them.</param>
/// <param name="Files">Its files, slot by slot.</param>
public sealed record PlaceNow(string Path, PagePlace Place, IReadOnlyList<BoardCell> Cells, IReadOnlyList<FileNow> Files)
{
    /// <summary>The picture in the library.</summary>
    public PictureRow Picture => Cells[0].Picture;

    /// <summary>What it shows; empty for a decorative picture, null where nobody said it.</summary>
    public string? Alternative => Cells[0].Mine.Decisions.AlternativeOnPages;

    /// <summary>Eight hexadecimal digits over everything that its files depend on.</summary>
    public string Version { get; } =
        Convert.ToHexStringLower(
            SHA256.HashData(
                Encoding.UTF8.GetBytes(string.Join('\n', Files.Select(file => $"{file.Wanted.Slot.Key}/{file.Wanted.Id}/{file.Allowed}")))
            )
        )[..8];
}

/// <summary>Publishes jobs, and takes them back.</summary>
public sealed class Publishing(Writer writer, LiveLinkStore store, FetchCounts counts, TimeProvider clock)
{
    /// <summary>How long what was published answers once something newer took its place.</summary>
    public static readonly TimeSpan OldAnswers = TimeSpan.FromDays(30);

    /// <summary>Makes a job live as it stands, or one place of it.</summary>
    /// <param name="board">The job.</param>
    /// <param name="path">The one place; null for all.</param>
    /// <param name="cancel">Stops waiting.</param>
    /// <returns>False when there is nothing to publish.</returns>
    public async Task<bool> PublishAsync(JobBoard board, string? path, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(board);
        var now = Now(board).Where(place => path is null || place.Path == path).ToList();
        if (now.Count == 0)
        {
            return false;
        }

        var at = clock.GetUtcNow().UtcDateTime;
        await ChangeAsync(
            async db =>
            {
                var publication = await PublicationAsync(db, board.State, at);
                var before = await db.PublishedPlaces.Where(row => row.PublicationId == publication.Id).ToListAsync();
                var fresh = now.Select(place => (Place: place, Row: RowOf(publication, before, place, at))).ToList();
                db.PublishedPlaces.AddRange(fresh.Select(one => one.Row).OfType<PublishedPlaceRow>());
                // What the job has no more goes on for a while, for pages that were not changed yet.
                foreach (var gone in before.Where(row => path is null && row.ExpiresAt is null && now.All(place => place.Path != row.Path)))
                {
                    gone.ExpiresAt = at + OldAnswers;
                }

                db.PublishedPlaces.RemoveRange(before.Where(row => row.ExpiresAt < at));
                await db.SaveChangesAsync();
                // The places have their numbers only now.
                db.PublishedFiles.AddRange(fresh.SelectMany(one => one.Row is null ? [] : FilesOf(one.Place, one.Row.Id)));
                await db.SaveChangesAsync();
            },
            cancel
        );
        return true;
    }

    /// <summary>Takes everything that was published of a job back: its addresses answer no more.</summary>
    /// <returns>False when nothing was published.</returns>
    public async Task<bool> UnpublishAsync(Guid job, CancellationToken cancel)
    {
        var at = clock.GetUtcNow().UtcDateTime;
        var unpublished = 0;
        await ChangeAsync(
            async db =>
            {
                unpublished = await db
                    .Publications.Where(row => row.JobId == job && row.UnpublishedAt == null)
                    .ExecuteUpdateAsync(set => set.SetProperty(row => row.UnpublishedAt, at));
                await db
                    .PublishedPlaces.Where(place => db.Publications.Any(row => row.Id == place.PublicationId && row.JobId == job))
                    .ExecuteDeleteAsync();
            },
            cancel
        );
        return unpublished > 0;
    }

    /// <summary>The addresses at which a picture answers now, of whatever job, each beginning with a slash.</summary>
    public async Task<IReadOnlyList<string>> AddressesAsync(Guid picture, CancellationToken cancel) =>
        [
            .. (await store.PlacesAsync(cancel))
                .Where(place => place.Value.At(null, clock.GetUtcNow().UtcDateTime)?.PictureId == picture)
                .Select(place => $"/live/{place.Key}")
                .Order(StringComparer.Ordinal),
        ];

    /// <summary>Takes back what was published of one picture, of whatever job: its addresses answer no more.</summary>
    public Task UnpublishPictureAsync(Guid picture, CancellationToken cancel) =>
        ChangeAsync(db => db.PublishedPlaces.Where(place => place.PictureId == picture).ExecuteDeleteAsync(), cancel);

    /// <summary>What the job would publish now, place by place.</summary>
    public static IReadOnlyList<PlaceNow> Now(JobBoard board)
    {
        var state = board.State;
        var names = new UniqueNames();
        var places = new List<PlaceNow>();
        foreach (var mine in state.Shown)
        {
            var row = state.Rows[mine.Id];
            var words = Slug.From(state.WordsOf(mine) ?? Path.GetFileNameWithoutExtension(row.Name));
            var name = Path.GetFileNameWithoutExtension(names.Take("", words, "x").TrimStart('/'));
            var cells = state
                .Job.Slots.Select(place => board.Cell(state, mine, place))
                .OfType<BoardCell>()
                .Where(cell => !cell.Plan.Skipped);
            places.AddRange(
                cells
                    .GroupBy(cell => (cell.Place.Destination, Key: cell.Slot.Slot.Group ?? cell.Slot.Slot.Key))
                    .Select(same => Now(name, same.Key.Destination, same.Key.Key, [.. same.OrderBy(cell => cell.Slot.Rank)]))
                    .Where(place => place.Files.Count > 0)
            );
        }

        return places;
    }

    private static PlaceNow Now(string name, string destination, string key, IReadOnlyList<BoardCell> cells) =>
        new(
            $"{name}/{destination}/{key}",
            new(destination, key, [.. cells.Select(cell => cell.Slot.Slot)]),
            cells,
            [
                .. cells.SelectMany(cell =>
                    FilesOf(cell)
                        .Select(file => new FileNow(
                            file,
                            cell.Decision.Allowed.Contains(file.Want) || cell.Decision.Allowed.Contains(file.Id)
                        ))
                ),
            ]
        );

    // Whoever asks says which types it takes: each that the slot allows can be had, whether the slot makes one file or all.
    private static IEnumerable<WantedFile> FilesOf(BoardCell cell)
    {
        var slot = cell.Slot.Slot;
        var choice = cell.Decision.Choice ?? cell.Place.Choice;
        if (slot.Each || slot.ByContent || slot.Formats.Count < 2 || choice?.Format is not null)
        {
            return cell.Files;
        }

        return cell
            .Plan.Requests.Where(request => request.Plan.IsMade)
            .SelectMany(request => slot.Formats.Select(type => new FileRequest(request.Plan, type, request.Quality)))
            .Select(request => cell.Wanted(request));
    }

    private static async Task<PublicationRow> PublicationAsync(PantometDb db, BoardState state, DateTime at)
    {
        if (await db.Publications.FirstOrDefaultAsync(row => row.JobId == state.Id) is not { } publication)
        {
            var words = Slug.From(state.Job.Name);
            var key = words;
            for (var n = 2; await db.Publications.AnyAsync(row => row.Key == key); n++)
            {
                key = $"{words}-{n}";
            }

            publication = new()
            {
                Id = Guid.CreateVersion7(),
                JobId = state.Id,
                Key = key,
            };
            db.Publications.Add(publication);
        }

        (publication.At, publication.UnpublishedAt) = (at, null);
        return publication;
    }

    // A row for what is not published yet in this version; what takes another's place lets it go on for a while.
    private static PublishedPlaceRow? RowOf(PublicationRow publication, List<PublishedPlaceRow> before, PlaceNow place, DateTime at)
    {
        var same = before.FirstOrDefault(row => row.Path == place.Path && row.Version == place.Version);
        foreach (var older in before.Where(row => row.Path == place.Path && row != same && row.ExpiresAt is null))
        {
            older.ExpiresAt = at + OldAnswers;
        }

        if (same is not null)
        {
            // The same pixels as once before: only what is said of them may be newer.
            (same.ExpiresAt, same.Alternative) = (null, place.Alternative);
            return null;
        }

        return new()
        {
            PublicationId = publication.Id,
            Path = place.Path,
            PictureId = place.Picture.Id,
            Version = place.Version,
            At = at,
            Alternative = place.Alternative,
            Facts = StoredJson.Write(place.Picture.Facts),
            Slots = StoredJson.Write(
                place.Cells.Select(cell => new StoredSlot(RulesWriter.Write(cell.Own), cell.Plan.Asked.Width, cell.Plan.Asked.Height))
            ),
        };
    }

    private static IEnumerable<PublishedFileRow> FilesOf(PlaceNow place, int row) =>
        place.Files.Select(
            (file, i) =>
                new PublishedFileRow
                {
                    PlaceId = row,
                    Ordinal = i,
                    FileId = file.Wanted.Id,
                    Recipe = file.Wanted.Recipe.ToJson(),
                    Slot = file.Wanted.Slot.Key,
                    Descriptor = file.Wanted.Request.Plan.Descriptor.ToString(),
                    Allowed = file.Allowed,
                }
        );

    // What was counted by then is put down first; who asks next reads everything anew.
    private async Task ChangeAsync(Func<PantometDb, Task> change, CancellationToken cancel)
    {
        IReadOnlyCollection<LivePlace> known = [];
        await writer.WriteAsync<bool>(
            async db =>
            {
                await change(db);
                return (true, () => known = store.Forget());
            },
            cancel
        );
        await counts.StoreAsync(known);
    }
}
