using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Jobs.History;
using Pantomet.Core.Texts;
using Pantomet.Data;

namespace Pantomet.Application.Accounts;

/// <summary>One line of the log.</summary>
/// <param name="At">When, UTC.</param>
/// <param name="Actor">Who, by the name they had then; "browser" or "program" where nobody signs in, "library" for the application itself.</param>
/// <param name="What">The name of the request, for programs.</param>
/// <param name="Sentence">What was done, without its subject.</param>
/// <param name="Job">The job; null where none is meant.</param>
/// <param name="JobName">Its name now, or the one it had then; null where no job is meant.</param>
/// <param name="From">The address it came from; empty where it is not kept.</param>
public sealed record ActivityEntry(DateTime At, string Actor, string What, string Sentence, Guid? Job, string? JobName, string From);

/// <summary>A part of the log.</summary>
/// <param name="Entries">The newest first.</param>
/// <param name="Next">Where the next part begins; null at the end.</param>
public sealed record ActivityPage(IReadOnlyList<ActivityEntry> Entries, DateTime? Next);

/// <summary>The log: what was asked for, and the commands of jobs, as one list by time.</summary>
public sealed class ActivityReader(PantometDb db)
{
    private const int AtOnce = 100;
    private const string Commands = "commands";

    /// <summary>A part of the log.</summary>
    /// <param name="before">What was done before this moment, UTC; null for the newest.</param>
    /// <param name="job">Of one job only; null for all.</param>
    /// <param name="actor">Of one name only; null for everybody.</param>
    /// <param name="cancel">Stops waiting.</param>
    public async Task<ActivityPage> ReadAsync(DateTime? before, Guid? job, string? actor, CancellationToken cancel)
    {
        var until = before ?? DateTime.MaxValue;
        var asked = await db
            .Activities.AsNoTracking()
            .Where(row => row.At < until && (job == null || row.JobId == job) && (actor == null || row.Actor == actor))
            .OrderByDescending(row => row.At)
            .Take(AtOnce + 1)
            .ToListAsync(cancel);
        var decided = await db
            .Commands.AsNoTracking()
            .Where(row => row.At < until && (job == null || row.JobId == job) && (actor == null || row.Actor == actor))
            .OrderByDescending(row => row.At)
            .Take(AtOnce + 1)
            .Select(row => new
            {
                row.At,
                row.Actor,
                row.Kind,
                row.Body,
                row.JobId,
            })
            .ToListAsync(cancel);
        var ids = asked.Select(row => row.JobId).OfType<Guid>().Concat(decided.Select(row => row.JobId)).Distinct().ToList();
        var names = await db.Jobs.Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id, row => row.Name, cancel);
        var all = asked
            .Select(row => new ActivityEntry(
                row.At,
                row.Actor,
                row.What,
                // The subject of what is about a job is its name.
                ActivityTexts.Sentence(
                    row.What,
                    row.JobId is null || row.Subject != names.GetValueOrDefault(row.JobId.Value) ? row.Subject : ""
                ),
                row.JobId,
                row.JobId is { } one ? names.GetValueOrDefault(one) ?? row.Subject : null,
                row.From
            ))
            .Concat(
                decided.Select(row => new ActivityEntry(
                    row.At,
                    row.Actor,
                    row.Kind,
                    row.Kind == Commands
                        ? CommandSummary.Of(StoredJson.Read<IReadOnlyList<JobCommand>>(row.Body))
                        : ActivityTexts.Sentence(row.Kind, ""),
                    row.JobId,
                    names.GetValueOrDefault(row.JobId),
                    ""
                ))
            )
            .OrderByDescending(entry => entry.At)
            .ToList();
        // What happened at the very moment of the last line comes with it, so that the next part can begin before that moment.
        var end = all.Count <= AtOnce ? all.Count : all.FindLastIndex(entry => entry.At == all[AtOnce - 1].At) + 1;
        return new([.. all.Take(end)], end < all.Count || asked.Count > AtOnce || decided.Count > AtOnce ? all[end - 1].At : null);
    }
}
