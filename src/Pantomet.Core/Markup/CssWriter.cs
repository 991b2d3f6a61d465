using System.Globalization;
using System.Text;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Responsive;

namespace Pantomet.Core.Markup;

/// <summary>
/// Writes a picture as the background of a place: <c>image-set()</c> for densities and types (CSS Images Level 4, 2.4), media queries for
/// the widths of a ladder and the slots of a group, and behind it the colour that continues its edge.
/// </summary>
public static class CssWriter
{
    private const string BackgroundImage = "background-image";

    /// <summary>The rule.</summary>
    /// <param name="picture">The picture.</param>
    public static string Background(MarkupPicture picture)
    {
        ArgumentNullException.ThrowIfNull(picture);
        var text = new StringBuilder();
        var name = $".{Identifier(picture.Words)}";
        var last = Steps(picture.Slots[^1]);
        text.Append(CultureInfo.InvariantCulture, $"{name} {{\n");
        if (picture.Edge is { } edge)
        {
            text.Append(CultureInfo.InvariantCulture, $"  background-color: {edge};\n");
        }

        text.Append("  background-position: center;\n  background-repeat: no-repeat;\n  background-size: cover;\n");
        Images(text, BackgroundImage, picture.Slots[^1], last[0], "  ");
        text.Append("}\n");
        Conditions(text, name, BackgroundImage, picture, last);
        return text.ToString().TrimEnd('\n');
    }

    /// <summary>
    /// The picture as a custom property that stands where a rule had <c>url()</c>: the cascade, the layers and the measures of the page stay
    /// its own. For browsers that know no choice it is one file.
    /// </summary>
    /// <param name="picture">The picture.</param>
    /// <param name="selector">The elements that have the property; what stands within them inherits it.</param>
    /// <param name="property">Its name, with its two hyphens.</param>
    public static string Property(MarkupPicture picture, string selector, string property)
    {
        ArgumentNullException.ThrowIfNull(picture);
        var text = new StringBuilder();
        var slot = picture.Slots[^1];
        var plain = slot.Plain(slot.ByType[^1]);
        text.Append(CultureInfo.InvariantCulture, $"{selector} {{\n  {property}: url(\"{plain.Address}\");\n}}\n");
        text.Append("@supports (background-image: image-set(url(\"a\") 1x type(\"image/webp\"))) {\n");
        var last = Steps(slot);
        text.Append(CultureInfo.InvariantCulture, $"{selector} {{\n");
        Images(text, property, slot, last[0], "  ");
        text.Append("}\n");
        Conditions(text, selector, property, picture, last);
        return text.Append("}\n").ToString();
    }

    // What comes later wins here, what comes first wins in a group.
    private static void Conditions(StringBuilder text, string selector, string property, MarkupPicture picture, IReadOnlyList<Step> last)
    {
        Narrower(text, selector, property, picture.Slots[^1], last, "");
        foreach (var slot in picture.Slots.SkipLast(1).Reverse())
        {
            var steps = Steps(slot);
            text.Append(CultureInfo.InvariantCulture, $"@media {slot.Slot.Media!.Text} {{\n  {selector} {{\n");
            Images(text, property, slot, steps[0], "    ");
            text.Append("  }\n");
            Narrower(text, selector, property, slot, steps, "  ");
            text.Append("}\n");
        }
    }

    private static void Narrower(
        StringBuilder text,
        string selector,
        string property,
        MarkupSlot slot,
        IReadOnlyList<Step> steps,
        string indent
    )
    {
        foreach (var step in steps.Skip(1))
        {
            text.Append(CultureInfo.InvariantCulture, $"{indent}@media (max-width: {step.To}px) {{\n{indent}  {selector} {{\n");
            Images(text, property, slot, step, indent + "    ");
            text.Append(CultureInfo.InvariantCulture, $"{indent}  }}\n{indent}}}\n");
        }
    }

    private static void Images(StringBuilder text, string property, MarkupSlot slot, Step step, string indent)
    {
        var types = slot.ByType;
        var plain = types[^1].First(file => file.Size.Width == step.Widths[0].Width);
        var alone = types.Count == 1 && step.Widths.Count == 1;
        // For browsers that know no choice; data would be read twice, and of a custom property the last value is taken, known or not.
        if (alone || (property == BackgroundImage && !HtmlWriter.IsData(plain)))
        {
            text.Append(CultureInfo.InvariantCulture, $"{indent}{property}: url(\"{plain.Address}\");\n");
        }

        if (alone)
        {
            return;
        }

        var options = step.Widths.SelectMany(wanted =>
            types.Select(files =>
            {
                var file = files.First(one => one.Size.Width == wanted.Width);
                var type = types.Count > 1 ? $" type(\"{file.Format.MediaType()}\")" : "";
                return string.Create(CultureInfo.InvariantCulture, $"{indent}  url(\"{file.Address}\") {wanted.Density:0.###}x{type}");
            })
        );
        text.Append(CultureInfo.InvariantCulture, $"{indent}{property}: image-set(\n{string.Join(",\n", options)}\n{indent});\n");
    }

    // The files by density, from the widest viewports down: on a ladder they change with the viewport.
    private static List<Step> Steps(MarkupSlot slot)
    {
        var files = slot.ByType[^1];
        if (slot.Slot.Responsive is not { } rule)
        {
            return [new(0, [.. files.Select(file => (slot.DensityOf(file), file.Size.Width))])];
        }

        int[] widths = [.. files.Select(file => file.Size.Width)];
        var steps = new List<Step>();
        var viewports = ViewportRanges.Between(rule.From, rule.To).And(slot.Slot.ShownAt);
        var changes = rule.Densities.SelectMany(density => Ladder.Stretches(rule.Sizes, viewports, density, widths)).Select(one => one.To);
        foreach (var viewport in changes.Distinct().OrderDescending())
        {
            var shown = rule.Sizes.WidthAt(viewport);
            (decimal Density, int Width)[] taken =
            [
                .. rule
                    .Densities.Select(density => (Density: density.Value, Width: Ladder.Taken(widths, Needs.Of(shown, density))))
                    .Reverse()
                    .DistinctBy(one => one.Width)
                    .Reverse(),
            ];
            if (steps.Count == 0 || !steps[^1].Widths.SequenceEqual(taken))
            {
                steps.Add(new(viewport, taken));
            }
        }

        return steps;
    }

    private static string Identifier(string words) => char.IsAsciiLetter(words[0]) ? words : $"picture-{words}";

    private sealed record Step(int To, IReadOnlyList<(decimal Density, int Width)> Widths);
}
