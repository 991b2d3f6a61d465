namespace Pantomet.Imaging.Dressing;

/// <summary>The fonts that titles are set in: those that come with the application.</summary>
public static class FontShelf
{
    /// <summary>What is taken where a font is not there.</summary>
    public const string Usual = "Archivo";

    /// <summary>Where the fonts lie that come with the application.</summary>
    public static string Own { get; } = Path.Combine(AppContext.BaseDirectory, "fonts");

    private static readonly Lazy<IReadOnlyList<FontFile>> Fonts = new(() =>
        [
            .. Directory
                .EnumerateFiles(Own, "*.?tf", SearchOption.AllDirectories)
                .Select(path => FontFile.TryRead(path, out var font, out _) ? font : null)
                .OfType<FontFile>()
                .OrderBy(font => font.Family, StringComparer.Ordinal)
                .ThenBy(font => font.Weight),
        ]
    );

    /// <summary>Every font of the application, in the order of families and weights.</summary>
    public static IReadOnlyList<FontFile> All => Fonts.Value;

    /// <summary>The font of a family that is nearest to a weight; null when there is no such family.</summary>
    public static FontFile? Find(string family, int weight) =>
        All.Where(font => string.Equals(font.Family, family, StringComparison.OrdinalIgnoreCase))
            .MinBy(font => (Math.Abs(font.Weight - weight), font.Weight));
}
