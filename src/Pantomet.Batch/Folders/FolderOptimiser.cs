using Microsoft.Extensions.Logging;
using Pantomet.Application;
using Pantomet.Application.Background;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Folders;

namespace Pantomet.Batch.Folders;

/// <summary>
/// Looks folders of pictures through, tries some of them, puts them right and back again, one folder after the other, each in a process of its
/// own. Ended at any moment each picture is old or new and whole, and what was done is known when it goes on.
/// </summary>
public sealed class FolderOptimiser(PictureFolderStore store, WorkCall call, WorkOptions options, ILogger<FolderOptimiser> log)
    : QueueWorker<PictureFolderProgress>(log)
{
    /// <summary>Ends what is under way with one, and has something else done, or nothing.</summary>
    /// <returns>False when there is none.</returns>
    public async Task<bool> AskAsync(Guid id, PictureFolderState state, PictureFolderRule? rule = null, IReadOnlyList<string>? paths = null)
    {
        var known = await store.AskAsync(id, state, rule, paths);
        // What is under way was asked for before.
        await StopAsync(id);
        Ring();
        return known;
    }

    /// <inheritdoc/>
    protected override async Task<bool> NextAsync(CancellationToken stopping)
    {
        if (await store.NextAsync(stopping) is not { } row)
        {
            return false;
        }

        await RunAsync(
            row.Id,
            (tells, stop) =>
                store.PathOf(row) is { } path
                    ? call.RunAsync(PictureFolderWork.Call, OrderOf(row, path), longest: null, tells, stop)
                    : Task.FromResult<string?>(FolderTexts.IsNoLongerInAnAllowed(row.Folder)),
            trouble =>
                store.ChangeAsync(
                    row.Id,
                    now =>
                    {
                        // Something else may have been asked for while it ended.
                        if (now.State == row.State && now.AskedAt == row.AskedAt)
                        {
                            now.Mended = row.State == PictureFolderState.Optimising ? trouble is null : now.Mended;
                            (now.State, now.Trouble) = (PictureFolderState.Ready, trouble);
                        }
                    }
                ),
            stopping
        );
        return true;
    }

    private PictureFolderOrder OrderOf(PictureFolderRow row, string path) =>
        new(
            row.State switch
            {
                PictureFolderState.Scanning => PictureFolderStep.Look,
                PictureFolderState.Previewing => PictureFolderStep.Try,
                PictureFolderState.Optimising => PictureFolderStep.Mend,
                _ => PictureFolderStep.Restore,
            },
            path,
            store.WorkOf(row.Id),
            StoredJson.Read<PictureFolderRule>(row.Rule),
            row.Paths is { } paths ? StoredJson.Read<IReadOnlyList<string>>(paths) : null,
            options.Workers
        );
}
