using System.Globalization;

namespace Pantomet.Core.Geometry;

/// <summary>
/// What tells the files of one slot apart: a density, or a width of its ladder. Written as the candidates of a page are (HTML Living
/// Standard, 4.8.4.2.1): <c>2x</c>, <c>800w</c>.
/// </summary>
public readonly record struct Descriptor : IComparable<Descriptor>
{
    private Descriptor(Density? density, int? width)
    {
        Density = density;
        Width = width;
    }

    /// <summary>The density; null on a ladder.</summary>
    public Density? Density { get; }

    /// <summary>The width in pixels; null off a ladder.</summary>
    public int? Width { get; }

    /// <summary>A density.</summary>
    public static Descriptor Of(Density density) => new(density, null);

    /// <summary>A width of a ladder, in pixels.</summary>
    public static Descriptor Wide(int width) => new(null, width);

    /// <summary>Reads <c>2x</c> or <c>800w</c>.</summary>
    /// <param name="text">What was written.</param>
    /// <param name="descriptor">What was read.</param>
    public static bool TryParse(string? text, out Descriptor descriptor)
    {
        descriptor = default;
        if (text is not { Length: > 1 and <= 12 })
        {
            return false;
        }

        if (text[^1] == 'w' && int.TryParse(text[..^1], NumberStyles.None, CultureInfo.InvariantCulture, out var width) && width > 0)
        {
            descriptor = Wide(width);
            return true;
        }

        if (
            text[^1] == 'x'
            && decimal.TryParse(text[..^1], NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var density)
            && density is > 0 and <= Geometry.Density.Most
        )
        {
            descriptor = Of(new(density));
            return true;
        }

        return false;
    }

    /// <inheritdoc/>
    public int CompareTo(Descriptor other) =>
        Nullable.Compare(Width, other.Width) is not 0 and var byWidth ? byWidth : Nullable.Compare(Density, other.Density);

    /// <summary>A density is the descriptor of its file.</summary>
    public static implicit operator Descriptor(Density density) => Of(density);

    /// <summary>Before.</summary>
    public static bool operator <(Descriptor a, Descriptor b) => a.CompareTo(b) < 0;

    /// <summary>Behind.</summary>
    public static bool operator >(Descriptor a, Descriptor b) => a.CompareTo(b) > 0;

    /// <summary>Not behind.</summary>
    public static bool operator <=(Descriptor a, Descriptor b) => a.CompareTo(b) <= 0;

    /// <summary>Not before.</summary>
    public static bool operator >=(Descriptor a, Descriptor b) => a.CompareTo(b) >= 0;

    /// <inheritdoc/>
    public override string ToString() =>
        Width is { } width ? string.Create(CultureInfo.InvariantCulture, $"{width}w")
        : Density is { } density ? density.ToString()
        : "1x";
}
