using Pantomet.Core.Css;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;

namespace Pantomet.Core.PageChecks;

/// <summary>What lies under an address of a page.</summary>
/// <param name="Bytes">Its weight; 0 where nothing was loaded.</param>
/// <param name="Format">Its type; null where it is no picture that can be read.</param>
/// <param name="Size">Its pixels as displayed; null where it is not told or it is a drawing.</param>
/// <param name="Trouble">Why nothing was loaded: a sentence; null where something was.</param>
/// <param name="Path">Where it lies in the folder that is kept; null where none is.</param>
public sealed record LoadedFile(long Bytes, PictureFormat? Format, PixelSize? Size, string? Trouble, string? Path = null)
{
    /// <summary>True for what is drawn at any size.</summary>
    public bool IsDrawing => Format == PictureFormat.Svg;
}

/// <summary>A picture at its place on one screen.</summary>
/// <param name="Screen">The screen.</param>
/// <param name="Image">What the browser showed.</param>
/// <param name="Placing">How the picture lies in its place.</param>
public sealed record ShownImage(Screen Screen, SeenImage Image, Placing Placing)
{
    /// <summary>The device pixels that its place needs: the shown size times the density.</summary>
    public CssSize Needed => Placing.Shown.Times(Screen.Density);

    /// <summary>The share of a file's pixels that its place has no use for: 1 - needed area / natural area where that is larger; else 0.</summary>
    public double Waste(PixelSize natural) => Math.Max(0, 1 - (Needed.Area / natural.Area));

    /// <summary>How many times larger than it is the file is drawn, by the side that is enlarged more; below 1 where it is reduced.</summary>
    public double Enlarged(PixelSize natural)
    {
        var (across, down) = Placing.Scales(natural);
        return Math.Max(across, down) * Screen.Density;
    }
}

/// <summary>One file at one place of a page, on all the screens on which it was loaded for it.</summary>
/// <param name="Where">The place.</param>
/// <param name="Kind">How the page holds it.</param>
/// <param name="Address">The file's whole address.</param>
/// <param name="File">What lies there.</param>
/// <param name="Shown">How it was shown, at least once.</param>
public sealed record PageImage(string Where, ImageKind Kind, string Address, LoadedFile File, IReadOnlyList<ShownImage> Shown)
{
    /// <summary>The natural size in pixels of what is no drawing; null where it is not known.</summary>
    public PixelSize? Natural => File.IsDrawing ? null : File.Size;

    /// <summary>Puts together what was seen on all screens, in the order in which it was.</summary>
    /// <param name="seen">What was seen, screen by screen.</param>
    /// <param name="files">What lies under each address.</param>
    public static IReadOnlyList<PageImage> Of(
        IReadOnlyList<(Screen Screen, IReadOnlyList<SeenImage> Images)> seen,
        IReadOnlyDictionary<string, LoadedFile> files
    )
    {
        ArgumentNullException.ThrowIfNull(seen);
        ArgumentNullException.ThrowIfNull(files);
        return
        [
            .. seen.SelectMany(view => view.Images.Select(image => (view.Screen, Image: image)))
                .GroupBy(one => (one.Image.Where, one.Image.Kind, one.Image.Address))
                .Select(group =>
                {
                    var file = files.TryGetValue(group.Key.Address, out var known)
                        ? known
                        : new(0, null, null, PageTexts.ThePictureWasNotLoaded);
                    return new PageImage(
                        group.Key.Where,
                        group.Key.Kind,
                        group.Key.Address,
                        file,
                        [
                            .. group
                                .DistinctBy(one => one.Screen)
                                .Select(one => new ShownImage(one.Screen, one.Image, Place(one.Image, file))),
                        ]
                    );
                }),
        ];
    }

    private static Placing Place(SeenImage image, LoadedFile file)
    {
        var natural = file is { IsDrawing: false, Size: { } size }
            ? new CssSize(size.Width, size.Height).Times(1 / image.PixelsPerPoint)
            : image.Natural;
        if (image.Kind != ImageKind.Background)
        {
            return Placing.OfImage(image.Box, natural, image.Fit, image.Position).Stretched(image.Stretch);
        }

        var placing = Placing
            .OfBackground(image.Box, natural.IsEmpty ? image.Box : natural, image.Fit, image.Position)
            .Stretched(image.Stretch);
        return image.Sprite ? placing with { Shown = placing.Drawn, Part = Frame.Whole } : placing;
    }
}
