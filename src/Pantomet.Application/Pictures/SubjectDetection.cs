using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;
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
) : BackgroundService
{
    private static readonly TimeSpan Idle = TimeSpan.FromSeconds(10);

    // So many are asked for at once: sorting all that wait for each of them would cost the square of their number.
    private const int Ahead = 32;

    private readonly JobNotifier _notifier = new();

    /// <summary>Says that a picture was added.</summary>
    public void Ring() => _notifier.Ring();

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                var next = await NextAsync(stoppingToken);
                var copy = CopyAsync(next.ElementAtOrDefault(0), stoppingToken);
                for (var i = 0; i < next.Count; i++)
                {
                    // The copy of the next one is made while the network looks at this one.
                    var path = await copy;
                    copy = CopyAsync(next.ElementAtOrDefault(i + 1), stoppingToken);
                    await LookAsync(next[i], path, stoppingToken);
                }

                if (next.Count == 0)
                {
                    await _notifier.WaitAsync(Idle, stoppingToken);
                }
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                break;
            }
#pragma warning disable CA1031 // Nothing that happens to one picture or to the database may end the work.
            catch (Exception fault)
#pragma warning restore CA1031
            {
                Stumbled(log, fault);
                await Task.Delay(Idle, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
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

    [LoggerMessage(Level = LogLevel.Error, Message = "The search for subjects stumbled and goes on in a while.")]
    private static partial void Stumbled(ILogger log, Exception fault);
}
