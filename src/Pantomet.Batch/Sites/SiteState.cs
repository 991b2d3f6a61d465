using System.Text.Json;
using System.Text.Json.Serialization;
using Pantomet.Core.Dressing;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Batch.Sites;

/// <summary>A picture of the site as it was read.</summary>
/// <param name="Bytes">The file's weight.</param>
/// <param name="Changed">When it was changed, UTC.</param>
/// <param name="Hash">SHA-256 of its content, lower-case hexadecimal.</param>
/// <param name="Facts">Its facts.</param>
/// <param name="Unused">Since when no page shows it, UTC; null while one does.</param>
internal sealed record KnownPicture(long Bytes, DateTime Changed, string Hash, PictureFacts Facts, DateTime? Unused = null);

/// <summary>A file that was made by a recipe, or the reasons why none was.</summary>
internal sealed record KnownFile
{
    /// <summary>Its name in the folder of pictures; null when none was made.</summary>
    public string? Name { get; init; }

    /// <summary>SHA-256 of its content, lower-case hexadecimal.</summary>
    public string? Hash { get; init; }

    public required PixelSize Size { get; init; }

    public PictureFormat? Format { get; init; }

    public long Bytes { get; init; }

    public int? Quality { get; init; }

    public double? Likeness { get; init; }

    public Crop? Worst { get; init; }

    public int Encodes { get; init; }

    public required Verdict Verdict { get; init; }

    public required IReadOnlyList<Reason> Reasons { get; init; }

    /// <summary>What became of the slot's dress; null where it has none.</summary>
    public Dressed? Dressed { get; init; }

    /// <summary>What stands in for it while it loads, where a page asked for that.</summary>
    [JsonPropertyName("standIn")]
    public KnownPlaceholder? Placeholder { get; init; }

    /// <summary>Since when no page wants it, UTC; null while one does.</summary>
    public DateTime? Unused { get; init; }
}

/// <summary>What stands in for a file while it loads.</summary>
internal sealed record KnownPlaceholder(string Data, Rgb? Edge);

/// <summary>What an earlier run read and made: what is known need not be done again. It lies beside the files that it tells of.</summary>
internal sealed record SiteState
{
    private const string Schema = "pantomet-site/2";

    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    public string Named { get; init; } = Schema;

    /// <summary>By path from the site's root.</summary>
    public Dictionary<string, KnownPicture> Pictures { get; init; } = [];

    /// <summary>By recipe and the words of its name.</summary>
    public Dictionary<string, KnownFile> Files { get; init; } = [];

    /// <summary>The folder that the pages came from, in full.</summary>
    public string? Site { get; init; }

    /// <summary>Pages and other files of the copy, by path from its root.</summary>
    public IReadOnlyList<string> Copies { get; init; } = [];

    /// <summary>What an earlier run left; an empty one where there is none, or none that can be read.</summary>
    public static SiteState Load(string path)
    {
        try
        {
            return File.Exists(path) && JsonSerializer.Deserialize<SiteState>(File.ReadAllBytes(path), Options) is { Named: Schema } state
                ? state
                : new();
        }
        catch (Exception fault) when (fault is JsonException or IOException or ArgumentException)
        {
            // Everything is made again, which is all that is lost.
            return new();
        }
    }

    /// <summary>The same with what shares know; where both know something, the shares are newer.</summary>
    public SiteState With(IEnumerable<SiteState> shares)
    {
        var (pictures, files) = (new Dictionary<string, KnownPicture>(Pictures), new Dictionary<string, KnownFile>(Files));
        foreach (var share in shares)
        {
            foreach (var (path, picture) in share.Pictures)
            {
                pictures[path] = picture;
            }

            foreach (var (recipe, file) in share.Files)
            {
                files[recipe] = file;
            }
        }

        return this with
        {
            Pictures = pictures,
            Files = files,
        };
    }

    public void Save(string path)
    {
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        File.WriteAllBytes(path + ".part", JsonSerializer.SerializeToUtf8Bytes(this, Options));
        File.Move(path + ".part", path, overwrite: true);
    }
}
