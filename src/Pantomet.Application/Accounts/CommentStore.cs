using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Jobs;
using Pantomet.Core.Accounts;
using Pantomet.Data;
using Pantomet.Data.Accounts;

namespace Pantomet.Application.Accounts;

/// <summary>What somebody said about a picture in a slot.</summary>
/// <param name="Id">Identity.</param>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
/// <param name="Actor">Who said it, by the name they had then.</param>
/// <param name="At">When, UTC.</param>
/// <param name="Text">What was said; may be empty where the cell was accepted.</param>
/// <param name="Accepted">True when they accepted the cell with it.</param>
/// <param name="IsResolved">True when it was dealt with.</param>
public sealed record CommentView(
    Guid Id,
    Guid Picture,
    string Slot,
    string Actor,
    DateTime At,
    string Text,
    bool Accepted,
    bool IsResolved
);

/// <summary>What people say about cells.</summary>
public sealed class CommentStore(PantometDb db, Writer writer, TimeProvider clock)
{
    /// <summary>The most characters of a comment.</summary>
    public const int LongestText = 2000;

    /// <summary>The most comments of a job.</summary>
    public const int MostOfJob = 5000;

    private DateTime Now => clock.GetUtcNow().UtcDateTime;

    /// <summary>The comments of a job, the oldest first.</summary>
    public async Task<IReadOnlyList<CommentView>> ListAsync(Guid job, CancellationToken cancel) =>
        await db
            .Comments.AsNoTracking()
            .Where(row => row.JobId == job)
            .OrderBy(row => row.At)
            .Select(row => new CommentView(
                row.Id,
                row.PictureId,
                row.Slot,
                row.Actor,
                row.At,
                row.Text,
                row.Accepted,
                row.ResolvedAt != null
            ))
            .ToListAsync(cancel);

    /// <summary>Adds a comment; null when the job has as many as it can have.</summary>
    public Task<CommentView?> AddAsync(
        Guid job,
        Guid picture,
        string slot,
        Actor actor,
        string text,
        bool accepted,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(actor);
        return writer.WriteAsync<CommentView?>(
            async write =>
            {
                if (await write.Comments.CountAsync(row => row.JobId == job) >= MostOfJob)
                {
                    return (null, null);
                }

                var row = new CommentRow
                {
                    Id = Guid.CreateVersion7(),
                    JobId = job,
                    PictureId = picture,
                    Slot = slot,
                    Actor = actor.Name,
                    ActorId = actor.Person,
                    At = Now,
                    Text = text.Trim(),
                    Accepted = accepted,
                    // There is nothing to do about it.
                    ResolvedAt = accepted && text.Trim().Length == 0 ? Now : null,
                };
                write.Comments.Add(row);
                await write.SaveChangesAsync(CancellationToken.None);
                return (new(row.Id, picture, slot, row.Actor, row.At, row.Text, accepted, row.ResolvedAt is not null), null);
            },
            cancel
        );
    }

    /// <summary>Says that a comment was dealt with, or is open again; false when there is none.</summary>
    public Task<bool> ResolveAsync(Guid job, Guid id, bool resolved, CancellationToken cancel)
    {
        var now = resolved ? Now : (DateTime?)null;
        return writer.WriteAsync<bool>(
            async write =>
                (
                    await write
                        .Comments.Where(row => row.JobId == job && row.Id == id)
                        .ExecuteUpdateAsync(set => set.SetProperty(row => row.ResolvedAt, now), CancellationToken.None) == 1,
                    null
                ),
            cancel
        );
    }
}
