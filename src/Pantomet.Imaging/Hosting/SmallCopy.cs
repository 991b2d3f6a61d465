using NetVips;
using Pantomet.Core.Geometry;
using Pantomet.Imaging.Reading;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Hosting;

/// <summary>Small copies of originals for the screen, turned, and side by side where they are shown so.</summary>
internal static class SmallCopy
{
    /// <summary>Makes one.</summary>
    public static ImagingResponse Make(PreviewRequest request)
    {
        using var watch = DrawingTime.Watch(request.Format);
        using var scope = new Scope();
        var turned = request.Pair is { } pair ? Beside(pair, request.Side, scope) : Small(request.Path, request.Turn, request.Side, scope);
        var longest = Math.Max(turned.Width, turned.Height);
        if (longest > request.Side)
        {
            turned = scope.Own(turned.ThumbnailImage(request.Side, height: request.Side, size: Enums.Size.Down));
        }

        turned.Webpsave(request.Output, q: 82, effort: 0, keep: Enums.ForeignKeep.None);
        return new();
    }

    private static Image Small(string path, Turn turn, int most, Scope scope)
    {
        // A small angle loses its corners: a little more is read than is shown.
        var side = turn.Degrees == 0 ? most : most * 5 / 4;
        var small = scope.Own(PictureReader.Small(path, side));
        // A small copy is read from top to bottom; turning it needs all of it at hand.
        return Turning.Apply(turn.IsNone ? small : scope.Own(small.CopyMemory()), turn, scope);
    }

    // Whole, at the height of the lowest.
    private static Image Beside(IReadOnlyList<TurnedOriginal> pair, int side, Scope scope)
    {
        var all = pair.Select(one =>
            {
                var small = scope.Own(Small(one.Path, one.Turn, side, scope).Colourspace(Enums.Interpretation.Srgb));
                return small.HasAlpha() ? scope.Own(small.Flatten(background: [255])) : small;
            })
            .ToList();
        var height = all.Min(one => one.Height);
        return all.Select(one => scope.Own(one.Resize((double)height / one.Height)))
            .Aggregate((left, right) => scope.Own(left.Join(right, Enums.Direction.Horizontal, expand: true)));
    }
}
