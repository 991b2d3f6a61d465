using Pantomet.Application.Bundles;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Markup;
using Pantomet.Core.Naming;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Data.Variants;

namespace Pantomet.Application.Pages;

/// <summary>One picture of a job in one place of a page.</summary>
/// <param name="Mine">The picture in the job.</param>
/// <param name="Row">The picture in the library.</param>
/// <param name="Place">The slot, or the slots of a group.</param>
/// <param name="Picture">What the page shows; null where there is nothing to show.</param>
/// <param name="Files">The files by slot.</param>
/// <param name="Reasons">What is missing.</param>
public sealed record JobPage(
    JobPicture Mine,
    PictureRow Row,
    PagePlace Place,
    MarkupPicture? Picture,
    IReadOnlyList<PageSlot> Files,
    IReadOnlyList<Reason> Reasons
);

/// <summary>How pages show what goes out of a job.</summary>
public static class JobPages
{
    /// <summary>Every picture of a job in every place that it goes to, in the order of the job.</summary>
    /// <param name="contents">What goes out.</param>
    /// <param name="address">How addresses begin.</param>
    /// <param name="folder">Where files lie that are given as data.</param>
    /// <param name="picture">One picture alone; null for all.</param>
    /// <param name="cancel">Stops.</param>
    public static async Task<IReadOnlyList<JobPage>> OfAsync(
        BundleContents contents,
        string address,
        DataFolder folder,
        Guid? picture,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(contents);
        var going = contents.Going.ToLookup(file => (file.Cell.Picture.Id, file.Cell.Place.Address));
        var places = PlacesOf(contents);
        var pages = new List<JobPage>();
        foreach (var mine in contents.State.Shown.Where(one => picture is null || one.Id == picture))
        {
            foreach (var place in places.Where(place => IsWanted(contents, mine, place)))
            {
                var slots = new List<PageSlot>();
                foreach (var slot in place.Slots)
                {
                    var files = going[(mine.Id, $"{place.Destination}/{slot.Key}")];
                    slots.Add(new(slot, await FilesOfAsync(slot, files, folder, cancel)));
                }

                pages.Add(PageOf(contents, mine, place, slots, going, address));
            }
        }

        return pages;
    }

    /// <summary>The places that the slots of a job come to: of a group all slots that the book has, whether the job has them or not.</summary>
    private static List<PagePlace> PlacesOf(BundleContents contents)
    {
        var state = contents.State;
        var places = new List<PagePlace>();
        foreach (var place in state.Job.Slots.Where(place => state.Slots.ContainsKey(place.Address)))
        {
            var (destination, slot) = (state.Slots[place.Address].Destination, state.Slots[place.Address].Slot);
            var key = slot.Group ?? slot.Key;
            if (places.All(one => one.Destination != place.Destination || one.Key != key))
            {
                IReadOnlyList<Slot> slots = slot.Group is null ? [slot] : [.. destination.Slots.Where(one => one.Group == slot.Group)];
                places.Add(new(place.Destination, key, slots));
            }
        }

        return places;
    }

    // A picture that was left out of every slot of a place does not go there.
    private static bool IsWanted(BundleContents contents, JobPicture mine, PagePlace place) =>
        place.Slots.Any(slot =>
        {
            var address = $"{place.Destination}/{slot.Key}";
            return contents.State.Job.HasSlot(address) && !mine.Decisions.For(address).Skip;
        });

    private static JobPage PageOf(
        BundleContents contents,
        JobPicture mine,
        PagePlace place,
        List<PageSlot> slots,
        ILookup<(Guid Id, string Address), BundleFile> going,
        string address
    )
    {
        var row = contents.State.Rows[mine.Id];
        var words = contents.State.WordsOf(mine) ?? Path.GetFileNameWithoutExtension(row.Name);
        var alternative = mine.Decisions.AlternativeOnPages;
        var picture = PageMarkup.Of(place, Slug.From($"{contents.State.Job.Prefix} {words}"), slots, alternative, path => address + path);
        if (picture is not null)
        {
            // The lightest file shows the same at a glance.
            var last = going[(mine.Id, $"{place.Destination}/{place.Slots[^1].Key}")].MinBy(file => file.File.Row!.Bytes)!.File.Row!;
            picture = picture with { Placeholder = last.Placeholder, Edge = EdgeOf(last) };
        }

        return new(mine, row, place, picture, slots, PageMarkup.Reasons(place, slots, alternative));
    }

    private static async Task<IReadOnlyList<PageFile>> FilesOfAsync(
        Slot slot,
        IEnumerable<BundleFile> files,
        DataFolder folder,
        CancellationToken cancel
    )
    {
        var all = new List<PageFile>();
        foreach (var file in files)
        {
            var row = file.File.Row!;
            all.Add(
                new(
                    file.File.Wanted.Request.Plan,
                    file.Path!,
                    new PixelSize(row.Width, row.Height),
                    row.Format,
                    row.Bytes,
                    PageFile.IsInline(slot, row.Bytes) ? await folder.Variants.ReadWholeAsync(row.ContentHash, cancel) : null
                )
            );
        }

        return all;
    }

    private static Rgb? EdgeOf(VariantRow row) => Rgb.TryParse(row.Edge, out var edge) ? edge : null;
}
