using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Engine;
using Pantomet.Core.Geometry;
using Pantomet.Core.Likeness;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Imaging.Hosting;

namespace Pantomet.Application.Pictures;

/// <summary>Tells which pictures of a job are alike. What a picture looks like is read once from its small copy, and known while the server runs.</summary>
public sealed class AlikePictureStore(IServiceScopeFactory scopes, PreviewMaker previews, ImagingProcessPool engine)
{
    // Three kilobytes each.
    private const int Most = 20_000;

    private readonly ConcurrentDictionary<string, PictureSketch?> _sketches = new(StringComparer.Ordinal);

    /// <summary>The pictures of a job that are alike, in groups of two and more, in the order of the job; null where there is no such job.</summary>
    /// <param name="job">The job.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<IReadOnlyList<IReadOnlyList<Guid>>?> OfJobAsync(Guid job, CancellationToken cancel)
    {
        List<(int Quarters, PictureRow Picture)> pictures;
        await using (var scope = scopes.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
            if (!await db.Jobs.AnyAsync(row => row.Id == job, cancel))
            {
                return null;
            }

            var rows = await db
                .JobPictures.AsNoTracking()
                .Where(row => row.JobId == job)
                .OrderBy(row => row.Place)
                .Join(
                    db.Pictures.AsNoTracking(),
                    row => row.PictureId,
                    picture => picture.Id,
                    (row, picture) => new { row.Quarters, picture }
                )
                .ToListAsync(cancel);
            pictures = [.. rows.Select(row => (row.Quarters, row.picture))];
        }

        var sketched = new List<(int Quarters, Guid Picture, PictureSketch Sketch)>();
        // Pictures side by side are framed by the marks of each part.
        foreach (var (quarters, picture) in pictures.Where(one => one.Picture.Parts is null))
        {
            if (await SketchAsync(picture, cancel) is { } sketch)
            {
                sketched.Add((quarters, picture.Id, sketch));
            }
        }

        // Those that lie on different sides take no frame from each other.
        return
        [
            .. sketched
                .GroupBy(one => one.Quarters)
                .SelectMany(side => AlikePictures.Groups(side.Select(one => (one.Picture, one.Sketch)))),
        ];
    }

    private async Task<PictureSketch?> SketchAsync(PictureRow picture, CancellationToken cancel)
    {
        if (_sketches.TryGetValue(picture.ContentHash, out var known))
        {
            return known;
        }

        if (_sketches.Count >= Most)
        {
            _sketches.Clear();
        }

        var path = await previews.MakeAsync(picture, PreviewMaker.Small, Turn.None, cancel);
        var response = path is null ? null : await engine.RunAsync(new SketchRequest(path), cancel, urgent: true);
        // A picture that cannot be drawn is like no other; one whose process was busy or ended is asked for again.
        if (response is { Sketch: null, Failure: not ImagingFailure.Refused })
        {
            return null;
        }

        var sketch = response?.Sketch is { } colours ? PictureSketch.Of((double)picture.Width / picture.Height, colours) : null;
        _sketches[picture.ContentHash] = sketch;
        return sketch;
    }
}
