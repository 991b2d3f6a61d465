using NetVips;
using Pantomet.Core.Geometry;

namespace Pantomet.Imaging.Rendering;

/// <summary>
/// Turns pixels: whole quarters exactly, small angles by bicubic interpolation, cut to the largest upright rectangle inside.
/// </summary>
internal static class Turning
{
    /// <summary>The turned image, upright and full: no corner of nothing is left in it.</summary>
    /// <param name="image">Upright, as displayed, at any scale.</param>
    /// <param name="turn">The turn.</param>
    /// <param name="scope">Owns what is made.</param>
    public static Image Apply(Image image, Turn turn, Scope scope)
    {
        if (turn.IsNone)
        {
            return image;
        }

        var left = turn.SizeOf(new(image.Width, image.Height));
        var turned =
            turn.Quarters == 0
                ? image
                : scope.Own(
                    image.Rot(
                        turn.Quarters == 1 ? Enums.Angle.D90
                        : turn.Quarters == 2 ? Enums.Angle.D180
                        : Enums.Angle.D270
                    )
                );
        if (turn.Degrees == 0)
        {
            return turned;
        }

        using var bicubic = Interpolate.NewFromName("bicubic");
        var flat = turned.HasAlpha() ? scope.Own(turned.Premultiply()) : turned;
        var (sin, cos) = (Math.Sin(turn.Degrees * Math.PI / 180), Math.Cos(turn.Degrees * Math.PI / 180));
        // About the middle of the pixels, to the middle of what is left. The edge's own pixels go on beyond it, so that interpolation draws
        // no seam where the cut touches the edge.
        var (fromX, fromY) = ((turned.Width - 1) / 2.0, (turned.Height - 1) / 2.0);
        var (toX, toY) = ((left.Width - 1) / 2.0, (left.Height - 1) / 2.0);
        var cut = scope.Own(
            flat.Affine(
                [cos, -sin, sin, cos],
                interpolate: bicubic,
                oarea: [0, 0, left.Width, left.Height],
                odx: toX - ((cos * fromX) - (sin * fromY)),
                ody: toY - ((sin * fromX) + (cos * fromY)),
                extend: Enums.Extend.Copy
            )
        );
        return turned.HasAlpha() ? scope.Own(scope.Own(cut.Unpremultiply()).Cast(turned.Format)) : cut;
    }
}
