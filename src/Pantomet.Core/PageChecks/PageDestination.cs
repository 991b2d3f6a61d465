using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using Pantomet.Core.Css;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Mending;
using Pantomet.Core.Texts;
using Pantomet.Core.Weight;

namespace Pantomet.Core.PageChecks;

/// <summary>A picture of a page in a slot of the destination that was made of the page.</summary>
/// <param name="Image">Which picture: its place in the report.</param>
/// <param name="Slot">The slot's key.</param>
/// <param name="Place">The slot's group, or the slot itself: what a page shows as one picture.</param>
/// <param name="Frame">The part that the page shows; null where it shows it whole, or squashes it.</param>
public sealed record PlacedImage(int Image, string Slot, string Place, Frame? Frame);

/// <summary>A destination made of a measured page: a slot for each kind of place, the same shape at the same widths being one.</summary>
/// <param name="Json">A rules file with this one destination.</param>
/// <param name="Placed">Which picture goes where.</param>
public sealed record PageDestination(string Json, IReadOnlyList<PlacedImage> Placed)
{
    // Shapes that differ by less are one.
    private const double SameShape = 0.01;

    // What is cut off by less than this is not cut.
    private const double Cut = 0.005;

    /// <summary>Makes one; null where no picture of the page can take a slot.</summary>
    /// <param name="report">The page as it was measured.</param>
    /// <param name="key">The destination's key.</param>
    /// <param name="name">Its name.</param>
    public static PageDestination? Of(PageReport report, string key, string name)
    {
        ArgumentNullException.ThrowIfNull(report);
        var densities = report.Totals.Screens.Select(screen => screen.Density).Where(density => density >= 1).Distinct().Order().ToList();
        var firsts = report.Totals.Screens.Select(screen => screen.First).OfType<string>().ToHashSet();
        var kinds = report
            .Images.Select((image, i) => (Image: image, At: i))
            .Where(one => one.Image.Natural is not null && one.Image.Path is not null && one.Image.Format != PictureFormat.Svg.Word())
            // A page that offers several files of one picture is mended from the largest.
            .GroupBy(one => (one.Image.Where, one.Image.Kind))
            .Select(group =>
            {
                var largest = group.MaxBy(one => one.Image.Natural![0]);
                return new Place(largest.At, largest.Image, Runs([.. group.Select(one => one.Image)]));
            })
            .Where(place => place.Runs.Count > 0)
            .GroupBy(place => string.Join('|', place.Runs.Select(run => run.Signature)))
            .ToList();
        if (kinds.Count == 0)
        {
            return null;
        }

        var (slots, placed) = (new JsonArray(), new List<PlacedImage>());
        foreach (var (kind, number) in kinds.Select((kind, i) => (kind.ToList(), i + 1)))
        {
            var first = kind.Exists(place => firsts.Contains(place.Image.Where));
            var runs = kind[0].Runs;
            for (var i = 0; i < runs.Count; i++)
            {
                var slot = runs.Count == 1 ? $"place-{number}" : $"place-{number}-from-{runs[i].From}";
                slots.Add(Slot(kind, runs, i, slot, number, densities, first));
                placed.AddRange(kind.Select(place => new PlacedImage(place.At, slot, $"place-{number}", place.Runs[i].Frame)));
            }
        }

        var book = new JsonObject
        {
            ["schema"] = "pantomet-rules/1",
            ["destinations"] = new JsonArray(
                new JsonObject
                {
                    ["key"] = key,
                    ["name"] = name,
                    ["slots"] = slots,
                }
            ),
        };
        return new(book.ToJsonString(JsonSerializerOptions.Web), placed);
    }

    private static JsonObject Slot(
        List<Place> kind,
        IReadOnlyList<Run> runs,
        int at,
        string key,
        int number,
        List<double> densities,
        bool first
    )
    {
        var run = runs[at];
        var plain = kind.Exists(place => place.Image.Format == PictureFormat.Png.Word()) ? PictureFormat.Png : PictureFormat.Jpeg;
        var slot = new JsonObject
        {
            ["key"] = key,
            ["name"] = PageTexts.PlaceAt(number, Math.Round(run.Widest.Width), Math.Round(run.Widest.Height), run.WidestAt),
            ["size"] = new JsonObject { ["ratio"] = run.Ratio },
            ["types"] = new JsonArray(PictureFormat.WebP.Word(), plain.Word()),
            ["each"] = true,
            // As fine as the likeness needs.
            ["aims"] = new JsonObject
            {
                ["quality"] = new JsonArray(QualityRange.Unusable, QualityRange.Highest),
                ["likeness"] = MendRule.UsualLikeness,
            },
            ["responsive"] = new JsonObject
            {
                ["sizes"] = MeasuredSizes.Of(run.Points),
                ["densities"] = new JsonArray([.. (densities.Count == 0 ? [1] : densities).Select(density => JsonValue.Create(density))]),
            },
        };
        if (first)
        {
            slot["first"] = true;
        }

        // The widest stands first; the narrowest is shown where no other is.
        if (runs.Count > 1)
        {
            slot["group"] = $"place-{number}";
            if (at < runs.Count - 1)
            {
                slot["media"] = $"(min-width: {run.From}px)";
            }
        }

        return slot;
    }

    // Viewports that follow each other with one shape, the widest first.
    private static List<Run> Runs(IReadOnlyList<ReportedImage> images)
    {
        var shown = images
            .SelectMany(image => image.Shown.Select(place => (Image: image, Place: place)))
            .Where(one => one.Place.Css[0] > 0 && one.Place.Css[1] > 0)
            .GroupBy(one => one.Place.Viewport)
            .Select(group => group.First())
            .OrderByDescending(one => one.Place.Viewport);
        var runs = new List<Run>();
        foreach (var (image, place) in shown)
        {
            var box = new CssSize(place.Css[0], place.Css[1]);
            var (part, natural) = (place.Part, new PixelSize(image.Natural![0], image.Natural[1]));
            var isCut = part[0] > Cut || part[1] > Cut || part[2] < 1 - Cut || part[3] < 1 - Cut;
            var isWhole = !isCut && Math.Abs((box.Width / box.Height / ((double)natural.Width / natural.Height)) - 1) < SameShape;
            Frame? frame = isCut && Frame.TryCreate(part[0], part[1], part[2], part[3], out var cut, out _) ? cut : null;
            // What is shown whole keeps its own shape, to the pixel.
            var shape = isWhole ? (double)natural.Width / natural.Height : box.Width / box.Height;
            if (runs.Count > 0 && Math.Abs((shape / runs[^1].Shape) - 1) < SameShape)
            {
                runs[^1].Points.Add((place.Viewport, box.Width));
                runs[^1] = runs[^1] with { From = place.Viewport };
            }
            else
            {
                runs.Add(new(shape, frame, place.Viewport, box, place.Viewport, [(place.Viewport, box.Width)]));
            }
        }

        return runs;
    }

    private sealed record Place(int At, ReportedImage Image, List<Run> Runs);

    private sealed record Run(double Shape, Frame? Frame, int From, CssSize Widest, int WidestAt, List<(int Viewport, double Width)> Points)
    {
        public double Ratio => Math.Round(Shape, 4);

        public string Signature =>
            string.Create(CultureInfo.InvariantCulture, $"{Shape:0.00} ")
            + string.Join(',', Points.Select(point => $"{point.Viewport}:{Math.Round(point.Width)}"));
    }
}
