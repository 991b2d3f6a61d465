using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Markup;
using Pantomet.Core.Planning;
using Pantomet.Core.Reports;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;

namespace Pantomet.Application.Pages;

/// <summary>One file that was made, as far as markup is concerned.</summary>
/// <param name="Plan">What was planned.</param>
/// <param name="Path">Where it lies, from the place where addresses begin.</param>
/// <param name="Size">Its pixel size.</param>
/// <param name="Format">Its type.</param>
/// <param name="Bytes">Its weight.</param>
/// <param name="Content">Its bytes; null where they are not at hand and the file is given by its address.</param>
public sealed record PageFile(VariantPlan Plan, string Path, PixelSize Size, PictureFormat Format, long Bytes, byte[]? Content = null)
{
    /// <summary>True when a slot wants the file as data.</summary>
    public static bool IsInline(Slot slot, long bytes)
    {
        ArgumentNullException.ThrowIfNull(slot);
        return bytes <= slot.Inline?.Bytes;
    }
}

/// <summary>A slot with the files that were made of one picture for it.</summary>
/// <param name="Slot">The slot.</param>
/// <param name="Files">The files.</param>
public sealed record PageSlot(Slot Slot, IReadOnlyList<PageFile> Files);

/// <summary>The slots that are one picture on the page.</summary>
/// <param name="Destination">The destination's key.</param>
/// <param name="Key">The group's name, or the key of a slot of its own.</param>
/// <param name="Slots">The slots in their order.</param>
public sealed record PagePlace(string Destination, string Key, IReadOnlyList<Slot> Slots)
{
    /// <summary>Every place of a destination, in the order of its slots.</summary>
    public static IReadOnlyList<PagePlace> Of(Destination destination)
    {
        ArgumentNullException.ThrowIfNull(destination);
        return Of(destination.Key, destination.Slots);
    }

    /// <summary>The places that some slots of a destination come to.</summary>
    public static IReadOnlyList<PagePlace> Of(string destination, IReadOnlyList<Slot> slots)
    {
        ArgumentNullException.ThrowIfNull(slots);
        return [.. slots.GroupBy(slot => slot.Group ?? slot.Key).Select(same => new PagePlace(destination, same.Key, [.. same]))];
    }

    /// <summary>True for slots of a group.</summary>
    public bool IsGroup => Slots[0].Group is not null;
}

/// <summary>Puts the files of one picture together for a page.</summary>
public static class PageMarkup
{
    /// <summary>The picture as its place shows it; null where no file was made for the slot that is shown when no other is.</summary>
    /// <param name="place">The place.</param>
    /// <param name="words">What its rule is named after.</param>
    /// <param name="slots">The slots with their files.</param>
    /// <param name="alternative">What the picture shows; empty for a decorative picture, null where nobody said it.</param>
    /// <param name="address">Gives the address of a path.</param>
    public static MarkupPicture? Of(
        PagePlace place,
        string words,
        IReadOnlyList<PageSlot> slots,
        string? alternative,
        Func<string, string> address
    )
    {
        ArgumentNullException.ThrowIfNull(place);
        ArgumentNullException.ThrowIfNull(slots);
        ArgumentNullException.ThrowIfNull(address);
        var made = slots.Where(slot => slot.Files.Count > 0).ToList();
        return made.Count > 0 && ReferenceEquals(made[^1].Slot, place.Slots[^1])
            ? new($"{words}-{place.Key}", [.. made.Select(slot => Slot(slot, address))], alternative)
            : null;
    }

    /// <summary>What is to be said about the markup of a picture.</summary>
    /// <param name="place">The place.</param>
    /// <param name="slots">The slots with their files.</param>
    /// <param name="alternative">What the picture shows.</param>
    public static IReadOnlyList<Reason> Reasons(PagePlace place, IReadOnlyList<PageSlot> slots, string? alternative)
    {
        ArgumentNullException.ThrowIfNull(place);
        ArgumentNullException.ThrowIfNull(slots);
        var reasons = new List<Reason>();
        foreach (var slot in slots.Where(slot => slot.Files.Count == 0))
        {
            reasons.Add(
                new(
                    ReasonCodes.NoFile,
                    ReferenceEquals(slot.Slot, place.Slots[^1])
                        ? JobTexts.NoFileWasMadeForThere(slot.Slot.Name)
                        : JobTexts.NoFileWasMadeForThe(slot.Slot.Name)
                )
            );
        }

        if (alternative is null)
        {
            reasons.Add(new(ReasonCodes.NoAlternative, JobTexts.ThePictureHasNoAlternativeText));
        }

        return reasons;
    }

    /// <summary>The same as it stands in a report.</summary>
    public static ReportedMarkup Report(string source, PagePlace place, MarkupPicture? picture, IReadOnlyList<Reason> reasons)
    {
        ArgumentNullException.ThrowIfNull(place);
        return new()
        {
            Source = source,
            Destination = place.Destination,
            Group = place.Key,
            Slot = place.IsGroup ? null : place.Key,
            Html = picture is null ? null : HtmlWriter.Page(picture),
            Css = picture is null ? null : CssWriter.Background(picture),
            Mail = picture is null ? null : HtmlWriter.Mail(picture),
            Placeholder = picture?.Placeholder,
            Colour = picture?.Edge?.ToString(),
            Reasons = reasons,
        };
    }

    private static MarkupSlot Slot(PageSlot slot, Func<string, string> address) =>
        new(
            slot.Slot,
            Asked(slot),
            [
                .. slot.Files.Select(file => new MarkupFile(
                    file.Plan.Descriptor,
                    file.Size,
                    file.Format,
                    file.Bytes,
                    file.Content is { } content && PageFile.IsInline(slot.Slot, file.Bytes)
                        ? $"data:{file.Format.MediaType()};base64,{Convert.ToBase64String(content)}"
                        : address(file.Path)
                )),
            ]
        );

    // What the slot asks for at density 1, told from what it asks for at the densities that were planned.
    private static PixelSize Asked(PageSlot slot)
    {
        var plan = slot.Files[0].Plan;
        if (slot.Slot.Responsive is { } rule)
        {
            var width = Math.Max(1, rule.WidestShown);
            return new(width, Ratio.Of(plan.Size).HeightFor(width));
        }

        var density = plan.Descriptor.Density?.Value ?? 1;
        return new(Rounding.ToPixels(plan.Asked.Width / density), Rounding.ToPixels(plan.Asked.Height / density));
    }
}
