using Pantomet.Application.Destinations;
using Pantomet.Application.Jobs;
using Pantomet.Application.Pictures;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Naming;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Data.Pages;
using Pantomet.PageChecks.Rewriting;

namespace Pantomet.PageChecks;

/// <summary>
/// Makes a job of a measured page: its pictures come into the library, a destination gets a slot for each kind of place, and every picture
/// goes where the page shows it, in the frame in which it does.
/// </summary>
public sealed class PageJob(
    PageCheckStore store,
    PictureIntake intake,
    Writer writer,
    OpenJobs jobs,
    JobLayout layout,
    JobRoom room,
    PageRewriteStore mends
)
{
    private const int LongestName = 60;

    /// <summary>Makes it; a sentence when it cannot be made.</summary>
    public async Task<(Guid? Id, string? Fault)> MakeAsync(PageCheckRow row, CancellationToken cancel)
    {
        if (await store.ReportAsync(row, cancel) is not { } report)
        {
            return (null, PageTexts.ThePageIsNotMeasuredYet);
        }

        var name = row.Name.Length > LongestName ? row.Name[..LongestName].Trim() : row.Name;
        var (key, made) = ("", (PageDestination?)null);
        var changed = await RuleStore.ChangeAsync(
            writer,
            jobs,
            book =>
            {
                key = RuleStore.FreeKey(Slug.From(name) is { Length: > 0 } slug ? slug : "page", book);
                made = PageDestination.Of(report, key, $"Page: {name}");
                return made is null ? RulesChange.Refused("no-place", PageTexts.ThePageShowsNoPictureFor)
                    : RulesReader.TryRead(made.Json, out var one, out var fault)
                        ? new(book with { Destinations = [.. book.Destinations, .. one!.Destinations] }, null, null)
                    : RulesChange.Refused(RuleStore.BadRules, fault!.ToString());
            },
            cancel
        );
        if (changed.Refusal is { } refusal)
        {
            return (null, refusal);
        }

        await layout.LayOutAsync(CancellationToken.None);
        var (pictures, refused) = await ReadInAsync(row, report, made!, cancel);
        var (id, command) = await room.CreateAsync(name, [.. Commands(key, made!, pictures)], cancel);
        if (command is not null)
        {
            return (null, command.Fault.Sentence);
        }

        await mends.RememberAsync(id, row.Id, [.. Standings(key, report, made!, pictures)]);
        return (id, pictures.Count == 0 ? refused : null);
    }

    // What stands where on the page, for the day on which the page gets the files.
    private static IEnumerable<PageStanding> Standings(
        string destination,
        PageReport report,
        PageDestination made,
        Dictionary<int, Guid> pictures
    ) =>
        made
            .Placed.Where(one => pictures.ContainsKey(one.Image))
            .GroupBy(one => (report.Images[one.Image].Where, report.Images[one.Image].Kind))
            .Select(same =>
            {
                var (placed, image) = (same.First(), report.Images[same.First().Image]);
                var faults = report
                    .Images.Where(one => (one.Where, one.Kind) == same.Key)
                    .SelectMany(one => one.Faults)
                    .Select(fault => fault.Code)
                    .ToHashSet();
                return new PageStanding(
                    pictures[placed.Image],
                    destination,
                    placed.Place,
                    image.Where,
                    image.Kind,
                    image.Address,
                    same.Any(one => one.Frame is not null),
                    [.. faults]
                );
            });

    // The pictures by their place in the report; one file that stands in several places is one picture.
    private async Task<(Dictionary<int, Guid> Pictures, string? Refused)> ReadInAsync(
        PageCheckRow row,
        PageReport report,
        PageDestination made,
        CancellationToken cancel
    )
    {
        var (pictures, refused) = (new Dictionary<int, Guid>(), (string?)null);
        foreach (var image in made.Placed.Select(placed => placed.Image).Distinct())
        {
            var told = report.Images[image];
            await using var file = File.OpenRead(Path.Combine(store.CheckOf(row.Id), told.Path!));
            var result = await intake.TakeAsync(NameOf(told), file, file.Length, cancel);
            if (result.Row is { } kept)
            {
                pictures[image] = kept.Id;
            }
            else
            {
                refused = result.Refusal;
            }
        }

        return (pictures, refused);
    }

    private static IEnumerable<JobCommand> Commands(string destination, PageDestination made, Dictionary<int, Guid> pictures)
    {
        var placed = made
            .Placed.Where(one => pictures.ContainsKey(one.Image))
            .Select(one => (Picture: pictures[one.Image], Slot: $"{destination}/{one.Slot}", one.Frame))
            .ToList();
        List<string> slots = [.. placed.Select(one => one.Slot).Distinct()];
        List<Guid> all = [.. placed.Select(one => one.Picture).Distinct()];
        yield return new AddSlots(slots);
        yield return new AddPictures(all);
        // What was decided about them in other jobs is not how the page shows them.
        foreach (var picture in all)
        {
            yield return new Forget(picture);
        }

        foreach (var one in placed.Where(one => one.Frame is not null))
        {
            yield return new SetFrame(one.Picture, one.Frame, one.Slot);
        }

        foreach (var picture in all)
        {
            foreach (var slot in slots.Except(placed.Where(one => one.Picture == picture).Select(one => one.Slot)))
            {
                yield return new SkipCell(picture, slot, true);
            }
        }
    }

    // The last part of its address, as long as that is a file's name.
    private static string NameOf(ReportedImage image)
    {
        var path = image.Address.StartsWith("data:", StringComparison.Ordinal) ? "" : image.Address.Split('?', '#')[0];
        var name = path[(path.LastIndexOf('/') + 1)..];
        return name.Length is > 0 and < 200 ? name : $"picture.{image.Format}";
    }
}
