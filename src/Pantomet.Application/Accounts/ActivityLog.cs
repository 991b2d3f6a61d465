using Pantomet.Application.Jobs;
using Pantomet.Core.Accounts;
using Pantomet.Data.Accounts;

namespace Pantomet.Application.Accounts;

/// <summary>Who did what and when, besides the commands of jobs: sign-ins, rights, publications, deliveries, rules, pictures.</summary>
public sealed class ActivityLog(Writer writer, TimeProvider clock)
{
    private const int LongestSubject = 200;

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
                db.Activities.Add(
                    new ActivityRow
                    {
                        At = clock.GetUtcNow().UtcDateTime,
                        Actor = actor.Name,
                        ActorId = actor.Person,
                        What = what,
                        Subject = subject.Length > LongestSubject ? subject[..LongestSubject] : subject,
                        JobId = job,
                        From = from,
                    }
                );
                await db.SaveChangesAsync(CancellationToken.None);
                return (true, null);
            },
            CancellationToken.None
        );
    }
}
