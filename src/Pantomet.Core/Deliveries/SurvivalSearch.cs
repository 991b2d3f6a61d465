using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;
using Pantomet.Core.Weight;

namespace Pantomet.Core.Deliveries;

/// <summary>A file that a receiver was given to see what becomes of it.</summary>
/// <param name="Size">Its pixel size.</param>
/// <param name="Quality">The quality it was made at, 1 to 100; null for the file as it is.</param>
/// <param name="Bytes">Its weight.</param>
/// <param name="Shown">What the receiver shows of it; null where it took nothing, or says nothing of it.</param>
public sealed record SurvivalTry(PixelSize Size, int? Quality, long Bytes, ShownFile? Shown);

/// <summary>What is to be tried next.</summary>
/// <param name="Size">The pixel size.</param>
/// <param name="Quality">The quality, 1 to 100; null for the file as it is.</param>
public readonly record struct SurvivalStep(PixelSize Size, int? Quality);

/// <summary>
/// Finds the file of which a receiver shows most, when it makes its own copies: the size that it does not reduce any more, seen from what it
/// made of the file as it is, and the highest quality that it leaves alone there, by halving. Whatever weight or quality it goes by, what it
/// leaves alone at one quality it leaves alone at a lower one.
/// </summary>
public static class SurvivalSearch
{
    /// <summary>The highest quality tried: beyond it weight buys nothing that can be seen.</summary>
    public const int Highest = QualityRange.Highest;

    /// <summary>Below this quality nobody would want what survives.</summary>
    public const int Lowest = 40;

    // A receiver that reduces what it gave out itself is followed so often.
    private const int MostSizes = 3;

    // What lacks no more than a fifth above the least is alike: about what types differ by at one quality number.
    private const double Alike = 1.2;

    /// <summary>The next one to try; null when all is known.</summary>
    /// <param name="own">The size of the file as it is.</param>
    /// <param name="tried">What was tried so far.</param>
    public static SurvivalStep? Next(PixelSize own, IReadOnlyList<SurvivalTry> tried)
    {
        ArgumentNullException.ThrowIfNull(tried);
        if (tried.Count == 0)
        {
            return new(own, null);
        }

        if (tried.Any(one => SizeOf(one.Shown) is null) || tried[0].Shown!.IsSame)
        {
            return null;
        }

        var size = Smallest(own, tried);
        var here = tried.Where(one => one.Quality is not null && one.Size == size).ToList();
        if (here.Count == 0)
        {
            return tried.Where(one => one.Quality is not null).Select(one => one.Size).Distinct().Count() >= MostSizes
                ? null
                : new(size, Highest);
        }

        var left = here.Where(one => one.Shown!.IsSame).Select(one => one.Quality!.Value).DefaultIfEmpty(Lowest - 1).Max();
        var touched = here.Where(one => !one.Shown!.IsSame).Select(one => one.Quality!.Value).DefaultIfEmpty(Highest + 1).Min();
        return touched - left <= 1 ? null : new(size, (left + touched) / 2);
    }

    /// <summary>The one of which the receiver shows most; where one that it leaves alone is nearly as much alike, that one.</summary>
    /// <returns>Its place among those tried; null where none can be compared.</returns>
    public static int? Best(IReadOnlyList<SurvivalTry> tried)
    {
        ArgumentNullException.ThrowIfNull(tried);
        var compared = tried.Select((one, at) => (one, at)).Where(pair => pair.one.Shown?.Likeness is not null).ToList();
        if (compared.Count == 0)
        {
            return null;
        }

        var most = compared.Max(pair => pair.one.Shown!.Likeness!.Value);
        return compared
            .Where(pair => 1 - pair.one.Shown!.Likeness <= (1 - most) * Alike)
            .OrderByDescending(pair => pair.one.Shown!.IsSame)
            .ThenByDescending(pair => pair.one.Shown!.Likeness)
            .ThenBy(pair => pair.one.Bytes)
            .First()
            .at;
    }

    /// <summary>A slot's rule by which such files are made; null where it asks for more than one size, or for none in pixels.</summary>
    /// <param name="slot">The slot.</param>
    /// <param name="own">The size of the file as it is.</param>
    /// <param name="size">The size that survives.</param>
    /// <param name="quality">The quality that survives, 1 to 100.</param>
    public static Slot? Rule(Slot slot, PixelSize own, PixelSize size, int quality)
    {
        ArgumentNullException.ThrowIfNull(slot);
        if (slot.Responsive is not null || slot.Densities is not [{ Value: 1 }])
        {
            return null;
        }

        SizeRule? rule =
            size == own
                ? slot.Size
                : slot.Size switch
                {
                    SizeRule.Exact => new SizeRule.Exact(size),
                    SizeRule.ShapeWithSide shape => shape with { Pixels = Along(shape.Side, size) },
                    SizeRule.SideAlone side => side with { Pixels = Along(side.Side, size) },
                    SizeRule.Within within => new SizeRule.Within(
                        new(Scaled(within.Box.Width, own, size), Scaled(within.Box.Height, own, size))
                    ),
                    _ => null,
                };
        var floor = Math.Min(quality, (slot.Aims.Quality ?? QualityRange.Comfortable).Floor);
        return rule is null ? null : slot with { Size = rule, Aims = slot.Aims with { Quality = new(floor, quality) } };
    }

    private static PixelSize Smallest(PixelSize own, IReadOnlyList<SurvivalTry> tried) =>
        tried.Select(one => SizeOf(one.Shown)!.Value).Append(own).MinBy(size => size.Width);

    // Of another shape, enlarged, or no picture: nothing can be said of what survives.
    private static PixelSize? SizeOf(ShownFile? shown) =>
        shown is { Width: { } width, Height: { } height, Trouble: null } ? new(width, height) : null;

    private static int Along(Side side, PixelSize size) =>
        side switch
        {
            Side.Width => size.Width,
            Side.Height => size.Height,
            Side.LongSide => Math.Max(size.Width, size.Height),
            _ => Math.Min(size.Width, size.Height),
        };

    private static int Scaled(int side, PixelSize own, PixelSize size) =>
        Math.Max(1, (int)Math.Round((double)side * size.Width / own.Width, MidpointRounding.AwayFromZero));
}
