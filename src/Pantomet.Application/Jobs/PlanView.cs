using Pantomet.Core.Planning;
using Pantomet.Core.Verdicts;

namespace Pantomet.Application.Jobs;

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
    decimal Density,
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
            plan.Density.Value,
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
