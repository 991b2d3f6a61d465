using System.Globalization;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Geometry;

/// <summary>
/// The shape of a frame as width to height, kept as the two numbers it was given in, so that the missing side is an
/// exact quotient. Between 1:100 and 100:1.
/// </summary>
public readonly record struct Ratio
{
    /// <summary>The most elongated shape that is accepted, either way.</summary>
    public const decimal Extreme = 100m;

    private Ratio(decimal across, decimal down, string text)
    {
        Across = across;
        Down = down;
        Text = text;
    }

    /// <summary>The width's share.</summary>
    public decimal Across { get; }

    /// <summary>The height's share.</summary>
    public decimal Down { get; }

    /// <summary>As it was written: <c>5:4</c>, <c>1.91:1</c>.</summary>
    public string Text { get; }

    /// <summary>Width divided by height.</summary>
    public double Value => (double)(Across / Down);

    /// <summary>The shape of a size in pixels.</summary>
    public static Ratio Of(PixelSize size) => new(size.Width, size.Height, $"{size.Width}:{size.Height}");

    /// <summary>Reads <c>5:4</c>, <c>1.91:1</c> or a plain number such as <c>1.5</c>.</summary>
    /// <param name="text">What was written.</param>
    /// <param name="ratio">The ratio read.</param>
    /// <param name="error">A sentence that says what is wrong, when it could not be read.</param>
    public static bool TryParse(string text, out Ratio ratio, out string? error)
    {
        ArgumentNullException.ThrowIfNull(text);
        ratio = default;
        var parts = text.Split(':');
        var down = 1m;
        if (parts.Length > 2 || !Part(parts[0], out var across) || (parts.Length == 2 && !Part(parts[1], out down)))
        {
            error = PictureTexts.IsNotARatioWriteIt(text);
            return false;
        }

        return TryCreate(
            across,
            down,
            parts.Length == 2 ? $"{parts[0].Trim()}:{parts[1].Trim()}" : $"{parts[0].Trim()}:1",
            out ratio,
            out error
        );
    }

    /// <summary>Makes a ratio from two numbers.</summary>
    public static bool TryCreate(decimal across, decimal down, string? text, out Ratio ratio, out string? error)
    {
        ratio = default;
        if (across <= 0 || down <= 0)
        {
            error = PictureTexts.BothSidesOfARatioMust;
            return false;
        }

        if (across / down > Extreme || down / across > Extreme)
        {
            error = PictureTexts.ARatioMustBeBetweenAnd;
            return false;
        }

        ratio = new(across, down, text ?? string.Create(CultureInfo.InvariantCulture, $"{across}:{down}"));
        error = null;
        return true;
    }

    /// <summary>The height that goes with a width: the exact quotient rounded half up, at least 1.</summary>
    public int HeightFor(int width) => Rounding.Proportion(width, Down, Across);

    /// <summary>The width that goes with a height: the exact quotient rounded half up, at least 1.</summary>
    public int WidthFor(int height) => Rounding.Proportion(height, Across, Down);

    /// <summary>The size whose longer side is <paramref name="side"/>.</summary>
    public PixelSize ForLongSide(int side) => Across >= Down ? new(side, HeightFor(side)) : new(WidthFor(side), side);

    /// <summary>The size whose shorter side is <paramref name="side"/>.</summary>
    public PixelSize ForShortSide(int side) => Across >= Down ? new(WidthFor(side), side) : new(side, HeightFor(side));

    /// <inheritdoc/>
    public override string ToString() => Text;

    // Ten digits before the point and six noughts behind it are far beyond any page; more would overflow the quotients. What follows may have
    // as many digits as a program writes.
    private static bool Part(string text, out decimal value) =>
        decimal.TryParse(text.Trim(), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out value)
        && value is 0 or (>= 0.000_001m and < 10_000_000_000m);
}
