using Pantomet.Core.Geometry;

namespace Pantomet.Data.Framings;

/// <summary>A frame that a person set for one picture and one slot, as fractions of the picture as displayed.</summary>
public sealed class FramingRow
{
    /// <summary>The picture.</summary>
    public Guid PictureId { get; set; }

    /// <summary>The destination's key.</summary>
    public required string Destination { get; set; }

    /// <summary>The slot's key.</summary>
    public required string Slot { get; set; }

    /// <summary>Left edge, 0 to 1.</summary>
    public double Left { get; set; }

    /// <summary>Top edge, 0 to 1.</summary>
    public double Top { get; set; }

    /// <summary>Right edge, 0 to 1.</summary>
    public double Right { get; set; }

    /// <summary>Bottom edge, 0 to 1.</summary>
    public double Bottom { get; set; }

    /// <summary>The frame; null when what is stored is none.</summary>
    public Frame? Frame => Core.Geometry.Frame.TryCreate(Left, Top, Right, Bottom, out var frame, out _) ? frame : null;

    /// <summary>Takes over another frame.</summary>
    public void Set(Frame frame) => (Left, Top, Right, Bottom) = (frame.Left, frame.Top, frame.Right, frame.Bottom);
}
