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
    /// for JPEG, whose numbers all types share: <see cref="QualityScale"/>).
    /// </summary>
    public static readonly QualityRange Comfortable = new(60, 80);

    /// <summary>
    /// The highest quality that a band is worth: beyond it weight buys nothing that could be seen (from memory: the encoders' own advice
    /// for JPEG).
    /// </summary>
    public const int Highest = 95;

    /// <summary>
    /// What of a JPEG original's quality limits a file that is made of it: at 1:1 all of it; reduction averages the damage away, so it
    /// grows with it, evenly, and from 2:1 on nothing is left of it.
    /// </summary>
    /// <param name="original">The original's quality, 1 to 100.</param>
    /// <param name="reduction">Pixels of the original for one of the file along a side, 1 or more.</param>
    /// <returns>The highest quality, 1 to 100; null for none.</returns>
    public static int? Cap(int original, double reduction) =>
        reduction >= 2 ? null : (int)Math.Round(original + ((100 - original) * Math.Max(0, reduction - 1)));

    /// <summary>The range with its ceiling lowered to a cap, and its floor where it would lie above.</summary>
    /// <param name="cap">1 or more.</param>
    public QualityRange CappedAt(int cap) => cap >= Ceiling ? this : new(Math.Min(Floor, cap), Math.Max(1, cap));

    /// <summary>What lies below the floor.</summary>
    public QualityRange? Below => Floor > Unusable ? new(Unusable, Floor - 1) : null;
}
