using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Jobs;
using Pantomet.Core.Accounts;
using Pantomet.Data.Accounts;

namespace Pantomet.Application.Accounts;

/// <summary>Who did what and when, besides the commands of jobs: sign-ins, rights, publications, deliveries, rules, pictures.</summary>
public sealed class ActivityLog(Writer writer, WorkOptions options, TimeProvider clock)
{
    private const int LongestSubject = 200;

    // Entries beyond the most are removed a hundredth of them at a time.
    private const int Parts = 100;

    /// <summary>Writes that something was done.</summary>
    /// <param name="actor">Who.</param>
    /// <param name="what">The name of the request.</param>
    /// <param name="subject">What it was done to, as words; empty where the name says it all.</param>
    /// <param name="job">The job; null where none is meant.</param>
    /// <param name="from">The address it came from.</param>
    public Task AddAsync(Actor actor, string what, string subject, Guid? job, string from)
    {
        ArgumentNullException.ThrowIfNull(actor);
        ArgumentNullException.ThrowIfNull(subject);
        return writer.WriteAsync<bool>(
            async db =>
            {
                var row = new ActivityRow
                {
                    At = clock.GetUtcNow().UtcDateTime,
                    Actor = actor.Name,
                    ActorId = actor.Person,
                    What = what,
                    Subject = subject.Length > LongestSubject ? subject[..LongestSubject] : subject,
                    JobId = job,
                    From = from,
                };
                db.Activities.Add(row);
                await db.SaveChangesAsync(CancellationToken.None);
                // Whoever tries passwords writes here without being signed in: the log does not grow for ever.
                if (row.Id % Math.Max(1, options.MostLogEntries / Parts) == 0)
                {
                    await db.Activities.Where(one => one.Id <= row.Id - options.MostLogEntries).ExecuteDeleteAsync(CancellationToken.None);
                }

                return (true, null);
            },
            CancellationToken.None
        );
    }
}
