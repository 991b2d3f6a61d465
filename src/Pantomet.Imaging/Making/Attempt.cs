using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Core.Verdicts;

namespace Pantomet.Imaging.Making;

/// <summary>A file of one type as it came out, with what was conceded for it.</summary>
/// <param name="File">The file.</param>
/// <param name="Format">Its type.</param>
/// <param name="Quality">1 to 100; null for lossless files and palettes.</param>
/// <param name="Likeness">Its likeness.</param>
/// <param name="Fits">True when it is within the weight limit.</param>
internal sealed record Attempt(byte[] File, PictureFormat Format, int? Quality, Likeness Likeness, bool Fits)
{
    /// <summary>What was given up.</summary>
    public List<Reason> Concessions { get; } = [];

    /// <summary>What is worth knowing and changes no verdict.</summary>
    public List<Reason> Notes { get; } = [];
}
