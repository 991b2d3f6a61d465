using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Background;
using Pantomet.Application.Engine;
using Pantomet.Application.Jobs;
using Pantomet.Core.Geometry;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Imaging.Hosting;

namespace Pantomet.Application.Pictures;

/// <summary>
/// Looks for the subjects of pictures that were added, in the background, those first that jobs wait for; a restart goes on where the last
/// run ended.
/// </summary>
public sealed partial class SubjectDetection(
    IServiceScopeFactory scopes,
    PreviewMaker previews,
    ImagingProcessPool engine,
    JobsOfPicture jobs,
    JobNotifier queue,
    ILogger<SubjectDetection> log
) : BackgroundWork(log)
{
    private static readonly TimeSpan Idle = TimeSpan.FromSeconds(10);

    // So many are asked for at once: sorting all that wait for each of them would cost the square of their number.
    private const int Ahead = 32;

    private readonly WorkSignal _signal = new();

    /// <summary>Says that a picture was added.</summary>
    public void Ring() => _signal.Ring();

    /// <inheritdoc/>
    protected override async Task StepAsync(CancellationToken stopping)
    {
        var next = await NextAsync(stopping);
        if (next.Count == 0)
        {
            await _signal.WaitAsync(Idle, stopping);
            return;
        }

        var copy = CopyAsync(next[0], stopping);
        for (var i = 0; i < next.Count; i++)
        {
            // The copy of the next one is made while the network looks at this one.
            var path = await copy;
            copy = CopyAsync(next.ElementAtOrDefault(i + 1), stopping);
            await LookAsync(next[i], path, stopping);
        }
    }

    private async Task<IReadOnlyList<PictureRow>> NextAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        return await db
            .Pictures.AsNoTracking()
            .Where(row => !row.SubjectSought && row.RemovedAt == null)
            .OrderByDescending(row => db.JobPictures.Any(one => one.PictureId == row.Id))
            .ThenBy(row => row.AddedAt)
            .Take(Ahead)
            .ToListAsync(cancel);
    }

    private async Task<string?> CopyAsync(PictureRow? row, CancellationToken cancel) =>
        row is null ? null : await previews.MakeAsync(row, PreviewMaker.Small, Turn.None, cancel);

    private async Task LookAsync(PictureRow row, string? path, CancellationToken cancel)
    {
        // What cannot be looked at has no suggestion; its files must not wait for ever.
        var found = path is null ? null : (await engine.RunAsync(new DetectSubjectRequest(path, row.Facts), cancel)).Facts;
        await jobs.ChangeAsync(
            row.Id,
            (_, now) =>
            {
                if (now is null || now.SubjectSought || now.ContentHash != row.ContentHash)
                {
                    return Task.FromResult((false, false, false));
                }

                (now.Suggestion, now.SubjectSought) = (found is null ? now.Suggestion : found.Suggestion, true);
                return Task.FromResult((true, true, false));
            },
            cancel
        );
        queue.Ring();
    }
}
