using System.Globalization;
using System.Text;
using System.Text.Json;
using Pantomet.Core.Geometry;
using Pantomet.Core.Responsive;

namespace Pantomet.Core.Markup;

/// <summary>A picture in one place, as the page of all pictures shows it.</summary>
/// <param name="Picture">What it is called.</param>
/// <param name="Place">The name of the slot or the group, with its destination.</param>
/// <param name="Markup">What a page shows.</param>
public sealed record PreviewItem(string Picture, string Place, MarkupPicture Markup);

/// <summary>
/// A page that shows every picture of a bundle as a browser of a chosen width and density takes it. It lies beside the files, needs no
/// server and asks nothing of any other place.
/// </summary>
public static class PreviewPage
{
    // The windows that can be tried, in CSS pixels.
    private const int Narrowest = 200;
    private const int Widest = 2600;

    private static readonly decimal[] Densities = [1, 1.5m, 2, 3];

    /// <summary>The page.</summary>
    /// <param name="title">What the bundle is called.</param>
    /// <param name="items">The pictures.</param>
    public static string Write(string title, IReadOnlyList<PreviewItem> items)
    {
        ArgumentNullException.ThrowIfNull(items);
        var body = new StringBuilder();
        for (var i = 0; i < items.Count; i++)
        {
            var item = items[i];
            body.Append(
                CultureInfo.InvariantCulture,
                $"""
                <section>
                <h2>{HtmlWriter.Escaped(item.Picture)}</h2>
                <p>{HtmlWriter.Escaped(item.Place)}</p>
                <div class="place"><img id="i{i}" alt="{HtmlWriter.Escaped(item.Markup.Alternative ?? "")}"></div>
                <p class="taken" id="t{i}"></p>
                <details><summary>Markup</summary><pre>{HtmlWriter.Escaped(Short(HtmlWriter.Page(item.Markup)))}</pre></details>
                </section>

                """
            );
        }

        return Template
            .Replace("%TITLE%", HtmlWriter.Escaped(title), StringComparison.Ordinal)
            .Replace("%DENSITIES%", string.Concat(Densities.Select(Option)), StringComparison.Ordinal)
            .Replace("%BODY%", body.ToString(), StringComparison.Ordinal)
            // A script ends at the first "</": the data has none.
            .Replace(
                "%DATA%",
                JsonSerializer.Serialize(items.Select(Data), JsonSerializerOptions.Web).Replace("<", "\\u003c", StringComparison.Ordinal),
                StringComparison.Ordinal
            );
    }

    private static string Option(decimal density) =>
        string.Create(CultureInfo.InvariantCulture, $"<option value=\"{density}\">{density:0.##}x</option>");

    // Data addresses would fill the screen.
    private static string Short(string html) =>
        System.Text.RegularExpressions.Regex.Replace(html, "(data:image/[a-z]+;base64,.{24})[A-Za-z0-9+/=]+", "$1...");

    // What is taken changes at few viewports: the page looks it up and works nothing out.
    private static Dictionary<string, List<object[]>> Data(PreviewItem item) =>
        Densities.ToDictionary(density => density.ToString(CultureInfo.InvariantCulture), density => Steps(item.Markup, new(density)));

    private static List<object[]> Steps(MarkupPicture picture, Density density)
    {
        var steps = new List<object[]>();
        (MarkupFile File, ViewportLength Shown)? before = null;
        foreach (var viewport in Changes(picture, density))
        {
            var taken = Foretold.Of(picture, viewport, density);
            var shown =
                taken.Slot.Slot.Responsive?.Sizes.Parts.First(part => part.Holds.Contains(viewport)).Width
                ?? new ViewportLength(taken.Slot.Shown.Width, 0);
            if (before == (taken.File, shown))
            {
                continue;
            }

            before = (taken.File, shown);
            steps.Add([
                viewport,
                taken.File.Address,
                taken.File.Size.Width,
                taken.File.Size.Height,
                taken.File.Bytes,
                shown.Pixels,
                shown.PerViewport,
            ]);
        }

        return steps;
    }

    // The viewports at which something else may be taken, or shown otherwise.
    private static SortedSet<int> Changes(MarkupPicture picture, Density density)
    {
        var left = ViewportRanges.Between(Narrowest, Widest);
        var changes = new SortedSet<int>();
        foreach (var slot in picture.Slots)
        {
            var mine = left.And(slot.Slot.Media?.Holds ?? ViewportRanges.All);
            changes.UnionWith(
                slot.Slot.Responsive is { } rule
                    ? Ladder
                        .Stretches(rule.Sizes, mine, density, [.. slot.ByType[0].Select(file => file.Size.Width)])
                        .Select(stretch => stretch.From)
                    : mine.Parts.Select(part => part.From)
            );
            left = left.And(mine.Not());
        }

        return changes;
    }

    private const string Template = """
        <!DOCTYPE html>
        <html lang="en">
        <head>
        <meta charset="utf-8">
        <meta name="viewport" content="width=device-width">
        <title>%TITLE%</title>
        <style>
        body { margin: 0; font: 14px/1.45 system-ui, sans-serif; background: #d8d8d8; color: #1c1c1c }
        header { position: sticky; top: 0; z-index: 1; display: flex; flex-wrap: wrap; gap: 8px 24px; align-items: center }
        header { padding: 10px 20px; background: #f4f4f4; border-bottom: 1px solid #b4b4b4 }
        h1 { font-size: 16px; margin: 0 auto 0 0 }
        label { display: flex; gap: 8px; align-items: center }
        output { min-width: 64px; font-variant-numeric: tabular-nums }
        input[type=range] { width: 320px; max-width: 50vw }
        section { padding: 16px 20px; border-bottom: 1px solid #b4b4b4 }
        h2 { font-size: 14px; margin: 0 }
        p { margin: 2px 0 }
        .place { margin: 8px 0; overflow-x: auto }
        .place img { display: block; height: auto }
        .taken { font-variant-numeric: tabular-nums }
        pre { overflow-x: auto; background: #f4f4f4; padding: 10px; white-space: pre-wrap; word-break: break-all }
        </style>
        </head>
        <body>
        <header>
        <h1>%TITLE%</h1>
        <label>Window <input type="range" id="viewport" min="320" max="2560" value="1280"> <output id="shown"></output></label>
        <label>Screen <select id="density">%DENSITIES%</select></label>
        </header>
        %BODY%
        <script>
        const data = %DATA%;
        const figure = (n) => String(Math.round(n)).replace(/\B(?=(\d{3})+$)/g, '\u202f');
        const trimmed = (text) => text.replace(/\.?0+$/, (zeros) => zeros.includes('.') ? '' : zeros);
        const weight = (n) => n < 1000 ? n + ' B'
          : n < 1e6 ? trimmed((n / 1000).toPrecision(3)) + ' kB'
          : (n / 1e6).toFixed(2) + ' MB';
        const viewport = document.getElementById('viewport'), density = document.getElementById('density');
        function show() {
          const at = Number(viewport.value), d = Number(density.value);
          document.getElementById('shown').textContent = figure(at) + ' px';
          data.forEach((places, i) => {
            const [, address, width, height, bytes, px, vw] = places[density.value].findLast((step) => step[0] <= at);
            const css = px + vw * at, needed = Math.ceil(css * d - 1e-6);
            const image = document.getElementById('i' + i);
            if (image.getAttribute('src') !== address) image.src = address;
            image.style.width = css + 'px';
            const name = address.startsWith('data:') ? 'the data in the page' : address.split('/').pop();
            const waste = needed < width ? Math.round(100 * (1 - (needed / width) ** 2)) + ' % of its pixels are not used'
              : needed > width ? 'it has no more pixels'
              : 'exactly';
            document.getElementById('t' + i).textContent = name + ': ' + figure(width) + ' × ' + figure(height) + ' px, '
              + weight(bytes) + '; ' + figure(needed) + ' px are needed: ' + waste + '.';
          });
        }
        viewport.oninput = density.oninput = show;
        show();
        </script>
        </body>
        </html>
        """;
}
