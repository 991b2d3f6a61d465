namespace Pantomet.Server.Tests;

/// <summary>Some damaged files of each type; bench/mutate runs thousands.</summary>
public sealed class MutationTests
{
    private const int Files = 6;

    [Theory]
    [InlineData("jpeg")]
    [InlineData("png")]
    [InlineData("webp")]
    [InlineData("avif")]
    [InlineData("gif")]
    [InlineData("tiff")]
    [InlineData("svg")]
    [InlineData("heic")]
    [InlineData("bmp")]
    [InlineData("jxl")]
    public async Task Damaged_files_are_read_or_refused_with_a_reason_and_never_crash_or_hang(string format)
    {
        Imaging.ImagingEngine.Start();
        var folder = Directory.CreateTempSubdirectory("pantomet-mutation-").FullName;
        try
        {
            var tally = await Mutations.RunAsync(format, Files, seed: 20261123, folder);
            Assert.Empty(tally.Faults);
            Assert.Equal((Files, 0), (tally.Read + tally.Refused, tally.Crashes));
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }
}
