using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Reading;

namespace Pantomet.Imaging.Rendering;

/// <summary>
/// One picture decoded once for all of its variants: upright, in the colours they are written in, at the smallest scale that serves
/// them all, in memory. Coarser copies are made from it when a variant asks for them. Several threads may use it at once.
/// </summary>
public sealed class PictureMaster : IDisposable
{
    private const int MostLevels = 8;

    private readonly Lazy<HeldPixels>[] _levels;
    private readonly Crop _part;

    private readonly Grid _grid;

    private PictureMaster(string path, Turn turn, Image image, Crop part, PictureFacts facts, Grid grid)
    {
        (Path, Turn) = (path, turn);
        _part = part;
        _grid = grid;
        Facts = facts;
        HasAlpha = image.HasAlpha();
        InLight = facts.NeedsLight;
        var one = new byte[image.Bands];
        using (var pixel = Image.NewFromMemoryCopy(one, 1, 1, image.Bands, Enums.BandFormat.Uchar))
        {
            Fields = VariantRenderer.WithFieldsOf(image, pixel);
        }

        var first = new HeldPixels(image);
        _levels = new Lazy<HeldPixels>[MostLevels];
        _levels[0] = new(first);
        for (var i = 1; i < MostLevels; i++)
        {
            var finer = _levels[i - 1];
            _levels[i] = new(() => Halved(finer.Value));
        }
    }

    /// <summary>One pixel with everything that was read beside the pixels: profile, tags, what the channels mean.</summary>
    internal Image Fields { get; }

    /// <summary>True when the last channel is coverage.</summary>
    internal bool HasAlpha { get; }

    /// <summary>True when its pixels were averaged as light, and are reduced further so.</summary>
    internal bool InLight { get; }

    /// <summary>The original.</summary>
    public string Path { get; }

    /// <summary>How it is turned.</summary>
    public Turn Turn { get; }

    /// <summary>The picture's facts.</summary>
    public PictureFacts Facts { get; private set; }

    /// <summary>True when this decode is fine enough for the plans and holds all they show.</summary>
    public bool Serves(IReadOnlyList<VariantPlan> plans)
    {
        var (load, block) = Scales(Facts, plans, Turn);
        var part = Part(Facts, plans);
        return Facts.NeedsLight == InLight
            && load * block >= _grid.Scale
            && part.Left >= _part.Left
            && part.Top >= _part.Top
            && part.Right <= _part.Right
            && part.Bottom <= _part.Bottom;
    }

    /// <summary>Takes over facts to which was added what the content says.</summary>
    public void Know(PictureFacts facts) => Facts = facts;

    /// <summary>How many bytes of pixels a decode of the whole picture for these plans holds; known before anything is decoded.</summary>
    public static long BytesFor(PictureFacts facts, IReadOnlyList<VariantPlan> plans)
    {
        ArgumentNullException.ThrowIfNull(facts);
        ArgumentNullException.ThrowIfNull(plans);
        var (load, block) = Scales(facts, plans, Turn.None);
        return facts.Size.Area / ((long)load * load * block * block) * (facts.HasAlpha ? 4 : 3);
    }

    /// <summary>Decodes.</summary>
    /// <param name="path">The original.</param>
    /// <param name="facts">Its facts.</param>
    /// <param name="plans">All that will be rendered from it; at least one.</param>
    /// <param name="profile">What becomes of the colour profile.</param>
    /// <param name="whole">True to decode all of the picture, though the plans may show less.</param>
    /// <param name="frame">Which frame of a moving picture, from 0.</param>
    /// <param name="turn">How it is turned; the facts' size and the plans are those of the turned picture.</param>
    /// <exception cref="VipsException">The file cannot be decoded.</exception>
    public static PictureMaster Decode(
        string path,
        PictureFacts facts,
        IReadOnlyList<VariantPlan> plans,
        ProfileRule profile,
        bool whole = false,
        int frame = 0,
        Turn turn = default
    )
    {
        ArgumentNullException.ThrowIfNull(facts);
        ArgumentNullException.ThrowIfNull(plans);
        using var watch = DrawingTime.Watch(facts.Format);
        using var scope = new Scope();
        var (load, block) = Scales(facts, plans, turn);
        var part = whole ? Crop.All(facts.Size) : Part(facts, plans);
        // A picture that is rotated by tag is read in another order than it is stored: it needs all of its pixels at hand.
        var access = facts.Orientation == 1 && turn.IsNone ? Enums.Access.Sequential : Enums.Access.Random;
        var image = scope.Own(PictureReader.Open(path, facts.Format, load, access, frame));
        if (facts.Orientation != 1)
        {
            image = scope.Own(image.Autorot());
        }

        image = Turning.Apply(image, turn, scope);
        var grid = Grid.Of(facts, load, turn, image);
        var stored = grid.Around(part, image);
        if (stored.Width < image.Width || stored.Height < image.Height)
        {
            image = scope.Own(image.Crop(stored.Left, stored.Top, stored.Width, stored.Height));
            grid = grid.From(stored.Left, stored.Top);
        }

        if (block > 1)
        {
            image = Averaged(image, block, facts.NeedsLight, scope);
            grid = grid with { Scale = grid.Scale * block };
        }

        using var converted = Colours.Convert(image, facts, profile);
        return new(path, turn, converted, part, facts, grid);
    }

    /// <summary>
    /// The picture's pixels for a plan: those of the coarsest copy that still leaves the kernel enough to do, and where in them the
    /// plan's part lies.
    /// </summary>
    internal (PixelRows Pixels, PixelBox Frame) Cut(VariantPlan plan)
    {
        var grid = _grid;
        var scale = Math.Min(plan.Crop.Width / grid.Scale / plan.Content.Width, plan.Crop.Height / grid.Scale / plan.Content.Height);
        var level = 0;
        while (level + 1 < MostLevels && scale >= 2 * LeftToKernel(InLight))
        {
            scale /= 2;
            level++;
            grid = grid with { Scale = grid.Scale * 2 };
        }

        return (_levels[level].Value.Rows, grid.Place(plan.Crop));
    }

    /// <summary>Frees the pixels.</summary>
    public void Dispose()
    {
        Fields.Dispose();
        foreach (var level in _levels.Where(level => level.IsValueCreated))
        {
            ((IDisposable)level.Value).Dispose();
        }
    }

    private HeldPixels Halved(HeldPixels finer)
    {
        using var scope = new Scope();
        var image = scope.Own(scope.Own(finer.AsImage()).Copy(interpretation: Fields.Interpretation));
        return new(Averaged(image, 2, InLight, scope));
    }

    // How much of a reduction is left to the kernel: what is averaged before differs from the exact reduction, the less the finer it is.
    // In light the difference is larger, as the dark has many values for little light.
    private static int LeftToKernel(bool light) => light ? 4 : 2;

    // What is left to the kernel after a JPEG was reduced while it was read: such a file has the low frequencies whole, where means of pixels
    // blur them (docs/reduction.md).
    private const double LeftAfterReading = 1.5;

    // How far a JPEG is reduced while it is read (1, 2, 4 or 8, ITU-T T.81's transform at a part of its size), and how many pixels
    // beyond that are averaged into one before the picture is held in memory.
    private static (int Load, int Block) Scales(PictureFacts facts, IReadOnlyList<VariantPlan> plans, Turn turn)
    {
        // What is straightened turns about the middle of its pixels, which a reduction moves when the size is no multiple of its scale.
        if (turn.Degrees != 0)
        {
            return (1, 1);
        }

        var scale = plans.Min(plan =>
            Math.Min((double)plan.Crop.Width / plan.Content.Width, (double)plan.Crop.Height / plan.Content.Height)
        );
        var left = LeftToKernel(facts.NeedsLight);
        var load =
            // What a JPEG is reduced by while it is read are means of stored values.
            facts.Format != PictureFormat.Jpeg
            || facts.NeedsLight
                ? 1
            : scale >= 8 * LeftAfterReading ? 8
            : scale >= 4 * LeftAfterReading ? 4
            : scale >= 2 * LeftAfterReading ? 2
            : 1;
        return (load, Math.Max(1, (int)(scale / load / left)));
    }

    private static Crop Part(PictureFacts facts, IReadOnlyList<VariantPlan> plans)
    {
        // A little more than is needed, so that a reduction finds its neighbours at the edge of the part.
        const int margin = 64;
        return new(
            Math.Max(0, plans.Min(plan => plan.Crop.Left) - margin),
            Math.Max(0, plans.Min(plan => plan.Crop.Top) - margin),
            Math.Min(facts.Size.Width, plans.Max(plan => plan.Crop.Right) + margin),
            Math.Min(facts.Size.Height, plans.Max(plan => plan.Crop.Bottom) + margin)
        );
    }

    // Means of blocks. In whole numbers the library rounds up twice, half a step in the mean for each halving; what is transparent must not
    // colour its neighbours.
    private static Image Averaged(Image image, int block, bool light, Scope scope)
    {
        var alpha = image.HasAlpha();
        var values = light ? scope.Own(image.Colourspace(Enums.Interpretation.Scrgb)) : image;
        var exact = scope.Own(alpha ? values.Premultiply() : values.Cast(Enums.BandFormat.Float));
        var means = scope.Own(exact.Shrink(block, block, ceil: true));
        var straight = alpha ? scope.Own(means.Unpremultiply()) : means;
        if (light)
        {
            return scope.Own(straight.Colourspace(image.Interpretation));
        }

        return scope.Own(scope.Own(straight.Round(Enums.OperationRound.Rint)).Cast(image.Format));
    }

    /// <summary>
    /// How the pixels that are held stand to those of the picture as displayed: the first begins at an edge that may lie outside, each is
    /// as wide as the scale. A file reduced while it is read ends with a pixel that is only partly the picture's; turned, that one comes
    /// first.
    /// </summary>
    /// <param name="Left">Where the first column begins, in pixels of the picture.</param>
    /// <param name="Top">Where the first row begins.</param>
    /// <param name="Scale">How many pixels of the picture one of these is wide and high.</param>
    private readonly record struct Grid(double Left, double Top, double Scale)
    {
        /// <summary>The grid of a whole picture, upright and turned.</summary>
        public static Grid Of(PictureFacts facts, int load, Turn turn, Image image)
        {
            var (across, down) = Flipped(facts.Orientation, turn.Quarters);
            return new(
                across ? facts.Size.Width - (image.Width * (double)load) : 0,
                down ? facts.Size.Height - (image.Height * (double)load) : 0,
                load
            );
        }

        /// <summary>The same from a column and a row on.</summary>
        public Grid From(int column, int row) => new(Left + (column * Scale), Top + (row * Scale), Scale);

        /// <summary>Where a part of the picture lies in these pixels.</summary>
        public PixelBox Place(Crop part) =>
            new((part.Left - Left) / Scale, (part.Top - Top) / Scale, (part.Right - Left) / Scale, (part.Bottom - Top) / Scale);

        /// <summary>The pixels that a part of the picture touches.</summary>
        public Crop Around(Crop part, Image image)
        {
            var place = Place(part);
            var left = Math.Clamp((int)Math.Floor(place.Left), 0, image.Width - 1);
            var top = Math.Clamp((int)Math.Floor(place.Top), 0, image.Height - 1);
            return new(
                left,
                top,
                Math.Clamp((int)Math.Ceiling(place.Right), left + 1, image.Width),
                Math.Clamp((int)Math.Ceiling(place.Bottom), top + 1, image.Height)
            );
        }

        // Whether the end of what is stored is the beginning of what is displayed (Exif 2.32, 4.6.4, tag 274; then quarters clockwise).
        private static (bool Across, bool Down) Flipped(int orientation, int quarters)
        {
            var (across, down) = orientation switch
            {
                2 => (true, false),
                3 => (true, true),
                4 => (false, true),
                6 => (true, false),
                7 => (true, true),
                8 => (false, true),
                _ => (false, false),
            };
            for (var i = 0; i < quarters; i++)
            {
                (across, down) = (!down, across);
            }

            return (across, down);
        }
    }
}
