using Pantomet.Core.Geometry;

namespace Pantomet.Core.Responsive;

/// <summary>A slot whose files are a ladder of widths, from which the browser takes by its viewport and density.</summary>
public sealed record ResponsiveRule
{
    /// <summary>The narrowest viewport where nothing is said, in CSS pixels.</summary>
    public const int UsualFrom = 320;

    /// <summary>The widest viewport where nothing is said, in CSS pixels.</summary>
    public const int UsualTo = 1920;

    /// <summary>The share of pixels that may be wasted where nothing is said.</summary>
    public const decimal UsualWaste = 0.5m;

    /// <summary>The densities of screens where nothing is said.</summary>
    public static IReadOnlyList<Density> UsualDensities { get; } = [new(1), new(2), new(3)];

    /// <summary>How wide the picture is shown at every viewport.</summary>
    public required Sizes Sizes { get; init; }

    /// <summary>The narrowest viewport that is served, in CSS pixels.</summary>
    public int From { get; init; } = UsualFrom;

    /// <summary>The widest viewport that is served, in CSS pixels.</summary>
    public int To { get; init; } = UsualTo;

    /// <summary>The densities of the screens that are served, ascending.</summary>
    public IReadOnlyList<Density> Densities { get; init; } = UsualDensities;

    /// <summary>The share of pixels that may be wasted, 0 up to but not 1; null where a number of files is agreed.</summary>
    public decimal? Waste { get; init; } = UsualWaste;

    /// <summary>The number of files that is agreed; null where a waste is.</summary>
    public int? Files { get; init; }

    /// <summary>What is needed of it.</summary>
    public required Needs Needs { get; init; }

    /// <summary>How wide it is shown at the most, in CSS pixels.</summary>
    public int WidestShown => Needs.Largest == 0 ? 0 : (int)Math.Ceiling((double)(Needs.Largest / Densities[^1].Value) - 1e-6);

    /// <summary>The widths of the files, ascending, at least one.</summary>
    /// <param name="honest">The widest that a picture has pixels for.</param>
    public IReadOnlyList<int> Widths(int honest = Rounding.LongestSide) =>
        Files is { } files ? Ladder.OfCount(Needs, files, honest) : Ladder.Within(Needs, Waste ?? UsualWaste, honest);
}
