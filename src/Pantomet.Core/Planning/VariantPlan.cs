using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Planning;

/// <summary>What one variant will be, before a pixel is touched.</summary>
public sealed record VariantPlan
{
    /// <summary>The density asked for, or the width of the ladder.</summary>
    public required Descriptor Descriptor { get; init; }

    /// <summary>What is cut out of the picture as displayed.</summary>
    public required Crop Crop { get; init; }

    /// <summary>The file's pixel size.</summary>
    public required PixelSize Size { get; init; }

    /// <summary>The size of the picture inside the file: <see cref="Size"/>, or less where margins are laid around it.</summary>
    public required PixelSize Content { get; init; }

    /// <summary>Where the picture lies in a file whose canvas is extended; null for the middle.</summary>
    public Crop? Place { get; init; }

    /// <summary>The pictures of a pair, from left to right; null for a single picture.</summary>
    public IReadOnlyList<PlacedPart>? Parts { get; init; }

    /// <summary>The pixel size that the slot asked for.</summary>
    public required PixelSize Asked { get; init; }

    /// <summary>The density that the framing honestly offers, at least the one asked for when nothing is missing; on a ladder always 1.</summary>
    public required double Offered { get; init; }

    /// <summary>The verdict so far, before any weight is known.</summary>
    public required Verdict Verdict { get; init; }

    /// <summary>The reasons so far.</summary>
    public required IReadOnlyList<Reason> Reasons { get; init; }

    /// <summary>What a mark in the file is to leave free; nothing where there is no mark.</summary>
    public IReadOnlyList<KeptBox> Kept { get; init; } = [];

    /// <summary>True when the size rule names only a most, so that fewer pixels may be made to meet a weight limit.</summary>
    public required bool MayShrink { get; init; }

    /// <summary>Pixels of the picture for one of the file, along the side that is reduced less.</summary>
    public double Reduction =>
        Parts is { } parts
            ? parts.Min(part => part.Reduction)
            : Math.Min((double)Crop.Width / Content.Width, (double)Crop.Height / Content.Height);

    /// <summary>True when there are margins to fill.</summary>
    public bool HasMargins => Content != Size;

    /// <summary>True when a file is to be made.</summary>
    public bool IsMade => Verdict is Verdict.Meets or Verdict.Concedes;

    /// <summary>The same variant with its sides scaled by a factor below 1.</summary>
    public VariantPlan Shrunk(double factor) =>
        At(Honest.Largest(Ratio.Of(Size), new(Math.Max(1, (int)(Size.Width * factor)), Math.Max(1, (int)(Size.Height * factor)))));

    /// <summary>The same variant at a smaller size of the same shape.</summary>
    public VariantPlan At(PixelSize size)
    {
        var place = Place is { } within ? Inside(Scaled(within, (double)size.Width / Size.Width), size) : (Crop?)null;
        return this with
        {
            Size = size,
            Place = place,
            Content = place?.Size ?? (HasMargins ? Honest.Largest(Ratio.Of(Content), size) : size),
            Kept = [.. Kept.Select(kept => kept with { Box = Scaled(kept.Box, (double)size.Width / Size.Width) })],
        };
    }

    private static Crop Inside(Crop box, PixelSize size) =>
        new(box.Left, box.Top, Math.Min(box.Right, size.Width), Math.Min(box.Bottom, size.Height));

    private static Crop Scaled(Crop box, double factor) =>
        new(
            (int)Math.Floor(box.Left * factor),
            (int)Math.Floor(box.Top * factor),
            (int)Math.Ceiling(box.Right * factor),
            (int)Math.Ceiling(box.Bottom * factor)
        );
}
