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
        // The edge's own pixels go on beyond it, so that interpolation draws no seam where the cut touches the edge.
        var slanted = scope.Own(flat.Affine([cos, -sin, sin, cos], interpolate: bicubic, extend: Enums.Extend.Copy));
        var cut = scope.Own(slanted.Crop((slanted.Width - left.Width) / 2, (slanted.Height - left.Height) / 2, left.Width, left.Height));
        return turned.HasAlpha() ? scope.Own(scope.Own(cut.Unpremultiply()).Cast(turned.Format)) : cut;
    }
}
