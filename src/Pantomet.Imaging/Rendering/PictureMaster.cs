using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
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

    private readonly Lazy<Image>[] _levels;
    private readonly Crop _part;

    private readonly double _reduction;

    private PictureMaster(string path, Turn turn, Image image, Crop part, PictureFacts facts, double reduction)
    {
        (Path, Turn) = (path, turn);
        _part = part;
        _reduction = reduction;
        Facts = facts;
        _levels = new Lazy<Image>[MostLevels];
        _levels[0] = new(image);
        for (var i = 1; i < MostLevels; i++)
        {
            var finer = _levels[i - 1];
            _levels[i] = new(() =>
            {
                using var half = finer.Value.Shrink(2, 2);
                return half.CopyMemory();
            });
        }

        _ = _levels[0].Value;
    }

    /// <summary>The original.</summary>
    public string Path { get; }

    /// <summary>How it is turned.</summary>
    public Turn Turn { get; }

    /// <summary>The picture's facts.</summary>
    public PictureFacts Facts { get; private set; }

    /// <summary>True when this decode is fine enough for the plans and holds all they show.</summary>
    public bool Serves(IReadOnlyList<VariantPlan> plans)
    {
        var (load, block) = Scales(Facts, plans);
        var part = Part(Facts, plans);
        return load * block >= _reduction
            && part.Left >= _part.Left
            && part.Top >= _part.Top
            && part.Right <= _part.Right
            && part.Bottom <= _part.Bottom;
    }

    /// <summary>Adds to the facts what the content says. Only for a decode of the whole picture.</summary>
    public PictureFacts Look() => Facts = ContentReader.Look(_levels[0].Value, Facts, orientation: 1);

    /// <summary>How many bytes of pixels a decode of the whole picture for these plans holds; known before anything is decoded.</summary>
    public static long BytesFor(PictureFacts facts, IReadOnlyList<VariantPlan> plans)
    {
        ArgumentNullException.ThrowIfNull(facts);
        ArgumentNullException.ThrowIfNull(plans);
        var (load, block) = Scales(facts, plans);
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
        var (load, block) = Scales(facts, plans);
        var part = whole ? Crop.All(facts.Size) : Part(facts, plans);
        // A picture that lies on its side is read in another order than it is stored: it needs all of its pixels at hand.
        var access = facts.Orientation == 1 && turn.IsNone ? Enums.Access.Sequential : Enums.Access.Random;
        var image = scope.Own(PictureReader.Open(path, facts.Format, load, access, frame));
        if (facts.Orientation != 1)
        {
            image = scope.Own(image.Autorot());
        }

        image = Turning.Apply(image, turn, scope);
        var (fx, fy) = ((double)image.Width / facts.Size.Width, (double)image.Height / facts.Size.Height);
        var stored = Scaled(part, fx, fy, image);
        if (stored.Width < image.Width || stored.Height < image.Height)
        {
            image = scope.Own(image.Crop(stored.Left, stored.Top, stored.Width, stored.Height));
        }

        if (block > 1)
        {
            image = scope.Own(Flat(image, scope).Shrink(block, block, ceil: true));
            image = scope.Own(Straight(image, facts.HasAlpha, scope));
        }

        var memory = scope.Own(Colours.Convert(image, facts, profile)).CopyMemory();
        return new(path, turn, memory, part, facts, load * block);
    }

    /// <summary>The picture's pixels for a plan: the coarsest copy that still leaves the reduction a factor of two, cropped.</summary>
    internal Image Cut(VariantPlan plan, Scope scope)
    {
        var finest = _levels[0].Value;
        var scale = Math.Min(
            plan.Crop.Width * ((double)finest.Width / _part.Width) / plan.Content.Width,
            plan.Crop.Height * ((double)finest.Height / _part.Height) / plan.Content.Height
        );
        var level = 0;
        while (level + 1 < MostLevels && scale >= 4)
        {
            scale /= 2;
            level++;
        }

        var image = _levels[level].Value;
        // Halving leaves out an odd last row: the scale of a level is a power of two exactly, not its size over the whole.
        var (fx, fy) = ((double)finest.Width / _part.Width / (1 << level), (double)finest.Height / _part.Height / (1 << level));
        var crop = Scaled(
            new(plan.Crop.Left - _part.Left, plan.Crop.Top - _part.Top, plan.Crop.Right - _part.Left, plan.Crop.Bottom - _part.Top),
            fx,
            fy,
            image
        );
        return crop.Width == image.Width && crop.Height == image.Height
            ? image
            : scope.Own(image.Crop(crop.Left, crop.Top, crop.Width, crop.Height));
    }

    /// <summary>Frees the pixels.</summary>
    public void Dispose()
    {
        foreach (var level in _levels.Where(level => level.IsValueCreated))
        {
            level.Value.Dispose();
        }
    }

    // How far a JPEG is reduced while it is read (1, 2, 4 or 8, ITU-T T.81's transform at a part of its size), and how many pixels
    // beyond that are averaged into one before the picture is held in memory.
    private static (int Load, int Block) Scales(PictureFacts facts, IReadOnlyList<VariantPlan> plans)
    {
        var scale = plans.Min(plan =>
            Math.Min((double)plan.Crop.Width / plan.Content.Width, (double)plan.Crop.Height / plan.Content.Height)
        );
        var load =
            facts.Format != PictureFormat.Jpeg ? 1
            : scale >= 8 ? 8
            : scale >= 4 ? 4
            : scale >= 2 ? 2
            : 1;
        return (load, Math.Max(1, (int)(scale / load / 2)));
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

    private static Crop Scaled(Crop crop, double fx, double fy, Image image)
    {
        var left = Math.Clamp((int)Math.Round(crop.Left * fx), 0, image.Width - 1);
        var top = Math.Clamp((int)Math.Round(crop.Top * fy), 0, image.Height - 1);
        var width = Math.Clamp((int)Math.Round(crop.Width * fx), 1, image.Width - left);
        var height = Math.Clamp((int)Math.Round(crop.Height * fy), 1, image.Height - top);
        return new(left, top, left + width, top + height);
    }

    // What is transparent must not colour its neighbours when they are averaged.
    private static Image Flat(Image image, Scope scope) => image.HasAlpha() ? scope.Own(image.Premultiply()) : image;

    private static Image Straight(Image image, bool alpha, Scope scope) =>
        alpha ? scope.Own(image.Unpremultiply()).Cast(Enums.BandFormat.Uchar) : image;
}
