using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Unicode;
using Pantomet.Core.Dressing;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Naming;
using Pantomet.Core.Responsive;

namespace Pantomet.Core.Rules;

/// <summary>
/// Writes a book of rules as a rules file: the same rules always give the same text, and what was not asked for is not written.
/// </summary>
public static class RulesWriter
{
    private static readonly JsonWriterOptions Options = new() { Indented = true, Encoder = JavaScriptEncoder.Create(UnicodeRanges.All) };

    /// <summary>The text of a rules file.</summary>
    public static string Write(RuleBook book)
    {
        ArgumentNullException.ThrowIfNull(book);
        return Text(json =>
        {
            json.WriteStartObject();
            json.WriteString("schema", RulesReader.Schema);
            json.WriteStartArray("destinations");
            foreach (var destination in book.Destinations)
            {
                json.WriteStartObject();
                json.WriteString("key", destination.Key);
                json.WriteString("name", destination.Name);
                json.WriteStartArray("slots");
                foreach (var slot in destination.Slots)
                {
                    Slot(json, slot, withPattern: true);
                }

                json.WriteEndArray();
                json.WriteEndObject();
            }

            json.WriteEndArray();
            if (book.Dressings.Count > 0)
            {
                json.WriteStartObject("dressings");
                foreach (var (name, dress) in book.Dressings)
                {
                    json.WritePropertyName(name);
                    DressWriter.Write(json, dress);
                }

                json.WriteEndObject();
            }

            json.WriteEndObject();
        });
    }

    /// <summary>A dress as it stands in a slot of a rules file.</summary>
    public static string Write(Dress dress)
    {
        ArgumentNullException.ThrowIfNull(dress);
        return Text(json => DressWriter.Write(json, dress));
    }

    /// <summary>One slot as it stands in a rules file, without the pattern of names: a file has one key for both names.</summary>
    public static string Write(Slot slot)
    {
        ArgumentNullException.ThrowIfNull(slot);
        return Text(json => Slot(json, slot, withPattern: false));
    }

    /// <summary>
    /// The part of a slot's rule that decides about the bytes of a file once its plan stands; for finding the same file again.
    /// </summary>
    public static string BytesKey(Slot slot)
    {
        ArgumentNullException.ThrowIfNull(slot);
        return Write(
            slot with
            {
                Key = "slot",
                Name = "slot",
                Clear = Frame.Whole,
                ShownAs = [],
                Toward = null,
                Responsive = null,
                // How large letters are in a file depends on how wide its slot is shown.
                Size =
                    slot.Dress.Title is not null && slot is { Responsive: not null, SetWidth: { } shown }
                        ? new SizeRule.SideAlone(Side.Width, shown)
                        : slot.Size,
                Group = null,
                Media = null,
                Inline = null,
                First = false,
                SubjectShare = null,
                Densities = [Density.One],
                WhenTooSmall = WhenTooSmall.Cap,
                NamePattern = NamePattern.Usual,
            }
        );
    }

    private static string Text(Action<Utf8JsonWriter> write)
    {
        using var stream = new MemoryStream();
        using (var json = new Utf8JsonWriter(stream, Options))
        {
            write(json);
        }

        return Encoding.UTF8.GetString(stream.ToArray());
    }

    private static void Slot(Utf8JsonWriter json, Slot slot, bool withPattern)
    {
        json.WriteStartObject();
        json.WriteString("key", slot.Key);
        if (slot.Name != slot.Key)
        {
            json.WriteString("name", slot.Name);
        }

        json.WriteStartObject("size");
        Size(json, slot.Size);
        json.WriteEndObject();
        WordUnless(json, "fit", slot.Fit, Fit.Crop);
        if (slot.Responsive is null && slot.Densities is not [{ Value: 1 }])
        {
            DensitiesOf(json, slot.Densities);
        }

        if (slot.Responsive is { } responsive)
        {
            ResponsiveOf(json, responsive);
        }

        TextIf(json, "group", slot.Group);
        TextIf(json, "media", slot.Media?.Text);
        NumberIf(json, "inline", slot.Inline?.Bytes);
        FlagIf(json, "first", slot.First);
        FlagIf(json, "extend", slot.Extend);
        if (slot.Types is not [{ Format: PictureFormat.Jpeg }])
        {
            json.WriteStartArray("types");
            slot.Types.ToList().ForEach(type => json.WriteStringValue(type.ToString()));
            json.WriteEndArray();
        }

        FlagIf(json, "each", slot.Each);
        LimitsOf(json, slot.Limits);
        AimsOf(json, slot.Aims);
        if (slot.Clear != Frame.Whole)
        {
            AreaOf(json, "clear", slot.Clear);
        }

        if (slot.ShownAs.Count > 0)
        {
            json.WriteStartArray("shownAs");
            slot.ShownAs.ToList().ForEach(shape => json.WriteStringValue(shape.ToString()));
            json.WriteEndArray();
        }

        NumberIf(json, "subjectShare", slot.SubjectShare);
        if (slot.Toward is { } toward)
        {
            json.WriteStartArray("toward");
            json.WriteNumberValue(toward.X);
            json.WriteNumberValue(toward.Y);
            json.WriteEndArray();
        }

        WordUnless(json, "whenTooSmall", slot.WhenTooSmall, WhenTooSmall.Cap);
        if (slot.Background is { } background)
        {
            json.WriteString("background", background.Colour is { } colour ? colour.ToString() : "edge");
        }

        WordUnless(json, "sharpen", slot.Sharpen, Sharpening.Mild);
        WordUnless(json, "profile", slot.Profile, ProfileRule.Srgb);
        WordUnless(json, "metadata", slot.Metadata, MetadataRule.Drop);
        FlagIf(json, "location", slot.Location);
        NumberIf(json, "ppi", slot.Ppi);
        if (slot.AllFrames)
        {
            json.WriteString("frames", "all");
        }

        if (slot.Pair is { } pair)
        {
            json.WriteStartObject("pair");
            json.WriteNumber("count", pair.Count);
            json.WriteNumber("gap", pair.Gap);
            json.WriteString("background", pair.Background.ToString());
            json.WriteEndObject();
        }

        if (slot.Dress != Dress.None)
        {
            json.WritePropertyName("dress");
            DressWriter.Write(json, slot.Dress);
        }

        if (withPattern && slot.NamePattern != NamePattern.Usual)
        {
            json.WriteString("name", slot.NamePattern.Text);
        }

        json.WriteEndObject();
    }

    private static void Size(Utf8JsonWriter json, SizeRule size)
    {
        switch (size)
        {
            case SizeRule.Exact exact:
                Box(json, exact.Size);
                break;
            case SizeRule.ShapeWithSide side:
                json.WriteString("ratio", side.Ratio.Text);
                json.WriteNumber(Word(side.Side), side.Pixels);
                break;
            case SizeRule.ShapeAlone alone:
                json.WriteString("ratio", alone.Ratio.Text);
                break;
            case SizeRule.SideAlone side:
                json.WriteNumber(Word(side.Side), side.Pixels);
                break;
            case SizeRule.Within within:
                json.WriteStartObject("within");
                Box(json, within.Box);
                json.WriteEndObject();
                break;
            case SizeRule.Share share:
                json.WriteNumber("share", share.Part);
                break;
            case SizeRule.MaxPixels most:
                json.WriteNumber("maxPixels", most.Most);
                break;
        }
    }

    private static void Box(Utf8JsonWriter json, PixelSize box)
    {
        json.WriteNumber("width", box.Width);
        json.WriteNumber("height", box.Height);
    }

    private static void DensitiesOf(Utf8JsonWriter json, IReadOnlyList<Density> densities)
    {
        json.WriteStartArray("densities");
        foreach (var density in densities)
        {
            // Divided so that 2.0 is written as 2.
            json.WriteNumberValue(density.Value / 1.000000000000000000m);
        }

        json.WriteEndArray();
    }

    private static void ResponsiveOf(Utf8JsonWriter json, ResponsiveRule rule)
    {
        json.WriteStartObject("responsive");
        json.WriteString("sizes", rule.Sizes.Text);
        json.WriteStartArray("viewports");
        json.WriteNumberValue(rule.From);
        json.WriteNumberValue(rule.To);
        json.WriteEndArray();
        DensitiesOf(json, rule.Densities);
        NumberIf(json, "files", rule.Files);
        if (rule.Files is null)
        {
            json.WriteNumber("waste", rule.Waste ?? ResponsiveRule.UsualWaste);
        }

        json.WriteEndObject();
    }

    private static void LimitsOf(Utf8JsonWriter json, Limits limits)
    {
        if (limits == Limits.None)
        {
            return;
        }

        json.WriteStartObject("limits");
        NumberIf(json, "maxBytes", limits.MaxBytes?.Bytes);
        NumberIf(json, "maxWidth", limits.MaxWidth);
        NumberIf(json, "maxHeight", limits.MaxHeight);
        NumberIf(json, "minWidth", limits.MinWidth);
        NumberIf(json, "minHeight", limits.MinHeight);
        json.WriteEndObject();
    }

    private static void AimsOf(Utf8JsonWriter json, Aims aims)
    {
        if (aims == Aims.None)
        {
            return;
        }

        json.WriteStartObject("aims");
        if (aims.Band is { } band)
        {
            json.WriteStartArray("bytes");
            json.WriteNumberValue(band.Least.Bytes);
            json.WriteNumberValue(band.Most.Bytes);
            json.WriteEndArray();
        }

        if (aims.Quality is { } quality)
        {
            json.WriteStartArray("quality");
            json.WriteNumberValue(quality.Floor);
            json.WriteNumberValue(quality.Ceiling);
            json.WriteEndArray();
        }

        NumberIf(json, "likeness", aims.Likeness);
        FlagIf(json, "belowFloor", aims.BelowFloor);
        json.WriteEndObject();
    }

    internal static void AreaOf(Utf8JsonWriter json, string key, Frame area)
    {
        json.WriteStartArray(key);
        foreach (var edge in (ReadOnlySpan<double>)[area.Left, area.Top, area.Right, area.Bottom])
        {
            json.WriteNumberValue(edge);
        }

        json.WriteEndArray();
    }

    internal static void NumberIf(Utf8JsonWriter json, string key, double? value)
    {
        if (value is { } number)
        {
            json.WriteNumber(key, number);
        }
    }

    internal static void TextIf(Utf8JsonWriter json, string key, string? value)
    {
        if (value is { } text)
        {
            json.WriteString(key, text);
        }
    }

    internal static void FlagIf(Utf8JsonWriter json, string key, bool value)
    {
        if (value)
        {
            json.WriteBoolean(key, true);
        }
    }

    internal static void WordUnless<T>(Utf8JsonWriter json, string key, T value, T usual)
        where T : struct, Enum
    {
        if (!value.Equals(usual))
        {
            json.WriteString(key, Word(value));
        }
    }

    private static string Word<T>(T value)
        where T : struct, Enum => JsonNamingPolicy.CamelCase.ConvertName(value.ToString());
}
