using System.Text.Json;
using NetVips;
using Pantomet.Browsing;
using Pantomet.Cli;
using Pantomet.Core.PageChecks;
using Pantomet.Imaging.Tests.Support;
using Pantomet.PageChecks;

namespace Pantomet.Imaging.Tests;

/// <summary>The sizes at which pages show pictures, against what the browser's own tools say of them.</summary>
public sealed class PageBoxTests : IDisposable
{
    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    [Fact]
    public async Task Boxes_of_six_pages_are_those_of_the_browsers_own_tools()
    {
        var pages = Directory.GetFiles(Path.Combine(Installation.Root, "tests", "Pantomet.Imaging.Tests", "Pages"), "*.html");
        Assert.Equal(6, pages.Length);
        Picture("wide.jpg", 1600, 900);
        Picture("tall.jpg", 600, 800);
        Screen[] screens = [new(360, 1), new(1280, 1)];
        var seen = new List<(string Page, Screen Screen, SeenImage Image)>();
        foreach (var page in pages)
        {
            File.Copy(page, _place.At(Path.GetFileName(page)));
            var look = new PageMeasurer(FolderPage.OfFile(_place.At(Path.GetFileName(page))), new());
            var (looks, failed) = await look.LookAsync(screens, new HashSet<Screen>(), _ => Task.CompletedTask, CancellationToken.None);
            Assert.Empty(failed);
            seen.AddRange(looks.SelectMany(one => one.Images.Select(image => (_place.At(Path.GetFileName(page)), one.Screen, image))));
        }

        Assert.Equal(2 * (7 + 7 + 7 + 4 + 4 + 3), seen.Count);
        var asked = seen.Select(one => new
        {
            page = one.Page,
            viewport = one.Screen.Viewport,
            where = one.Image.Where,
            kind = Word(one.Image.Kind),
        });
        var answer = Programs.Checked(
            "node",
            Path.Combine(Installation.Root, "e2e", "boxes.mjs"),
            _place.Write("asked.json", JsonSerializer.Serialize(asked))
        );
        var theirs = JsonSerializer.Deserialize<double[][]>(answer)!;
        Assert.Equal(seen.Count, theirs.Length);
        foreach (var (one, box) in seen.Zip(theirs))
        {
            var ours = (one.Image.Box.Width * one.Image.Stretch.Width, one.Image.Box.Height * one.Image.Stretch.Height);
            var words = $"{Path.GetFileName(one.Page)} {one.Screen.Viewport} {one.Image.Where}: {ours} for {box[0]}, {box[1]}";
            Assert.True(Math.Abs(ours.Item1 - box[0]) <= 1 && Math.Abs(ours.Item2 - box[1]) <= 1, words);
        }
    }

    private static string Word(ImageKind kind) => kind.ToString().ToLowerInvariant();

    private void Picture(string name, int width, int height)
    {
        using var photograph = Image.Thumbnail(Workplace.Photographs[0], width, height: height, crop: Enums.Interesting.Centre);
        photograph.Jpegsave(_place.At(name));
    }
}
