using Pantomet.Core.Facts;

namespace Pantomet.Core.Weight;

/// <summary>The qualities a file may be written at: from a floor to a ceiling, both 1 to 100.</summary>
/// <param name="Floor">The lowest that is wanted.</param>
/// <param name="Ceiling">The highest that is worth its weight.</param>
public readonly record struct QualityRange(int Floor, int Ceiling)
{
    /// <summary>Under this nothing is usable (common practice; photographs).</summary>
    public const int Unusable = 10;

    /// <summary>
    /// What holds where a slot asks for no quality: 80 is the best balance and 60 is fine when the weight asks for it (common practice,
    /// for JPEG). WebP counts alike; AVIF reaches the same likeness at lower numbers (measured, docs/likeness.md).
    /// </summary>
    public static QualityRange Comfortable(PictureFormat format) => format == PictureFormat.Avif ? new(50, 62) : new(60, 80);

    /// <summary>
    /// The range with its ceiling lowered to the quality of a JPEG original, though never below a floor that was asked for.
    /// </summary>
    /// <param name="original">The original's quality, in the numbers of the type that is written.</param>
    /// <param name="asked">True when a slot asked for the floor.</param>
    public QualityRange CappedAt(int original, bool asked) =>
        original >= Ceiling ? this
        : asked ? new(Floor, Math.Max(Floor, original))
        : new(Math.Min(Floor, original), Math.Max(1, original));

    /// <summary>What lies below the floor.</summary>
    public QualityRange? Below => Floor > Unusable ? new(Unusable, Floor - 1) : null;
}
