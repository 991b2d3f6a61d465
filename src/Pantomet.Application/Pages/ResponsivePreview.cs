using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Destinations;
using Pantomet.Application.Jobs;
using Pantomet.Application.Variants;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Markup;
using Pantomet.Core.Responsive;
using Pantomet.Core.Rules;
using Pantomet.Data;

namespace Pantomet.Application.Pages;

/// <summary>Visitors of one kind.</summary>
/// <param name="Viewport">The width of their viewport, in CSS pixels.</param>
/// <param name="Density">The density of their screen.</param>
/// <param name="Share">How many of all they are, in any measure.</param>
public sealed record Visitors(int Viewport, decimal Density, double Share);

/// <summary>Responsive widths that are to be previewed.</summary>
/// <param name="Draft">The slot as it would be; null for the rule as it is.</param>
/// <param name="Viewports">The viewports of the grid.</param>
/// <param name="Densities">The densities of the grid.</param>
/// <param name="Visitors">Who comes.</param>
public sealed record ResponsiveWidthsRequest(
    SlotDraft? Draft,
    IReadOnlyList<int> Viewports,
    IReadOnlyList<decimal> Densities,
    IReadOnlyList<Visitors> Visitors
);

/// <summary>One file of responsive widths, made or not.</summary>
/// <param name="Descriptor">2x or 800w.</param>
/// <param name="Width">Pixels across.</param>
/// <param name="Height">Pixels down.</param>
/// <param name="Bytes">What the file of the first type weighs; null before it is made.</param>
public sealed record WidthFile(string Descriptor, int Width, int Height, long? Bytes);

/// <summary>One slot of a place with its files.</summary>
/// <param name="Slot">Its address.</param>
/// <param name="Name">Its name.</param>
/// <param name="ShownAt">The viewports at which it is shown.</param>
/// <param name="Files">Its files, from the smallest up.</param>
/// <param name="Least">The narrowest that is needed, in pixels; null off a ladder.</param>
/// <param name="Largest">The widest that is needed; null off a ladder.</param>
/// <param name="WorstWaste">The waste of the visitor who wastes most, 0 to 1; null off a ladder.</param>
public sealed record ResponsiveSlot(
    string Slot,
    string Name,
    IReadOnlyList<ViewportSpan> ShownAt,
    IReadOnlyList<WidthFile> Files,
    int? Least,
    int? Largest,
    double? WorstWaste
);

/// <summary>The file that one kind of screen loads.</summary>
/// <param name="Viewport">The width of the viewport, in CSS pixels.</param>
/// <param name="Density">The density of the screen.</param>
/// <param name="Slot">The slot that is shown.</param>
/// <param name="Shown">How wide it is shown, in CSS pixels.</param>
/// <param name="Needed">The pixels that are needed across.</param>
/// <param name="Width">The pixels across of the file that is taken.</param>
/// <param name="Waste">The share of its pixels that are not used, 0 to 1.</param>
/// <param name="Bytes">Its weight; null before it is made.</param>
public sealed record ViewportLoad(
    int Viewport,
    decimal Density,
    string Slot,
    double Shown,
    int Needed,
    int Width,
    double Waste,
    long? Bytes
);

/// <summary>What visitors load of responsive widths.</summary>
/// <param name="Fault">What is wrong with the draft; then nothing else is said.</param>
/// <param name="Slots">The slots of the place.</param>
/// <param name="Grid">What each pair of viewport and density loads, viewport by viewport.</param>
/// <param name="Visitors">What each kind of visitor loads, in their order.</param>
/// <param name="Typical">What a typical visitor loads, in bytes; null while a file that somebody takes is not made.</param>
/// <param name="OneFile">What everybody would load were there only the widest file; null before it is made.</param>
public sealed record ResponsiveView(
    PlacedFault? Fault,
    IReadOnlyList<ResponsiveSlot> Slots,
    IReadOnlyList<ViewportLoad> Grid,
    IReadOnlyList<ViewportLoad> Visitors,
    double? Typical,
    long? OneFile
);

/// <summary>Works out what the files of one picture in one place do for those who come.</summary>
/// <param name="db">The database.</param>
public sealed class ResponsivePreview(PantometDb db)
{
    /// <summary>What each screen loads of the files of a cell, with a rule that is tried where one is given.</summary>
    public async Task<ResponsiveView> OfAsync(BoardCell cell, ResponsiveWidthsRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        if (SlotsOf(cell, request.Draft, out var slots) is { } fault)
        {
            return new(fault, [], [], [], null, null);
        }

        var made = new List<Made>();
        foreach (var slot in slots!)
        {
            made.Add(await MadeAsync(cell, slot, cancel));
        }

        var shown = made.Where(one => one.Markup.Files.Count > 0).ToList();
        if (shown.Count == 0)
        {
            return new(null, [.. made.Select(one => View(cell, one))], [], [], null, null);
        }

        var picture = new MarkupPicture("picture", [.. shown.Select(one => one.Markup)], null);
        var weights = made.SelectMany(one => one.Bytes).ToDictionary(pair => pair.Key, pair => pair.Value);
        var visitors = request.Visitors.Select(one => Taken(picture, weights, one.Viewport, one.Density)).ToList();
        var share = request.Visitors.Sum(one => one.Share);
        var widest = shown.SelectMany(one => one.Markup.ByType[0]).MaxBy(file => file.Size.Width)!;
        return new(
            null,
            [.. made.Select(one => View(cell, one))],
            [.. request.Viewports.SelectMany(viewport => request.Densities.Select(density => Taken(picture, weights, viewport, density)))],
            visitors,
            share > 0 && visitors.All(one => one.Bytes is not null)
                ? visitors.Zip(request.Visitors).Sum(pair => pair.First.Bytes!.Value * pair.Second.Share) / share
                : null,
            weights.GetValueOrDefault(widest.Address)
        );
    }

    // The slots of the place as the book has them, with the one as it would be.
    private static PlacedFault? SlotsOf(BoardCell cell, SlotDraft? draft, out IReadOnlyList<Slot>? slots)
    {
        slots = null;
        var all = cell.Slot.Destination.Slots.ToList();
        if (draft is not null)
        {
            if (!draft.TryRead(out var slot, out var fault))
            {
                return new(fault!.Path, fault.Message);
            }

            all[all.FindIndex(one => one.Key == cell.Place.Slot)] = slot! with { Key = cell.Place.Slot };
            // What the others of its group are needed for changes with it.
            if (!RulesReader.TryRead(RulesWriter.Write(new RuleBook([new(cell.Place.Destination, "place", all)])), out var read, out fault))
            {
                return new("", fault!.Message);
            }

            all = [.. read!.Destinations[0].Slots];
        }

        var mine = all.First(one => one.Key == cell.Place.Slot);
        slots = mine.Group is null ? [mine] : [.. all.Where(one => one.Group == mine.Group)];
        return null;
    }

    private async Task<Made> MadeAsync(BoardCell cell, Slot slot, CancellationToken cancel)
    {
        var place = new JobSlot(cell.Place.Destination, slot.Key, cell.Place.Slot == slot.Key ? cell.Place.Choice : null);
        slot = cell.Slot.Files.Now.Named(cell.Mine.Decisions.Dressed(slot, place.Address));
        var plan = cell.PlanOf(slot, place);
        var key = RulesWriter.BytesKey(slot);
        var wanted = plan.Requests.Where(request => request.Plan.IsMade).Select(request => cell.Wanted(slot, key, request)).ToList();
        var ids = wanted.Select(file => file.Id).ToList();
        var rows = await db.Variants.AsNoTracking().Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id, cancel);
        var files = wanted.Select(file =>
        {
            var row = rows.GetValueOrDefault(file.Id);
            return new MarkupFile(
                file.Request.Plan.Descriptor,
                row is null ? file.Request.Plan.Size : new(row.Width, row.Height),
                row?.Format ?? file.Request.Format ?? slot.Formats.DefaultIfEmpty(PictureFormat.Jpeg).First(),
                row?.Bytes ?? 0,
                file.Id
            );
        });
        return new(
            slot,
            new(slot, plan.Asked, [.. files]),
            wanted.Select(file => file.Id).Distinct().ToDictionary(id => id, id => rows.GetValueOrDefault(id)?.Bytes)
        );
    }

    private static ResponsiveSlot View(BoardCell cell, Made made)
    {
        var slot = made.Slot;
        var files = made.Markup.Files.Count == 0 ? [] : made.Markup.ByType[0];
        int[] widths = [.. files.Select(file => file.Size.Width)];
        return new(
            $"{cell.Place.Destination}/{slot.Key}",
            slot.Name,
            [.. slot.ShownAt.Parts.Select(part => new ViewportSpan(part.From, part.To))],
            [
                .. files.Select(file => new WidthFile(
                    file.Descriptor.ToString(),
                    file.Size.Width,
                    file.Size.Height,
                    made.Bytes.GetValueOrDefault(file.Address)
                )),
            ],
            slot.Responsive?.Needs.Least,
            slot.Responsive?.Needs.Largest,
            slot.Responsive is { } rule && widths.Length > 0 ? Ladder.WorstWaste(rule.Needs, widths) : null
        );
    }

    private static ViewportLoad Taken(MarkupPicture picture, Dictionary<string, long?> weights, int viewport, decimal density)
    {
        var taken = Foretold.Of(picture, viewport, new(density));
        return new(
            viewport,
            density,
            taken.Slot.Slot.Key,
            taken.Slot.Slot.Responsive?.Sizes.WidthAt(viewport) ?? taken.Slot.Shown.Width,
            taken.Needed,
            taken.File.Size.Width,
            Ladder.Waste(taken.File.Size.Width, taken.Needed),
            weights.GetValueOrDefault(taken.File.Address)
        );
    }

    private sealed record Made(Slot Slot, MarkupSlot Markup, IReadOnlyDictionary<string, long?> Bytes);
}
