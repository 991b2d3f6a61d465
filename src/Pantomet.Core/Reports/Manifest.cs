using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Unicode;
using Pantomet.Core.Facts;
using Pantomet.Core.Markup;

namespace Pantomet.Core.Reports;

/// <summary>One file of a bundle, for programs that put it on a page.</summary>
/// <param name="Path">Where it lies, or its data.</param>
/// <param name="Width">Pixels across.</param>
/// <param name="Height">Pixels down.</param>
/// <param name="Type">Its media type.</param>
/// <param name="Bytes">Its weight.</param>
/// <param name="Descriptor">The density or width it stands for: 2x, 800w.</param>
public sealed record ManifestFile(string Path, int Width, int Height, string Type, long Bytes, string Descriptor);

/// <summary>One slot of a place.</summary>
/// <param name="Slot">The slot's key.</param>
/// <param name="Media">When it is shown; absent where it is shown otherwise.</param>
/// <param name="Sizes">How wide it is shown; absent off a ladder.</param>
/// <param name="Width">How wide it is shown at the most, in CSS pixels.</param>
/// <param name="Height">The height that goes with it.</param>
/// <param name="Files">Its files by type in order of preference, and from the smallest up.</param>
public sealed record ManifestSlot(string Slot, string? Media, string? Sizes, int Width, int Height, IReadOnlyList<ManifestFile> Files);

/// <summary>A picture in one place of a page.</summary>
/// <param name="Picture">The original's name.</param>
/// <param name="Destination">The destination's key.</param>
/// <param name="Group">The name of the group, or the key of a slot of its own.</param>
/// <param name="Alternative">What it shows; empty for a decorative picture, null where nobody said it.</param>
/// <param name="Html">The element.</param>
/// <param name="Colour">The colour that continues its edge.</param>
/// <param name="Placeholder">What is shown until its file is there, as a data address.</param>
/// <param name="Slots">Its slots in their order.</param>
public sealed record ManifestPlace(
    string Picture,
    string Destination,
    string Group,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.Never)] string? Alternative,
    string Html,
    string? Colour,
    [property: JsonPropertyName("standIn")] string? Placeholder,
    IReadOnlyList<ManifestSlot> Slots
)
{
    /// <summary>What is told of a picture in a place.</summary>
    /// <param name="original">The original's name.</param>
    /// <param name="destination">The destination's key.</param>
    /// <param name="group">The name of the group, or the key of a slot of its own.</param>
    /// <param name="picture">What the page shows.</param>
    public static ManifestPlace Of(string original, string destination, string group, MarkupPicture picture)
    {
        ArgumentNullException.ThrowIfNull(picture);
        return new(
            original,
            destination,
            group,
            picture.Alternative,
            HtmlWriter.Page(picture),
            picture.Edge?.ToString(),
            picture.Placeholder,
            [.. picture.Slots.Select(SlotOf)]
        );
    }

    private static ManifestSlot SlotOf(MarkupSlot slot) =>
        new(
            slot.Slot.Key,
            slot.Slot.Media?.Text,
            slot.Slot.Responsive?.Sizes.Text,
            slot.Shown.Width,
            slot.Shown.Height,
            [
                .. slot
                    .ByType.SelectMany(files => files)
                    .Select(file => new ManifestFile(
                        file.Address,
                        file.Size.Width,
                        file.Size.Height,
                        file.Format.MediaType(),
                        file.Bytes,
                        HtmlWriter.DescriptorOf(slot, file)
                    )),
            ]
        );
}

/// <summary>What a bundle holds, for programs, <c>"schema": "pantomet-manifest/1"</c>.</summary>
/// <param name="Name">The job's name.</param>
/// <param name="Places">Every picture in every place that has something to show.</param>
public sealed record Manifest(string Name, IReadOnlyList<ManifestPlace> Places)
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Encoder = JavaScriptEncoder.Create(UnicodeRanges.All),
    };

    /// <summary>The schema.</summary>
    [JsonPropertyOrder(-1)]
    public string Schema { get; } = "pantomet-manifest/1";

    /// <summary>As JSON.</summary>
    public string ToJson() => JsonSerializer.Serialize(this, Options);
}
