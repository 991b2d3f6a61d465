using System.Text.Json.Serialization;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Verdicts;

namespace Pantomet.Imaging.Hosting;

/// <summary>A piece of imaging work that can be handed to another process.</summary>
/// <param name="Path">The original.</param>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "work")]
[JsonDerivedType(typeof(ReadOrder), "read")]
[JsonDerivedType(typeof(PreviewOrder), "preview")]
[JsonDerivedType(typeof(VariantOrder), "variant")]
public abstract record Order(string Path);

/// <summary>Read the facts and check the whole file.</summary>
/// <param name="Path">The original.</param>
public sealed record ReadOrder(string Path) : Order(Path);

/// <summary>Make a small copy for the screen.</summary>
/// <param name="Path">The original.</param>
/// <param name="Side">Its longest side in pixels.</param>
/// <param name="Output">Where to write it.</param>
public sealed record PreviewOrder(string Path, int Side, string Output) : Order(Path);

/// <summary>Make one variant, or the pixels it is compared with.</summary>
/// <param name="Path">The original.</param>
/// <param name="Facts">Its facts.</param>
/// <param name="Rules">A rules file with the one slot.</param>
/// <param name="Density">The density.</param>
/// <param name="Hand">The frame set by hand.</param>
/// <param name="Format">A type chosen by hand.</param>
/// <param name="Quality">A quality chosen by hand.</param>
/// <param name="Output">Where to write the file.</param>
/// <param name="Size">The size of the file where it had to shrink to meet its weight; only for the reference.</param>
/// <param name="Reference">True for the pixels without loss, as PNG.</param>
public sealed record VariantOrder(
    string Path, PictureFacts Facts, string Rules, decimal Density, Frame? Hand, PictureFormat? Format, int? Quality, string Output, PixelSize? Size = null, bool Reference = false)
    : Order(Path);

/// <summary>What came of an order.</summary>
public sealed record Outcome
{
    /// <summary>Facts, after reading.</summary>
    public PictureFacts? Facts { get; init; }

    /// <summary>The variant, after making one.</summary>
    public VariantOutcome? Variant { get; init; }

    /// <summary>A sentence, when it could not be done.</summary>
    public string? Refusal { get; init; }
}

/// <summary>A variant that was made; its file lies where the order said.</summary>
/// <param name="HasFile">True when there is a file.</param>
/// <param name="Format">Its type.</param>
/// <param name="Size">Its pixel size.</param>
/// <param name="Quality">1 to 100, null where there is none.</param>
/// <param name="Likeness">0 to 1.</param>
/// <param name="WorstTile">Where it differs most.</param>
/// <param name="Encodes">Trial encodes.</param>
/// <param name="Verdict">The verdict.</param>
/// <param name="Reasons">Why.</param>
public sealed record VariantOutcome(
    bool HasFile, PictureFormat? Format, PixelSize Size, int? Quality, double? Likeness, Crop? WorstTile, int Encodes, Verdict Verdict, IReadOnlyList<Reason> Reasons);
