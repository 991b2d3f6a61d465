using Pantomet.Core.Facts;
using Pantomet.Core.Planning;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Making;

/// <summary>Where the pixels of one picture in one slot come from. Whoever asks for pixels frees them.</summary>
public interface IPixelSource
{
    /// <summary>The picture's facts.</summary>
    public PictureFacts Facts { get; }

    /// <summary>Renders a plan as a still picture.</summary>
    public RenderedPixels Still(VariantPlan plan);

    /// <summary>Renders every frame of a moving picture by a plan.</summary>
    public RenderedPixels Moving(VariantPlan plan);
}
