using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Core.Jobs;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Jobs;

/// <summary>Lays jobs out by the book of rules as it is now.</summary>
public sealed class JobLayout(OpenJobs jobs, Writer writer, JobChanges changes, IServiceScopeFactory scopes)
{
    /// <summary>A job for those who look at it: laid out by the book as it is now. Null when there is none.</summary>
    public async Task<JobBoard?> OpenAsync(Guid id, CancellationToken cancel)
    {
        var book = await jobs.SlotsAsync(cancel);
        if (await jobs.OpenAsync(id, cancel) is not { } board)
        {
            return null;
        }

        var state = board.State;
        var stale = state
            .Job.Slots.Select(place => place.Address)
            .Where(address =>
                state.Stale.Contains(address) || !ReferenceEquals(state.Slots.GetValueOrDefault(address), book.GetValueOrDefault(address))
            )
            .ToList();
        if (stale.Count > 0)
        {
            await LayOutAsync(id, stale, book, cancel);
            return await jobs.OpenAsync(id, cancel);
        }

        return board;
    }

    /// <summary>Lays out anew, job by job, what was laid out by a rule that says something else now.</summary>
    /// <returns>How many jobs were.</returns>
    public async Task<int> LayOutAsync(CancellationToken cancel)
    {
        var book = await jobs.SlotsAsync(cancel);
        List<IGrouping<Guid, string>> stale;
        await using (var scope = scopes.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
            var rows = await db
                .JobSlots.AsNoTracking()
                .Where(row => db.Jobs.Any(job => job.Id == row.JobId && job.Fault == null && job.Text == null))
                .Select(row => new
                {
                    row.JobId,
                    row.Slot,
                    row.LaidOutBy,
                })
                .ToListAsync(cancel);
            stale =
            [
                .. rows.Where(row => row.LaidOutBy != (book.GetValueOrDefault(row.Slot)?.LaidOutBy ?? ""))
                    .GroupBy(row => row.JobId, row => row.Slot),
            ];
        }

        // Those that somebody looks at first.
        foreach (var job in stale.OrderByDescending(job => jobs.Known(job.Key)?.IsLookedAt))
        {
            cancel.ThrowIfCancellationRequested();
            await LayOutAsync(job.Key, [.. job], book, cancel);
        }

        return stale.Count;
    }

    private Task<bool> LayOutAsync(
        Guid id,
        IReadOnlyList<string> slots,
        IReadOnlyDictionary<string, BoardSlot> book,
        CancellationToken cancel
    ) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                if (await jobs.OpenAsync(id, CancellationToken.None) is not { } board)
                {
                    return (false, null);
                }

                var next = board.State with
                {
                    Slots = OpenJobs.SlotsOf(board.State.Job, book),
                    Stale = board.State.Stale.Except(slots).ToHashSet(),
                };
                var cells = next.Shown.SelectMany(one => slots.Select(address => new CellKey(one.Id, address))).ToHashSet();
                foreach (var slot in slots)
                {
                    var by = book.GetValueOrDefault(slot)?.LaidOutBy ?? "";
                    await db
                        .JobSlots.Where(one => one.JobId == id && one.Slot == slot)
                        .ExecuteUpdateAsync(set => set.SetProperty(one => one.LaidOutBy, by));
                }

                var change = await changes.WriteAsync(db, board, next, cells, new() { Title = true, Slots = true });
                return (true, () => changes.Publish(change));
            },
            cancel
        );
}
