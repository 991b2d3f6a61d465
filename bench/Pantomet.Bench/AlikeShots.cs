using System.Globalization;
using NetVips;
using Pantomet.Core.Likeness;
using Pantomet.Imaging.Reading;

namespace Pantomet.Bench;

/// <summary>
/// How surely alike pictures are told from others: each photograph against shots of the same thing that are acted out (another size, moved,
/// turned, another exposure), and against all other photographs. Every third photograph is kept apart from what the border was chosen by.
/// </summary>
internal static class AlikeShots
{
    public static void Run(IEnumerable<string> folders, TextWriter output)
    {
        string[] photographs =
        [
            .. folders
                .SelectMany(folder => Directory.EnumerateFiles(folder, "*", SearchOption.AllDirectories))
                .Where(file => Path.GetExtension(file).ToUpperInvariant() is ".JPG" or ".JPEG" or ".WEBP" or ".PNG" or ".JXL")
                .Order(StringComparer.Ordinal),
        ];
        var shots = new List<(string File, Dictionary<string, PictureSketch> Shots)>();
        foreach (var file in photographs)
        {
            try
            {
                shots.Add((file, Shots(file)));
            }
            catch (VipsException)
            {
                // Another type than its name says.
            }
        }

        foreach (var apart in (bool[])[false, true])
        {
            var mine = shots.Where((_, i) => i % 3 == 2 == apart).ToList();
            output.WriteLine(
                string.Create(CultureInfo.InvariantCulture, $"\n{(apart ? "kept apart" : "tuned on")}: {mine.Count} photographs\n")
            );
            output.WriteLine("| shot | alike | median | 95th of 100 |\n|---|---|---|---|");
            foreach (var kind in mine[0].Shots.Keys.Where(kind => kind != "itself"))
            {
                var far = mine.Select(one => one.Shots["itself"].To(one.Shots[kind])).Order().ToList();
                Say(kind, far);
            }

            var pairs = new List<(double Far, string One, string Other)>();
            for (var i = 0; i < mine.Count; i++)
            {
                for (var n = i + 1; n < mine.Count; n++)
                {
                    pairs.Add((mine[i].Shots["itself"].To(mine[n].Shots["itself"]), mine[i].File, mine[n].File));
                }
            }

            Say("another photograph", [.. pairs.Select(pair => pair.Far).Order()]);
            foreach (
                var (far, one, other) in pairs.Where(pair => pair.Far <= AlikePictures.Nearest * 1.2).OrderBy(pair => pair.Far).Take(20)
            )
            {
                output.WriteLine(
                    string.Create(CultureInfo.InvariantCulture, $"{far:0.00} {Path.GetFileName(one)} and {Path.GetFileName(other)}")
                );
            }
        }

        void Say(string kind, List<double> far)
        {
            string At(double share) =>
                far[(int)(far.Count * share)] is var one && double.IsFinite(one)
                    ? one.ToString("0.00", CultureInfo.InvariantCulture)
                    : "too even";
            var alike = 100.0 * far.Count(one => one <= AlikePictures.Nearest) / far.Count;
            output.WriteLine(string.Create(CultureInfo.InvariantCulture, $"| {kind} | {alike:0.0} % | {At(0.5)} | {At(0.95)} |"));
        }
    }

    private static Dictionary<string, PictureSketch> Shots(string file)
    {
        using var picture = Image.Thumbnail(file, 800, height: 800).Colourspace(Enums.Interpretation.Srgb);
        using var flat = picture.HasAlpha() ? picture.Flatten(background: [255, 255, 255]) : picture.Copy();
        using var whole = flat.ExtractBand(0, n: 3).CopyMemory();
        return new()
        {
            ["itself"] = Sketch(whole),
            ["a fifth of the size, quality 50"] = Sketch(whole.Resize(0.2), 50),
            ["moved by 3 %"] = Sketch(Part(whole, 0.03, 0.03, 0.97, 0.97)),
            ["moved by 6 %"] = Sketch(Part(whole, 0.06, 0.06, 0.94, 0.94)),
            ["5 % nearer"] = Sketch(Part(whole, 0.025, 0.025, 0.95, 0.95)),
            ["turned by 3 degrees"] = Sketch(Part(whole.Rotate(3, background: [128, 128, 128]), 0.08, 0.08, 0.84, 0.84)),
            ["a third of a stop lighter"] = Sketch(whole.Linear([1.12], [0]).Cast(Enums.BandFormat.Uchar)),
            ["warmer"] = Sketch(whole.Linear([1.06, 1, 0.92], [0, 0, 0]).Cast(Enums.BandFormat.Uchar)),
            ["mirrored"] = Sketch(whole.Flip(Enums.Direction.Horizontal)),
            ["its middle third"] = Sketch(Part(whole, 0.33, 0.33, 0.34, 0.34)),
        };
    }

    private static Image Part(Image image, double left, double top, double width, double height) =>
        image.Crop((int)(left * image.Width), (int)(top * image.Height), (int)(width * image.Width), (int)(height * image.Height));

    private static PictureSketch Sketch(Image image, int quality = 85)
    {
        var path = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():n}.jpg");
        try
        {
            image.Jpegsave(path, q: quality);
            return PictureSketch.Of((double)image.Width / image.Height, SketchReader.Read(path));
        }
        finally
        {
            File.Delete(path);
        }
    }
}
