using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Engine;
using Pantomet.Application.Jobs;
using Pantomet.Core;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Imaging.Hosting;

namespace Pantomet.Application.Pictures;

/// <summary>What came of an intake: a row, or a refusal with its code.</summary>
public readonly record struct IntakeResult(PictureRow? Row, bool AlreadyHere, string? Code, string? Refusal)
{
    /// <summary>The code of a name that cannot be used.</summary>
    public const string BadName = "bad-name";

    /// <summary>The code of a file that is too large.</summary>
    public const string TooLarge = "too-large";

    /// <summary>The code of an empty file.</summary>
    public const string Empty = "empty";

    /// <summary>The code of a file that cannot be read.</summary>
    public const string Unreadable = "unreadable";

    /// <summary>The code of a file that another picture has already.</summary>
    public const string AnotherPicture = "another-picture";

    /// <summary>The code of a file that cannot be read at the moment.</summary>
    public const string NotNow = "not-now";

    /// <summary>A file that is refused, with its code and a sentence.</summary>
    public static IntakeResult Refused(string code, string sentence) => new(null, false, code, sentence);
}

/// <summary>Reads one file in: receive, recognise, check, keep. Nothing is left behind when it is refused.</summary>
public sealed class PictureIntake(
    IServiceScopeFactory scopes,
    DataFolder folder,
    PreviewMaker previews,
    ImagingProcessPool engine,
    JobsOfPicture jobs,
    JobFiles files,
    SubjectDetection seeker,
    Writer writer,
    WorkOptions options,
    TimeProvider clock
)
{
    private const int LongestName = 255;

    /// <summary>Takes one file: checks it, reads its facts and stores it.</summary>
    public async Task<IntakeResult> TakeAsync(string? name, Stream body, long? length, CancellationToken cancel)
    {
        var (file, refused) = await ReceiveAsync(name, body, length, cancel);
        using (file)
        {
            if (refused is { } refusal)
            {
                return refusal;
            }

            if (await KnownAsync(file!, cancel) is { } known && await TakeAgainAsync(known, file!, cancel) is { } again)
            {
                return new(again, true, null, null);
            }

            var (facts, unreadable) = await ReadAsync(file!, cancel);
            if (facts is null)
            {
                return unreadable!.Value;
            }

            var row = PictureRow.From(name!, file!.Hash, clock.GetUtcNow().UtcDateTime, facts);
            var (kept, already) = await KeepAsync(row, file, cancel);
            if (!already)
            {
                await previews.MakeAsync(kept, PreviewMaker.Small, Turn.None, CancellationToken.None);
                seeker.Ring();
            }

            return new(kept, already, null, null);
        }
    }

    /// <summary>Receives a file under a temporary name; or says why it is refused.</summary>
    public async Task<(ReceivedFile? File, IntakeResult? Refused)> ReceiveAsync(
        string? name,
        Stream body,
        long? length,
        CancellationToken cancel
    )
    {
        if (NameFault(name) is { } fault)
        {
            return (null, IntakeResult.Refused(IntakeResult.BadName, fault));
        }

        var file = length > options.MostUploadBytes ? null : await folder.Originals.ReceiveAsync(body, options.MostUploadBytes, cancel);
        return file is null
            ? (
                null,
                IntakeResult.Refused(IntakeResult.TooLarge, PictureTexts.TheFileIsLargerThanThe(Figures.Weight(options.MostUploadBytes)))
            )
            : (file, null);
    }

    /// <summary>Reads the facts of a received file and checks all of it.</summary>
    public async Task<(PictureFacts? Facts, IntakeResult? Refused)> ReadAsync(ReceivedFile file, CancellationToken cancel)
    {
        var read = await engine.RunAsync(new ReadRequest(file.Path), cancel, urgent: true);
        return read.Facts is { } facts
            ? (facts, null)
            : (
                null,
                IntakeResult.Refused(
                    file.Bytes == 0 ? IntakeResult.Empty
                        : read.Failure is ImagingFailure.Crashed or ImagingFailure.Disk or ImagingFailure.Unforeseen ? IntakeResult.NotNow
                        : IntakeResult.Unreadable,
                    read.Refusal ?? PictureTexts.TheFileCannotBeRead
                )
            );
    }

    /// <summary>The picture whose original this is; null when there is none.</summary>
    public async Task<PictureRow?> KnownAsync(ReceivedFile file, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await scope
            .ServiceProvider.GetRequiredService<PantometDb>()
            .Pictures.AsNoTracking()
            .FirstOrDefaultAsync(row => row.ContentHash == file.Hash, cancel);
    }

    // The very bytes are here: they take the place of what lies on the disk, should that be damaged; a removed picture comes back, and what
    // could not be made of it is tried again.
    private async Task<PictureRow?> TakeAgainAsync(PictureRow known, ReceivedFile file, CancellationToken cancel)
    {
        var row = await jobs.ChangeAsync<PictureRow?>(
            known.Id,
            (_, row) =>
            {
                if (row is null || row.ContentHash != file.Hash)
                {
                    return Task.FromResult(((PictureRow?)null, false, false));
                }

                folder.Originals.Keep(file);
                var back = row.RemovedAt is not null;
                (row.RemovedAt, row.RemovedDays) = (null, 0);
                return Task.FromResult(((PictureRow?)row, back, false));
            },
            cancel
        );
        if (row is not null)
        {
            await files.TryAgainAsync(row.Id, CancellationToken.None);
        }

        return row;
    }

    // The content and its row are one change: no sweep comes between them.
    private Task<(PictureRow Row, bool Already)> KeepAsync(PictureRow row, ReceivedFile file, CancellationToken cancel) =>
        writer.WriteAsync(
            async db =>
            {
                folder.Originals.Keep(file);
                if (await db.Pictures.FirstOrDefaultAsync(other => other.ContentHash == row.ContentHash) is { } first)
                {
                    // The same file arrived twice at once; the other one was first.
                    return ((first, true), null);
                }

                db.Pictures.Add(row);
                await db.SaveChangesAsync();
                return ((row, false), (Action?)null);
            },
            cancel
        );

    private static string? NameFault(string? name)
    {
        if (string.IsNullOrWhiteSpace(name))
        {
            return PictureTexts.TheFileHasNoName;
        }

        if (name.Length > LongestName)
        {
            return PictureTexts.TheFilesNameIsLongerThan(LongestName);
        }

        return name.Any(char.IsControl) ? PictureTexts.TheFilesNameHasControlCharacters
            : name.AsSpan().ContainsAny('/', '\\') || name is "." or ".." ? PictureTexts.TheFilesNameHasAPath
            : null;
    }
}
