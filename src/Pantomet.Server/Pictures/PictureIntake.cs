using Microsoft.AspNetCore.Http;
using Microsoft.EntityFrameworkCore;
using Pantomet.Core;
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
        if (NameFault(name) is { } fault)
        {
            return IntakeResult.Refused(StatusCodes.Status400BadRequest, "bad-name", fault);
        }

        if (length > options.MostUploadBytes)
        {
            return TooLarge();
        }

        using var file = await folder.Originals.ReceiveAsync(body, options.MostUploadBytes, cancel);
        if (file is null)
        {
            return TooLarge();
        }

        if (await db.Pictures.FirstOrDefaultAsync(row => row.ContentHash == file.Hash, cancel) is { } known)
        {
            return new(known, true, StatusCodes.Status200OK, null, null);
        }

        var read = await engine.RunAsync(new ReadOrder(file.Path), cancel);
        if (read.Facts is not { } facts)
        {
            return file.Bytes == 0
                ? IntakeResult.Refused(StatusCodes.Status422UnprocessableEntity, "empty", read.Refusal!)
                : IntakeResult.Refused(StatusCodes.Status422UnprocessableEntity, "unreadable", read.Refusal!);
        }

        return await KeepAsync(PictureRow.From(name!, file.Hash, clock.GetUtcNow().UtcDateTime, facts), file, cancel);
    }

    private async Task<IntakeResult> KeepAsync(PictureRow row, ReceivedFile file, CancellationToken cancel)
    {
        folder.Originals.Keep(file);
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

        await previews.MakeAsync(row, PreviewMaker.Small, cancel);
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
