namespace Pantomet.Core.Geometry;

/// <summary>Which side of a picture a rule measures.</summary>
public enum Side
{
    /// <summary>Across.</summary>
    Width,

    /// <summary>Down.</summary>
    Height,

    /// <summary>The longer of the two.</summary>
    LongSide,

    /// <summary>The shorter of the two.</summary>
    ShortSide,
}

/// <summary>What a slot says about pixel size, in CSS pixels at density 1.</summary>
public abstract record SizeRule
{
    private SizeRule() { }

    /// <summary>The shape the rule fixes; null where the framing's own shape is kept.</summary>
    public virtual Ratio? Shape => null;

    /// <summary>
    /// True where the rule only names a most ("within", "at most N pixels", a share, a shape alone): a smaller picture
    /// meets it at density 1. False where it asks for pixels.
    /// </summary>
    public virtual bool IsCeiling => false;

    /// <summary>
    /// The size asked for a framing of <paramref name="native"/> pixels at a density, whether or not the framing has so many.
    /// </summary>
    /// <param name="native">What the framing offers, in picture pixels.</param>
    /// <param name="density">The factor on CSS pixels.</param>
    public abstract PixelSize Asked(PixelSize native, Density density);

    private static int Scaled(int side, Density density) => Rounding.ToPixels(side * density.Value);

    private static PixelSize Times(PixelSize size, Density density) => new(Scaled(size.Width, density), Scaled(size.Height, density));

    private static PixelSize FromSide(Ratio shape, Side side, int pixels) =>
        side switch
        {
            Side.Width => new(pixels, shape.HeightFor(pixels)),
            Side.Height => new(shape.WidthFor(pixels), pixels),
            Side.LongSide => shape.ForLongSide(pixels),
            _ => shape.ForShortSide(pixels),
        };

    /// <summary>Exactly so many pixels.</summary>
    public sealed record Exact(PixelSize Size) : SizeRule
    {
        /// <inheritdoc/>
        public override Ratio? Shape => Ratio.Of(Size);

        /// <inheritdoc/>
        public override PixelSize Asked(PixelSize native, Density density) => Times(Size, density);
    }

    /// <summary>A shape with one side given.</summary>
    public sealed record ShapeWithSide(Ratio Ratio, Side Side, int Pixels) : SizeRule
    {
        /// <inheritdoc/>
        public override Ratio? Shape => Ratio;

        /// <inheritdoc/>
        public override PixelSize Asked(PixelSize native, Density density) => FromSide(Ratio, Side, Scaled(Pixels, density));
    }

    /// <summary>A shape alone: as many pixels as the framing has.</summary>
    public sealed record ShapeAlone(Ratio Ratio) : SizeRule
    {
        /// <inheritdoc/>
        public override Ratio? Shape => Ratio;

        /// <inheritdoc/>
        public override bool IsCeiling => true;

        /// <inheritdoc/>
        public override PixelSize Asked(PixelSize native, Density density) => Times(Honest.Largest(Ratio, native), density);
    }

    /// <summary>One side given; the other follows from the framing.</summary>
    public sealed record SideAlone(Side Side, int Pixels) : SizeRule
    {
        /// <inheritdoc/>
        public override PixelSize Asked(PixelSize native, Density density) => FromSide(Ratio.Of(native), Side, Scaled(Pixels, density));
    }

    /// <summary>As large as fits in a box, never larger than the framing.</summary>
    public sealed record Within(PixelSize Box) : SizeRule
    {
        /// <inheritdoc/>
        public override bool IsCeiling => true;

        /// <inheritdoc/>
        public override PixelSize Asked(PixelSize native, Density density) =>
            native.FitsIn(Box) ? Times(native, density) : Honest.Largest(Ratio.Of(native), Times(Box, density));
    }

    /// <summary>A share of the framing's own size, greater than 0, at most 1.</summary>
    public sealed record Share(decimal Part) : SizeRule
    {
        /// <inheritdoc/>
        public override bool IsCeiling => true;

        /// <inheritdoc/>
        public override PixelSize Asked(PixelSize native, Density density)
        {
            var width = Rounding.ToPixels(native.Width * Part * density.Value);
            return new(width, Ratio.Of(native).HeightFor(width));
        }
    }

    /// <summary>At most so many pixels in all.</summary>
    public sealed record MaxPixels(long Most) : SizeRule
    {
        /// <inheritdoc/>
        public override bool IsCeiling => true;

        /// <inheritdoc/>
        public override PixelSize Asked(PixelSize native, Density density)
        {
            if (native.Area <= Most)
            {
                return Times(native, density);
            }

            // N at density 1 is N d² at density d: the sides grow by d, the count by its square.
            var most = (double)Most * (double)(density.Value * density.Value);
            var scale = Math.Sqrt(most / native.Area);
            if (native.Width >= native.Height)
            {
                var width = Math.Max(1, (int)Math.Floor(native.Width * scale));
                while (width > 1 && new PixelSize(width, Ratio.Of(native).HeightFor(width)).Area > most)
                {
                    width--;
                }

                return new(width, Ratio.Of(native).HeightFor(width));
            }

            var height = Math.Max(1, (int)Math.Floor(native.Height * scale));
            while (height > 1 && new PixelSize(Ratio.Of(native).WidthFor(height), height).Area > most)
            {
                height--;
            }

            return new(Ratio.Of(native).WidthFor(height), height);
        }
    }
}
