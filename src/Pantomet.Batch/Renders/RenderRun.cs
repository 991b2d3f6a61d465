using System.Diagnostics;
using System.Security.Cryptography;
using Pantomet.Application.Engine;
using Pantomet.Application.Pages;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Marks;
using Pantomet.Core.Naming;
using Pantomet.Core.Reports;
using Pantomet.Core.Rules;
using Pantomet.Core.Sharing;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Imaging.Hosting;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Reading;
using Pantomet.Platform;

namespace Pantomet.Batch.Renders;

/// <summary>
/// One run over files that lie on the disk, by a rules file, without a job. Pictures are worked on side by side, in this process; names are
/// given and files written in the order of the call.
/// </summary>
/// <param name="book">The rules.</param>
/// <param name="marks">What a person said about the pictures, by path or by file name.</param>
/// <param name="output">The folder for the files; made if missing.</param>
/// <param name="jobs">How many pictures, and how many files, are worked on at once.</param>
/// <param name="files">The pictures.</param>
/// <param name="markupBase">How the addresses in the markup begin; null for a report without markup.</param>
/// <param name="share">The share of the pictures that is made; null for all.</param>
public sealed class RenderRun(
    RuleBook book,
    IReadOnlyDictionary<string, PictureMarks> marks,
    string output,
    int jobs,
    IReadOnlyList<string> files,
    string? markupBase = null,
    Share? share = null
)
{
    private readonly UniqueNames _names = new();

    // The place in the report of the whole, entry by entry.
    private readonly List<int> _sourcePlaces = [];
    private readonly List<int> _variantPlaces = [];
    private readonly List<int> _markupPlaces = [];

    // What was refused once is not tried again for a pair: a drawing could take without end.
    private readonly HashSet<string> _unreadable = [];
    private FolderHandle? _folder;
    private readonly HashSet<string> _sources = [.. files.Select(Path.GetFullPath)];
    private readonly List<Place> _places =
    [
        .. book.Destinations.SelectMany(destination =>
            destination.Slots.Where(slot => slot.Pair is null).Select(slot => new Place(destination, slot))
        ),
    ];

    /// <summary>Makes everything that can be made.</summary>
    /// <exception cref="IOException">The folder cannot be written.</exception>
    public async Task<RenderReport> ExecuteAsync(CancellationToken cancel)
    {
        var clock = Stopwatch.StartNew();
        // What the name leads to now is what is written to, whatever stands there later.
        using var held = FolderHandle.OpenNamed(output, create: true);
        _folder = held;
        var sources = new List<ReportedSource>();
        var variants = new List<ReportedVariant>();
        var markup = new List<ReportedMarkup>();
        var room = new WorkRoom(jobs);
        await using var processes = new ImagingProcessPool(new() { Data = "", Workers = jobs });
        // A picture's files wait in memory until those before it are written, so only a few pictures are under way at once.
        var under = new Queue<(int Place, Task<MadePicture> Work)>();
        var mine = Enumerable.Range(0, files.Count).Where(place => IsMine(WordsOf(files[place]))).ToList();
        var next = 0;
        while (under.Count > 0 || next < mine.Count)
        {
            while (under.Count < jobs && next < mine.Count)
            {
                var at = mine[next++];
                under.Enqueue((at, PictureAsync(files[at], room, processes, cancel)));
            }

            var (place, work) = under.Dequeue();
            var name = files[place];
            var picture = await work;
            sources.Add(SourceOf(name, picture));
            _sourcePlaces.Add(place);
            if (picture.Facts is null)
            {
                _unreadable.Add(name);
            }

            var delivered = new List<IReadOnlyList<PageFile>>();
            for (var i = 0; i < picture.Made.Count; i++)
            {
                var told = picture.Made[i].Select(made => (Made: made, Told: Deliver(name, _places[i], made))).ToList();
                variants.AddRange(told.Select(one => one.Told));
                _variantPlaces.AddRange(told.Select(_ => place));
                delivered.Add([.. told.Where(one => one.Told.File is not null).Select(one => FileOf(one.Made, one.Told))]);
            }

            if (markupBase is not null && picture.Facts is not null)
            {
                var entries = await room.RunAsync(() => MarkupOf(name, delivered), cancel);
                markup.AddRange(entries);
                _markupPlaces.AddRange(entries.Select(_ => place));
            }
        }

        await PairsAsync(room, processes, variants, cancel);
        return RenderReport.Of(sources, variants, clock.Elapsed) with
        {
            Markup = markupBase is null ? null : markup,
            Share = share is null ? null : new(share.Number, share.Of, _sourcePlaces, _variantPlaces, _markupPlaces),
        };
    }

    /// <summary>The first slot whose files of different pictures can have one name, so that shares cannot name them; null when there is none.</summary>
    public static string? NotToShare(RuleBook book)
    {
        ArgumentNullException.ThrowIfNull(book);
        return book
            .Destinations.SelectMany(destination => destination.Slots.Select(slot => (destination, slot)))
            .Where(one =>
                !one.slot.NamePattern.Text.Contains("{picture}", StringComparison.Ordinal)
                && !one.slot.NamePattern.Text.Contains("{hash}", StringComparison.Ordinal)
            )
            .Select(one => $"{one.destination.Key}/{one.slot.Key}")
            .FirstOrDefault();
    }

    private bool IsMine(string words) => share?.Has(Share.KeyOf(words)) != false;

    /// <summary>True when a limit was broken or a file could not be read.</summary>
    public static bool Broke(RenderReport report)
    {
        ArgumentNullException.ThrowIfNull(report);
        return report.Sources.Any(source => source.Error is not null) || report.Variants.Any(variant => variant.Verdict == Verdict.Breaks);
    }

    private async Task<MadePicture> PictureAsync(string file, WorkRoom room, ImagingProcessPool processes, CancellationToken cancel)
    {
        // What draws cannot be stopped on the way: a drawing is tried in a process that can be ended.
        if (
            PictureReader.IsDrawing(file)
            && (await processes.RunAsync(new ReadRequest(Path.GetFullPath(file)), cancel)).Refusal is { } refusal
        )
        {
            return new(null, refusal, []);
        }

        var mark = MarksOf(file);
        var wanted = _places
            .Select(place => new Wanted(place.Slot.For(mark.Title), mark.FramingFor(place.Destination.Key, place.Slot.Key)))
            .ToList();
        return await PictureMaker.MakeAsync(file, mark.Keep, mark.Focus, wanted, room, cancel);
    }

    // Pictures that stand side by side, in the order of the call: the first ones are the first pair.
    private async Task PairsAsync(WorkRoom room, ImagingProcessPool processes, List<ReportedVariant> variants, CancellationToken cancel)
    {
        // They stand behind all pictures.
        var at = files.Count;
        foreach (var (destination, slot) in book.Destinations.SelectMany(one => one.Slots.Select(slot => (one, slot))))
        {
            if (slot.Pair is not { } rule)
            {
                continue;
            }

            foreach (var chunk in files.Chunk(rule.Count))
            {
                at++;
                if (!IsMine(string.Join(' ', chunk.Select(WordsOf))))
                {
                    continue;
                }

                await TryDrawingsAsync(chunk, processes, cancel);
                var dressed = slot.For(chunk.Select(file => MarksOf(file).Title).FirstOrDefault(title => title is not null));
                var place = new Place(destination, dressed);
                var lacks = "";
                if (chunk.Length < rule.Count)
                {
                    lacks = JobTexts.ThisSlotCombinesPicturesButLeft(rule.Count, chunk.Length, (chunk.Length == 1 ? "is" : "are"));
                }
                else if (Array.Find(chunk, _unreadable.Contains) is { } refused)
                {
                    lacks = Missing(refused);
                }
                else
                {
                    var pair = await PairMaker.MakeAsync([.. chunk.Select(file => PairedOf(file, place))], dressed, room, cancel);
                    variants.AddRange(pair.Made.Select(made => Deliver(chunk[0], place, made, chunk)));
                    lacks = pair.Unreadable is { } missing ? Missing(chunk[missing]) : "";
                }

                if (lacks.Length > 0)
                {
                    variants.Add(Lacking(chunk, place, lacks));
                }

                while (_variantPlaces.Count < variants.Count)
                {
                    _variantPlaces.Add(at);
                }
            }
        }
    }

    // A picture of another share was not looked at here.
    private async Task TryDrawingsAsync(string[] chunk, ImagingProcessPool processes, CancellationToken cancel)
    {
        foreach (var file in chunk.Where(file => PictureReader.IsDrawing(file) && !IsMine(WordsOf(file))))
        {
            if ((await processes.RunAsync(new ReadRequest(Path.GetFullPath(file)), cancel)).Refusal is not null)
            {
                _unreadable.Add(file);
            }
        }
    }

    private static string Missing(string file) => JobTexts.CannotBeReadTheCombinedPicture(file);

    private PairedPicture PairedOf(string file, Place place)
    {
        var mark = MarksOf(file);
        return new(file, mark.Keep, mark.Focus, mark.FramingFor(place.Destination.Key, place.Slot.Key));
    }

    private static ReportedVariant Lacking(string[] sources, Place place, string lacks) =>
        ReportedVariant.Of(
            sources[0],
            place.Destination.Key,
            place.Slot.Key,
            place.Slot.Descriptors[0],
            default,
            null,
            0,
            Verdict.Breaks,
            [new(ReasonCodes.PairPart, lacks)]
        ) with
        {
            Frame = null,
            Parts = [.. sources.Select(source => new ReportedPart(source, null, null))],
        };

    private ReportedSource SourceOf(string file, MadePicture picture) =>
        picture.Facts is { } facts
            ? ReportedSource.Of(file, facts) with
            {
                Alternative = MarksOf(file).Alternative,
            }
            : new() { File = file, Error = picture.Refusal };

    private static PageFile FileOf(MadeVariant made, ReportedVariant told) =>
        new(made.Plan, told.File!, made.Size, made.Format!.Value, made.File!.LongLength, made.File);

    // How a page shows the files of one picture, in each place of the rules.
    private List<ReportedMarkup> MarkupOf(string source, List<IReadOnlyList<PageFile>> delivered)
    {
        var alternative = MarksOf(source).Alternative;
        var bySlot = new Dictionary<Slot, IReadOnlyList<PageFile>>(ReferenceEqualityComparer.Instance);
        for (var i = 0; i < _places.Count; i++)
        {
            bySlot[_places[i].Slot] = delivered[i];
        }

        var all = new List<ReportedMarkup>();
        foreach (var place in book.Destinations.SelectMany(PagePlace.Of).Where(place => place.Slots.All(slot => bySlot.ContainsKey(slot))))
        {
            List<PageSlot> slots = [.. place.Slots.Select(slot => new PageSlot(slot, bySlot[slot]))];
            var picture = PageMarkup.Of(place, Slug.From(WordsOf(source)), slots, alternative, path => markupBase + path);
            if (picture is not null)
            {
                var placeholder = Placeholder.Of(slots[^1].Files.MinBy(file => file.Bytes)!.Content!);
                picture = picture with { Placeholder = placeholder.Data, Edge = placeholder.Edge };
            }

            all.Add(PageMarkup.Report(source, place, picture, PageMarkup.Reasons(place, slots, alternative)));
        }

        return all;
    }

    private string WordsOf(string source) => MarksOf(source).Name ?? Path.GetFileNameWithoutExtension(source);

    private PictureMarks MarksOf(string file) =>
        marks.GetValueOrDefault(file) ?? marks.GetValueOrDefault(Path.GetFileName(file)) ?? PictureMarks.None;

    // What breaks a limit is told, and not written.
    private ReportedVariant Deliver(string source, Place place, MadeVariant made, string[]? pair = null)
    {
        var words = string.Join(' ', (pair ?? [source]).Select(WordsOf));
        var delivered = made.File is not null && made.Verdict is Verdict.Meets or Verdict.Concedes ? Write(words, place, made) : null;
        return ReportedVariant.Of(
            source,
            place.Destination.Key,
            place.Slot.Key,
            made.Plan.Descriptor,
            made.Plan.Crop,
            delivered,
            made.Encodes,
            made.Verdict,
            made.Reasons
        ) with
        {
            Trials = made.Trials,
            Parts = pair is null ? null : [.. pair.Zip(made.Plan.Parts!, ReportedPart.Of)],
        };
    }

    private ReportedFile Write(string words, Place place, MadeVariant made)
    {
        var name = NameFor(words, place, made);
        using var to = _folder!.Place(name, create: true);
        var part = PartFile.For(to.Path);
        File.WriteAllBytes(part, made.File!);
        to.MustBeStillThere();
        File.Move(part, to.Path, overwrite: true);
        return new(
            name,
            made.Size,
            made.Format!.Value,
            made.File!.LongLength,
            made.Quality,
            made.Likeness?.Score,
            made.Likeness?.WorstTile,
            made.Dressed
        );
    }

    private string NameFor(string words, Place place, MadeVariant made)
    {
        var stem = place.Slot.NamePattern.Fill(
            new(
                words,
                place.Destination.Key,
                place.Slot.Key,
                made.Plan.Descriptor,
                made.Size,
                place.Slot.Size.Shape,
                Convert.ToHexStringLower(SHA256.HashData(made.File!))
            )
        );
        string name;
        do
        {
            name = _names.Take(place.Destination.Key, stem, made.Format!.Value.Ending());
        } while (_sources.Contains(Path.GetFullPath(Path.Combine(output, name))));

        return name;
    }

    private sealed record Place(Destination Destination, Slot Slot);
}
