using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Pantomet.Batch.Sites;
using Pantomet.Browsing;
using Pantomet.Core.Css;
using Pantomet.Core.Markup;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Texts;
using Pantomet.PageChecks;

namespace Pantomet.PageChecks.Rewriting;

/// <summary>How a picture of a page is held when the page is mended; what does not fit goes on to the next way.</summary>
internal enum Holding
{
    /// <summary>A choice of types and, for groups, of shapes, its room kept.</summary>
    WithRoom,

    /// <summary>The same without figures for its room.</summary>
    Choice,

    /// <summary>The element alone, which chooses by width or density only.</summary>
    Alone,

    /// <summary>As it was.</summary>
    Left,
}

/// <summary>The texts of a page - its markup and its styles - with the pictures in them, written anew in the way that each is held.</summary>
internal sealed partial class RewrittenText
{
    private readonly PageText _page;
    private readonly string _start;
    private readonly string? _type;
    private readonly Dictionary<string, (string Css, string? Type)> _sheets;
    private readonly IReadOnlyList<PagePlace> _places;
    private readonly PictureTag?[] _tags;
    private readonly Holding[] _holding;
    private readonly string?[] _left;
    private readonly IReadOnlySet<string>[] _addresses;
    private readonly string?[] _shapes;

    private RewrittenText(
        PageText page,
        PageAnswer answer,
        string start,
        Dictionary<string, (string Css, string? Type)> sheets,
        IReadOnlyList<LookedAt> before,
        IReadOnlyList<PagePlace> places
    )
    {
        (_page, _type, _start, _sheets, _places) = (page, answer.Type, start, sheets, places);
        Pictures = new(new Uri(start), MendedNames.Pictures + "/");
        _tags = new PictureTag?[places.Count];
        _holding = new Holding[places.Count];
        _left = new string?[places.Count];
        _addresses = new IReadOnlySet<string>[places.Count];
        _shapes = new string?[places.Count];
        var named = StyledAddresses();
        for (var i = 0; i < places.Count; i++)
        {
            Begin(
                i,
                [.. before.SelectMany(look => look.Images).Where(one => one.Where == places[i].Where && one.Kind == places[i].Kind)],
                named
            );
        }
    }

    /// <summary>The whole address of the folder of new files.</summary>
    public Uri Pictures { get; }

    /// <summary>What could not be done, a sentence each.</summary>
    public IReadOnlyList<string> Notes { get; private init; } = [];

    /// <summary>Reads the texts of a page.</summary>
    /// <param name="source">The page as it was.</param>
    /// <param name="before">The page as it was seen.</param>
    /// <param name="places">Its pictures, with what is to stand instead.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="PageFaultException">It cannot be read.</exception>
    public static async Task<RewrittenText> ReadAsync(
        IPageFiles source,
        IReadOnlyList<LookedAt> before,
        IReadOnlyList<PagePlace> places,
        CancellationToken cancel
    )
    {
        var at = source.Start;
        var answer = await source.GetAsync(at, cancel);
        for (var moves = 0; answer.Moved is { } moved && moves < 10; moves++)
        {
            at = moved;
            answer = await source.GetAsync(at, cancel);
        }

        if (answer.Trouble is { } trouble)
        {
            throw new PageFaultException(trouble);
        }

        if (answer.Body is [0xFE, 0xFF, ..] or [0xFF, 0xFE, ..])
        {
            throw new PageFaultException(PageTexts.ThePageIsUTFWhichIs2);
        }

        if (answer.Body.Length > SitePage.LargestPage)
        {
            throw new PageFaultException(
                PageTexts.ThePagesTextWeighsAndOnly(Core.Figures.Weight(answer.Body.Length), Core.Figures.Weight(SitePage.LargestPage))
            );
        }

        var sheets = new Dictionary<string, (string, string?)>(StringComparer.Ordinal);
        var foreign = new SortedSet<string>(StringComparer.Ordinal);
        foreach (var address in before.SelectMany(look => look.Asked).Distinct().Where(one => one != at.AbsoluteUri))
        {
            var sheet = await source.GetAsync(new(address), cancel);
            if (sheet is { Trouble: null, Moved: null } && IsStyle(sheet.Type))
            {
                if (address.StartsWith(source.Own, StringComparison.Ordinal))
                {
                    sheets[address] = (Encoding.Latin1.GetString(sheet.Body), sheet.Type);
                }
                else
                {
                    foreign.Add(new Uri(address).Authority);
                }
            }
        }

        return new(PageText.Read(answer.Body, at), answer, at.AbsoluteUri, sheets, before, places)
        {
            Notes = [.. foreign.Select(host => PageTexts.TheStylesFromDoNotBelong(host))],
        };
    }

    /// <summary>Writes the texts as the pictures are held now.</summary>
    public void Write(MendedFiles files)
    {
        files.Mended.Clear();
        var edits = new List<Edit>();
        for (var i = 0; i < _places.Count; i++)
        {
            if (_holding[i] != Holding.Left && _tags[i] is { } tag)
            {
                edits.Add(tag.IsImage ? Element(tag, i) : Plain(tag, _places[i]));
            }
        }

        var backgrounds = new RewrittenBackgrounds(
            [
                .. _places
                    .Select((place, i) => (place, _addresses[i], _holding[i] != Holding.Left))
                    .Where(one => one.place.Kind == ImageKind.Background),
            ],
            Pictures
        );
        // What a style of the page itself names stands in the page; a sheet holds its own.
        var own = backgrounds.Of(_page.Base);
        foreach (var style in _page.Styles())
        {
            var css = own.With(style.Css);
            if (css != style.Css)
            {
                edits.Add(new(style.Start, style.End, style.IsAttribute ? HtmlAttribute.Of("style", css).Text : css));
            }
        }

        if (own.Definitions() is { Length: > 0 } definitions)
        {
            edits.Add(new(_page.StyleEnd, _page.StyleEnd, $"<style>\n{definitions}</style>\n"));
        }

        if (edits.Count > 0)
        {
            files.Mended[_start] = PageAnswer.Of(_type, _page.With(edits));
        }

        foreach (var (address, (css, type)) in _sheets)
        {
            var sheet = backgrounds.Of(new Uri(address));
            var mended = sheet.With(css);
            if (mended != css)
            {
                files.Mended[address] = PageAnswer.Of(type, Encoding.Latin1.GetBytes(mended.TrimEnd('\n') + "\n" + sheet.Definitions()));
            }
        }
    }

    /// <summary>Has pictures held in the next way, or left as they were.</summary>
    public void Change(IReadOnlySet<int> places, bool leave)
    {
        foreach (var i in places)
        {
            var next = leave ? Holding.Left : Next(i);
            (_holding[i], _left[i]) = (next, next == Holding.Left ? PageTexts.EveryWayToReplaceThisPicture : null);
        }
    }

    /// <summary>What became of each picture.</summary>
    /// <param name="looks">How alike each is, by its place in the list.</param>
    public IReadOnlyList<RewrittenImage> Images(ILookup<int, RewrittenView> looks) =>
        [
            .. _places.Select(
                (place, i) =>
                    new RewrittenImage(
                        place.Where,
                        place.Kind,
                        place.Address,
                        _left[i],
                        place.Altered,
                        [.. looks[i].OrderBy(look => look.Viewport)]
                    )
            ),
        ];

    private void Begin(int i, IReadOnlyList<SeenImage> seen, HashSet<string> named)
    {
        var place = _places[i];
        _addresses[i] = seen.Select(one => one.Address.Split('#')[0]).ToHashSet(StringComparer.Ordinal);
        // Its own shape where every screen showed one.
        var naturals = seen.Select(one => one.Natural).Where(one => !one.IsEmpty).ToList();
        _shapes[i] =
            naturals.Count > 0
            && naturals.TrueForAll(one => Math.Abs((one.Width * naturals[0].Height) - (one.Height * naturals[0].Width)) < 1)
                ? string.Create(CultureInfo.InvariantCulture, $"aspect-ratio: {naturals[0].Width:0.###} / {naturals[0].Height:0.###}")
                : null;
        var fault =
            place.Left
            ?? (
                seen.Count == 0 ? PageTexts.ThePageNoLongerShowsThis
                : seen.Any(one => one.Sprite) ? PageTexts.ThisFileHoldsSeveralPicturesA
                : place.Cut && !seen.All(IsCutAsFramed) ? PageTexts.ThePageCropsThisPictureBy
                : place.Kind == ImageKind.Background && seen.Any(one => one.Fit is null or "auto" or "auto auto")
                    ? PageTexts.ThePageShowsThisPictureIn
                : null
            );
        if (fault is null && place.Kind == ImageKind.Background)
        {
            fault = _addresses[i].Any(named.Contains) ? null : PageTexts.NoStyleOfThePageHas;
        }
        else if (fault is null)
        {
            _tags[i] = _page.Find(place.Where, place.Kind, _addresses[i]);
            fault =
                _tags[i] is not { } tag ? PageTexts.ThisPictureIsNotInThe
                : !tag.IsImage && place.Plain is null ? PageTexts.ThePicturesShapeChangesWithThe
                : null;
        }

        (_left[i], _holding[i]) = (fault, fault is null ? Holding.WithRoom : Holding.Left);
        if (fault is null && !place.NoRoom)
        {
            _holding[i] = Holding.Choice;
        }
    }

    // A cut file lies where the page drew the part only when the page draws by shares of the place.
    private static bool IsCutAsFramed(SeenImage seen) => seen.Fit == "cover" && (seen.Position is null || Shares().IsMatch(seen.Position));

    private Holding Next(int i) =>
        _tags[i] is not { IsImage: true } ? Holding.Left
        : _holding[i] == Holding.WithRoom ? Holding.Choice
        : _holding[i] == Holding.Choice && _places[i].Alone is not null ? Holding.Alone
        : Holding.Left;

    private Edit Element(PictureTag tag, int i)
    {
        var (place, holding) = (_places[i], _holding[i]);
        var kept = tag.Tag.Attributes.Select(one => one.Attribute).Where(one => one.Name is not ("src" or "srcset" or "sizes")).ToList();
        if (place.Lazy is { } lazy)
        {
            kept.RemoveAll(one => one.Name is "loading" or "fetchpriority");
            kept.Add(lazy ? HtmlAttribute.Of("loading", "lazy") : HtmlAttribute.Of("fetchpriority", "high"));
        }

        var room = holding == Holding.WithRoom && !kept.Exists(one => one.Name is "width" or "height");
        // The height follows the width, as it did without figures; and sides rounded to pixels must not move what stands below.
        Style(kept, room ? "height: auto" : null, place is { Cut: false, Altered: false } ? _shapes[i] : null);
        var given = (holding == Holding.Alone ? place.Alone! : place.Image).Where(one =>
            one.Name is not ("loading" or "fetchpriority") && (room || one.Name is not ("width" or "height"))
        );
        List<HtmlAttribute> attributes = [.. given.Where(one => kept.All(own => own.Name != one.Name)), .. kept];
        var image = HtmlWriter.Element("img", attributes);
        var text =
            holding == Holding.Alone || place.Sources.Count == 0
                ? image
                // It has no box, and its choices have none: what lies around the img does so as before.
                : $"<picture style=\"display: contents\">{string.Concat(place.Sources.Select(source => Unseen(source, room)))}{image}</picture>";
        return new(tag.Start, tag.End, RewrittenBackgrounds.Placed(text, _page.Base, Pictures));
    }

    private static void Style(List<HtmlAttribute> kept, params string?[] declarations)
    {
        var added = string.Join("; ", declarations.Where(one => one is not null));
        if (added.Length > 0)
        {
            var own = kept.Find(one => one.Name == "style").Text is { } written ? ValueOf(written).TrimEnd(' ', ';') + "; " : "";
            kept.RemoveAll(one => one.Name == "style");
            kept.Add(new("style", $"style=\"{own}{added}\""));
        }
    }

    // In a row or a grid of boxes an empty one would take its gap; and figures of a choice count before those of the img itself.
    private static string Unseen(string source, bool room)
    {
        var hidden = source.Replace("<source ", "<source hidden ", StringComparison.Ordinal);
        return room ? hidden : Figures().Replace(hidden, "");
    }

    private Edit Plain(PictureTag tag, PagePlace place)
    {
        var written = tag.Tag.Attributes.First(one => one.Attribute.Name == tag.Attribute);
        return new(
            written.Start,
            written.End,
            RewrittenBackgrounds.Placed(HtmlAttribute.Of(tag.Attribute, place.Plain!).Text, _page.Base, Pictures)
        );
    }

    private HashSet<string> StyledAddresses()
    {
        IEnumerable<(string Css, Uri From)> styles =
        [
            .. _page.Styles().Select(style => (style.Css, _page.Base)),
            .. _sheets.Select(sheet => (sheet.Value.Css, new Uri(sheet.Key))),
        ];
        return
        [
            .. styles
                .SelectMany(style => CssAddresses.Of(style.Css).SelectMany(image => image.Addresses).Select(one => (one, style.From)))
                .Select(one => PageText.Whole(one.From, SitePage.InUtf8(one.one)))
                .OfType<string>(),
        ];
    }

    private static string ValueOf(string attribute) =>
        attribute[(attribute.IndexOf('=', StringComparison.Ordinal) + 1)..].Trim().Trim('"', '\'');

    private static bool IsStyle(string? type) => type?.StartsWith("text/css", StringComparison.OrdinalIgnoreCase) == true;

    [GeneratedRegex(" (?:width|height)=\"[0-9]+\"")]
    private static partial Regex Figures();

    [GeneratedRegex(@"^\s*-?[\d.]+%\s+-?[\d.]+%\s*$")]
    private static partial Regex Shares();
}
