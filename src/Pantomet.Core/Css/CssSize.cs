namespace Pantomet.Core.Css;

/// <summary>A size in CSS pixels, as a browser lays it out; not rounded.</summary>
/// <param name="Width">Across, at least 0.</param>
/// <param name="Height">Down, at least 0.</param>
public readonly record struct CssSize(double Width, double Height)
{
    /// <summary>Width times height.</summary>
    public double Area => Width * Height;

    /// <summary>True for what takes no place on the page.</summary>
    public bool IsEmpty => !(Width > 0 && Height > 0);

    /// <summary>Both sides times a factor.</summary>
    public CssSize Times(double factor) => new(Width * factor, Height * factor);

    /// <summary>The smaller of both widths and of both heights.</summary>
    public CssSize Within(CssSize box) => new(Math.Min(Width, box.Width), Math.Min(Height, box.Height));
}
