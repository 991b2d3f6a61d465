using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Jobs;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Jobs;

/// <summary>The steps of a job, which can be undone and redone.</summary>
internal static class JobSteps
{
    /// <summary>The step that commands belong to: a new one, or that of their gesture.</summary>
    public static async Task<long> ForAsync(PantometDb db, Guid id, CommandBatch batch, DateTime now)
    {
        var top = await db.Steps.Where(step => step.JobId == id).OrderByDescending(step => step.Number).FirstOrDefaultAsync();
        if (
            top is { State: StepState.Done }
            && batch.Gesture is { } gesture
            && top.Gesture == gesture
            && (batch.Within is null || now - top.At < batch.Within)
            && await db
                .Commands.Where(row => row.JobId == id && row.Step == top.Number)
                .OrderByDescending(row => row.Id)
                .Select(row => row.Kind)
                .FirstOrDefaultAsync() == "commands"
        )
        {
            top.At = now;
            await db.SaveChangesAsync();
            return top.Number;
        }

        await db
            .Steps.Where(step => step.JobId == id && step.State == StepState.Undone)
            .ExecuteUpdateAsync(set => set.SetProperty(step => step.State, StepState.Dropped));
        var fresh = new StepRow
        {
            JobId = id,
            Number = 1 + (top?.Number ?? 0),
            Gesture = batch.Gesture,
            At = now,
            State = StepState.Done,
        };
        db.Steps.Add(fresh);
        await db.SaveChangesAsync();
        return fresh.Number;
    }

    /// <summary>
    /// What leads from where a step stands now to the other side of it: its last undo or redo as a whole, or its commands from the last to
    /// the first.
    /// </summary>
    public static async Task<IReadOnlyList<JobPatch>> WaysBackAsync(PantometDb db, Guid id, long step)
    {
        var rows = await db
            .Commands.AsNoTracking()
            .Where(row => row.JobId == id && row.Step == step)
            .OrderByDescending(row => row.Id)
            .Select(row => new { row.Kind, row.Inverse })
            .ToListAsync();
        return
        [
            .. (rows[0].Kind == "commands" ? rows.TakeWhile(row => row.Kind == "commands") : rows.Take(1)).Select(row =>
                StoredJson.Read<JobPatch>(row.Inverse)
            ),
        ];
    }

    /// <summary>The step that is undone or redone next; null when there is none.</summary>
    public static async Task<StepRow?> NextAsync(PantometDb db, Guid id, bool back)
    {
        var last = await db
            .Steps.Where(one => one.JobId == id && one.State == StepState.Done)
            .OrderByDescending(one => one.Number)
            .FirstOrDefaultAsync();
        var number = last?.Number ?? 0;
        return back
            ? last
            : await db
                .Steps.Where(one => one.JobId == id && one.Number > number && one.State == StepState.Undone)
                .OrderBy(one => one.Number)
                .FirstOrDefaultAsync();
    }
}
