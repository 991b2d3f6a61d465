using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Markup;

/// <summary>One file that a page can take.</summary>
/// <param name="Descriptor">The density it was made for, or its width on a ladder.</param>
/// <param name="Size">Its pixel size.</param>
/// <param name="Format">Its type.</param>
/// <param name="Bytes">Its weight.</param>
/// <param name="Address">Where the page finds it: an address, or its data.</param>
public sealed record MarkupFile(Descriptor Descriptor, PixelSize Size, PictureFormat Format, long Bytes, string Address);

/// <summary>One slot as it stands on a page, with the files that were made for it.</summary>
/// <param name="slot">The slot.</param>
/// <param name="asked">What it asks for at density 1, in CSS pixels.</param>
/// <param name="files">Its files.</param>
public sealed class MarkupSlot(Slot slot, PixelSize asked, IReadOnlyList<MarkupFile> files)
{
    // From the smallest up; of two that are equally large one.
    private readonly List<MarkupFile> _files =
    [
        .. files.OrderBy(file => file.Size.Width).DistinctBy(file => (file.Format, file.Size.Width)),
    ];

    private IReadOnlyList<IReadOnlyList<MarkupFile>>? _byType;

    /// <summary>The slot.</summary>
    public Slot Slot { get; } = slot;

    /// <summary>Its files.</summary>
    public IReadOnlyList<MarkupFile> Files { get; } = files;

    /// <summary>
    /// The size it is shown at, in CSS pixels: as asked, or less where the picture has not the pixels for it. Its shape is that of its files.
    /// </summary>
    public PixelSize Shown
    {
        get
        {
            var largest = _files[^1].Size;
            var width = Math.Min(asked.Width, largest.Width);
            return new(width, Ratio.Of(largest).HeightFor(width));
        }
    }

    /// <summary>
    /// The files by type, in the order in which a browser is to try them. A type for which not all sizes were made cannot stand alone: then
    /// all files are one list.
    /// </summary>
    public IReadOnlyList<IReadOnlyList<MarkupFile>> ByType => _byType ??= Typed();

    /// <summary>The density that a file really has where the slot is shown: 1.55 where the picture has no more.</summary>
    public decimal DensityOf(MarkupFile file)
    {
        ArgumentNullException.ThrowIfNull(file);
        var real = (decimal)file.Size.Width / Shown.Width;
        // A rounded side must not make 2x into 1.9985x.
        return file.Descriptor.Density is { } asked && Math.Abs(file.Size.Width - (asked.Value * Shown.Width)) <= 1
            ? asked.Value
            : Math.Round(real, 3);
    }

    /// <summary>The file for a browser that makes no choice.</summary>
    public MarkupFile Plain(IReadOnlyList<MarkupFile> files)
    {
        ArgumentNullException.ThrowIfNull(files);
        return files.FirstOrDefault(file => file.Size.Width >= Shown.Width) ?? files[^1];
    }

    private List<IReadOnlyList<MarkupFile>> Typed()
    {
        var types = _files.Select(file => file.Format).Distinct().OrderBy(Rank).ToList();
        var sizes = _files.Select(file => file.Size.Width).Distinct().Count();
        if (types.Any(type => _files.Count(file => file.Format == type) != sizes))
        {
            return [Single()];
        }

        // The last is the one that a browser takes when it knows no other.
        if (!IsKnownEverywhere(types[^1]) && types.FindLastIndex(IsKnownEverywhere) is >= 0 and var known)
        {
            var type = types[known];
            types.RemoveAt(known);
            types.Add(type);
        }

        return [.. types.Select(type => _files.Where(file => file.Format == type).ToList())];
    }

    // One file for each size: of several types, the one that was made for most.
    private List<MarkupFile> Single() =>
        [
            .. _files
                .GroupBy(file => file.Size.Width)
                .Select(same => same.OrderByDescending(file => _files.Count(other => other.Format == file.Format)).First()),
        ];

    private int Rank(PictureFormat format) => Slot.Formats.ToList().IndexOf(format) is >= 0 and var place ? place : int.MaxValue;

    private static bool IsKnownEverywhere(PictureFormat format) => format is PictureFormat.Jpeg or PictureFormat.Png;
}

/// <summary>A picture as one slot, or the slots of one group, show it on a page.</summary>
/// <param name="Words">What its rule is named after: letters, digits and hyphens.</param>
/// <param name="Slots">The slots in their order, each with a file at least.</param>
/// <param name="Alternative">What it shows, for those who cannot see it; empty for a decorative picture, null where nobody said it.</param>
public sealed record MarkupPicture(string Words, IReadOnlyList<MarkupSlot> Slots, string? Alternative)
{
    /// <summary>The colour that continues its edge; null where it is not known.</summary>
    public Rgb? Edge { get; init; }

    /// <summary>The tiny picture that stands in until the file is there, as a data address; null where there is none.</summary>
    public string? Placeholder { get; init; }

    /// <summary>True when it is the page's first: it is loaded at once and before others.</summary>
    public bool IsFirst => Slots.Any(slot => slot.Slot.First);
}
