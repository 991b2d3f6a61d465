using Pantomet.Core.Geometry;

namespace Pantomet.Core.Framing;

/// <summary>A box that a network found.</summary>
/// <param name="Box">As fractions of the picture.</param>
/// <param name="Score">How sure the network is, 0 to 1.</param>
public readonly record struct Detection(Frame Box, double Score)
{
    /// <summary>How much two boxes lie on each other: what both cover over what either covers.</summary>
    public static double Overlap(Frame one, Frame other)
    {
        var both = one.Shared(other);
        return both / (one.Area + other.Area - both);
    }

    /// <summary>The best of the boxes that lie on each other, best first.</summary>
    /// <param name="found">What was found, in any order.</param>
    /// <param name="most">From what overlap on two boxes mean the same, 0 to 1.</param>
    public static IReadOnlyList<Detection> Apart(IEnumerable<Detection> found, double most)
    {
        ArgumentNullException.ThrowIfNull(found);
        var kept = new List<Detection>();
        foreach (var one in found.OrderByDescending(one => one.Score))
        {
            if (!kept.Exists(better => Overlap(better.Box, one.Box) > most))
            {
                kept.Add(one);
            }
        }

        return kept;
    }
}
