using System.Globalization;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Verdicts;

namespace Pantomet.Data.Variants;

/// <summary>
/// One file made from a picture. Which slots it fills is told by what it depends on, not by a name: slots with equal rules share files.
/// </summary>
public sealed class VariantRow
{
    /// <summary>A hash of everything the file depends on, lower-case hexadecimal: the same request finds the same file.</summary>
    public required string Id { get; set; }

    /// <summary>The picture.</summary>
    public Guid PictureId { get; set; }

    /// <summary>SHA-256 of the file; also its name in the folder of variants.</summary>
    public required string ContentHash { get; set; }

    /// <summary>File type.</summary>
    public PictureFormat Format { get; set; }

    /// <summary>Pixels across.</summary>
    public int Width { get; set; }

    /// <summary>Pixels down.</summary>
    public int Height { get; set; }

    /// <summary>Weight in bytes.</summary>
    public long Bytes { get; set; }

    /// <summary>1 to 100; null where the type has none.</summary>
    public int? Quality { get; set; }

    /// <summary>0 to 1: how much the file looks like the same pixels uncompressed.</summary>
    public double? Likeness { get; set; }

    /// <summary>Where it differs most, in pixels of the file: left, top, right, bottom with commas.</summary>
    public string? WorstPlace { get; set; }

    /// <summary><see cref="WorstPlace"/> as a rectangle.</summary>
    public Crop? Worst
    {
        get =>
            WorstPlace?.Split(',').Select(edge => int.Parse(edge, CultureInfo.InvariantCulture)).ToArray()
                is [var left, var top, var right, var bottom]
                ? new(left, top, right, bottom)
                : null;
        set =>
            WorstPlace = value is { } worst
                ? string.Create(CultureInfo.InvariantCulture, $"{worst.Left},{worst.Top},{worst.Right},{worst.Bottom}")
                : null;
    }

    /// <summary>
    /// The recipe it was made by as canonical JSON, so that its pixels can be made again; empty for files of before there were recipes.
    /// </summary>
    public string Recipe { get; set; } = "";

    /// <summary>What it is wanted as: the hash of its recipe without the version.</summary>
    public string Want { get; set; } = "";

    /// <summary>The order that a file of before there were recipes was made by, until it was brought over; null for all others.</summary>
    public string? Order { get; set; }

    /// <summary>How many trial encodes it took.</summary>
    public int Encodes { get; set; }

    /// <summary>The verdict on the file alone; what its frame gave up is not in it.</summary>
    public Verdict Verdict { get; set; }

    /// <summary>The reasons for it as JSON.</summary>
    public required string Reasons { get; set; }

    /// <summary>What stands in for it until it is there, as a data address; null for files of before there was one.</summary>
    public string? Placeholder { get; set; }

    /// <summary>The colour that continues its edge, like <c>#a1b2c3</c>; null where something shows through, or for files of before.</summary>
    public string? Edge { get; set; }

    /// <summary>What became of the slot's dress, as JSON; null where it has none.</summary>
    public string? Dressed { get; set; }

    /// <summary>When it was made, UTC.</summary>
    public DateTime MadeAt { get; set; }

    /// <summary>When it was wanted last, UTC, to the day: what nothing wants is collected, the least recently wanted first.</summary>
    public DateTime WantedAt { get; set; }
}
