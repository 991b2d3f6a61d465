using Pantomet.Core.Planning;
using Pantomet.Core.Verdicts;

namespace Pantomet.Application.Jobs;

/// <summary>What one density, or one width of a ladder, gets from a frame.</summary>
/// <param name="Descriptor">The density asked for, or the width: 2x, 800w.</param>
/// <param name="Width">Pixels across that will be made.</param>
/// <param name="Height">Pixels down that will be made.</param>
/// <param name="AskedWidth">Pixels across that the slot asks for.</param>
/// <param name="AskedHeight">Pixels down that the slot asks for.</param>
/// <param name="Offered">The density that the frame honestly offers; 1 on a ladder.</param>
/// <param name="Verdict">The verdict before any weight is known.</param>
/// <param name="Reasons">Why.</param>
public sealed record PlanView(
    string Descriptor,
    int Width,
    int Height,
    int AskedWidth,
    int AskedHeight,
    double Offered,
    Verdict Verdict,
    IReadOnlyList<Reason> Reasons
)
{
    /// <summary>The view of a plan.</summary>
    public static PlanView Of(VariantPlan plan)
    {
        ArgumentNullException.ThrowIfNull(plan);
        return new(
            plan.Descriptor.ToString(),
            plan.Size.Width,
            plan.Size.Height,
            plan.Asked.Width,
            plan.Asked.Height,
            plan.Offered,
            plan.Verdict,
            plan.Reasons
        );
    }
}
