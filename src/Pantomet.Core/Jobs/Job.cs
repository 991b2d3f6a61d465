using Pantomet.Core.Texts;

namespace Pantomet.Core.Jobs;

/// <summary>One picture of a job and what was decided about it.</summary>
/// <param name="Id">The picture in the library.</param>
/// <param name="Decisions">What was decided.</param>
public sealed record JobPicture(Guid Id, Decisions Decisions);

/// <summary>One slot of a job.</summary>
/// <param name="Destination">The destination's key.</param>
/// <param name="Slot">The slot's key.</param>
/// <param name="Choice">Type and quality for every picture in it, where they were chosen.</param>
public sealed record JobSlot(string Destination, string Slot, Choice? Choice = null)
{
    /// <summary>"destination/slot".</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public string Address => $"{Destination}/{Slot}";

    /// <summary>A slot by its address, "destination/slot".</summary>
    public static JobSlot At(string address)
    {
        ArgumentNullException.ThrowIfNull(address);
        var parts = address.Split('/', 2);
        return new(parts[0], parts.Length > 1 ? parts[1] : "");
    }
}

/// <summary>
/// A set of pictures that must fill a set of slots, and every decision about them. It never changes: each change is a new one.
/// </summary>
public sealed record Job
{
    /// <summary>The most pictures of one job.</summary>
    public const int MostPictures = 1000;

    /// <summary>The most slots of one job.</summary>
    public const int MostSlots = 200;

    private const int LongestName = 100;

    /// <summary>Name for people.</summary>
    public required string Name { get; init; }

    /// <summary>Words that every file's name begins with.</summary>
    public string Prefix { get; init; } = "";

    /// <summary>True when pictures that have nothing but a camera's number are named after the job and counted.</summary>
    public bool Numbered { get; init; }

    /// <summary>Patterns of names by destination's key, where the slots' own are not wanted.</summary>
    public IReadOnlyDictionary<string, string> Patterns { get; init; } = new Dictionary<string, string>();

    /// <summary>The pictures in their order.</summary>
    public IReadOnlyList<JobPicture> Pictures { get; init; } = [];

    /// <summary>The slots in their order.</summary>
    public IReadOnlyList<JobSlot> Slots { get; init; } = [];

    /// <summary>One picture; null when the job has it not.</summary>
    public JobPicture? Find(Guid picture) => Pictures.FirstOrDefault(one => one.Id == picture);

    /// <summary>The same with other decisions about one picture.</summary>
    public Job With(Guid picture, Decisions decisions) =>
        this with
        {
            Pictures = [.. Pictures.Select(one => one.Id == picture ? one with { Decisions = decisions } : one)],
        };

    /// <summary>One slot by its address; null when the job has it not.</summary>
    public JobSlot? SlotOf(string address) => Slots.FirstOrDefault(one => one.Address == address);

    /// <summary>True when the slot must be filled.</summary>
    public bool HasSlot(string address) => SlotOf(address) is not null;

    /// <summary>Changes the decisions about one picture; refused when there is none, or when they cannot be.</summary>
    internal Commands.Outcome Deciding(Guid picture, Func<Decisions, Decisions> change, string field = "picture")
    {
        if (Find(picture) is not { } mine)
        {
            return Commands.CommandFault.Picture();
        }

        var changed = change(mine.Decisions);
        return ReferenceEquals(changed, mine.Decisions) ? this
            : changed.Fault() is { } fault ? new Commands.CommandFault(Commands.CommandFault.BadValue, fault, field)
            : With(picture, changed);
    }

    /// <summary>What is wrong with a name; null when nothing is.</summary>
    public static string? NameFault(string? name) =>
        string.IsNullOrWhiteSpace(name) || name.Length > LongestName || name.Any(char.IsControl)
            ? JobTexts.AJobsNameMustHaveTo(LongestName)
            : null;
}
