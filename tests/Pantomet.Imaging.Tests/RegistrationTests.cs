using System.Text.Json;
using NetVips;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Reading;
using Pantomet.Imaging.Rendering;
using Pantomet.Imaging.Tests.Support;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Tests;

/// <summary>
/// Where the pixels of a file lie, held against another program that decodes the whole original, cuts, and reduces by Lanczos: a shift of a
/// twentieth of a pixel is too much, whatever scale the original was read at.
/// </summary>
public sealed class RegistrationTests : IDisposable
{
    private const double Most = 0.05;

    private const string Slots = """
        { "key": "half", "size": { "width": 600 }, "types": ["png"], "sharpen": "off" },
        { "key": "quarter", "size": { "width": 291 }, "types": ["png"], "sharpen": "off" },
        { "key": "eighth", "size": { "width": 150 }, "types": ["png"], "sharpen": "off" },
        { "key": "tiny", "size": { "width": 57 }, "types": ["png"], "sharpen": "off" },
        { "key": "cut", "size": { "width": 211, "height": 203 }, "types": ["png"], "sharpen": "off" },
        { "key": "strip", "size": { "width": 90, "height": 33 }, "types": ["png"], "sharpen": "off" }
        """;

    private static readonly Lazy<byte[]> Plain = new(Draw);

    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(6)]
    [InlineData(7)]
    [InlineData(8)]
    public void A_file_lies_where_the_exact_reduction_has_it_whichever_way_the_original_is_stored(int orientation)
    {
        var source = Original(orientation);
        var marks = _place.Write(
            "marks.json",
            """
            { "schema": "pantomet-marks/1", "pictures": { "original.jpg": {
              "framings": { "d/cut": [0.137, 0.211, 0.671, 0.83], "d/strip": [0.0513, 0.333, 0.9, 0.61] } } } }
            """
        );
        var answer = Programs.Pantomet([
            "render",
            "--rules",
            _place.Rules(Slots),
            "--marks",
            marks,
            "--out",
            _place.Out,
            "--report",
            _place.At("report.json"),
            source,
        ]);
        Assert.True(answer.Code == 0, answer.Error);
        var variants = JsonDocument.Parse(File.ReadAllText(_place.At("report.json"))).RootElement.GetProperty("variants");
        foreach (var variant in variants.EnumerateArray())
        {
            var (width, height) = (variant.GetProperty("width").GetInt32(), variant.GetProperty("height").GetInt32());
            var frame = variant.GetProperty("frame").EnumerateArray().Select(edge => edge.GetInt32()).ToArray();
            var exact = Exact(source, [], frame, width, height);
            var (across, down) = Shift(Path.Combine(_place.Out, variant.GetProperty("file").GetString()!), exact);
            Assert.True(
                Math.Abs(across) <= Most && Math.Abs(down) <= Most,
                $"{variant.GetProperty("slot").GetString()}, orientation {orientation}: {across:0.000}, {down:0.000} px"
            );
        }
    }

    [Theory]
    [InlineData(1, 1, 0)]
    [InlineData(1, 3, 0)]
    [InlineData(6, 2, 0)]
    [InlineData(8, 1, 0)]
    [InlineData(1, 0, 3.5)]
    [InlineData(6, 1, -7)]
    public void A_turned_picture_lies_where_the_exact_one_does(int orientation, int quarters, double degrees)
    {
        var source = Original(orientation);
        var turn = new Turn(quarters, degrees);
        var facts = PictureReader.ReadFacts(source).Facts!;
        var upright = facts.Size;
        facts = facts with { Size = turn.SizeOf(facts.Size) };
        foreach (var width in new[] { 300, 140, 60 })
        {
            var slot = new Slot
            {
                Key = "a",
                Name = "a",
                Size = new SizeRule.SideAlone(Side.Width, width),
            };
            var plan = VariantPlanner.Plan(facts.Size, slot, Density.One);
            using var master = PictureMaster.Decode(source, facts, [plan], ProfileRule.Srgb, turn: turn);
            using var pixels = VariantRenderer.Render(master, plan, null, Sharpening.Off);
            File.WriteAllBytes(_place.At("mine.png"), LosslessPng.Write(pixels));
            var turned = quarters % 2 == 1 ? new PixelSize(upright.Height, upright.Width) : upright;
            // About the middle, cut to what is left around the middle.
            string[] steps =
                degrees == 0
                    ? ["-rotate", $"{quarters * 90}", "+repage"]
                    :
                    [
                        "-rotate",
                        $"{quarters * 90}",
                        "+repage",
                        "-virtual-pixel",
                        "edge",
                        "-filter",
                        "Catrom",
                        "-define",
                        $"distort:viewport={facts.Size.Width}x{facts.Size.Height}"
                            + $"+{(turned.Width - facts.Size.Width) / 2}+{(turned.Height - facts.Size.Height) / 2}",
                        "-distort",
                        "SRT",
                        $"{degrees}",
                        "+repage",
                    ];
            var exact = Exact(source, steps, [plan.Crop.Left, plan.Crop.Top, plan.Crop.Right, plan.Crop.Bottom], width, plan.Size.Height);
            var (across, down) = Shift(_place.At("mine.png"), exact);
            // Half a pixel of the original is what the other program can cut the middle by.
            var most = Most + (degrees == 0 ? 0 : 0.5 * width / facts.Size.Width);
            Assert.True(Math.Abs(across) <= most && Math.Abs(down) <= most, $"{width}: {across:0.000}, {down:0.000} px");
        }
    }

    [Fact]
    public void A_slot_made_alone_lies_where_it_lies_among_others()
    {
        var source = Original(1);
        var together = _place.Render(_place.Rules(Slots), 0, source).GetProperty("variants").EnumerateArray().ToList();
        var kept = together.ToDictionary(
            variant => variant.GetProperty("slot").GetString()!,
            variant => File.ReadAllBytes(Path.Combine(_place.Out, variant.GetProperty("file").GetString()!))
        );
        foreach (var slot in Slots.Split('\n'))
        {
            var alone = _place.Render(_place.Rules(slot.TrimEnd(',')), 0, source).GetProperty("variants")[0];
            var file = Path.Combine(_place.Out, alone.GetProperty("file").GetString()!);
            File.WriteAllBytes(_place.At("together.png"), kept[alone.GetProperty("slot").GetString()!]);
            var (across, down) = Shift(file, _place.At("together.png"));
            Assert.True(Math.Abs(across) < 0.02 && Math.Abs(down) < 0.02, $"{slot}: {across:0.000}, {down:0.000} px");
            using var mine = Image.NewFromFile(file);
            using var other = Image.NewFromFile(_place.At("together.png"));
            using var difference = (mine - other).Abs();
            // Noise of every frequency, read at two scales.
            Assert.True(difference.Avg() < 0.8, $"{slot}: {difference.Avg():0.000} of 255");
        }
    }

    [Fact]
    public void Lamps_at_night_keep_their_light()
    {
        var source = _place.At("lamps.jpg");
        Programs.Checked(
            "convert",
            "-size",
            "1237x1011",
            "-seed",
            "5",
            "xc:gray(50%)",
            "+noise",
            "random",
            "-channel",
            "G",
            "-separate",
            "-threshold",
            "97%",
            "-blur",
            "0x0.8",
            "-level",
            "0,40%",
            "(",
            "-size",
            "1237x1011",
            "plasma:midnightblue-saddlebrown",
            "-modulate",
            "50",
            ")",
            "-compose",
            "screen",
            "-composite",
            "-quality",
            "96",
            source
        );
        var report = _place.Render(_place.Rules(Slots), 0, source);
        Assert.True(report.GetProperty("sources")[0].GetProperty("inLight").GetBoolean());
        foreach (var variant in report.GetProperty("variants").EnumerateArray())
        {
            var (width, height) = (variant.GetProperty("width").GetInt32(), variant.GetProperty("height").GetInt32());
            var frame = variant.GetProperty("frame").EnumerateArray().Select(edge => edge.GetInt32()).ToArray();
            using var mine = Image.NewFromFile(Path.Combine(_place.Out, variant.GetProperty("file").GetString()!), memory: true);
            double Off(string[] into, string[] back)
            {
                using var exact = Image.NewFromFile(Exact(source, into, frame, width, height, back), memory: true);
                using var difference = (mine - exact).Abs();
                return difference.Avg();
            }

            var (inLight, stored) = (Off(["-colorspace", "RGB"], ["-colorspace", "sRGB"]), Off([], []));
            Assert.True(inLight < 1.5 && stored > 5, $"{variant.GetProperty("slot").GetString()}: {inLight:0.00}, {stored:0.00} of 255");
        }
    }

    // Drawn once: only the tag differs.
    private string Original(int orientation)
    {
        var path = _place.At("original.jpg");
        File.WriteAllBytes(path, Plain.Value);
        Programs.Checked("exiftool", "-q", "-n", $"-Orientation={orientation}", "-overwrite_original", path);
        return path;
    }

    // No side is a multiple of what a JPEG is reduced by while it is read.
    private static byte[] Draw()
    {
        using var place = new Workplace();
        var path = place.At("plain.jpg");
        Programs.Checked(
            "convert",
            "-size",
            "1237x1011",
            "-seed",
            "11",
            "plasma:tomato-steelblue",
            "-attenuate",
            "2",
            "+noise",
            "gaussian",
            "-blur",
            "0x2.5",
            "-normalize",
            "-quality",
            "96",
            "-sampling-factor",
            "1x1",
            path
        );
        // What is reduced in light is decoded whole: nothing would be said of what is read smaller.
        Assert.False(PictureReader.ReadWhole(path).Facts!.NeedsLight);
        return File.ReadAllBytes(path);
    }

    private string Exact(string source, string[] steps, int[] frame, int width, int height, string[]? back = null)
    {
        var exact = _place.At("exact.png");
        Programs.Checked(
            "convert",
            [
                source,
                "-auto-orient",
                "+repage",
                .. steps,
                "-crop",
                $"{frame[2] - frame[0]}x{frame[3] - frame[1]}+{frame[0]}+{frame[1]}",
                "+repage",
                "-filter",
                "Lanczos",
                "-resize",
                $"{width}x{height}!",
                .. back ?? [],
                $"PNG24:{exact}",
            ]
        );
        return exact;
    }

    // The shift that explains most of the difference, by least squares on the gradient (Lucas and Kanade, 1981).
    private static (double Across, double Down) Shift(string file, string exact)
    {
        var (mine, width, height) = Grey(file);
        var (theirs, otherWidth, otherHeight) = Grey(exact);
        Assert.Equal((otherWidth, otherHeight), (width, height));
        double xx = 0,
            xy = 0,
            yy = 0,
            xd = 0,
            yd = 0;
        for (var y = 2; y < height - 2; y++)
        {
            for (var x = 2; x < width - 2; x++)
            {
                var at = (y * width) + x;
                var (gx, gy) = ((theirs[at + 1] - theirs[at - 1]) / 2, (theirs[at + width] - theirs[at - width]) / 2);
                var d = mine[at] - theirs[at];
                (xx, xy, yy, xd, yd) = (xx + (gx * gx), xy + (gx * gy), yy + (gy * gy), xd + (gx * d), yd + (gy * d));
            }
        }

        var whole = (xx * yy) - (xy * xy);
        return (((xd * yy) - (yd * xy)) / whole, ((yd * xx) - (xd * xy)) / whole);
    }

    private static (double[] Values, int Width, int Height) Grey(string path)
    {
        using var image = Image.NewFromFile(path);
        using var colours = image.HasAlpha() ? image.Flatten() : image.Copy();
        var (values, bands) = (colours.WriteToMemory<byte>(), colours.Bands);
        return (
            [
                .. Enumerable
                    .Range(0, values.Length / bands)
                    .Select(i => Enumerable.Range(0, bands).Average(band => (double)values[(i * bands) + band])),
            ],
            image.Width,
            image.Height
        );
    }
}
