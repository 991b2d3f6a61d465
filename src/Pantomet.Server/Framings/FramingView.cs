using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Verdicts;

namespace Pantomet.Server.Framings;

/// <summary>How one picture stands in one slot.</summary>
/// <param name="Frame">Left, top, right, bottom as fractions of the picture as displayed.</param>
/// <param name="Origin">Where the frame came from.</param>
/// <param name="Plans">What each density of the slot gets from it.</param>
public sealed record FramingView(IReadOnlyList<double> Frame, FrameOrigin Origin, IReadOnlyList<PlanView> Plans)
{
    /// <summary>The view of a solved frame and its plans.</summary>
    public static FramingView Of(SolvedFrame solved, PixelSize picture, IEnumerable<VariantPlan> plans)
    {
        var region = solved.Region;
        return new(
            [region.X / picture.Width, region.Y / picture.Height, (region.X + region.Width) / picture.Width, (region.Y + region.Height) / picture.Height],
            solved.Origin, [.. plans.Select(PlanView.Of)]);
    }
}

/// <summary>What one density of a slot gets from a frame.</summary>
/// <param name="Density">The density asked for.</param>
/// <param name="Width">Pixels across that will be made.</param>
/// <param name="Height">Pixels down that will be made.</param>
/// <param name="AskedWidth">Pixels across that the slot asks for.</param>
/// <param name="AskedHeight">Pixels down that the slot asks for.</param>
/// <param name="Offered">The density that the frame honestly offers.</param>
/// <param name="Verdict">The verdict before any weight is known.</param>
/// <param name="Reasons">Why.</param>
public sealed record PlanView(
    decimal Density, int Width, int Height, int AskedWidth, int AskedHeight, double Offered, Verdict Verdict, IReadOnlyList<Reason> Reasons)
{
    /// <summary>The view of a plan.</summary>
    public static PlanView Of(VariantPlan plan)
    {
        ArgumentNullException.ThrowIfNull(plan);
        return new(plan.Density.Value, plan.Size.Width, plan.Size.Height, plan.Asked.Width, plan.Asked.Height, plan.Offered, plan.Verdict, plan.Reasons);
    }
}

/// <summary>A frame set by hand.</summary>
/// <param name="Frame">Left, top, right, bottom as fractions of the picture as displayed.</param>
public sealed record FrameWish(IReadOnlyList<double> Frame);
