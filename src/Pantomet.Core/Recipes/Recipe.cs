using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Pantomet.Core.Dressing;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;

namespace Pantomet.Core.Recipes;

/// <summary>One picture that goes into a file, and what of it.</summary>
/// <param name="Content">SHA-256 of the original, lower-case hexadecimal.</param>
/// <param name="Turn">How it is turned.</param>
/// <param name="Crop">What is cut out of the turned picture.</param>
/// <param name="Place">Where in the file it lies; null for the middle of all of it.</param>
public sealed record RecipePart(string Content, Turn Turn, Crop Crop, Crop? Place = null);

/// <summary>Something that is drawn over the pixels, from below upwards.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Values">Its figures and words by name.</param>
public sealed record RecipeLayer(string Kind, IReadOnlyDictionary<string, string> Values);

/// <summary>
/// Everything the pixels and bytes of one file depend on, as one value. Its hash is the file's identity: the same recipe finds the same
/// file, in whatever job
/// or slot. It names no path and no time, so it means the same on another machine.
/// </summary>
public sealed record Recipe
{
    /// <summary>
    /// Raised whenever the same recipe would make other bytes than before; every file is then made again, and nothing that people decided is
    /// lost.
    /// </summary>
    public const int CurrentVersion = 11;

    /// <summary>The version it is carried out by.</summary>
    public int Version { get; init; } = CurrentVersion;

    /// <summary>The pictures, in the order in which they are laid down.</summary>
    public required IReadOnlyList<RecipePart> Parts { get; init; }

    /// <summary>The file's pixel size.</summary>
    public required PixelSize Size { get; init; }

    /// <summary>The size of the picture inside: <see cref="Size"/>, or less where margins are laid around it.</summary>
    public required PixelSize Content { get; init; }

    /// <summary>True when fewer pixels may be made to meet a weight.</summary>
    public bool MayShrink { get; init; }

    /// <summary>The slot's rule as far as bytes depend on it, as canonical JSON.</summary>
    public required string Rule { get; init; }

    /// <summary>A type chosen by hand; null leaves it to the rule.</summary>
    public PictureFormat? Format { get; init; }

    /// <summary>A quality chosen by hand; null finds it.</summary>
    public int? Quality { get; init; }

    /// <summary>What else tells files of one cell apart, by name, such as a page of several; only what changes bytes stands here.</summary>
    public IReadOnlyDictionary<string, string> Axes { get; init; } = NoValues;

    /// <summary>What is drawn over the pixels.</summary>
    public IReadOnlyList<RecipeLayer> Layers { get; init; } = [];

    private static readonly Dictionary<string, string> NoValues = [];

    private const string KeptLayer = "kept";

    /// <summary>The recipe of one file of one picture.</summary>
    /// <param name="content">SHA-256 of the original, lower-case hexadecimal.</param>
    /// <param name="turn">How it is turned.</param>
    /// <param name="plan">Part of the picture and pixel size.</param>
    /// <param name="rule">The slot's rule as far as bytes depend on it, as canonical JSON.</param>
    /// <param name="format">A type chosen by hand.</param>
    /// <param name="quality">A quality chosen by hand.</param>
    public static Recipe Of(string content, Turn turn, VariantPlan plan, string rule, PictureFormat? format, int? quality)
    {
        ArgumentNullException.ThrowIfNull(plan);
        return new()
        {
            Parts = [new(content, turn, plan.Crop, plan.Place)],
            Size = plan.Size,
            Content = plan.Content,
            MayShrink = plan.MayShrink,
            Rule = rule,
            Format = format,
            Quality = quality,
            Layers = [.. plan.Kept.Select(LayerOf)],
        };
    }

    /// <summary>The recipe of one file of pictures side by side.</summary>
    /// <param name="parts">SHA-256 of each original and how it is turned, from left to right.</param>
    /// <param name="plan">What is cut out of each, where it comes to lie, and the pixel size.</param>
    /// <param name="rule">The slot's rule as far as bytes depend on it, as canonical JSON.</param>
    /// <param name="format">A type chosen by hand.</param>
    /// <param name="quality">A quality chosen by hand.</param>
    public static Recipe OfPair(
        IReadOnlyList<(string Content, Turn Turn)> parts,
        VariantPlan plan,
        string rule,
        PictureFormat? format,
        int? quality
    )
    {
        ArgumentNullException.ThrowIfNull(parts);
        ArgumentNullException.ThrowIfNull(plan);
        return Of(parts[0].Content, parts[0].Turn, plan, rule, format, quality) with
        {
            Parts = [.. parts.Zip(plan.Parts!, (part, placed) => new RecipePart(part.Content, part.Turn, placed.Crop, placed.Place))],
        };
    }

    /// <summary>True when it lays several pictures side by side.</summary>
    public bool IsPair => Parts.Count > 1;

    /// <summary>What a mark in the file leaves free.</summary>
    public IReadOnlyList<KeptBox> Kept =>
        [
            .. Layers
                .Where(layer => layer.Kind == KeptLayer)
                .Select(layer => layer.Values)
                .Select(values => new KeptBox(
                    new(Number(values, "left"), Number(values, "top"), Number(values, "right"), Number(values, "bottom")),
                    values.ContainsKey("suggested")
                )),
        ];

    private static RecipeLayer LayerOf(KeptBox kept)
    {
        var values = new Dictionary<string, string>
        {
            ["left"] = Text(kept.Box.Left),
            ["top"] = Text(kept.Box.Top),
            ["right"] = Text(kept.Box.Right),
            ["bottom"] = Text(kept.Box.Bottom),
        };
        if (kept.Suggested)
        {
            values["suggested"] = "true";
        }

        return new(KeptLayer, values);
    }

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);

    private static int Number(IReadOnlyDictionary<string, string> values, string name) =>
        int.Parse(values[name], CultureInfo.InvariantCulture);

    /// <summary>
    /// What is wanted, whatever version makes it: a hash over everything but the version. What people say about a file is kept under this.
    /// </summary>
    public string Want => Hash(Canonical(withVersion: false));

    /// <summary>The file's identity: a hash over everything.</summary>
    public string Id => Hash(Canonical(withVersion: true));

    /// <summary>
    /// The recipe as canonical JSON: every member in a fixed order, those that say nothing left out, dictionaries by ordinal order of their
    /// names.
    /// </summary>
    public string ToJson() => Encoding.UTF8.GetString(Canonical(withVersion: true));

    /// <summary>Reads what <see cref="ToJson"/> wrote.</summary>
    /// <exception cref="JsonException">It is none.</exception>
    public static Recipe Parse(string json) => RecipeJson.Read(json);

    private byte[] Canonical(bool withVersion) => RecipeJson.Write(this, withVersion);

    // Thousands are hashed when a job is opened: to look the algorithm up each time would cost more than the hashing.
    [ThreadStatic]
    private static IncrementalHash? _sha256;

    private static string Hash(byte[] bytes)
    {
        var hash = _sha256 ??= IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        hash.AppendData(bytes);
        return Convert.ToHexStringLower(hash.GetHashAndReset());
    }
}
