using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Tests;

/// <summary>Turned pixels, held against another program's.</summary>
public sealed class TurningTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("pantomet-turn-").FullName;

    [Theory]
    [InlineData(1, 0)]
    [InlineData(2, 0)]
    [InlineData(3, 0)]
    [InlineData(0, 4)]
    [InlineData(1, -7.5)]
    public async Task A_turned_picture_looks_as_another_program_turns_it(int quarters, double degrees)
    {
        ImagingEngine.Start();
        var source = Path.Combine(_folder, "source.png");
        await RunAsync(
            "convert",
            "-size",
            "300x200",
            "plasma:tomato-steelblue",
            "-seed",
            "3",
            "-blur",
            "0x3",
            "-depth",
            "8",
            $"PNG24:{source}"
        );
        var turn = new Turn(quarters, degrees);
        var size = turn.SizeOf(new(300, 200));
        var expected = Path.Combine(_folder, "expected.png");
        await RunAsync(
            "convert",
            source,
            "-rotate",
            $"{quarters * 90}",
            "+repage",
            "-interpolate",
            "bicubic",
            "-virtual-pixel",
            "edge",
            "-distort",
            "ScaleRotateTranslate",
            degrees.ToString(System.Globalization.CultureInfo.InvariantCulture),
            "+repage",
            "-gravity",
            "center",
            "-crop",
            $"{size.Width}x{size.Height}+0+0",
            "+repage",
            "-depth",
            "8",
            $"PNG24:{expected}"
        );

        var facts = new PictureFacts
        {
            Size = size,
            Format = PictureFormat.Png,
            Bytes = 1,
        };
        var slot = new Slot
        {
            Key = "a",
            Name = "a",
            Size = new SizeRule.SideAlone(Side.Width, size.Width),
            Sharpen = Sharpening.Off,
        };
        var plan = VariantPlanner.Plan(size, slot, Density.One);
        using var master = PictureMaster.Decode(source, facts, [plan], ProfileRule.Srgb, whole: true, turn: turn);
        using var pixels = VariantRenderer.Render(master, plan, null, Sharpening.Off);
        using var ours = pixels.Image.Copy();
        using var theirs = Image.NewFromFile(expected);
        using var plain = theirs.Bands > 3 ? theirs.ExtractBand(0, n: 3) : theirs.Copy();
        Assert.Equal((size.Width, size.Height), (ours.Width, ours.Height));
        using var difference = (ours - plain).Abs();
        // Interpolation differs in the last digits, and the middle of an odd side by half a pixel; a turn the wrong way differs by tens.
        Assert.True(difference.Avg() < 1.5, $"{difference.Avg()}");
    }

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private static async Task RunAsync(string program, params string[] arguments)
    {
        using var process = System.Diagnostics.Process.Start(program, arguments);
        await process.WaitForExitAsync();
        Assert.Equal(0, process.ExitCode);
    }
}
