using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Core.Accounts;
using Pantomet.Core.Jobs;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Jobs.History;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Jobs;

/// <summary>One entry of a picture's history.</summary>
/// <param name="Id">Identity; a picture goes back to the moment after it.</param>
/// <param name="At">When, UTC.</param>
/// <param name="Actor">Who, by the name they had then; "browser" or "program" where nobody signs in, "library" for the application itself.</param>
/// <param name="Sentences">What they did, each without its subject.</param>
/// <param name="Returns">True when the picture can go back to the moment after it.</param>
public sealed record HistoryEntry(long Id, DateTime At, string Actor, IReadOnlyList<string> Sentences, bool Returns);

/// <summary>Where a picture is to go back to.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="To">The entry after which it stood so.</param>
/// <param name="At">When that was, UTC.</param>
internal sealed record PictureReturn(Guid Picture, long To, DateTime At);

/// <summary>What was done with a picture of a job, and the way back to any moment of it.</summary>
public sealed class PictureTimeline(
    OpenJobs jobs,
    JobRoom room,
    Writer writer,
    JobChanges changes,
    IServiceScopeFactory scopes,
    TimeProvider clock
)
{
    /// <summary>The kind of a row that takes one picture back to a moment.</summary>
    internal const string Return = "return";

    /// <summary>What was done with a picture, the newest first; null when there is no such job or picture.</summary>
    public async Task<IReadOnlyList<HistoryEntry>?> OfAsync(Guid id, Guid picture, CancellationToken cancel)
    {
        if (await jobs.OpenAsync(id, cancel) is not { } board || board.State.Job.Find(picture) is null)
        {
            return null;
        }

        var book = await jobs.SlotsAsync(cancel);
        string NameOf(string address) => book.TryGetValue(address, out var slot) ? $"{slot.Destination.Name}, {slot.Slot.Name}" : address;
        await using var scope = scopes.CreateAsyncScope();
        var rows = await RowsAsync(scope.ServiceProvider.GetRequiredService<PantometDb>(), id, picture, cancel);
        var entries = new List<HistoryEntry>();
        var returns = true;
        foreach (var row in rows)
        {
            var inverse = StoredJson.Read<JobPatch>(row.Inverse);
            if (!PictureHistory.Concerns(inverse, picture))
            {
                continue;
            }

            var sentences = SentencesOf(row, inverse, picture, NameOf);
            entries.Add(new(row.Id, row.At, row.Actor, sentences, returns && entries.Count > 0));
            // Before it was in the job there is nothing to go back to.
            returns &= inverse.PicturesOut?.Contains(picture) != true && inverse.PicturesIn?.Any(one => one.Picture.Id == picture) != true;
        }

        return entries;
    }

    /// <summary>
    /// Takes a picture back to how it was decided about after an entry of its history: a step of its own, which can be undone. Null when there is
    /// no such job, picture or entry, or the picture was not in the job all the time since.
    /// </summary>
    public async Task<CommandResult?> ReturnAsync(Guid id, Guid picture, long to, Actor actor, CancellationToken cancel)
    {
        var book = await jobs.SlotsAsync(cancel);
        return await writer.WriteAsync<CommandResult?>(
            async db =>
            {
                if (
                    await jobs.OpenAsync(id, CancellationToken.None) is not { } board
                    || await db.Commands.AsNoTracking().FirstOrDefaultAsync(row => row.JobId == id && row.Id == to) is not { } moment
                )
                {
                    return (null, null);
                }

                var since = (await RowsAsync(db, id, picture, CancellationToken.None)).Where(row => row.Id > to);
                if (
                    PictureHistory.AsItWas(board.State.Job, picture, since.Select(row => StoredJson.Read<JobPatch>(row.Inverse)))
                    is not { } was
                )
                {
                    return (null, null);
                }

                var job = board.State.Job.With(picture, was);
                var applied = new Applied(job, JobPatch.Between(board.State.Job, job), JobPatch.Between(job, board.State.Job));
                if (applied.Change.IsEmpty)
                {
                    return (new(board.State.Sequence, null), null);
                }

                var now = clock.GetUtcNow().UtcDateTime;
                var row = new CommandRow
                {
                    JobId = id,
                    Actor = actor.Name,
                    ActorId = actor.Person,
                    At = now,
                    Kind = Return,
                    Step = await JobSteps.ForAsync(db, id, new([]), now),
                    Body = StoredJson.Write(new PictureReturn(picture, to, moment.At)),
                    Inverse = StoredJson.Write(applied.Inverse),
                };
                var change = await room.StoreAsync(db, board, applied, row, new Dictionary<Guid, PictureRow>(), book);
                return (new(change.Sequence, null), () => changes.Publish(change, new(row.Actor, HistoryTexts.WentBackWithAPicture)));
            },
            cancel
        );
    }

    // A patch names the pictures it changes by their ids, so that the rows of one picture are found by its text.
    private static Task<List<CommandRow>> RowsAsync(PantometDb db, Guid id, Guid picture, CancellationToken cancel)
    {
        var named = picture.ToString();
        return db
            .Commands.AsNoTracking()
            .Where(row => row.JobId == id && row.Inverse.Contains(named))
            .OrderByDescending(row => row.Id)
            .ToListAsync(cancel);
    }

    private static IReadOnlyList<string> SentencesOf(CommandRow row, JobPatch inverse, Guid picture, Func<string, string> nameOf) =>
        row.Kind switch
        {
            "commands" => PictureHistory.OfCommands(StoredJson.Read<IReadOnlyList<JobCommand>>(row.Body), inverse, picture, nameOf),
            "undo" => [HistoryTexts.Undid(PictureHistory.OfStep(inverse, isUndo: true, picture, nameOf))],
            "redo" => [HistoryTexts.Redid(PictureHistory.OfStep(inverse, isUndo: false, picture, nameOf))],
            Return => [HistoryTexts.WentBackTo(StoredJson.Read<PictureReturn>(row.Body).At)],
            _ => [HistoryTexts.TheLibraryReplacedTheOriginal],
        };
}
