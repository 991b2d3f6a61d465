using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Recipes;
using Pantomet.Core.Rules;
using Pantomet.Data.Variants;
using Pantomet.Imaging.Making;

namespace Pantomet.Application.Live;

/// <summary>A published file that lies on the disk.</summary>
/// <param name="Path">Where.</param>
/// <param name="Hash">SHA-256 of its content, which is its tag as well.</param>
/// <param name="Bytes">Its weight.</param>
/// <param name="MediaType">Its type.</param>
public sealed record StoredFile(string Path, string Hash, long Bytes, string MediaType);

/// <summary>One file that can be asked for. What is known of it on the disk is found out once.</summary>
public sealed class LiveFile(string id, string recipe, bool allowed)
{
    private volatile StoredFile? _stored;
    private volatile bool _unfit;

    /// <summary>The content hash in addresses.</summary>
    public string Id { get; } = id;

    /// <summary>True when it is handed over although it breaks a limit.</summary>
    public bool Allowed { get; } = allowed;

    /// <summary>Everything it depends on.</summary>
    public Recipe Recipe { get; } = Recipe.Parse(recipe);

    /// <summary>The type it is to have; null where the content chooses.</summary>
    public PictureFormat? Type => Recipe.Format;

    /// <summary>The file on the disk; null before it is made or looked for.</summary>
    public StoredFile? Stored
    {
        get => _stored;
        set => _stored = value;
    }

    /// <summary>True once it was made and breaks a limit: another type is sent instead.</summary>
    public bool Unfit => _unfit;

    /// <summary>Takes over a file that was found while its likeness is still measured; it is fit to go.</summary>
    public StoredFile Take(WeighedFile found, string hash, string path) => _stored = new(path, hash, found.Bytes, found.Format.MediaType());

    /// <summary>Takes over what is known of the file.</summary>
    public StoredFile? Take(VariantRow row, string path)
    {
        _unfit = row.Verdict == Core.Verdicts.Verdict.Breaks && !Allowed;
        return _unfit ? null : _stored = new(path, row.ContentHash, row.Bytes, row.Format.MediaType());
    }
}

/// <summary>The files of one width, by type in order of preference.</summary>
/// <param name="Width">Pixels across.</param>
/// <param name="Height">Pixels down.</param>
/// <param name="Descriptor">The density or the width it stands for.</param>
/// <param name="Files">One for each type.</param>
public sealed record LiveRung(int Width, int Height, string Descriptor, IReadOnlyList<LiveFile> Files);

/// <summary>One slot of a place.</summary>
/// <param name="Slot">Its rule as it was published.</param>
/// <param name="Asked">What it asks for at density 1, in CSS pixels.</param>
/// <param name="Rungs">Its files from the narrowest up, at least one.</param>
public sealed record LiveSlot(Slot Slot, PixelSize Asked, IReadOnlyList<LiveRung> Rungs)
{
    /// <summary>True where the type depends on who asks.</summary>
    public bool IsNegotiated => Rungs.Any(rung => rung.Files.Count > 1);

    /// <summary>The next width that is wide enough, else the widest; without a width the one for who makes no choice.</summary>
    public LiveRung At(int? width)
    {
        var wanted = width ?? Math.Min(Asked.Width, Rungs[^1].Width);
        foreach (var rung in Rungs)
        {
            if (rung.Width >= wanted)
            {
                return rung;
            }
        }

        return Rungs[^1];
    }
}

/// <summary>One picture in one place as it was published.</summary>
/// <param name="Version">Eight hexadecimal digits over everything that its files depend on.</param>
/// <param name="PictureId">The picture.</param>
/// <param name="Facts">What was read from its original.</param>
/// <param name="Alternative">What it shows; empty for a decorative picture, null where nobody said it.</param>
/// <param name="At">When it was published, UTC.</param>
/// <param name="ExpiresAt">When it stops to answer, UTC; null for the newest.</param>
/// <param name="Slots">Its slots in their order, at least one.</param>
public sealed record LiveVersion(
    string Version,
    Guid PictureId,
    PictureFacts Facts,
    string? Alternative,
    DateTime At,
    DateTime? ExpiresAt,
    IReadOnlyList<LiveSlot> Slots
)
{
    /// <summary>A slot by its key; without one the last, which is shown where no condition holds.</summary>
    public LiveSlot? SlotAt(ReadOnlySpan<char> key)
    {
        if (key.IsEmpty)
        {
            return Slots[^1];
        }

        foreach (var slot in Slots)
        {
            if (key.SequenceEqual(slot.Slot.Key))
            {
                return slot;
            }
        }

        return null;
    }
}

/// <summary>One picture in one place with all versions that answer.</summary>
public sealed class LivePlace(Guid publication, string path, IReadOnlyList<LiveVersion> versions)
{
    private long _fetches;
    private long _unchanged;
    private long _bytes;

    /// <summary>The publication of the place.</summary>
    public Guid Publication { get; } = publication;

    /// <summary>What its address goes on with behind the publication's key.</summary>
    public string Path { get; } = path;

    /// <summary>The newest first.</summary>
    public IReadOnlyList<LiveVersion> Versions { get; } = versions;

    /// <summary>A version by its name; without one the newest. Null when it does not answer any more, or never was.</summary>
    public LiveVersion? At(string? version, DateTime now)
    {
        foreach (var one in Versions)
        {
            if ((version is null || one.Version == version) && (one.ExpiresAt is null || one.ExpiresAt > now))
            {
                return one;
            }
        }

        return null;
    }

    /// <summary>Counts what was sent.</summary>
    public void Sent(long bytes)
    {
        Interlocked.Increment(ref _fetches);
        Interlocked.Add(ref _bytes, bytes);
    }

    /// <summary>Counts that what somebody has is still right.</summary>
    public void Confirmed() => Interlocked.Increment(ref _unchanged);

    /// <summary>What was counted since the last time.</summary>
    public (long Fetches, long Unchanged, long Bytes) TakeCounts() =>
        (Interlocked.Exchange(ref _fetches, 0), Interlocked.Exchange(ref _unchanged, 0), Interlocked.Exchange(ref _bytes, 0));
}
