using System.Text.Json.Serialization;
using Pantomet.Core.Css;

namespace Pantomet.Core.PageChecks;

/// <summary>How a page holds a picture.</summary>
[JsonConverter(typeof(JsonStringEnumConverter<ImageKind>))]
public enum ImageKind
{
    /// <summary>An <c>img</c>, alone or in a <c>picture</c>, or an image button.</summary>
    [JsonStringEnumMemberName("img")]
    Img,

    /// <summary>A background of an element or of one of its pseudo-elements.</summary>
    [JsonStringEnumMemberName("background")]
    Background,

    /// <summary>An <c>image</c> inside a drawing on the page.</summary>
    [JsonStringEnumMemberName("svg")]
    Svg,

    /// <summary>What a video shows before it plays.</summary>
    [JsonStringEnumMemberName("poster")]
    Poster,
}

/// <summary>A screen that a page was opened on.</summary>
/// <param name="Viewport">Its width in CSS pixels.</param>
/// <param name="Density">Its density: device pixels for a CSS pixel.</param>
public readonly record struct Screen(int Viewport, double Density)
{
    /// <summary>The widths that are looked at where none are named: a phone, a tablet, a laptop, a large screen (common practice).</summary>
    public static readonly IReadOnlyList<int> UsualViewports = [360, 768, 1280, 1920];

    /// <summary>The densities that are looked at where none are named.</summary>
    public static readonly IReadOnlyList<double> UsualDensities = [1, 2];

    /// <summary>How much of the page such a screen shows at first, in CSS pixels down (usual screens of these widths, from memory).</summary>
    public int Height =>
        Viewport switch
        {
            < 500 => 800,
            < 1000 => 1024,
            < 1600 => 800,
            _ => 1080,
        };
}

/// <summary>A rectangle on a page in CSS pixels, from its upper left corner.</summary>
/// <param name="X">From the left.</param>
/// <param name="Y">From the top.</param>
/// <param name="Width">Across.</param>
/// <param name="Height">Down.</param>
public readonly record struct PageBox(double X, double Y, double Width, double Height)
{
    /// <summary>The part that lies on the first screen of a page, in CSS pixels squared.</summary>
    public double AreaWithin(Screen screen) =>
        Math.Max(0, Math.Min(X + Width, screen.Viewport) - Math.Max(X, 0))
        * Math.Max(0, Math.Min(Y + Height, screen.Height) - Math.Max(Y, 0));
}

/// <summary>A picture as a browser showed it on one screen.</summary>
public sealed record SeenImage
{
    /// <summary>Where it stands: a selector that finds its element.</summary>
    public required string Where { get; init; }

    /// <summary>How the page holds it.</summary>
    public required ImageKind Kind { get; init; }

    /// <summary>The whole address of what was loaded for it.</summary>
    public required string Address { get; init; }

    /// <summary>Its content box, or the positioning area of a background, in CSS pixels as laid out. Empty where it is not shown.</summary>
    public CssSize Box { get; init; }

    /// <summary>What transforms and zoom stretch its sides by.</summary>
    public CssSize Stretch { get; init; } = new(1, 1);

    /// <summary>Its place on the page, border and padding left out.</summary>
    public PageBox Place { get; init; }

    /// <summary>Device pixels that one CSS pixel of its natural size has: above 1 where the page chose it for a dense screen.</summary>
    public double PixelsPerPoint { get; init; } = 1;

    /// <summary>The browser's natural size in CSS pixels; empty where it tells none, or for backgrounds.</summary>
    public CssSize Natural { get; init; }

    /// <summary><c>object-fit</c>, or <c>background-size</c> of the layer.</summary>
    public string? Fit { get; init; }

    /// <summary><c>object-position</c>, or <c>background-position</c> of the layer.</summary>
    public string? Position { get; init; }

    /// <summary>True where one drawn picture serves many places, each showing a part of it at its natural size.</summary>
    public bool Sprite { get; init; }

    /// <summary>True where words for those who cannot see it are given, empty ones too; also where it needs none.</summary>
    public bool HasWords { get; init; } = true;

    /// <summary>True where its room is kept before it is loaded.</summary>
    public bool Reserved { get; init; } = true;

    /// <summary>True where it is loaded only when somebody comes near it.</summary>
    public bool Lazy { get; init; }

    /// <summary>True where the page lets the browser choose between files.</summary>
    public bool Choice { get; init; }

    /// <summary>True when the browser could not show what it loaded, or loaded nothing.</summary>
    public bool Broken { get; init; }
}
