namespace Pantomet.Core.Likeness;

/// <summary>Finds pictures that can be framed as one: shots of a series, and copies of a picture in other sizes.</summary>
public static class AlikePictures
{
    /// <summary>Pictures that are no further from each other are alike; measured, docs/likeness.md.</summary>
    public const double Nearest = 0.55;

    /// <summary>A frame fits another picture only where both have nearly one shape.</summary>
    public const double SameShape = 0.03;

    /// <summary>Whether two pictures show the same thing in the same place and shape.</summary>
    public static bool AreAlike(PictureSketch one, PictureSketch other)
    {
        ArgumentNullException.ThrowIfNull(one);
        ArgumentNullException.ThrowIfNull(other);
        return Math.Abs((one.Ratio / other.Ratio) - 1) <= SameShape && one.To(other) <= Nearest;
    }

    /// <summary>
    /// The pictures that are alike, in groups of two and more. Each is alike to the first of its group, so that no chain of small steps leads from
    /// one thing to another.
    /// </summary>
    /// <param name="pictures">The pictures in the order in which they stand.</param>
    /// <typeparam name="T">What tells one picture from another.</typeparam>
    public static IReadOnlyList<IReadOnlyList<T>> Groups<T>(IEnumerable<(T Picture, PictureSketch Sketch)> pictures)
    {
        ArgumentNullException.ThrowIfNull(pictures);
        var groups = new List<(PictureSketch First, List<T> All)>();
        foreach (var (picture, sketch) in pictures)
        {
            if (groups.Find(group => AreAlike(group.First, sketch)) is { All: { } all })
            {
                all.Add(picture);
            }
            else
            {
                groups.Add((sketch, [picture]));
            }
        }

        return [.. groups.Where(group => group.All.Count > 1).Select(group => group.All)];
    }
}
