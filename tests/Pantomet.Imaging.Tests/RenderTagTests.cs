using System.Text.Json;
using Pantomet.Imaging.Tests.Support;

namespace Pantomet.Imaging.Tests;

/// <summary>What is kept of an original's tags, read by exiftool.</summary>
public sealed class RenderTagTests : IDisposable
{
    private const string Types = """ "types": ["jpeg", "png", "webp", "avif"], "each": true """;

    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    [Fact]
    public void Copyright_lines_are_kept_in_every_type_and_nothing_else_is()
    {
        foreach (var file in Render($$"""{ "key": "a", "size": { "width": 60 }, "metadata": "copyright", {{Types}} }"""))
        {
            Assert.Equal("© Skerry Weatherworks", Programs.Tag("EXIF:Copyright", file));
            Assert.Equal("Ada Skerry", Programs.Tag("EXIF:Artist", file));
            Assert.Equal("", Programs.Tag("Make", file) + Programs.Tag("Subject", file) + Places(file));
        }
    }

    [Fact]
    public void Copyright_lines_that_stand_in_other_blocks_are_found()
    {
        var source = _place.Quarters("a.jpg", 120, 80);
        Programs.Checked(
            "exiftool",
            "-q",
            "-overwrite_original",
            "-IPTC:CopyrightNotice=Skerry agency",
            "-XMP-dc:Creator=Ada of Skerry",
            source
        );
        var file = FileOf(
            _place
                .Render(_place.Rules("""{ "key": "a", "size": { "width": 60 }, "metadata": "copyright" }"""), 0, source)
                .GetProperty("variants")[0]
        );
        Assert.Equal(("Skerry agency", "Ada of Skerry"), (Programs.Tag("EXIF:Copyright", file), Programs.Tag("EXIF:Artist", file)));
    }

    [Fact]
    public void Tags_are_kept_but_the_place_is_told_only_where_it_is_asked_for()
    {
        foreach (var file in Render($$"""{ "key": "a", "size": { "width": 60 }, "metadata": "keep", {{Types}} }"""))
        {
            Assert.Equal(
                ("Skerry", "© Skerry Weatherworks", "vane"),
                (Programs.Tag("Make", file), Programs.Tag("EXIF:Copyright", file), Programs.Tag("XMP:Subject", file))
            );
            Assert.Equal("", Places(file));
        }

        var told = Render("""{ "key": "b", "size": { "width": 60 }, "metadata": "keep", "location": true }""")[0];
        Assert.Equal(
            ("1.5", "Harbour", "Harbour"),
            (Programs.Tag("EXIF:GPSLatitude", told), Programs.Tag("IPTC:City", told), Programs.Tag("XMP:City", told))
        );
    }

    [Fact]
    public void An_agencys_block_is_kept_readable_without_its_places()
    {
        var file = Render("""{ "key": "a", "size": { "width": 60 }, "metadata": "keep" }""")[0];
        Assert.Equal(("Ada agency", ""), (Programs.Tag("IPTC:By-line", file), Programs.Tag("IPTC:City", file)));
    }

    [Fact]
    public void The_density_label_stands_wherever_a_type_has_a_place_for_it()
    {
        var files = Render($$"""{ "key": "a", "size": { "width": 60 }, "ppi": 254, {{Types}} }""");
        Assert.Equal("254", Programs.Tag("JFIF:XResolution", files[0]));
        Assert.Equal("10000", Programs.Tag("PNG-pHYs:PixelsPerUnitX", files[1]));
        Assert.All(files.Skip(2), file => Assert.Equal("254", Programs.Tag("EXIF:XResolution", file)));
        Assert.All(files, file => Assert.Equal("", Programs.Tag("Make", file) + Programs.Tag("EXIF:Copyright", file) + Places(file)));
    }

    private static string Places(string file) =>
        string.Concat(
            new[] { "GPSLatitude", "GPSLongitude", "City", "GPSVersionID", "ThumbnailImage" }.Select(tag => Programs.Tag(tag, file))
        );

    private List<string> Render(string slot)
    {
        var source = _place.Quarters("a.jpg", 120, 80);
        Programs.Checked(
            "exiftool",
            "-q",
            "-overwrite_original",
            "-GPSLatitude=1.5",
            "-GPSLatitudeRef=N",
            "-GPSLongitude=2.5",
            "-GPSLongitudeRef=E",
            "-Make=Skerry",
            "-EXIF:Artist=Ada Skerry",
            "-EXIF:Copyright=© Skerry Weatherworks",
            "-XMP-photoshop:City=Harbour",
            "-XMP-exif:GPSLatitude=1.5",
            "-IPTC:City=Harbour",
            "-IPTC:By-line=Ada agency",
            "-XMP-dc:Subject=vane",
            $"-ThumbnailImage<={source}",
            source
        );
        return [.. _place.Render(_place.Rules(slot), 0, source).GetProperty("variants").EnumerateArray().Select(FileOf)];
    }

    private string FileOf(JsonElement variant) => Path.Combine(_place.Out, variant.GetProperty("file").GetString()!);
}
