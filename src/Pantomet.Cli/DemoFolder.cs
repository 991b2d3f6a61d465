namespace Pantomet.Cli;

/// <summary>The made-up shop's media folder as it grew over the years: everything straight from the camera, some twice, some under wrong names.</summary>
internal static class DemoFolder
{
    private static readonly (string Picture, string Path)[] Files =
    [
        ("DSC_0412.JPG", "2024/03/DSC_0412.JPG"),
        ("DSC_0415.JPG", "2024/03/DSC_0415.JPG"),
        ("DSC_0423.JPG", "2024/03/DSC_0423.JPG"),
        ("DSC_0431.JPG", "2024/04/DSC_0431.JPG"),
        ("DSC_0440.JPG", "2024/04/DSC_0440.JPG"),
        ("DSC_0440.JPG", "2024/04/DSC_0440-copy.JPG"),
        ("DSC_0452.JPG", "2024/05/DSC_0452.JPG"),
        ("IMG_2081.jpg", "2025/01/IMG_2081.jpg"),
        ("IMG_2087.jpg", "2025/01/IMG_2087.jpg"),
        ("IMG_2102.jpg", "2025/02/banner-final.png"),
        ("IMG_2109.jpg", "2025/02/IMG_2109.jpg"),
        ("P1050233.JPG", "2025/06/P1050233.JPG"),
        ("glass-falling-chart.png", "2025/06/glass-falling-chart.png"),
        ("barometer-from-chat.jpg", "2025/09/barometer-from-chat.jpg"),
        ("weatherworks-mark.png", "weatherworks-mark.png"),
    ];

    /// <summary>Lays it anew.</summary>
    /// <param name="demo">The folder of the demo's files.</param>
    /// <param name="folder">Where it lies; what lay there is removed.</param>
    public static void Lay(string demo, string folder)
    {
        if (Directory.Exists(folder))
        {
            Directory.Delete(folder, recursive: true);
        }

        foreach (var (picture, path) in Files)
        {
            var to = Path.Combine(folder, path);
            Directory.CreateDirectory(Path.GetDirectoryName(to)!);
            File.Copy(Path.Combine(demo, "pictures", picture), to);
        }

        // An upload that broke off.
        var whole = File.ReadAllBytes(Path.Combine(demo, "pictures", "DSC_0415.JPG"));
        File.WriteAllBytes(Path.Combine(folder, "2024/03/upload-broken.jpg"), whole[..12]);
    }
}
