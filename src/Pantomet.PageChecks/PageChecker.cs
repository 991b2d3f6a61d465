using Microsoft.Extensions.Logging;
using Pantomet.Application;
using Pantomet.Application.Background;
using Pantomet.Core.Texts;
using Pantomet.Data.Pages;
using Pantomet.PageChecks.Rewriting;

namespace Pantomet.PageChecks;

/// <summary>Measures pages, and mends those of jobs, one after the other, each in a process of its own.</summary>
public sealed class PageChecker(PageCheckStore store, PageRewriteStore mends, WorkCall call, WorkOptions options, ILogger<PageChecker> log)
    : QueueWorker<PageProgress>(log)
{
    /// <inheritdoc/>
    protected override async Task<bool> NextAsync(CancellationToken stopping)
    {
        if (await store.NextAsync(stopping) is { } check)
        {
            await CheckAsync(check, stopping);
            return true;
        }

        if (await mends.NextAsync(stopping) is { } mend)
        {
            await MendAsync(mend, stopping);
            return true;
        }

        return false;
    }

    private Task CheckAsync(PageCheckRow row, CancellationToken stopping) =>
        RunAsync(
            row.Id,
            (tells, stop) =>
            {
                var request = store.WishOf(row, options);
                if (Directory.Exists(request.Keep))
                {
                    Directory.Delete(request.Keep!, recursive: true);
                }

                return OrderAsync(new(request, null), tells, stop);
            },
            async trouble =>
            {
                var report = trouble is null ? await store.MeasuredAsync(row.Id, stopping) : null;
                await store.ChangeAsync(
                    row.Id,
                    now =>
                    {
                        // Somebody may have stopped it while it ended.
                        if (now.State != PageCheckState.Waiting)
                        {
                            return;
                        }

                        (now.State, now.Trouble) = report is null
                            ? (PageCheckState.Failed, trouble ?? PageTexts.TheResultOfThePageCheck)
                            : (PageCheckState.Done, null);
                        (now.Images, now.Mean, now.Possible) = (report?.Totals.Images, report?.Totals.Mean, report?.Totals.Possible);
                    },
                    CancellationToken.None
                );
            },
            stopping
        );

    private Task MendAsync(PageJobRow row, CancellationToken stopping) =>
        RunAsync(
            row.JobId,
            async (tells, stop) =>
                await mends.WishAsync(row, stop) is { } request
                    ? await OrderAsync(new(null, request), tells, stop)
                    : PageTexts.TheFilesOfThisPageNo,
            trouble =>
                mends.ChangeAsync(
                    row.JobId,
                    now =>
                    {
                        if (now.State == PageCheckState.Waiting)
                        {
                            (now.State, now.Trouble) = trouble is null ? (PageCheckState.Done, null) : (PageCheckState.Failed, trouble);
                        }
                    }
                ),
            stopping
        );

    private Task<string?> OrderAsync(PageOrder order, Action<PageProgress> tells, CancellationToken stop) =>
        call.RunAsync(PageWork.Call, order, options.LongestPageCheck, tells, stop);
}
