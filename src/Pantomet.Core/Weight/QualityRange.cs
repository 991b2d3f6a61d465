namespace Pantomet.Core.Weight;

/// <summary>The qualities a file may be written at: from a floor to a ceiling, both 1 to 100.</summary>
/// <param name="Floor">The lowest that is wanted.</param>
/// <param name="Ceiling">The highest that is worth its weight.</param>
public readonly record struct QualityRange(int Floor, int Ceiling)
{
    /// <summary>
    /// What holds where a slot says nothing: 80 is the best balance, 10 is unusable (common practice; photographs).
    /// </summary>
    public static readonly QualityRange Usual = new(10, 80);

    /// <summary>Under this a person should look: 60 is fine when the weight asks for it (common practice).</summary>
    public const int Comfortable = 60;
}
