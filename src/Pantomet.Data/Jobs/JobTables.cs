using System.Globalization;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Texts;

namespace Pantomet.Data.Jobs;

/// <summary>A job as its tables hold it.</summary>
/// <param name="Row">Names and figures.</param>
/// <param name="Job">Pictures, slots and decisions.</param>
/// <param name="Places">The places of its pictures.</param>
/// <param name="LaidOutBy">By which rule each slot's cells were laid out.</param>
public sealed record StoredJob(JobRow Row, Job Job, IReadOnlyDictionary<Guid, long> Places, IReadOnlyDictionary<string, string> LaidOutBy);

/// <summary>Jobs and decisions in their tables: read whole, written by what changed.</summary>
public static class JobTables
{
    // Room for later pictures between two others.
    private const long Gap = 1 << 20;

    /// <summary>Reads a job; null when there is none.</summary>
    /// <exception cref="InvalidDataException">A stored value cannot be.</exception>
    public static async Task<StoredJob?> LoadAsync(PantometDb db, Guid id, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        if (await db.Jobs.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, cancel) is not { } row)
        {
            return null;
        }

        var pictures = await db.JobPictures.AsNoTracking().Where(one => one.JobId == id).OrderBy(one => one.Place).ToListAsync(cancel);
        var framings = (await db.JobFramings.AsNoTracking().Where(one => one.JobId == id).ToListAsync(cancel)).ToLookup(one =>
            one.PictureId
        );
        var decisions = (await db.JobDecisions.AsNoTracking().Where(one => one.JobId == id).ToListAsync(cancel)).ToLookup(one =>
            one.PictureId
        );
        var slots = await db.JobSlots.AsNoTracking().Where(one => one.JobId == id).OrderBy(one => one.Place).ToListAsync(cancel);
        try
        {
            var job = new Job
            {
                Name = row.Name,
                Prefix = row.Prefix,
                Numbered = row.Numbered,
                Patterns = StoredJson.Read<Dictionary<string, string>>(row.Patterns),
                Pictures =
                [
                    .. pictures.Select(one => new JobPicture(
                        one.PictureId,
                        DecisionsOf(one, framings[one.PictureId], decisions[one.PictureId])
                    )),
                ],
                Slots =
                [
                    .. slots.Select(one => JobSlot.At(one.Slot) with { Choice = one.Chosen ? ChoiceOf(one.Format, one.Quality) : null }),
                ],
            };
            return new(
                row,
                job,
                pictures.ToDictionary(one => one.PictureId, one => one.Place),
                slots.ToDictionary(one => one.Slot, one => one.LaidOutBy)
            );
        }
        catch (Exception fault) when (fault is JsonException or FormatException or ArgumentException)
        {
            throw new InvalidDataException(PictureTexts.AStoredDecisionOfTheJob(row.Name, fault.Message), fault);
        }
    }

    /// <summary>The decisions about one picture in the job that was made last with it; none when no job has it.</summary>
    public static async Task<Decisions> MarksOfAsync(PantometDb db, Guid picture, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var row = await db
            .JobPictures.AsNoTracking()
            .Where(one => one.PictureId == picture)
            .Join(db.Jobs.Where(job => job.Fault == null), one => one.JobId, job => job.Id, (one, job) => new { one, job.CreatedAt })
            .OrderByDescending(both => both.CreatedAt)
            .Select(both => both.one)
            .FirstOrDefaultAsync(cancel);
        return row is null ? Decisions.None : DecisionsOf(row, [], []) with { OtherShape = false };
    }

    /// <summary>Writes what changed of a job.</summary>
    /// <param name="db">The database, within a transaction.</param>
    /// <param name="id">The job.</param>
    /// <param name="job">The job as it is to be.</param>
    /// <param name="change">What leads there from what is stored.</param>
    /// <param name="places">The places of its pictures as stored.</param>
    /// <returns>The places of its pictures afterwards.</returns>
    public static async Task<IReadOnlyDictionary<Guid, long>> StoreAsync(
        PantometDb db,
        Guid id,
        Job job,
        JobPatch change,
        IReadOnlyDictionary<Guid, long> places
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(job);
        ArgumentNullException.ThrowIfNull(change);
        if (change.Name is not null || change.Prefix is not null || change.Numbered is not null || change.Patterns is not null)
        {
            var patterns = StoredJson.Write(job.Patterns);
            await db
                .Jobs.Where(row => row.Id == id)
                .ExecuteUpdateAsync(set =>
                    set.SetProperty(row => row.Name, job.Name)
                        .SetProperty(row => row.Prefix, job.Prefix)
                        .SetProperty(row => row.Numbered, job.Numbered)
                        .SetProperty(row => row.Patterns, patterns)
                );
        }

        await SlotsAsync(db, id, job, change);
        var after = await PicturesAsync(db, id, job, change, places);
        using var sql = new Statements(db);
        foreach (var (picture, patch) in change.Decisions ?? new Dictionary<Guid, DecisionsPatch>())
        {
            await DecisionsAsync(db, sql, id, picture, job.Find(picture)!.Decisions, patch, after[picture]);
        }

        return after;
    }

    private static async Task SlotsAsync(PantometDb db, Guid id, Job job, JobPatch change)
    {
        if (change.SlotsOut is { } gone)
        {
            await db.JobSlots.Where(row => row.JobId == id && gone.Contains(row.Slot)).ExecuteDeleteAsync();
        }

        if (change.SlotsIn is null && change.Choices is null)
        {
            return;
        }

        var rows = await db.JobSlots.Where(row => row.JobId == id).ToDictionaryAsync(row => row.Slot);
        for (var at = 0; at < job.Slots.Count; at++)
        {
            var slot = job.Slots[at];
            if (!rows.TryGetValue(slot.Address, out var row))
            {
                db.JobSlots.Add(row = new() { JobId = id, Slot = slot.Address });
            }

            (row.Place, row.Chosen, row.Format, row.Quality) = (at, slot.Choice is not null, slot.Choice?.Format, slot.Choice?.Quality);
        }

        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
    }

    private static async Task<IReadOnlyDictionary<Guid, long>> PicturesAsync(
        PantometDb db,
        Guid id,
        Job job,
        JobPatch change,
        IReadOnlyDictionary<Guid, long> places
    )
    {
        if (change.PicturesOut is null && change.PicturesIn is null)
        {
            return places;
        }

        var after = new Dictionary<Guid, long>(places);
        foreach (var chunk in (change.PicturesOut ?? []).Chunk(Statements.AtOnce))
        {
            await db.JobPictures.Where(row => row.JobId == id && chunk.Contains(row.PictureId)).ExecuteDeleteAsync();
            await db.JobFramings.Where(row => row.JobId == id && chunk.Contains(row.PictureId)).ExecuteDeleteAsync();
            await db.JobDecisions.Where(row => row.JobId == id && chunk.Contains(row.PictureId)).ExecuteDeleteAsync();
            Array.ForEach(chunk, picture => after.Remove(picture));
        }

        using var sql = new Statements(db);
        foreach (var (index, picture) in change.PicturesIn ?? [])
        {
            var before = index > 0 ? after[job.Pictures[index - 1].Id] : 0;
            var next = job
                .Pictures.Skip(index + 1)
                .Select(one => after.TryGetValue(one.Id, out var place) ? place : (long?)null)
                .FirstOrDefault(place => place is not null);
            var place = next is { } behind ? before + Math.Max(1, (behind - before) / 2) : before + Gap;
            after[picture.Id] = place;
            await PictureAsync(sql, id, picture.Id, picture.Decisions, place);
            await CellsAsync(sql, id, picture.Id, picture.Decisions.Framings.Keys, picture.Decisions.Cells.Keys, picture.Decisions);
        }

        return after;
    }

    private static async Task DecisionsAsync(
        PantometDb db,
        Statements sql,
        Guid id,
        Guid picture,
        Decisions now,
        DecisionsPatch patch,
        long place
    )
    {
        if ((patch with { Framings = null, Cells = null }).IsEmpty == false)
        {
            await PictureAsync(sql, id, picture, now, place);
        }

        var framings = patch.Framings?.Keys.ToList() ?? [];
        var cells = patch.Cells?.Keys.ToList() ?? [];
        var noFraming = framings.Where(shape => !now.Framings.ContainsKey(shape)).ToList();
        var noCell = cells.Where(slot => !now.Cells.ContainsKey(slot)).ToList();
        if (noFraming.Count > 0)
        {
            await db
                .JobFramings.Where(row => row.JobId == id && row.PictureId == picture && noFraming.Contains(row.Shape))
                .ExecuteDeleteAsync();
        }

        if (noCell.Count > 0)
        {
            await db
                .JobDecisions.Where(row => row.JobId == id && row.PictureId == picture && noCell.Contains(row.Slot))
                .ExecuteDeleteAsync();
        }

        await CellsAsync(sql, id, picture, framings.Except(noFraming), cells.Except(noCell), now);
    }

    private static Task PictureAsync(Statements sql, Guid id, Guid picture, Decisions now, long place) =>
        sql.RunAsync(
            """
            INSERT OR REPLACE INTO JobPictures
            (JobId, PictureId, Place, Quarters, Degrees, FocusX, FocusY, Keep, SuggestionRejected, Keywords, Alternative, OtherShape, Decorative,
            Title)
            VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14)
            """,
            id,
            picture,
            place,
            now.Turn.Quarters,
            now.Turn.Degrees,
            now.Focus?.X,
            now.Focus?.Y,
            Frames(now.Keep),
            now.SuggestionRejected,
            now.Keywords,
            now.Alternative,
            now.OtherShape,
            now.Decorative,
            now.Title
        );

    private static async Task CellsAsync(
        Statements sql,
        Guid id,
        Guid picture,
        IEnumerable<string> framings,
        IEnumerable<string> cells,
        Decisions now
    )
    {
        foreach (var shape in framings)
        {
            await sql.RunAsync(
                "INSERT OR REPLACE INTO JobFramings (JobId, PictureId, Shape, Frame) VALUES ($1, $2, $3, $4)",
                id,
                picture,
                shape,
                Edges(now.Framings[shape])
            );
        }

        foreach (var slot in cells)
        {
            var cell = now.Cells[slot];
            await sql.RunAsync(
                """
                INSERT OR REPLACE INTO JobDecisions
                (JobId, PictureId, Slot, Unlinked, Frame, Skip, Accepted, Allowed, Format, Quality, Chosen, Dress)
                VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)
                """,
                id,
                picture,
                slot,
                cell.Unlinked,
                cell.Frame is { } frame ? Edges(frame) : null,
                cell.Skip,
                StoredJson.Write(cell.Accepted),
                StoredJson.Write(cell.Allowed),
                cell.Choice?.Format,
                cell.Choice?.Quality,
                cell.Choice is not null,
                cell.Dress
            );
        }
    }

    private static Decisions DecisionsOf(JobPictureRow row, IEnumerable<JobFramingRow> framings, IEnumerable<JobDecisionRow> cells) =>
        new()
        {
            Turn = new(row.Quarters, row.Degrees),
            Focus = row is { FocusX: { } x, FocusY: { } y } ? new FocusPoint(x, y) : null,
            Keep = [.. StoredJson.Read<List<double[]>>(row.Keep).Select(FrameOf)],
            SuggestionRejected = row.SuggestionRejected,
            Keywords = row.Keywords,
            Alternative = row.Alternative,
            OtherShape = row.OtherShape,
            Decorative = row.Decorative,
            Title = row.Title,
            Framings = framings.ToDictionary(one => one.Shape, one => FrameOf(one.Frame)),
            Cells = cells.ToDictionary(
                one => one.Slot,
                one => new CellDecision
                {
                    Unlinked = one.Unlinked,
                    Frame = one.Frame is { } frame ? FrameOf(frame) : null,
                    Skip = one.Skip,
                    Accepted = StoredJson.Read<List<string>>(one.Accepted),
                    Allowed = StoredJson.Read<List<string>>(one.Allowed),
                    Choice = one.Chosen ? ChoiceOf(one.Format, one.Quality) : null,
                    Dress = one.Dress,
                }
            ),
        };

    private static Choice ChoiceOf(string? format, int? quality) =>
        Choice.Fault(new(format, quality)) is { } fault ? throw new FormatException(fault) : new(format, quality);

    private static string Frames(IEnumerable<Frame> frames) => $"[{string.Join(',', frames.Select(Edges))}]";

    private static string Edges(Frame frame) =>
        string.Create(CultureInfo.InvariantCulture, $"[{frame.Left:R},{frame.Top:R},{frame.Right:R},{frame.Bottom:R}]");

    private static Frame FrameOf(string edges) => FrameOf(StoredJson.Read<double[]>(edges));

    private static Frame FrameOf(double[] edges) =>
        edges.Length == 4 && Frame.TryCreate(edges[0], edges[1], edges[2], edges[3], out var frame, out _)
            ? frame
            : throw new FormatException("a frame has four edges within the picture");
}
