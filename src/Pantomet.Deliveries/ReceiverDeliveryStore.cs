using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Bundles;
using Pantomet.Application.Jobs;
using Pantomet.Core.Deliveries;
using Pantomet.Data;
using Pantomet.Data.Deliveries;

namespace Pantomet.Deliveries;

/// <summary>Where a file stands with a receiver.</summary>
public enum ReceiverFileStanding
{
    /// <summary>The file was never sent to the receiver.</summary>
    NotSent,

    /// <summary>The file changed since it was sent.</summary>
    Changed,

    /// <summary>The receiver accepted the file.</summary>
    Accepted,

    /// <summary>The receiver refused the file.</summary>
    Refused,

    /// <summary>The file could not be delivered.</summary>
    NotDelivered,

    /// <summary>The receiver has a file that the job no longer delivers.</summary>
    NoLongerDelivered,
}

/// <summary>A file and what a receiver said of it.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
/// <param name="Id">Identity of the file; null where the receiver has it from before.</param>
/// <param name="Descriptor">The density, or the width of the ladder; null where the receiver has it from before.</param>
/// <param name="Path">Its path, as in the bundle.</param>
/// <param name="Width">Pixels across; null where the receiver has it from before.</param>
/// <param name="Height">Pixels down; null where the receiver has it from before.</param>
/// <param name="Bytes">Its weight.</param>
/// <param name="Standing">Where it stands.</param>
/// <param name="Said">What the receiver said, in sentences.</param>
/// <param name="Shown">What the receiver shows of it.</param>
/// <param name="At">When it was handed over last, UTC; null where it never was.</param>
public sealed record ReceiverFileView(
    Guid Picture,
    string Slot,
    string? Id,
    string? Descriptor,
    string Path,
    int? Width,
    int? Height,
    long Bytes,
    ReceiverFileStanding Standing,
    IReadOnlyList<string> Said,
    IReadOnlyList<ShownFile> Shown,
    DateTime? At
);

/// <summary>What a receiver answered about a file that a cell has now.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
/// <param name="Receiver">The receiver's name.</param>
/// <param name="ReceiverId">The receiver.</param>
/// <param name="Standing">What became of the file.</param>
/// <param name="Said">What the receiver said, in sentences.</param>
public sealed record CellAnswer(
    Guid Picture,
    string Slot,
    string Receiver,
    Guid ReceiverId,
    ReceiverFileStanding Standing,
    IReadOnlyList<string> Said
);

/// <summary>How far handing files to a receiver is.</summary>
/// <param name="Done">How many files were handed over or given up.</param>
/// <param name="Of">How many there are.</param>
/// <param name="Waits">Why it pauses: a sentence; null where it does not.</param>
public sealed record ReceiverDeliveryProgress(int Done, int Of, string? Waits = null);

/// <summary>A receiver, and where the files of a job stand with it.</summary>
/// <param name="Receiver">The receiver.</param>
/// <param name="State">Where handing over stands; null where nobody asked for it.</param>
/// <param name="Trouble">Why it ended before all was handed over: a sentence.</param>
/// <param name="Progress">How far it is; null where it is not under way.</param>
/// <param name="EndedAt">When it ended last, UTC.</param>
/// <param name="Files">The files that go to it, and those that it has from before.</param>
public sealed record ReceiverDeliveryView(
    ReceiverView Receiver,
    ReceiverDeliveryState? State,
    string? Trouble,
    ReceiverDeliveryProgress? Progress,
    DateTime? EndedAt,
    IReadOnlyList<ReceiverFileView> Files
);

/// <summary>Which files of which jobs were handed to which receivers.</summary>
public sealed class ReceiverDeliveryStore(IServiceScopeFactory scopes, Writer writer, TimeProvider clock)
{
    /// <summary>Asks for it.</summary>
    public Task<bool> AskAsync(Guid job, Guid receiver) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                var row = await db.ReceiverDeliveries.SingleOrDefaultAsync(
                    one => one.JobId == job && one.ReceiverId == receiver,
                    CancellationToken.None
                );
                if (row is null)
                {
                    row = new()
                    {
                        Id = Guid.CreateVersion7(),
                        JobId = job,
                        ReceiverId = receiver,
                    };
                    db.ReceiverDeliveries.Add(row);
                }

                (row.State, row.Trouble, row.AskedAt, row.EndedAt) = (
                    ReceiverDeliveryState.Waiting,
                    null,
                    clock.GetUtcNow().UtcDateTime,
                    null
                );
                await db.SaveChangesAsync(CancellationToken.None);
                return (true, null);
            },
            CancellationToken.None
        );

    /// <summary>One; null for none.</summary>
    public async Task<ReceiverDeliveryRow?> OneAsync(Guid job, Guid receiver, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await Db(scope)
            .ReceiverDeliveries.AsNoTracking()
            .SingleOrDefaultAsync(row => row.JobId == job && row.ReceiverId == receiver, cancel);
    }

    /// <summary>The one that waits longest, but for some; null when none does.</summary>
    public async Task<ReceiverDeliveryRow?> NextAsync(IReadOnlyCollection<Guid> but, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await Db(scope)
            .ReceiverDeliveries.AsNoTracking()
            .Where(row => row.State == ReceiverDeliveryState.Waiting && !but.Contains(row.Id))
            .OrderBy(row => row.AskedAt)
            .FirstOrDefaultAsync(cancel);
    }

    /// <summary>Puts down how one ended, unless it was asked for anew meanwhile.</summary>
    public Task<bool> EndAsync(ReceiverDeliveryRow ended, ReceiverDeliveryState state, string? trouble) =>
        writer.WriteAsync<bool>(
            async db =>
                (
                    await db
                        .ReceiverDeliveries.Where(row => row.Id == ended.Id && row.AskedAt == ended.AskedAt)
                        .ExecuteUpdateAsync(
                            set =>
                                set.SetProperty(row => row.State, state)
                                    .SetProperty(row => row.Trouble, trouble)
                                    .SetProperty(row => row.EndedAt, clock.GetUtcNow().UtcDateTime),
                            CancellationToken.None
                        ) > 0,
                    null
                ),
            CancellationToken.None
        );

    /// <summary>The files of a job that a receiver was given, by path.</summary>
    public async Task<Dictionary<string, ReceiverFileRow>> FilesAsync(Guid job, Guid receiver, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await Db(scope)
            .ReceiverFiles.AsNoTracking()
            .Where(row => row.JobId == job && row.ReceiverId == receiver)
            .ToDictionaryAsync(row => row.Path, StringComparer.Ordinal, cancel);
    }

    /// <summary>One of the files that a receiver shows of one that it was given, by its place in the list; null for none.</summary>
    public async Task<ShownFile?> ShownAsync(Guid job, Guid receiver, string path, int at, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var row = await Db(scope)
            .ReceiverFiles.AsNoTracking()
            .SingleOrDefaultAsync(one => one.JobId == job && one.ReceiverId == receiver && one.Path == path, cancel);
        return row is null ? null : StoredJson.Read<IReadOnlyList<ShownFile>>(row.Shown).ElementAtOrDefault(at);
    }

    /// <summary>Puts down what became of a file. What a receiver has is known from then on, whatever happens to the rest.</summary>
    /// <param name="sending">The sending; where the receiver is gone, or at another place now, so is that.</param>
    /// <param name="file">The file.</param>
    /// <returns>False where it is gone.</returns>
    public Task<bool> PutDownAsync(Guid sending, ReceiverFileRow file) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                if (!await db.ReceiverDeliveries.AnyAsync(row => row.Id == sending, CancellationToken.None))
                {
                    return (false, null);
                }

                await db
                    .ReceiverFiles.Where(row => row.JobId == file.JobId && row.ReceiverId == file.ReceiverId && row.Path == file.Path)
                    .ExecuteDeleteAsync(CancellationToken.None);
                file.At = clock.GetUtcNow().UtcDateTime;
                db.ReceiverFiles.Add(file);
                await db.SaveChangesAsync(CancellationToken.None);
                return (true, null);
            },
            CancellationToken.None
        );

    /// <summary>What receivers said of the files that the cells of a job have now; of others it counts no more.</summary>
    public async Task<IReadOnlyList<CellAnswer>> SaidAsync(Guid job, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = Db(scope);
        var rows = await db
            .ReceiverFiles.AsNoTracking()
            .Where(row => row.JobId == job)
            .Where(row =>
                db.Wants.Any(want =>
                    want.JobId == job
                    && want.PictureId == row.PictureId
                    && want.Slot == row.Slot
                    && db.Variants.Any(file => file.Id == want.FileId && file.ContentHash == row.ContentHash)
                )
            )
            .Join(db.Receivers, row => row.ReceiverId, receiver => receiver.Id, (row, receiver) => new { row, receiver.Rule })
            .OrderBy(one => one.row.Path)
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(one => new CellAnswer(
                one.row.PictureId,
                one.row.Slot,
                StoredJson.Read<ReceiverRule>(one.Rule).Name,
                one.row.ReceiverId,
                StandingOf(one.row.State),
                StoredJson.Read<IReadOnlyList<string>>(one.row.Said)
            )),
        ];
    }

    /// <summary>Where the files of a job stand with each receiver.</summary>
    /// <param name="contents">What goes out of the job.</param>
    /// <param name="receivers">The receivers.</param>
    /// <param name="progress">How far one is that is under way.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<IReadOnlyList<ReceiverDeliveryView>> ViewsAsync(
        BundleContents contents,
        IReadOnlyList<ReceiverRow> receivers,
        Func<Guid, ReceiverDeliveryProgress?> progress,
        CancellationToken cancel
    )
    {
        var job = contents.State.Id;
        await using var scope = scopes.CreateAsyncScope();
        var sendings = await Db(scope)
            .ReceiverDeliveries.AsNoTracking()
            .Where(row => row.JobId == job)
            .ToDictionaryAsync(row => row.ReceiverId, cancel);
        var sent = (await Db(scope).ReceiverFiles.AsNoTracking().Where(row => row.JobId == job).ToListAsync(cancel)).ToLookup(row =>
            row.ReceiverId
        );
        return
        [
            .. receivers.Select(receiver =>
            {
                var sending = sendings.GetValueOrDefault(receiver.Id);
                return new ReceiverDeliveryView(
                    ReceiverStore.ViewOf(receiver),
                    sending?.State,
                    sending?.Trouble,
                    sending is null ? null : progress(sending.Id),
                    sending?.EndedAt,
                    FilesOf(
                        contents,
                        ReceiverStore.RuleOf(receiver),
                        sent[receiver.Id].ToDictionary(row => row.Path, StringComparer.Ordinal)
                    )
                );
            }),
        ];
    }

    /// <summary>True where a receiver has this very file.</summary>
    public static bool Has(ReceiverFileRow? known, BundleFile file) =>
        known is { State: ReceiverFileState.Accepted } && known.ContentHash == file.File.Row!.ContentHash;

    private static List<ReceiverFileView> FilesOf(BundleContents contents, ReceiverRule rule, Dictionary<string, ReceiverFileRow> known)
    {
        List<ReceiverFileView> files = [];
        foreach (var file in contents.Going.Where(file => rule.Takes(file.Cell.Place.Destination)))
        {
            known.Remove(file.Path!, out var row);
            var isThis = row?.ContentHash == file.File.Row!.ContentHash;
            files.Add(
                new(
                    file.Cell.Picture.Id,
                    file.Cell.Place.Address,
                    file.File.Wanted.Id,
                    file.Descriptor.ToString(),
                    file.Path!,
                    file.File.Row.Width,
                    file.File.Row.Height,
                    file.File.Row.Bytes,
                    row is null ? ReceiverFileStanding.NotSent
                        : !isThis
                            ? row.HeldHash is null ? ReceiverFileStanding.NotSent
                                : ReceiverFileStanding.Changed
                        : StandingOf(row.State),
                    isThis ? StoredJson.Read<IReadOnlyList<string>>(row!.Said) : [],
                    isThis ? StoredJson.Read<IReadOnlyList<ShownFile>>(row!.Shown) : [],
                    row?.At
                )
            );
        }

        // What it has of before is told: it may be on a page still.
        files.AddRange(
            known
                .Values.Where(row => row.HeldHash is not null)
                .OrderBy(row => row.Path, StringComparer.Ordinal)
                .Select(row => new ReceiverFileView(
                    row.PictureId,
                    row.Slot,
                    null,
                    null,
                    row.Path,
                    null,
                    null,
                    row.Bytes,
                    ReceiverFileStanding.NoLongerDelivered,
                    [],
                    [],
                    row.At
                ))
        );
        return files;
    }

    private static ReceiverFileStanding StandingOf(ReceiverFileState state) =>
        state switch
        {
            ReceiverFileState.Accepted => ReceiverFileStanding.Accepted,
            ReceiverFileState.Refused => ReceiverFileStanding.Refused,
            _ => ReceiverFileStanding.NotDelivered,
        };

    private static PantometDb Db(AsyncServiceScope scope) => scope.ServiceProvider.GetRequiredService<PantometDb>();
}
