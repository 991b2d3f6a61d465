using System.Collections.Concurrent;
using System.Text;
using Pantomet.Core.Rules;

namespace Pantomet.Imaging.Dressing;

/// <summary>The fonts that titles are set in: those that come with the application.</summary>
public static class FontStore
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

    private static readonly ConcurrentDictionary<string, FontFile?> OfFiles = new();

    /// <summary>
    /// The font of a family that is nearest to a weight, or that of a file by the name of its content; null when there is none.
    /// </summary>
    public static FontFile? Find(string family, int weight) =>
        SideFile.Fault(family, SideFile.FontEndings) is null
            ? SideFiles.Find(family) is { } path
                ? OfFiles.GetOrAdd(path, one => FontFile.TryRead(one, out var font, out _) ? font!.Apart() : null)
                : null
            : OfFamily(family, weight);

    /// <summary>A font of the application that has a character, the nearest to a weight; null when none has.</summary>
    public static FontFile? With(Rune character, int weight) =>
        All.Where(font => font.Has(character)).MinBy(font => (Math.Abs(font.Weight - weight), font.Family == Usual ? 0 : 1));

    private static FontFile? OfFamily(string family, int weight) =>
        All.Where(font => string.Equals(font.Family, family, StringComparison.OrdinalIgnoreCase))
            .MinBy(font => (Math.Abs(font.Weight - weight), font.Weight));
}
