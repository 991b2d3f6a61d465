using Microsoft.AspNetCore.Http;
using Microsoft.EntityFrameworkCore;
using Pantomet.Core;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Imaging.Hosting;
using Pantomet.Server.Engine;

namespace Pantomet.Server.Pictures;

/// <summary>What came of an intake: a row, or a refusal with its HTTP status.</summary>
internal readonly record struct IntakeResult(PictureRow? Row, bool AlreadyHere, int Status, string? Code, string? Refusal)
{
    public static IntakeResult Refused(int status, string code, string sentence) => new(null, false, status, code, sentence);
}

/// <summary>Reads one file in: receive, recognise, check, keep. Nothing is left behind when it is refused.</summary>
internal sealed class PictureIntake(PantometDb db, DataFolder folder, PreviewMaker previews, EngineRoom engine, ServerOptions options, TimeProvider clock)
{
    private const int LongestName = 255;

    public async Task<IntakeResult> TakeAsync(string? name, Stream body, long? length, CancellationToken cancel)
    {
        var (file, facts, refused) = await ReadAsync(name, body, length, cancel);
        using (file)
        {
            return refused ?? await KeepAsync(PictureRow.From(name!, file!.Hash, clock.GetUtcNow().UtcDateTime, facts!), file, cancel);
        }
    }

    /// <summary>Receives a file and reads its facts; or says why it is refused, or that it is in the library already.</summary>
    public async Task<(ReceivedFile? File, PictureFacts? Facts, IntakeResult? Refused)> ReadAsync(string? name, Stream body, long? length, CancellationToken cancel)
    {
        if (NameFault(name) is { } fault)
        {
            return (null, null, IntakeResult.Refused(StatusCodes.Status400BadRequest, "bad-name", fault));
        }

        if (length > options.MostUploadBytes)
        {
            return (null, null, TooLarge());
        }

        var file = await folder.Originals.ReceiveAsync(body, options.MostUploadBytes, cancel);
        if (file is null)
        {
            return (null, null, TooLarge());
        }

        if (await db.Pictures.FirstOrDefaultAsync(row => row.ContentHash == file.Hash, cancel) is { } known)
        {
            if (known.RemovedAt is not null)
            {
                known.RemovedAt = null;
                await db.SaveChangesAsync(cancel);
            }

            return (file, null, new(known, true, StatusCodes.Status200OK, null, null));
        }

        var read = await engine.RunAsync(new ReadOrder(file.Path), cancel, urgent: true);
        return read.Facts is { } facts
            ? (file, facts, null)
            : (file, null, IntakeResult.Refused(StatusCodes.Status422UnprocessableEntity, file.Bytes == 0 ? "empty" : "unreadable", read.Refusal!));
    }

    /// <summary>Keeps an original that was read.</summary>
    public void Keep(ReceivedFile file) => folder.Originals.Keep(file);

    private async Task<IntakeResult> KeepAsync(PictureRow row, ReceivedFile file, CancellationToken cancel)
    {
        Keep(file);
        db.Pictures.Add(row);
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException)
        {
            // The same file arrived twice at once; the other one was first.
            db.Entry(row).State = EntityState.Detached;
            var first = await db.Pictures.FirstAsync(other => other.ContentHash == row.ContentHash, cancel);
            return new(first, true, StatusCodes.Status200OK, null, null);
        }

        await previews.MakeAsync(row, PreviewMaker.Small, Turn.None, cancel);
        return new(row, false, StatusCodes.Status201Created, null, null);
    }

    private IntakeResult TooLarge() => IntakeResult.Refused(
        StatusCodes.Status413PayloadTooLarge, "too-large", $"The file is larger than the {Figures.Weight(options.MostUploadBytes)} that are read in here.");

    private static string? NameFault(string? name)
    {
        if (string.IsNullOrWhiteSpace(name))
        {
            return "The file has no name.";
        }

        if (name.Length > LongestName)
        {
            return $"The file's name is longer than {LongestName} characters.";
        }

        return name.Any(char.IsControl) ? "The file's name holds control characters. Rename it and try again."
            : name.AsSpan().ContainsAny('/', '\\') || name is "." or ".." ? "The file's name holds a path. Give the name alone."
            : null;
    }
}
