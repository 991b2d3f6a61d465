using Pantomet.Core.Geometry;

namespace Pantomet.Core.Framing;

/// <summary>Finds the frame of a picture for a slot. Closed form, no search: it runs for every slot while a finger drags.</summary>
/// <remarks>
/// For ratio r and picture W × H the largest frame is Wc = min(W, H r), Hc = Wc / r. A keep box k held by the clear area
/// [l, r'] of a frame of width w at x asks k.right − r' w ≤ x ≤ k.left − l w, and the picture asks 0 ≤ x ≤ W − w; both
/// have room exactly when k.width / (r' − l) ≤ w ≤ min(k.left / l, (W − k.right) / (1 − r'), W). The same holds downwards.
/// </remarks>
public static class FrameSolver
{
    /// <summary>How far the share may be off before it is called missed.</summary>
    private const double ShareSlack = 0.01;

    /// <summary>A covered part of a slot smaller than this covers no pixel of anything.</summary>
    private const double Nothing = 1e-9;

    /// <summary>Finds the frame.</summary>
    /// <param name="picture">The picture as displayed.</param>
    /// <param name="shape">The slot's shape; null keeps the picture's own.</param>
    /// <param name="hand">A frame set by hand; it wins and is only checked.</param>
    /// <param name="subject">What the frame is to show.</param>
    /// <param name="clear">The part of the slot that nothing covers, as fractions of it; null is all of it.</param>
    /// <param name="share">The share of the clear area's tighter side that the subject takes, 0 to 1; null takes the widest frame.</param>
    /// <param name="toward">Where the frame goes when neither marks nor a subject say anything.</param>
    /// <param name="extend">True where the canvas may be extended to hold keep boxes that no frame inside the picture holds.</param>
    public static SolvedFrame Solve(
        PixelSize picture,
        Ratio? shape,
        Frame? hand = null,
        Subject subject = default,
        Frame? clear = null,
        double? share = null,
        FocusPoint? toward = null,
        bool extend = false
    )
    {
        var area = clear ?? Frame.Whole;
        var all = new Region(0, 0, picture.Width, picture.Height);
        if (hand is { } set)
        {
            return Checked(ByHand(set.In(picture), shape), subject, picture, area);
        }

        if (shape is not { } ratio)
        {
            return new(all, FrameOrigin.Whole);
        }

        var widest = all.Shaped(ratio);
        if (subject.Keep is { } keep)
        {
            return subject.Suggestion is { } suggestion
                ? Suggested(suggestion, picture, widest, area, share, extend)
                : Around(keep.In(picture), picture, widest, area, share, FrameOrigin.Kept, extend);
        }

        return subject.Focus is { } focus
                ? new(Placed(widest, picture, area, focus.X * picture.Width, focus.Y * picture.Height), FrameOrigin.Focus)
            : toward is { } side ? new(Placed(widest, picture, area, side.X * picture.Width, side.Y * picture.Height), FrameOrigin.Centred)
            : subject.Suggestion is { Box: var content }
                ? new(Placed(widest, picture, area, content.In(picture).CentreX, content.In(picture).CentreY), FrameOrigin.Centred)
            : new(widest, FrameOrigin.Centred);
    }

    // A suggestion nobody confirmed is nothing to warn about.
    private static SolvedFrame Suggested(Suggestion suggestion, PixelSize picture, Region widest, Frame area, double? share, bool extend)
    {
        // What stands before a plain backdrop is known well enough to extend that for it.
        var plain = suggestion.Kind == SuggestionKind.PlainBackdrop;
        var part = plain && extend ? new(suggestion.Box, null) : Holdable(suggestion, picture, widest, area);
        return Around(
            part.Box.In(picture),
            picture,
            widest,
            area,
            plain ? share : null,
            FrameOrigin.Suggested,
            plain && extend,
            part.Eyes * picture.Height
        ) with
        {
            Cut = default,
            Covered = default,
        };
    }

    private static SolvedFrame ByHand(Region region, Ratio? shape)
    {
        if (shape is not { } wanted)
        {
            return new(region, FrameOrigin.Hand);
        }

        var shaped = region.Shaped(wanted);
        return new(shaped, FrameOrigin.Hand) { Reshaped = region.Width - shaped.Width > 1 || region.Height - shaped.Height > 1 };
    }

    // A frame by hand is warned about, not moved; a suggestion nobody confirmed is nothing to warn about.
    private static SolvedFrame Checked(SolvedFrame frame, Subject subject, PixelSize picture, Frame area) =>
        subject is { Keep: { } keep, Suggestion: null } ? WithLosses(frame, keep.In(picture), area) : frame;

    private static SolvedFrame WithLosses(SolvedFrame frame, Region keep, Frame area)
    {
        var cut = Overhang.Of(keep, frame.Region);
        return frame with { Cut = cut, Covered = cut.IsNone ? Overhang.Of(keep, frame.Region.Part(area)) : default };
    }

    private static SolvedFrame Around(
        Region keep,
        PixelSize picture,
        Region widest,
        Frame area,
        double? share,
        FrameOrigin origin,
        bool extend,
        double? eyes = null
    )
    {
        var aspect = widest.Width / widest.Height;
        var (across, down) = (area.Right - area.Left, area.Bottom - area.Top);
        var (least, most) = Widths(keep, picture, widest, area);
        double CentreY(Region frame) => eyes is { } line ? line + ((0.5 - Portrait.EyeLine) * down * frame.Height) : keep.CentreY;
        if (least > most + 1e-6)
        {
            // No frame holds them in the clear area: the widest one shows the most, as well placed as the edges allow.
            var region = Holding(Placed(widest, picture, area, keep.CentreX, CentreY(widest)), keep, picture);
            var inside = WithLosses(WithShare(new(region, origin), keep, area, share), keep, area);
            if (!extend || (inside.Cut.IsNone && inside.Covered.IsNone))
            {
                return inside;
            }

            var side = share is { } part ? least / part : least;
            var outside = Beyond(new(0, 0, side, side / aspect), keep, picture, area);
            return WithShare(new(outside, origin) { Extended = true }, keep, area, share);
        }

        var wanted = share is { } taken ? Math.Max(keep.Width / (taken * across), aspect * keep.Height / (taken * down)) : most;
        var width = Math.Clamp(wanted, least, Math.Max(least, most));
        var unplaced = new Region(0, 0, width, width / aspect);
        var frame = Placed(unplaced, picture, area, keep.CentreX, CentreY(unplaced));
        var x = Held(frame.X, keep.Right - (area.Right * frame.Width), keep.X - (area.Left * frame.Width), picture.Width - frame.Width);
        var y = Held(
            frame.Y,
            keep.Bottom - (area.Bottom * frame.Height),
            keep.Y - (area.Top * frame.Height),
            picture.Height - frame.Height
        );
        return WithShare(new(frame with { X = x, Y = y }, origin), keep, area, share);
    }

    // A frame that holds the box in its clear area though it leaves the picture: as little as it must, else with the box in the middle.
    private static Region Beyond(Region frame, Region keep, PixelSize picture, Frame area) =>
        frame with
        {
            X = Beyond(frame.Width, keep.X, keep.Right, picture.Width, area.Left, area.Right),
            Y = Beyond(frame.Height, keep.Y, keep.Bottom, picture.Height, area.Top, area.Bottom),
        };

    private static double Beyond(double side, double keepFrom, double keepTo, double most, double clearFrom, double clearTo)
    {
        var middle = ((keepFrom + keepTo) / 2) - (side * (clearFrom + clearTo) / 2);
        var inside = Math.Clamp(middle, Math.Min(0, most - side), Math.Max(0, most - side));
        var (low, high) = (keepTo - (clearTo * side), keepFrom - (clearFrom * side));
        return Math.Clamp(inside, Math.Min(low, high), Math.Max(low, high));
    }

    // The first part that a frame can hold, all of it or nearly; else the last, as the smallest.
    private static SuggestedPart Holdable(Suggestion suggestion, PixelSize picture, Region widest, Frame area)
    {
        var parts = suggestion.Parts;
        var tolerated = suggestion.Tolerated;
        foreach (var part in parts)
        {
            var (least, most) = Widths(part.Box.In(picture), picture, widest, area);
            if (least <= (most * tolerated) + 1e-6)
            {
                return part;
            }

            tolerated = 1;
        }

        return parts[^1];
    }

    // The widths of frames that hold the box in their clear area; none where the least is more than the most.
    private static (double Least, double Most) Widths(Region keep, PixelSize picture, Region widest, Frame area)
    {
        var aspect = widest.Width / widest.Height;
        return (
            Math.Max(keep.Width / (area.Right - area.Left), aspect * keep.Height / (area.Bottom - area.Top)),
            Math.Min(
                Math.Min(widest.Width, Widest(keep.X, picture.Width - keep.Right, area.Left, 1 - area.Right)),
                aspect * Widest(keep.Y, picture.Height - keep.Bottom, area.Top, 1 - area.Bottom)
            )
        );
    }

    private static SolvedFrame WithShare(SolvedFrame frame, Region keep, Frame area, double? share)
    {
        var clear = frame.Region.Part(area);
        var reached = Math.Max(keep.Width / clear.Width, keep.Height / clear.Height);
        return frame with { ShareMissed = share is { } asked && Math.Abs(asked - reached) > ShareSlack ? reached : null };
    }

    // The widest side that still lets the clear part begin before the box and end behind it without leaving the picture.
    private static double Widest(double before, double behind, double coveredBefore, double coveredBehind) =>
        Math.Min(
            coveredBefore > Nothing ? before / coveredBefore : double.PositiveInfinity,
            coveredBehind > Nothing ? behind / coveredBehind : double.PositiveInfinity
        );

    // Between two ends that hold the box, and above all inside the picture: rounding may have crossed the ends by a hair.
    private static double Held(double at, double low, double high, double most) =>
        Math.Clamp(Math.Clamp(at, low, Math.Max(low, high)), 0, Math.Max(0, most));

    // The frame with the point at the clear area's centre, pushed back inside the picture.
    private static Region Placed(Region frame, PixelSize picture, Frame area, double x, double y) =>
        frame with
        {
            X = Math.Clamp(x - (frame.Width * (area.Left + area.Right) / 2), 0, Math.Max(0, picture.Width - frame.Width)),
            Y = Math.Clamp(y - (frame.Height * (area.Top + area.Bottom) / 2), 0, Math.Max(0, picture.Height - frame.Height)),
        };

    // Covered is better than cut: the frame is shifted to hold the box itself where it is large enough, else to halve the cut.
    private static Region Holding(Region frame, Region keep, PixelSize picture) =>
        frame with
        {
            X = Shifted(frame.X, frame.Width, keep.X, keep.Width, picture.Width),
            Y = Shifted(frame.Y, frame.Height, keep.Y, keep.Height, picture.Height),
        };

    private static double Shifted(double at, double side, double keepAt, double keepSide, double most) =>
        Math.Clamp(
            keepSide > side ? keepAt + ((keepSide - side) / 2) : Math.Clamp(at, keepAt + keepSide - side, keepAt),
            0,
            Math.Max(0, most - side)
        );
}
