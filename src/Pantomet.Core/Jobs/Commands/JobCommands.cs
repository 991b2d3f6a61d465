namespace Pantomet.Core.Jobs.Commands;

/// <summary>What came of a list of commands.</summary>
/// <param name="Job">The job afterwards; the very same when nothing changed.</param>
/// <param name="Change">What leads from the job before to the one after: what has to be stored and told.</param>
/// <param name="Inverse">What leads back.</param>
public sealed record Applied(Job Job, JobPatch Change, JobPatch Inverse);

/// <summary>A refusal, and which command of the list it is about.</summary>
/// <param name="At">From 0.</param>
/// <param name="Fault">Why.</param>
public sealed record RefusedCommand(int At, CommandFault Fault);

/// <summary>Applies commands: a pure function of the job as it is now.</summary>
public static class JobCommands
{
    /// <summary>Applies a list of commands, all or none.</summary>
    /// <param name="job">The job as it is now.</param>
    /// <param name="commands">The commands, in order.</param>
    /// <param name="around">Facts and rules.</param>
    /// <param name="applied">What came of them; null when one was refused.</param>
    /// <param name="refused">Which one was refused and why; null when none was.</param>
    public static bool TryApply(
        Job job,
        IReadOnlyList<JobCommand> commands,
        ICommandContext around,
        out Applied? applied,
        out RefusedCommand? refused
    )
    {
        ArgumentNullException.ThrowIfNull(job);
        ArgumentNullException.ThrowIfNull(commands);
        ArgumentNullException.ThrowIfNull(around);
        var now = job;
        for (var at = 0; at < commands.Count; at++)
        {
            var outcome = commands[at].On(now, around);
            if (outcome.Fault is { } fault)
            {
                (applied, refused) = (null, new(at, fault));
                return false;
            }

            now = outcome.Job!;
        }

        refused = null;
        applied = Between(job, now);
        return true;
    }

    /// <summary>Applies a patch, such as an inverse.</summary>
    public static Applied Apply(Job job, JobPatch patch)
    {
        ArgumentNullException.ThrowIfNull(job);
        ArgumentNullException.ThrowIfNull(patch);
        return Between(job, patch.On(job));
    }

    private static Applied Between(Job before, Job after)
    {
        if (ReferenceEquals(before, after))
        {
            return new(before, new(), new());
        }

        var change = JobPatch.Between(before, after);
        return change.IsEmpty ? new(before, change, change) : new(after, change, JobPatch.Between(after, before));
    }
}
