using System.Diagnostics;
using System.Globalization;
using Pantomet.Application.Pages;
using Pantomet.Core.Geometry;
using Pantomet.Core.Marks;
using Pantomet.Core.Markup;
using Pantomet.Core.Naming;
using Pantomet.Core.Reports;
using Pantomet.Core.Rules;
using Pantomet.Core.Sharing;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Platform;

namespace Pantomet.Batch.Sites;

/// <summary>What came of building a site.</summary>
/// <param name="Report">The report.</param>
/// <param name="Made">How many files of pictures were made; all others stood already.</param>
/// <param name="Copied">How many other files were copied.</param>
/// <param name="NotCopied">Files that could not be, a sentence each.</param>
public sealed record SiteOutcome(RenderReport Report, int Made, int Copied, IReadOnlyList<string> NotCopied)
{
    /// <summary>True when a limit was broken, a file could not be read or an image kept its tag.</summary>
    public bool Broke => NotCopied.Count > 0 || Renders.RenderRun.Broke(Report) || Report.Pages!.Any(page => page.Faults.Count > 0);
}

/// <summary>
/// Copies a built site and gives each image that names its place the markup and the files of that place. Everything else of a page stays
/// as it is, byte for byte.
/// </summary>
/// <param name="book">The rules.</param>
/// <param name="marks">What a person said about the pictures, by path from the site's root or by file name.</param>
/// <param name="input">The site's folder; never written to.</param>
/// <param name="output">The folder for the copy; made if missing.</param>
/// <param name="address">How addresses of pictures begin; empty for addresses relative to the page.</param>
/// <param name="jobs">How many pictures, and how many files, are worked on at once.</param>
/// <param name="time">Tells the time; the machine's where nothing is given.</param>
/// <param name="share">
/// The share of the pictures that is made; pages and all other files are left to a run of the whole, which finds the pictures made. Null for all.
/// </param>
public sealed class SiteRun(
    RuleBook book,
    IReadOnlyDictionary<string, PictureMarks> marks,
    string input,
    string output,
    string address,
    int jobs,
    TimeProvider? time = null,
    Share? share = null
) : IDisposable
{
    /// <summary>For how long a picture stays in the copy that no page shows any more: older pages may lie in visitors' caches.</summary>
    public static readonly TimeSpan KeepUnused = TimeSpan.FromDays(7);

    /// <summary>The folder of the pictures that are made, in the root of the copy.</summary>
    public const string PicturesFolder = "_pictures";

    private const string StateFile = ".known.json";

    private readonly SiteFolder _site = new(input);
    private readonly string _pictures = Path.Combine(output, PicturesFolder);
    private readonly Dictionary<string, PagePlace> _places = book
        .Destinations.SelectMany(PagePlace.Of)
        .ToDictionary(place => $"{place.Destination}/{place.Key}", StringComparer.Ordinal);

    /// <summary>What is wrong with the two folders; null when nothing is.</summary>
    public static string? Fault(string input, string output)
    {
        var (from, to) = (Path.GetFullPath(input), Path.GetFullPath(output));
        return !Directory.Exists(from) ? PageTexts.InIsNotAFolder(input)
            : File.Exists(to) ? PageTexts.OutIsAFileNotA(output)
            : RealPath.IsInside(to, from) || RealPath.IsInside(from, to) ? PageTexts.InAndOutMustNotBe
            : null;
    }

    /// <inheritdoc/>
    public void Dispose() => _site.Dispose();

    /// <summary>Builds the site.</summary>
    /// <exception cref="IOException">A folder cannot be read or written.</exception>
    public async Task<SiteOutcome> ExecuteAsync(CancellationToken cancel)
    {
        var clock = Stopwatch.StartNew();
        using var target = FolderHandle.OpenNamed(output, create: true);
        if (share is null)
        {
            // What another share is writing is not left behind.
            PartFile.Sweep(target);
        }

        var copy = new SiteCopy(_site, target);
        var files = _site.Files();
        var pages = new List<Page>();
        var plain = new List<string>();
        foreach (var path in files)
        {
            if (SiteFolder.IsPage(path) && Read(path) is { } page)
            {
                pages.Add(page);
            }
            else
            {
                plain.Add(path);
            }
        }

        var state = Path.Combine(_pictures, share is null ? StateFile : StateOf(share));
        var before = SiteState.Load(Path.Combine(_pictures, StateFile)).With(ShareStates().Select(SiteState.Load));
        var pictures = new SitePictures(_site, _pictures, before, marks, jobs, known => known.Save(state));
        var wanted = Wanted(pages);
        var made = await pictures.MakeAsync(SlotsOf(wanted.Where(picture => share?.Has(picture.Key) != false)), cancel);
        if (share is not null)
        {
            pictures.Known.Save(state);
            return new(Report([], made, pictures, wanted, clock.Elapsed), pictures.Made, 0, []);
        }

        var notCopied = new List<string>();
        var copied = plain.Count(path => Copied(copy, path, notCopied));
        foreach (var page in pages)
        {
            Write(copy, page, made, pictures);
        }

        if (made.Count > 0 || before.Files.Count > 0)
        {
            var after = pictures.After((time ?? TimeProvider.System).GetUtcNow().UtcDateTime, KeepUnused) with
            {
                Site = _site.Root,
                Copies = files,
            };
            after.Save(state);
            copy.Tidy(before, after);
            // What shares knew is known now.
            ShareStates().ToList().ForEach(File.Delete);
        }

        return new(Report(pages, made, pictures, wanted, clock.Elapsed), pictures.Made, copied, notCopied);
    }

    private static string StateOf(Share share) => $".known-{share.Number}-of-{share.Of}.json";

    private IEnumerable<string> ShareStates() =>
        Directory.Exists(_pictures) ? Directory.EnumerateFiles(_pictures, ".known-*-of-*.json").Order(StringComparer.Ordinal) : [];

    // One that cannot be read is named, and the others are done.
    private static bool Copied(SiteCopy copy, string path, List<string> notCopied)
    {
        try
        {
            return copy.Take(path);
        }
        catch (Exception fault) when (fault is NotRegularException or LinkedPathException or FileNotFoundException)
        {
            notCopied.Add($"{path}: {fault.Message}");
            return false;
        }
    }

    // A page with images that name their place, or one that cannot be read for such; null for all others.
    private Page? Read(string path)
    {
        byte[] bytes;
        try
        {
            using var file = _site.Open(path);
            bytes = file.ReadAll();
        }
        catch (Exception fault) when (fault is NotRegularException or LinkedPathException or FileNotFoundException)
        {
            // It is named where it is to be copied.
            return null;
        }

        var read = SitePage.Read(bytes, out var unreadable);
        if (unreadable is not null)
        {
            var unread = new Page(path, bytes, null);
            unread.Faults.Add(new(null, $"{Sentence(unreadable)}"));
            return unread;
        }

        if (read is null || read.Tags.Count == 0)
        {
            return null;
        }

        var page = new Page(path, bytes, read);
        foreach (var tag in read.Tags)
        {
            if (TargetOf(path, tag, out var target) is { } wrong)
            {
                page.Faults.Add(new(tag.Line, Sentence(wrong)));
            }
            else
            {
                page.Targets[tag] = target!;
            }
        }

        return page;
    }

    private string? TargetOf(string page, SiteTag tag, out Target? target)
    {
        target = null;
        if (!_places.TryGetValue(tag.Place, out var place))
        {
            var group = _places.Values.FirstOrDefault(one => one.Slots.Any(slot => $"{one.Destination}/{slot.Key}" == tag.Place));
            return group is null ? PageTexts.TheRulesHaveNoSlotOr(tag.Place) : PageTexts.IsOneSlotOfAGroup(tag.Place, group.Key);
        }

        if (tag.InPicture)
        {
            return PageTexts.TheImageIsAlreadyInA;
        }

        if (_site.Resolve(page, tag.Source, out var path) is { } fault)
        {
            return fault;
        }

        target = new(path, place);
        return null;
    }

    private static Dictionary<string, List<Target>> Wanted(IEnumerable<Page> pages) =>
        pages
            .SelectMany(page => page.Targets.Values)
            .Distinct()
            .GroupBy(target => target.Picture)
            .ToDictionary(same => same.Key, same => same.ToList());

    private static Dictionary<string, List<(string Destination, Slot Slot)>> SlotsOf(
        IEnumerable<KeyValuePair<string, List<Target>>> wanted
    ) =>
        wanted.ToDictionary(
            picture => picture.Key,
            picture => picture.Value.SelectMany(target => target.Place.Slots.Select(slot => (target.Place.Destination, slot))).ToList()
        );

    private void Write(SiteCopy copy, Page page, IReadOnlyDictionary<string, SitePicture> made, SitePictures pictures)
    {
        var markup = new Dictionary<SiteTag, string>();
        foreach (var (tag, target) in page.Targets)
        {
            var picture = made[target.Picture];
            if (picture.Refusal is { } refusal)
            {
                page.Faults.Add(new(tag.Line, $"\"{target.Picture}\": {refusal}"));
            }
            else if (PictureFor(page.Path, target, picture, pictures) is { } shown)
            {
                markup[tag] = HtmlWriter.Page(shown, Kept(tag, shown), inOneLine: true);
            }
            else
            {
                page.Faults.Add(new(tag.Line, PageTexts.NoFileWasMadeFor(target.Picture, target.Place.Destination, target.Place.Key)));
            }
        }

        page.Replaced = markup.Count;
        var bytes = markup.Count > 0 ? page.Read!.With(markup) : page.Bytes;
        copy.Write(page.Path, bytes);
    }

    // A width or a height that the page gives stands, and the other goes with it; a text from the marks is written so that it means the same
    // in every encoding.
    private static List<HtmlAttribute> Kept(SiteTag tag, MarkupPicture picture)
    {
        var kept = tag.Kept.ToList();
        var shape = Ratio.Of(picture.Slots[^1].Shown);
        switch (PixelsOf(kept, "width"), PixelsOf(kept, "height"))
        {
            case ({ } width, null):
                kept.RemoveAll(one => one.Name == "height");
                kept.Add(HtmlAttribute.Of("height", shape.HeightFor(width).ToString(CultureInfo.InvariantCulture)));
                break;
            case (null, { } height):
                kept.RemoveAll(one => one.Name == "width");
                kept.Add(HtmlAttribute.Of("width", shape.WidthFor(height).ToString(CultureInfo.InvariantCulture)));
                break;
            case (null, null):
                kept.RemoveAll(one => one.Name is "width" or "height");
                break;
            default:
                break;
        }

        if (kept.All(one => one.Name != "alt"))
        {
            kept.Add(new("alt", $"alt=\"{SitePage.Ascii(HtmlWriter.Escaped(picture.Alternative ?? ""))}\""));
        }

        return kept;
    }

    private static int? PixelsOf(List<HtmlAttribute> kept, string name) =>
        kept.FirstOrDefault(one => one.Name == name).Text is { } text
        && int.TryParse(
            text[(text.IndexOf('=', StringComparison.Ordinal) + 1)..].Trim('"', '\''),
            NumberStyles.None,
            CultureInfo.InvariantCulture,
            out var pixels
        )
        && pixels is > 0 and <= Rounding.LongestSide
            ? pixels
            : null;

    private MarkupPicture? PictureFor(string page, Target target, SitePicture picture, SitePictures pictures)
    {
        var slots = target.Place.Slots.Select(slot => new PageSlot(slot, FilesOf(picture, slot))).ToList();
        var mark = pictures.MarksOf(target.Picture);
        var shown = PageMarkup.Of(
            target.Place,
            Slug.From(mark.Name ?? Path.GetFileNameWithoutExtension(target.Picture)),
            slots,
            mark.Alternative,
            name => AddressOf(page, name)
        );
        return shown is not null && picture.Placeholders.TryGetValue(target.Place.Slots[^1], out var placeholder)
            ? shown with
            {
                Placeholder = placeholder.Data,
                Edge = placeholder.Edge,
            }
            : shown;
    }

    private List<PageFile> FilesOf(SitePicture picture, Slot slot) =>
        [
            .. picture
                .Files[slot]
                .Where(file => file.File.Name is not null)
                .Select(file => new PageFile(
                    file.Plan,
                    file.File.Name!,
                    file.File.Size,
                    file.File.Format!.Value,
                    file.File.Bytes,
                    PageFile.IsInline(slot, file.File.Bytes) ? File.ReadAllBytes(Path.Combine(_pictures, file.File.Name!)) : null
                )),
        ];

    // From the page to the folder of pictures, or from where the site will stand.
    private string AddressOf(string page, string name)
    {
        var up = page.Count(character => character == '/');
        var begin = address.Length > 0 ? address : string.Concat(Enumerable.Repeat("../", up));
        return $"{begin}{PicturesFolder}/{name}";
    }

    private RenderReport Report(
        IReadOnlyList<Page> pages,
        IReadOnlyDictionary<string, SitePicture> made,
        SitePictures pictures,
        IReadOnlyDictionary<string, List<Target>> wanted,
        TimeSpan took
    )
    {
        var sources = new List<ReportedSource>();
        var variants = new List<ReportedVariant>();
        var markup = new List<ReportedMarkup>();
        foreach (var (path, picture) in made.OrderBy(pair => pair.Key, StringComparer.Ordinal))
        {
            var mark = pictures.MarksOf(path);
            sources.Add(
                picture.Facts is { } facts
                    ? ReportedSource.Of(path, facts) with
                    {
                        Alternative = mark.Alternative,
                    }
                    : new() { File = path, Error = picture.Refusal }
            );
            if (picture.Facts is null)
            {
                continue;
            }

            foreach (var place in wanted[path].Select(target => target.Place))
            {
                variants.AddRange(place.Slots.SelectMany(slot => picture.Files[slot].Select(file => Variant(path, place, slot, file))));
                var slots = place.Slots.Select(slot => new PageSlot(slot, FilesOf(picture, slot))).ToList();
                markup.Add(
                    PageMarkup.Report(
                        path,
                        place,
                        PictureFor("index.html", new(path, place), picture, pictures),
                        PageMarkup.Reasons(place, slots, mark.Alternative)
                    )
                );
            }
        }

        return RenderReport.Of(sources, variants, took) with
        {
            Markup = markup,
            Pages = [.. pages.Select(page => new ReportedPage(page.Path, page.Replaced, page.Faults))],
        };
    }

    private static ReportedVariant Variant(string path, PagePlace place, Slot slot, SiteFile file) =>
        ReportedVariant.Of(
            path,
            place.Destination,
            slot.Key,
            file.Plan.Descriptor,
            file.Plan.Crop,
            file.File.Name is { } name
                ? new(
                    $"{PicturesFolder}/{name}",
                    file.File.Size,
                    file.File.Format!.Value,
                    file.File.Bytes,
                    file.File.Quality,
                    file.File.Likeness,
                    file.File.Worst,
                    file.File.Dressed
                )
                : null,
            file.File.Encodes,
            file.File.Verdict,
            file.File.Reasons
        );

    private static string Sentence(string text) => $"{char.ToUpperInvariant(text[0])}{text[1..]}.";

    private sealed record Target(string Picture, PagePlace Place);

    private sealed record Page(string Path, byte[] Bytes, SitePage? Read)
    {
        public Dictionary<SiteTag, Target> Targets { get; } = [];

        public List<PageFault> Faults { get; } = [];

        public int Replaced { get; set; }
    }
}
