using Pantomet.Core.Dressing;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Likeness;
using Pantomet.Core.Planning;
using Pantomet.Core.Verdicts;

namespace Pantomet.Imaging.Making;

/// <summary>A variant as it was made, or the reasons why none was.</summary>
public sealed record MadeVariant
{
    /// <summary>The plan it follows; its size may have shrunk to meet a weight.</summary>
    public required VariantPlan Plan { get; init; }

    /// <summary>The file; null when none was made.</summary>
    public byte[]? File { get; init; }

    /// <summary>The file's type.</summary>
    public PictureFormat? Format { get; init; }

    /// <summary>1 to 100; null where the type has none.</summary>
    public int? Quality { get; init; }

    /// <summary>How much the file looks like the same pixels uncompressed; null when no file was made.</summary>
    public Likeness? Likeness { get; init; }

    /// <summary>How many trial encodes it took.</summary>
    public int Encodes { get; init; }

    /// <summary>How many encodes of samples.</summary>
    public int Trials { get; init; }

    /// <summary>What became of the slot's dress; null where it has none.</summary>
    public Dressed? Dressed { get; init; }

    /// <summary>The final verdict.</summary>
    public required Verdict Verdict { get; init; }

    /// <summary>Why.</summary>
    public required IReadOnlyList<Reason> Reasons { get; init; }

    /// <summary>The file's pixel size.</summary>
    public PixelSize Size => Plan.Size;
}
