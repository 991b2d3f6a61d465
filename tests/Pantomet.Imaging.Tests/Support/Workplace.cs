using System.Text.Json;
using NetVips;

namespace Pantomet.Imaging.Tests.Support;

/// <summary>A folder for one test, with rules, pictures and what came out of them; gone when the test ends.</summary>
public sealed class Workplace : IDisposable
{
    /// <summary>Open photographs of Debian's package lomiri-wallpapers-16.04, none of them in the repository.</summary>
    public static readonly string[] Photographs =
    [
        .. Directory.GetFiles("/usr/share/backgrounds", "*_by_*.jpg").Order(StringComparer.Ordinal),
    ];

    public Workplace()
    {
        ImagingEngine.Start();
        Root = Directory.CreateTempSubdirectory("pantomet-test-").FullName;
    }

    public string Root { get; }

    public string Out => At("out");

    public string At(string name) => Path.Combine(Root, name);

    public string Write(string name, string content)
    {
        File.WriteAllText(At(name), content);
        return At(name);
    }

    public string Rules(string slots) =>
        Write("rules.json", $$"""{ "schema": "pantomet-rules/1", "destinations": [ { "key": "d", "slots": [ {{slots}} ] } ] }""");

    /// <summary>Renders and reads the report; the exit status must be the expected one.</summary>
    public JsonElement Render(string rules, int status, params string[] files)
    {
        var answer = Programs.Pantomet(["render", "--rules", rules, "--out", Out, "--report", At("report.json"), .. files]);
        Assert.True(answer.Code == status, $"exit status {answer.Code}: {answer.Error}");
        return JsonDocument.Parse(File.ReadAllText(At("report.json"))).RootElement;
    }

    /// <summary>A picture of four flat quarters: red top left, green top right, blue bottom left, white bottom right.</summary>
    public string Quarters(string name, int width, int height, int orientation = 1, bool alpha = false)
    {
        var (halfWidth, halfHeight) = (width / 2, height / 2);
        using var red = Flat(halfWidth, halfHeight, 220, 20, 20);
        using var green = Flat(width - halfWidth, halfHeight, 20, 200, 20);
        using var blue = Flat(halfWidth, height - halfHeight, 20, 20, 220);
        using var white = Flat(width - halfWidth, height - halfHeight, 250, 250, 250);
        using var all = Image.Arrayjoin([red, green, blue, white], across: 2);
        // Arrayjoin spaces by the largest; the quarters are of one size for even sides.
        using var tagged = all.Mutate(image => image.Set(GValue.GIntType, "orientation", orientation));
        using var final = alpha ? tagged.Bandjoin(Alpha(tagged)) : tagged.Copy();
        final.WriteToFile(At(name));
        return At(name);
    }

    public void Dispose() => Directory.Delete(Root, recursive: true);

    private static Image Flat(int width, int height, params double[] colour)
    {
        using var black = Image.Black(width, height, bands: 3);
        using var filled = black + colour;
        return filled.Cast(Enums.BandFormat.Uchar).Copy(interpretation: Enums.Interpretation.Srgb);
    }

    // Transparent in the left half.
    private static Image Alpha(Image image)
    {
        using var left = Image.Black(image.Width / 2, image.Height);
        using var right = Image.Black(image.Width - (image.Width / 2), image.Height) + 255;
        return left.Join(right, Enums.Direction.Horizontal).Cast(Enums.BandFormat.Uchar);
    }
}
