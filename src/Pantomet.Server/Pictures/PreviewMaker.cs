using System.Globalization;
using NetVips;
using Pantomet.Data;
using Pantomet.Data.Pictures;

namespace Pantomet.Server.Pictures;

/// <summary>Small copies for the screen, upright and in sRGB, made once and kept beside the originals.</summary>
internal sealed class PreviewMaker(DataFolder folder)
{
    public const int Small = 480;
    public const int Large = 1800;

    private static readonly SemaphoreSlim Turns = new(Environment.ProcessorCount);

    /// <summary>The longest sides that are made; nothing else can be asked for.</summary>
    public static bool Knows(int side) => side is Small or Large;

    public async Task<string> MakeAsync(PictureRow picture, int side, CancellationToken cancel)
    {
        var path = Path.Combine(folder.Previews, string.Create(CultureInfo.InvariantCulture, $"{picture.ContentHash}-{side}.webp"));
        if (File.Exists(path))
        {
            return path;
        }

        await Turns.WaitAsync(cancel);
        try
        {
            await Task.Run(() => Write(folder.Originals.PathOf(picture.ContentHash), side, path), cancel);
        }
        finally
        {
            Turns.Release();
        }

        return path;
    }

    private static void Write(string original, int side, string path)
    {
        using var small = Image.Thumbnail(original, side, height: side, size: Enums.Size.Down, outputProfile: "srgb");
        var part = $"{path}.{Guid.NewGuid():n}.part";
        small.Webpsave(part, q: 82, effort: 0, keep: Enums.ForeignKeep.None);
        File.Move(part, path, overwrite: true);
    }
}
