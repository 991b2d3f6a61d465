using Pantomet.Application.Engine;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Imaging.Hosting;

namespace Pantomet.Application.Pictures;

/// <summary>Small copies for the screen, upright and in sRGB, made once and kept beside the originals.</summary>
public sealed class PreviewMaker(DataFolder folder, ImagingProcessPool engine, TimeProvider clock)
{
    /// <summary>The longest side of a small preview, in pixels.</summary>
    public const int Small = 480;

    /// <summary>The longest side of a large preview, in pixels.</summary>
    public const int Large = 1800;

    /// <summary>The longest sides that are made; nothing else can be asked for.</summary>
    public static bool Knows(int side) => side is Small or Large;

    /// <summary>Where the copy lies, made if missing; null when the original cannot be drawn.</summary>
    public Task<string?> MakeAsync(PictureRow picture, int side, Turn turn, CancellationToken cancel) =>
        MakeAsync(
            $"{picture.ContentHash}-{side}{(turn.IsNone ? "" : $"-{turn}")}",
            part => new PreviewRequest(folder.Originals.PathOf(picture.ContentHash), side, part, turn, picture.Facts.Format),
            cancel
        );

    /// <summary>Where a copy of pictures side by side lies, made if missing; null when one cannot be drawn.</summary>
    public Task<string?> MakeAsync(IReadOnlyList<(PictureRow Picture, Turn Turn)> pair, int side, CancellationToken cancel)
    {
        var originals = pair.Select(one => new TurnedOriginal(folder.Originals.PathOf(one.Picture.ContentHash), one.Turn)).ToList();
        return MakeAsync(
            $"{PairStore.HashOf(pair.Select(one => $"{one.Picture.ContentHash}-{one.Turn}"))}-{side}",
            part => new PreviewRequest(originals[0].Path, side, part) { Pair = originals },
            cancel
        );
    }

    /// <summary>Where a copy of a file that is no picture of the library lies, made if missing; null when it cannot be drawn.</summary>
    /// <param name="name">A name that stands for what the file holds: another file has another one.</param>
    /// <param name="path">The file.</param>
    /// <param name="side">The longest side of the copy, in pixels.</param>
    /// <param name="cancel">Stops waiting.</param>
    public Task<string?> MakeAsync(string name, string path, int side, CancellationToken cancel) =>
        MakeAsync($"{name}-{side}", part => new PreviewRequest(path, side, part), cancel);

    private async Task<string?> MakeAsync(string name, Func<string, PreviewRequest> request, CancellationToken cancel)
    {
        var path = Path.Combine(folder.Previews, $"{name}.webp");
        if (File.Exists(path))
        {
            Touch(path);
            return path;
        }

        var part = $"{path}.{Guid.NewGuid():n}.part";
        var response = await engine.RunAsync(request(part), cancel, urgent: true);
        if (response.Refusal is not null)
        {
            File.Delete(part);
            return null;
        }

        File.Move(part, path, overwrite: true);
        return path;
    }

    // To the day: the copy that was not looked at for longest is collected first.
    private void Touch(string path)
    {
        var now = clock.GetUtcNow().UtcDateTime;
        if (File.GetLastWriteTimeUtc(path) < now.Date)
        {
            try
            {
                File.SetLastWriteTimeUtc(path, now);
            }
            catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
            {
                // It was collected this moment, or stands on a disk that takes no times.
            }
        }
    }
}
