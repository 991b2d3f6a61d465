namespace Pantomet.Imaging.Dressing;

/// <summary>The fonts that there are: those that come with the application, and those of further folders.</summary>
public static class FontShelf
{
    /// <summary>What is taken where a font is not there.</summary>
    public const string Usual = "Archivo";

    private static readonly Lock Reading = new();

    private static readonly Dictionary<string, IReadOnlyList<FontFile>> Folders = [];

    /// <summary>Where the fonts lie that come with the application.</summary>
    public static string Own { get; } = Path.Combine(AppContext.BaseDirectory, "fonts");

    /// <summary>Every font of the application, in the order of families and weights.</summary>
    public static IReadOnlyList<FontFile> All => In(Own);

    /// <summary>The font of a family that is nearest to a weight; null when there is no such family.</summary>
    public static FontFile? Find(string family, int weight) =>
        All.Where(font => string.Equals(font.Family, family, StringComparison.OrdinalIgnoreCase))
            .MinBy(font => (Math.Abs(font.Weight - weight), font.Weight));

    private static IReadOnlyList<FontFile> In(string folder)
    {
        lock (Reading)
        {
            if (!Folders.TryGetValue(folder, out var fonts))
            {
                fonts = Folders[folder] = [
                    .. Directory
                        .EnumerateFiles(folder, "*.?tf", SearchOption.AllDirectories)
                        .Select(path => FontFile.TryRead(path, out var font, out _) ? font : null)
                        .OfType<FontFile>()
                        .OrderBy(font => font.Family, StringComparer.Ordinal)
                        .ThenBy(font => font.Weight),
                ];
            }

            return fonts;
        }
    }
}
