using Pantomet.Core.Facts;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Dressing;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Making;

/// <summary>
/// The pixels of a decoded picture, as a slot wants them; the frames of a moving one are decoded when they are asked for.
/// </summary>
/// <param name="master">The picture; it must outlive this.</param>
/// <param name="slot">The slot.</param>
/// <param name="cancel">Stops between frames.</param>
public sealed class MasterPixels(PictureMaster master, Slot slot, CancellationToken cancel = default) : IPixelSource
{
    /// <inheritdoc/>
    public PictureFacts Facts => master.Facts;

    /// <inheritdoc/>
    public RenderedPixels Still(VariantPlan plan) =>
        Dresser.Apply(VariantRenderer.Render(master, plan, slot.Background, slot.Sharpen), slot, plan.Kept);

    /// <inheritdoc/>
    public RenderedPixels Moving(VariantPlan plan) =>
        Dresser.Apply(MovingPicture.Render(master.Path, master.Facts, master.Turn, slot, plan, cancel), slot, plan.Kept);
}
