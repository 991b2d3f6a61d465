using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Imaging.Reading;
using Pantomet.Imaging.Tests.Support;

namespace Pantomet.Imaging.Tests;

/// <summary>What phones, old programs and new ones write, against other programs' readers.</summary>
public sealed class SecondReaderTests : IDisposable
{
    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    [Theory]
    [InlineData("heic", PictureFormat.Heic, 38)]
    [InlineData("jxl", PictureFormat.Jxl, 38)]
    [InlineData("bmp", PictureFormat.Bmp, 90)]
    public void Its_pixels_are_those_that_another_reader_sees(string ending, PictureFormat format, double leastDecibels)
    {
        var picture = Written(ending);
        var facts = PictureReader.ReadWhole(picture).Facts!;
        Assert.Equal((format, new PixelSize(600, 400), 8), (facts.Format, facts.Size, facts.Bits));
        Assert.NotNull(facts.Kind);
        using var mine = SecondReader.Open(picture, format, Enums.Access.Random);
        using var theirs = Image.NewFromFile(_place.At("plain.png"));
        using var off = mine.ExtractBand(0, n: 3).Subtract(theirs.ExtractBand(0, n: 3));
        using var squared = off.Multiply(off);
        var decibels = 10 * Math.Log10(255 * 255 / Math.Max(1e-6, squared.Avg()));
        Assert.True(decibels > leastDecibels, $"{decibels:F1} dB");
    }

    [Fact]
    public void A_turn_that_a_phone_wrote_is_applied_once()
    {
        Plain();
        Programs.Checked("convert", _place.At("plain.png"), "-quality", "95", _place.At("plain.jpg"));
        Programs.Checked("exiftool", "-q", "-n", "-Orientation=6", _place.At("plain.jpg"));
        Programs.Checked("heif-enc", "-q", "90", _place.At("plain.jpg"), "-o", _place.At("turned.heic"));
        Programs.Checked("heif-convert", _place.At("turned.heic"), _place.At("theirs.png"));
        var facts = PictureReader.ReadWhole(_place.At("turned.heic")).Facts!;
        using var theirs = Image.NewFromFile(_place.At("theirs.png"));
        Assert.Equal((new PixelSize(theirs.Width, theirs.Height), 1), (facts.Size, facts.Orientation));
    }

    [Theory]
    [InlineData("heic")]
    [InlineData("jxl")]
    [InlineData("bmp")]
    public void A_file_that_is_cut_short_says_so(string ending)
    {
        var picture = Written(ending);
        var bytes = File.ReadAllBytes(picture);
        File.WriteAllBytes(picture, bytes[..(bytes.Length / 3)]);
        var read = PictureReader.ReadWhole(picture);
        Assert.Null(read.Facts);
        Assert.Contains("damaged or incomplete", read.Refusal!, StringComparison.Ordinal);
    }

    private void Plain() =>
        Programs.Checked("convert", Workplace.Photographs[0], "-auto-orient", "-resize", "600x400!", "-strip", _place.At("plain.png"));

    private string Written(string ending)
    {
        Plain();
        var picture = _place.At("picture." + ending);
        switch (ending)
        {
            case "heic":
                Programs.Checked("heif-enc", "-q", "95", _place.At("plain.png"), "-o", picture);
                break;
            case "jxl":
                Programs.Checked("cjxl", _place.At("plain.png"), picture, "-q", "95");
                break;
            default:
                Programs.Checked("convert", _place.At("plain.png"), "BMP3:" + picture);
                break;
        }

        return picture;
    }
}
