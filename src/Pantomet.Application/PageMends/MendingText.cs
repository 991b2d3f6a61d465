using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Pantomet.Application.PageChecks;
using Pantomet.Application.Sites;
using Pantomet.Browsing;
using Pantomet.Core.Markup;
using Pantomet.Core.PageChecks;

namespace Pantomet.Application.PageMends;

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
internal sealed partial class MendingText
{
    private readonly PageText _page;
    private readonly string _start;
    private readonly string? _type;
    private readonly Dictionary<string, (string Css, string? Type)> _sheets;
    private readonly IReadOnlyList<PageMendPlace> _places;
    private readonly PictureTag?[] _tags;
    private readonly Holding[] _holding;
    private readonly string?[] _left;
    private readonly IReadOnlySet<string>[] _addresses;
    private readonly string?[] _shapes;
    private readonly Dictionary<(string Address, string From), int> _names = [];

    private MendingText(
        PageText page,
        PageAnswer answer,
        string start,
        Dictionary<string, (string Css, string? Type)> sheets,
        IReadOnlyList<LookedAt> before,
        IReadOnlyList<PageMendPlace> places
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
    public static async Task<MendingText> ReadAsync(
        IPageFiles source,
        IReadOnlyList<LookedAt> before,
        IReadOnlyList<PageMendPlace> places,
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
            throw new PageFaultException("The page is written in UTF-16, which is not mended. Save it as UTF-8.");
        }

        if (answer.Body.Length > SitePage.LargestPage)
        {
            throw new PageFaultException(
                $"The page's text weighs {Core.Figures.Weight(answer.Body.Length)}; pages up to {Core.Figures.Weight(SitePage.LargestPage)} are mended."
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
            Notes = [.. foreign.Select(host => $"Styles of {host} are not the page's own, and were left as they are.")],
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

        var properties = Properties();
        foreach (var style in _page.Styles())
        {
            var css = Replaced(style.Css, _page.Base, properties, new HashSet<string>());
            if (css != style.Css)
            {
                edits.Add(new(style.Start, style.End, style.IsAttribute ? HtmlAttribute.Of("style", css).Text : css));
            }
        }

        // What a style of the page itself names stands in the page; a sheet holds its own.
        var own = Used([.. _page.Styles().Select(style => (style.Css, _page.Base))], properties);
        if (own.Count > 0)
        {
            edits.Add(new(_page.StyleEnd, _page.StyleEnd, $"<style>\n{Definitions(own, properties, _page.Base)}</style>\n"));
        }

        if (edits.Count > 0)
        {
            files.Mended[_start] = PageAnswer.Of(_type, _page.With(edits));
        }

        foreach (var (address, (css, type)) in _sheets)
        {
            var at = new Uri(address);
            var used = Used([(css, at)], properties);
            if (used.Count > 0)
            {
                var mended = Replaced(css, at, properties, new HashSet<string>()).TrimEnd('\n') + "\n" + Definitions(used, properties, at);
                files.Mended[address] = PageAnswer.Of(type, Encoding.Latin1.GetBytes(mended));
            }
        }
    }

    /// <summary>Has pictures held in the next way, or left as they were.</summary>
    public void Change(IReadOnlySet<int> places, bool leave)
    {
        foreach (var i in places)
        {
            var next = leave ? Holding.Left : Next(i);
            (_holding[i], _left[i]) = (
                next,
                next == Holding.Left ? "However it was held, the page looked other than before; it was left as it was." : null
            );
        }
    }

    /// <summary>What became of each picture.</summary>
    /// <param name="looks">How alike each is, by its place in the list.</param>
    public IReadOnlyList<MendedImage> Images(ILookup<int, MendedLook> looks) =>
        [
            .. _places.Select(
                (place, i) =>
                    new MendedImage(
                        place.Where,
                        place.Kind,
                        place.Address,
                        _left[i],
                        place.Altered,
                        [.. looks[i].OrderBy(look => look.Viewport)]
                    )
            ),
        ];

    /// <summary>The same before anything was looked at.</summary>
    public IReadOnlyList<MendedImage> Images(IReadOnlyList<(int, MendedLook)> none) =>
        Images(none.ToLookup(one => one.Item1, one => one.Item2));

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
                seen.Count == 0 ? "The page does not show it any more."
                : seen.Any(one => one.Sprite) ? "It is one of many pictures in one file, which is left whole."
                : place.Cut && !seen.All(IsCutAsFramed) ? "The page cuts it by measures in pixels; a cut file would lie elsewhere."
                : place.Kind == ImageKind.Background && seen.Any(one => one.Fit is null or "auto" or "auto auto")
                    ? "It is drawn at its own pixels; other pixels would be another size."
                : null
            );
        if (fault is null && place.Kind == ImageKind.Background)
        {
            fault = _addresses[i].Any(named.Contains)
                ? null
                : "No style of the page names it; a script or another host's style puts it there.";
        }
        else if (fault is null)
        {
            _tags[i] = _page.Find(place.Where, place.Kind, _addresses[i]);
            fault =
                _tags[i] is not { } tag ? "It does not stand in the page's text: a script or another document puts it there."
                : !tag.IsImage && place.Plain is null ? "Its shape changes with the screen, and its element takes one file."
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
        return new(tag.Start, tag.End, Placed(text, _page.Base));
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

    private Edit Plain(PictureTag tag, PageMendPlace place)
    {
        var written = tag.Tag.Attributes.First(one => one.Attribute.Name == tag.Attribute);
        return new(written.Start, written.End, Placed(HtmlAttribute.Of(tag.Attribute, place.Plain!).Text, _page.Base));
    }

    // The backgrounds that are mended, by address; each has a property.
    private Dictionary<string, List<PageMendPlace>> Properties()
    {
        var properties = new Dictionary<string, List<PageMendPlace>>(StringComparer.Ordinal);
        foreach (var (place, i) in _places.Select((place, i) => (place, i)))
        {
            if (place.Kind == ImageKind.Background && _holding[i] != Holding.Left)
            {
                foreach (var address in _addresses[i])
                {
                    (properties.TryGetValue(address, out var list) ? list : properties[address] = []).Add(place);
                }
            }
        }

        return properties;
    }

    // Browsers differ in what an address within a property is meant from - where it is defined or where it is used - so each text has its own.
    private string NameOf(string address, Uri from)
    {
        if (!_names.TryGetValue((address, from.AbsoluteUri), out var number))
        {
            _names[(address, from.AbsoluteUri)] = number = _names.Count + 1;
        }

        return string.Create(CultureInfo.InvariantCulture, $"{PageMendPlace.Property}-{number}");
    }

    private string Replaced(string css, Uri from, Dictionary<string, List<PageMendPlace>> properties, HashSet<string> used) =>
        CssAddresses.With(
            css,
            image =>
            {
                if (AddressOf(image, from, properties.ContainsKey) is not { } address)
                {
                    return null;
                }

                used.Add(address);
                return $"var({NameOf(address, from)})";
            }
        );

    private List<string> Used(IReadOnlyList<(string Css, Uri From)> styles, Dictionary<string, List<PageMendPlace>> properties)
    {
        var used = new HashSet<string>(StringComparer.Ordinal);
        foreach (var (css, from) in styles)
        {
            Replaced(css, from, properties, used);
        }

        return [.. used];
    }

    private static string? AddressOf(CssImage image, Uri from, Func<string, bool> isKnown) =>
        image.Addresses.Select(one => PageText.Whole(from, SitePage.InUtf8(one))).FirstOrDefault(one => one is not null && isKnown(one));

    private string Definitions(List<string> addresses, Dictionary<string, List<PageMendPlace>> properties, Uri from)
    {
        var text = new StringBuilder();
        foreach (var address in addresses)
        {
            var (places, name) = (properties[address], NameOf(address, from));
            var all = _places.Where((one, i) => one.Kind == ImageKind.Background && _addresses[i].Contains(address)).ToList();
            var isOne = all.Count == places.Count && places.TrueForAll(place => place.Css == places[0].Css);
            if (!isOne)
            {
                var way = address.StartsWith("data:", StringComparison.Ordinal) ? address : from.MakeRelativeUri(new(address)).ToString();
                text.Append(CultureInfo.InvariantCulture, $"{PageMendPlace.Root} {{\n  {name}: url(\"{way}\");\n}}\n");
            }

            foreach (var place in isOne ? places.Take(1) : places)
            {
                var css = place.Css!.Replace($"{PageMendPlace.Property}:", $"{name}:", StringComparison.Ordinal);
                text.Append(isOne ? css : css.Replace(PageMendPlace.Root, place.Where, StringComparison.Ordinal));
            }
        }

        return Placed(Bytes(text.ToString()), from);
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

    // The new files as they are found from a text.
    private string Placed(string text, Uri from)
    {
        var way = from.MakeRelativeUri(Pictures).ToString();
        return text.Replace(PageMendPlace.Pictures, way, StringComparison.Ordinal);
    }

    private static string ValueOf(string attribute) =>
        attribute[(attribute.IndexOf('=', StringComparison.Ordinal) + 1)..].Trim().Trim('"', '\'');

    // As a text in which each sign is a byte.
    private static string Bytes(string text) => Encoding.Latin1.GetString(Encoding.UTF8.GetBytes(text));

    private static bool IsStyle(string? type) => type?.StartsWith("text/css", StringComparison.OrdinalIgnoreCase) == true;

    [GeneratedRegex(" (?:width|height)=\"[0-9]+\"")]
    private static partial Regex Figures();

    [GeneratedRegex(@"^\s*-?[\d.]+%\s+-?[\d.]+%\s*$")]
    private static partial Regex Shares();
}
