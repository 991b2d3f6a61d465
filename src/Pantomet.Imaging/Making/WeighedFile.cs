using System.Text.Json.Serialization;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;

namespace Pantomet.Imaging.Making;

/// <summary>What is known of a file as soon as it is found, while its likeness is still being measured.</summary>
/// <param name="Format">Its type.</param>
/// <param name="Quality">1 to 100; null where there is none.</param>
/// <param name="Size">Its pixel size.</param>
/// <param name="Bytes">Its weight.</param>
public sealed record WeighedFile(PictureFormat Format, int? Quality, PixelSize Size, long Bytes)
{
    /// <summary>The file itself; empty where only its figures were passed on.</summary>
    [JsonIgnore]
    public ReadOnlyMemory<byte> Content { get; private init; }

    internal static WeighedFile Of(Attempt attempt, PixelSize size) =>
        new(attempt.Format, attempt.Quality, size, attempt.Bytes) { Content = attempt.File };
}
