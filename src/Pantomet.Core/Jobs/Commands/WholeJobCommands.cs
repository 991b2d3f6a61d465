using Pantomet.Core.Naming;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Jobs.Commands;

/// <summary>
/// Adds pictures of the library, in this order, behind those that are there. Those that are there already, or that the library has not, are
/// passed over.
/// </summary>
/// <param name="Pictures">The pictures.</param>
public sealed record AddPictures(IReadOnlyList<Guid> Pictures) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around)
    {
        var known = job.Pictures.Select(one => one.Id).ToHashSet();
        var fresh = Pictures
            .Where(id => known.Add(id) && around.FactsOf(id) is not null)
            .Select(id => new JobPicture(id, around.MarksOf(id)))
            .ToList();
        return fresh.Count == 0 ? job
            : job.Pictures.Count + fresh.Count > Job.MostPictures
                ? new CommandFault(CommandFault.TooMany, JobTexts.AJobCanHaveAtMost(Job.MostPictures, job.Pictures.Count), "pictures")
            : job with { Pictures = [.. job.Pictures, .. fresh] };
    }
}

/// <summary>Removes pictures from the job; they stay in the library. Pictures that the job does not have are ignored.</summary>
/// <param name="Pictures">The pictures.</param>
public sealed record RemovePictures(IReadOnlyList<Guid> Pictures) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around)
    {
        var gone = Pictures.ToHashSet();
        return job.Pictures.Any(one => gone.Contains(one.Id))
            ? job with
            {
                Pictures = [.. job.Pictures.Where(one => !gone.Contains(one.Id))],
            }
            : job;
    }
}

/// <summary>Adds slots that must be filled; they stand in the order of their destinations.</summary>
/// <param name="Slots">Addresses.</param>
public sealed record AddSlots(IReadOnlyList<string> Slots) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around)
    {
        var fresh = Slots.Distinct().Where(address => !job.HasSlot(address)).ToList();
        if (fresh.FirstOrDefault(address => around.SlotAt(address) is null) is { } unknown)
        {
            return new CommandFault(CommandFault.NoSuchSlot, JobTexts.TheRulesHaveNoSlot2(unknown), "slots");
        }

        return fresh.Count == 0 ? job
            : job.Slots.Count + fresh.Count > Job.MostSlots
                ? new CommandFault(CommandFault.TooMany, JobTexts.AJobCanHaveAtMost2(Job.MostSlots), "slots")
            : job with { Slots = [.. job.Slots.Concat(fresh.Select(JobSlot.At)).OrderBy(slot => around.RankOf(slot.Address))] };
    }
}

/// <summary>Removes slots. What was decided for their cells is kept, in case they are added again.</summary>
/// <param name="Slots">Addresses; slots that the job does not have are ignored.</param>
public sealed record RemoveSlots(IReadOnlyList<string> Slots) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around) =>
        job.Slots.Any(slot => Slots.Contains(slot.Address))
            ? job with
            {
                Slots = [.. job.Slots.Where(slot => !Slots.Contains(slot.Address))],
            }
            : job;
}

/// <summary>Names the job and its files. What is null stays.</summary>
/// <param name="Name">Name for people.</param>
/// <param name="Prefix">Words that every file's name begins with.</param>
/// <param name="Numbered">True to name pictures without words after the job and count them.</param>
/// <param name="Patterns">
/// Patterns of names by destination's key; an empty one goes back to the slots' own. Destinations that are not named here keep theirs.
/// </param>
public sealed record NameJob(
    string? Name = null,
    string? Prefix = null,
    bool? Numbered = null,
    IReadOnlyDictionary<string, string>? Patterns = null
) : JobCommand
{
    private const int LongestPrefix = 60;
    private const int LongestPattern = 200;
    private const int MostPatterns = 200;

    internal override Outcome On(Job job, ICommandContext around)
    {
        if (Name is not null && Job.NameFault(Name) is { } wrong)
        {
            return new CommandFault(CommandFault.BadValue, wrong, "name");
        }

        if (Prefix is { } words && (words.Length > LongestPrefix || words.Any(char.IsControl)))
        {
            return new CommandFault(CommandFault.BadValue, JobTexts.APrefixCanHaveAtMost(LongestPrefix), "prefix");
        }

        var patterns = new Dictionary<string, string>(job.Patterns);
        foreach (var (destination, pattern) in Patterns ?? new Dictionary<string, string>())
        {
            if (pattern.Length == 0)
            {
                patterns.Remove(destination);
                continue;
            }

            string? fault = null;
            if (pattern.Length > LongestPattern || destination.Length > LongestName || !NamePattern.TryParse(pattern, out _, out fault))
            {
                return new CommandFault(
                    CommandFault.BadValue,
                    JobTexts.ThePatternForCannotBeUsed(destination, fault ?? JobTexts.ItIsTooLong),
                    "patterns"
                );
            }

            patterns[destination] = pattern;
        }

        return patterns.Count > MostPatterns
            ? new CommandFault(CommandFault.TooMany, JobTexts.AJobCanHaveAtMost3(MostPatterns), "patterns")
            : job with
            {
                Name = Name?.Trim() ?? job.Name,
                Prefix = Prefix ?? job.Prefix,
                Numbered = Numbered ?? job.Numbered,
                Patterns = Patterns is null ? job.Patterns : patterns,
            };
    }

    private const int LongestName = 100;
}
