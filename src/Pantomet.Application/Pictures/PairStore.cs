using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Jobs;
using Pantomet.Core.Accounts;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Pictures;

/// <summary>What came of putting pictures side by side.</summary>
/// <param name="Picture">Their entry; none where it is refused.</param>
/// <param name="Sequence">The job's sequence afterwards.</param>
/// <param name="Refusal">Why not, as a sentence.</param>
public sealed record PairResult(Guid Picture, long Sequence, string? Refusal);

/// <summary>
/// Puts pictures of a job side by side: a picture of its own in the job, with an entry in the library but no original, that follows its
/// parts. The same pictures in the same order are one entry.
/// </summary>
public sealed class PairStore(JobRoom room, Writer writer, PreviewMaker previews, TimeProvider clock)
{
    /// <summary>Stands between the turns of pictures side by side in a preview's address.</summary>
    public const char BetweenTurns = '_';

    /// <summary>Puts pictures side by side and takes them into the job behind the others, as one step.</summary>
    /// <param name="job">The job.</param>
    /// <param name="pictures">The pictures, from left to right.</param>
    /// <param name="instead">A picture that goes out for them.</param>
    /// <param name="actor">Who decided.</param>
    /// <param name="cancel">Stops waiting.</param>
    /// <returns>Null when there is no such job.</returns>
    public async Task<PairResult?> MakeAsync(Guid job, IReadOnlyList<Guid> pictures, Guid? instead, Actor actor, CancellationToken cancel)
    {
        if (await room.OpenAsync(job, cancel) is not { } board)
        {
            return null;
        }

        var rows = pictures.Select(id => board.State.Job.Find(id) is null ? null : board.State.Rows.GetValueOrDefault(id)).ToList();
        if (FaultOf(pictures, rows) is { } fault)
        {
            return new(default, 0, fault);
        }

        var id = await KeepAsync([.. rows.OfType<PictureRow>()], cancel);
        var sent = await room.SendAsync(job, new([new AddPictures([id]), .. Without(instead)], Actor: actor), cancel);
        return sent is null ? null : new(id, sent.Sequence, sent.Refused?.Fault.Sentence);
    }

    /// <summary>A small copy of pictures side by side; null when they cannot be drawn, or one of them is gone.</summary>
    /// <param name="pictures">What is asked about pictures.</param>
    /// <param name="row">Their entry.</param>
    /// <param name="side">The longest side in pixels.</param>
    /// <param name="turns">How each is turned, as text; null where none is.</param>
    /// <param name="cancel">Stops waiting.</param>
    public async Task<string?> PreviewAsync(PictureQueries pictures, PictureRow row, int side, string? turns, CancellationToken cancel)
    {
        var ids = row.Parts!.Select(part => part.Id).ToList();
        var rows = await pictures.SomeAsync(ids, cancel);
        if (ids.Exists(id => !rows.ContainsKey(id)))
        {
            return null;
        }

        var read = (turns ?? "").Split(BetweenTurns).Select(text => Turn.TryParse(text, out var turn) ? turn : Turn.None).ToList();
        return await previews.MakeAsync(
            [.. ids.Select((id, i) => (rows[id], read.Count == ids.Count ? read[i] : Turn.None))],
            side,
            cancel
        );
    }

    /// <summary>A name for contents that are laid together: a hash over theirs, in order.</summary>
    public static string HashOf(IEnumerable<string> contents) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Join('+', contents))));

    private static IEnumerable<JobCommand> Without(Guid? picture) => picture is { } gone ? [new RemovePictures([gone])] : [];

    private static string? FaultOf(IReadOnlyList<Guid> pictures, List<PictureRow?> rows) =>
        pictures.Count is < PairRule.Fewest or > PairRule.Most ? PictureTexts.CombineToPicturesSideBySide(PairRule.Fewest, PairRule.Most)
        : pictures.Distinct().Count() < pictures.Count ? PictureTexts.APictureCannotBeCombinedWith
        : rows.Contains(null) ? PictureTexts.OneOfThesePicturesIsNo
        : rows.Exists(row => row!.Parts is not null) ? PictureTexts.CombinedPicturesCannotBeCombinedAgain
        : null;

    private Task<Guid> KeepAsync(IReadOnlyList<PictureRow> parts, CancellationToken cancel) =>
        writer.WriteAsync(
            async db =>
            {
                var hash = HashOf(parts.Select(part => part.Id.ToString()));
                if (await db.Pictures.FirstOrDefaultAsync(one => one.ContentHash == hash) is { } known)
                {
                    (known.RemovedAt, known.RemovedDays) = (null, 0);
                    await db.SaveChangesAsync();
                    return (known.Id, null);
                }

                var row = PictureRow.From(NameOf(parts), hash, clock.GetUtcNow().UtcDateTime, FactsOf(parts));
                row.Parts = [.. parts.Select(part => new PartOfPair(part.Id, part.Name))];
                db.Pictures.Add(row);
                await db.SaveChangesAsync();
                return (row.Id, (Action?)null);
            },
            cancel
        );

    private static string NameOf(IReadOnlyList<PictureRow> parts) =>
        string.Join(" + ", parts.Select(part => Path.GetFileNameWithoutExtension(part.Name)));

    // Only the size is ever asked for; files are held to the facts of the parts.
    private static PictureFacts FactsOf(IReadOnlyList<PictureRow> parts) =>
        parts[0].Facts with
        {
            Size = PairPlanner.Beside([.. parts.Select(part => part.Facts.Size)]),
            Bytes = 0,
            HasAlpha = false,
            Frames = 1,
            Orientation = 1,
            HasLocation = false,
            JpegQuality = null,
            LightLoss = null,
            Suggestion = null,
            SubjectSought = true,
        };
}
