using System.Diagnostics;
using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Reading;
using Pantomet.Imaging.Rendering;
using Pantomet.Imaging.Writing;

namespace Pantomet.Bench;

/// <summary>How long each stage of one variant takes, for finding what is slow.</summary>
internal static class Stages
{
    public static void Run(string path, int width)
    {
        var facts = PictureReader.ReadFacts(path).Facts!;
        var slot = new Slot
        {
            Key = "a",
            Name = "A",
            Size = new SizeRule.SideAlone(Side.Width, width),
        };
        var plan = VariantPlanner.Plan(facts.Size, slot, Density.One);
        using var master = PictureMaster.Decode(path, facts, [plan], ProfileRule.Srgb, whole: true);
        using var pixels = VariantRenderer.Render(master, plan, null, Sharpening.Off);
        using var encoder = new VariantEncoder(pixels, slot, facts);
        var file = encoder.Dear(PictureFormat.Jpeg, 60);
        var gauge = new LikenessGauge(pixels.Image);
        gauge.Measure(file);
        Line("facts", () => PictureReader.ReadFacts(path));
        Line("decode", () => PictureMaster.Decode(path, facts, [plan], ProfileRule.Srgb, whole: true).Dispose());
        Line("look", () => ContentReader.Read(path, facts));
        Line("render", () => VariantRenderer.Render(master, plan, null, Sharpening.Off).Dispose());
        Line("render, sharpened", () => VariantRenderer.Render(master, plan, null, Sharpening.Mild).Dispose());
        Line("cheap", () => encoder.Cheap(PictureFormat.Jpeg, 60));
        Line("cheap, sample", () => encoder.TrySample(PictureFormat.Jpeg, 60, dear: false));
        Line("dear, sample", () => encoder.TrySample(PictureFormat.Jpeg, 60, dear: true));
        Line("dear", () => encoder.Dear(PictureFormat.Jpeg, 60));
        Line("measure", () => gauge.Measure(file));
        using var held = new HeldPixels(pixels.Image);
        Line("meter", () => Core.Likeness.LikenessMeter.Measure(held.Rows, held.Rows));
        Line(
            "decode the file",
            () =>
            {
                using var decoded = Image.NewFromBuffer(file, access: Enums.Access.Sequential);
                decoded.WriteToMemory<byte>();
            }
        );
    }

    private static void Line(string words, Action work)
    {
        var times = new List<double>();
        for (var i = 0; i < 7; i++)
        {
            var clock = Stopwatch.StartNew();
            work();
            times.Add(clock.Elapsed.TotalMilliseconds);
        }

        times.Sort();
        Console.WriteLine(FormattableString.Invariant($"{words, -20} {times[3], 8:0.0} ms, least {times[0]:0.0}"));
    }
}
