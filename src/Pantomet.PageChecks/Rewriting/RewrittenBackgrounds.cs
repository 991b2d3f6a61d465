using System.Globalization;
using System.Text;
using Pantomet.Batch.Sites;
using Pantomet.Core.Css;
using Pantomet.Core.Markup;

namespace Pantomet.PageChecks.Rewriting;

/// <summary>The backgrounds of a page: a custom property stands where a style named one of them.</summary>
/// <param name="places">The places of backgrounds, the addresses that were loaded for each, and whether it is mended.</param>
/// <param name="pictures">The whole address of the folder of new files.</param>
internal sealed class RewrittenBackgrounds(
    IReadOnlyList<(PagePlace Place, IReadOnlySet<string> Addresses, bool IsMended)> places,
    Uri pictures
)
{
    private readonly IReadOnlyList<(PagePlace Place, IReadOnlySet<string> Addresses, bool IsMended)> _places = places;
    private readonly Uri _pictures = pictures;
    private int _names;

    /// <summary>Begins a text of the page.</summary>
    /// <param name="from">What its addresses are meant from.</param>
    public Text Of(Uri from) => new(this, from);

    /// <summary>The new files as they are found from a text.</summary>
    /// <param name="text">What names them.</param>
    /// <param name="from">What its addresses are meant from.</param>
    /// <param name="pictures">The whole address of their folder.</param>
    public static string Placed(string text, Uri from, Uri pictures) =>
        text.Replace(PagePlace.Pictures, from.MakeRelativeUri(pictures).ToString(), StringComparison.Ordinal);

    /// <summary>
    /// One text of the page. Browsers differ in what an address within a property is meant from - where it is defined or where it is used -
    /// so each has properties of its own.
    /// </summary>
    public sealed class Text(RewrittenBackgrounds backgrounds, Uri from)
    {
        private readonly Dictionary<string, string> _names = new(StringComparer.Ordinal);

        /// <summary>A style of the text with its mended backgrounds replaced; each character is a byte.</summary>
        public string With(string css) => CssAddresses.With(css, image => Named(image) is { } address ? $"var({NameOf(address)})" : null);

        /// <summary>What the properties are that were used; empty where none was.</summary>
        public string Definitions()
        {
            var text = new StringBuilder();
            foreach (var (address, name) in _names)
            {
                Define(text, address, name);
            }

            // Each character is a byte.
            return Placed(Encoding.Latin1.GetString(Encoding.UTF8.GetBytes(text.ToString())), from, backgrounds._pictures);
        }

        private string? Named(CssImage image) =>
            image
                .Addresses.Select(one => PageText.Whole(from, SitePage.InUtf8(one)))
                .FirstOrDefault(one =>
                    one is not null && backgrounds._places.Any(place => place.IsMended && place.Addresses.Contains(one))
                );

        private string NameOf(string address)
        {
            if (!_names.TryGetValue(address, out var name))
            {
                name = string.Create(CultureInfo.InvariantCulture, $"{PagePlace.Property}-{++backgrounds._names}");
                _names[address] = name;
            }

            return name;
        }

        // Where all places of a file are one, it is the page's; else each place has its own, and what is left as it was has the file of before.
        private void Define(StringBuilder text, string address, string name)
        {
            var all = backgrounds._places.Where(place => place.Addresses.Contains(address)).ToList();
            var first = all[0].Place;
            if (all.TrueForAll(place => place.IsMended && place.Place.Css == first.Css))
            {
                text.Append(Called(first.Css!, name));
                return;
            }

            var way = address.StartsWith("data:", StringComparison.Ordinal) ? address : from.MakeRelativeUri(new(address)).ToString();
            text.Append(CultureInfo.InvariantCulture, $"{PagePlace.Root} {{\n  {name}: url(\"{way}\");\n}}\n");
            foreach (var (place, _, _) in all.Where(place => place.IsMended))
            {
                text.Append(Called(place.Css!, name).Replace(PagePlace.Root, place.Where, StringComparison.Ordinal));
            }
        }

        private static string Called(string css, string name) =>
            css.Replace($"{PagePlace.Property}:", $"{name}:", StringComparison.Ordinal);
    }
}
