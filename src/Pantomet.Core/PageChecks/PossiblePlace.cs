using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;

namespace Pantomet.Core.PageChecks;

/// <summary>A file that would be enough for a picture on some screens: a part of it, at so many pixels.</summary>
/// <param name="Part">The part that is seen.</param>
/// <param name="Size">Its pixels, never more than the part has.</param>
/// <param name="Screens">The screens that it serves.</param>
public sealed record PossiblePlace(Frame Part, PixelSize Size, IReadOnlyList<Screen> Screens)
{
    // A file serves what needs less by at most so much of its width: about a third of its pixels.
    private const double Served = 0.8;

    // Parts whose edges lie closer than a hundredth of the picture are one.
    private const double SamePart = 0.01;

    /// <summary>
    /// The fewest files that serve a picture's places without waste that tells: those of one part of it from the widest down, a new one
    /// where what is needed is narrower than four fifths.
    /// </summary>
    /// <returns>The largest first; none where nothing is known of the picture or it is not shown.</returns>
    public static IReadOnlyList<PossiblePlace> Of(PageImage image)
    {
        ArgumentNullException.ThrowIfNull(image);
        if (image.Natural is not { } natural)
        {
            return [];
        }

        var places = new List<PossiblePlace>();
        var wanted = image
            .Shown.Where(one => !one.Placing.Shown.IsEmpty)
            .Select(one => new PossiblePlace(one.Placing.Part, SizeFor(one, natural), [one.Screen]));
        foreach (var one in wanted.OrderByDescending(one => one.Size.Area))
        {
            var at = places.FindIndex(place => IsNear(place.Part, one.Part) && one.Size.Width >= place.Size.Width * Served);
            if (at < 0)
            {
                places.Add(one);
            }
            else
            {
                places[at] = places[at] with { Screens = [.. places[at].Screens, .. one.Screens] };
            }
        }

        return places;
    }

    /// <summary>The slot that asks for this file.</summary>
    /// <param name="types">The types that it may have.</param>
    /// <param name="likeness">How much it must look like its picture, 0 to 1.</param>
    public Slot SlotFor(IReadOnlyList<SlotType> types, double likeness) =>
        new()
        {
            Key = "place",
            Name = "place",
            Size = new SizeRule.Exact(Size),
            Types = types,
            Aims = new() { Likeness = likeness, Quality = new(Weight.QualityRange.Unusable, Weight.QualityRange.Highest) },
        };

    // At one scale for both sides, also where the page squashes it: what is squashed is corrected, not copied.
    private static PixelSize SizeFor(ShownImage shown, PixelSize natural)
    {
        var scale = Math.Min(1, shown.Enlarged(natural));
        var part = shown.Placing.Part.In(natural);
        return new(Rounding.ToPixels(part.Width * scale), Rounding.ToPixels(part.Height * scale));
    }

    private static bool IsNear(Frame one, Frame other) =>
        Math.Abs(one.Left - other.Left) < SamePart
        && Math.Abs(one.Top - other.Top) < SamePart
        && Math.Abs(one.Right - other.Right) < SamePart
        && Math.Abs(one.Bottom - other.Bottom) < SamePart;
}
