using System.Collections.Concurrent;

namespace Pantomet.Application.Jobs;

/// <summary>Somebody who has a job open.</summary>
/// <param name="Window">The window, by a name that it gave itself.</param>
/// <param name="Name">Who; empty where nobody signs in.</param>
/// <param name="Picture">The picture they are at; null for none.</param>
/// <param name="Slot">The slot they are at, by its address; null for none.</param>
public sealed record PersonInJob(string Window, string Name, Guid? Picture, string? Slot);

/// <summary>
/// Who has which job open, and where they are in it. It is in memory only: who is no longer heard of for a while has gone. What is told of it
/// disturbs nobody: it changes nothing of the job.
/// </summary>
public sealed class JobPresence(OpenJobs jobs, CellJudge judge, TimeProvider clock)
{
    /// <summary>The most windows of one job that are told of.</summary>
    public const int Most = 50;

    private static readonly TimeSpan Gone = TimeSpan.FromSeconds(45);

    private readonly ConcurrentDictionary<Guid, ConcurrentDictionary<string, (PersonInJob Person, DateTimeOffset At)>> _jobs = new();

    /// <summary>Who has a job open now.</summary>
    public IReadOnlyList<PersonInJob> In(Guid job)
    {
        if (!_jobs.TryGetValue(job, out var windows))
        {
            return [];
        }

        var now = clock.GetUtcNow();
        foreach (var (window, (_, at)) in windows)
        {
            if (now - at > Gone)
            {
                windows.TryRemove(window, out _);
            }
        }

        return
        [
            .. windows
                .Values.Select(one => one.Person)
                .OrderBy(one => one.Name, StringComparer.Ordinal)
                .ThenBy(one => one.Window, StringComparer.Ordinal),
        ];
    }

    /// <summary>Somebody is at a place of a job; those who show it are told when they were not there before.</summary>
    /// <returns>False when there is no such job.</returns>
    public async Task<bool> IsAtAsync(Guid job, PersonInJob person, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(person);
        if (await jobs.OpenAsync(job, cancel) is not { } board)
        {
            return false;
        }

        var windows = _jobs.GetOrAdd(job, _ => new(StringComparer.Ordinal));
        var before = In(job);
        if (windows.Count < Most || windows.ContainsKey(person.Window))
        {
            windows[person.Window] = (person, clock.GetUtcNow());
        }

        Tell(board, before);
        return true;
    }

    /// <summary>A window was closed.</summary>
    public async Task LeaveAsync(Guid job, string window, CancellationToken cancel)
    {
        var before = In(job);
        if (_jobs.TryGetValue(job, out var windows) && windows.TryRemove(window, out _) && await jobs.OpenAsync(job, cancel) is { } board)
        {
            Tell(board, before);
        }
    }

    private void Tell(JobBoard board, IReadOnlyList<PersonInJob> before)
    {
        var (state, people) = (board.State, In(board.State.Id));
        if (!people.SequenceEqual(before))
        {
            board.Tell(new(state.Sequence, null, null, null, null, [], false, judge.Progress(board), state.Run, people));
        }
    }
}
