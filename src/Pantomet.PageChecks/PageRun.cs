using System.Diagnostics;
using NetVips;
using Pantomet.Application.Background;
using Pantomet.Browsing;
using Pantomet.Core.Facts;
using Pantomet.Core.Mending;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Imaging;
using Pantomet.Imaging.Making;
using Pantomet.Platform;

namespace Pantomet.PageChecks;

/// <summary>Measures a page in a browser, and makes the files that would be enough.</summary>
/// <param name="request">What is asked.</param>
/// <param name="tells">Told how far it is.</param>
public sealed class PageRun(PageCheckRequest request, Action<PageProgress>? tells = null)
{
    /// <summary>How many pictures files are made for; the heaviest come first.</summary>
    public const int MostMade = 300;

    private readonly List<MeasuredScreen> _measured = [];
    private readonly Lock _gate = new();
    private static readonly IReadOnlyList<SlotType> Modern = [new(PictureFormat.WebP)];

    /// <summary>Does it.</summary>
    /// <exception cref="PageFaultException">The page cannot be opened.</exception>
    /// <exception cref="NoBrowserException">There is no browser.</exception>
    public async Task<PageReport> ExecuteAsync(CancellationToken cancel)
    {
        var clock = Stopwatch.StartNew();
        using var source = await PageSource.OpenAsync(request.Page, request.Allowed, request.PrivateHosts, cancel);
        var folder = request.Keep ?? TemporaryFolder.Make("page");
        Directory.CreateDirectory(folder);
        try
        {
            var loaded = new LoadedFiles(source, Path.Combine(folder, "loaded"), request.Keep is not null);
            var visit = await VisitAsync(source, loaded, folder, cancel);
            var possible = await MakeAsync(visit, loaded, Path.Combine(folder, "made"), cancel);
            return PageReport.Of(visit, possible, request.Rate, clock.Elapsed);
        }
        finally
        {
            if (request.Keep is null)
            {
                TemporaryFolder.Remove(folder);
            }
        }
    }

    private async Task<PageVisit> VisitAsync(PageSource source, LoadedFiles loaded, string folder, CancellationToken cancel)
    {
        var clock = Stopwatch.StartNew();
        List<Screen> screens = [.. request.Viewports.SelectMany(width => request.Densities.Select(density => new Screen(width, density)))];
        var shots = request.Keep is null ? [] : request.Viewports.Select(width => new Screen(width, request.Densities[0])).ToHashSet();
        var count = Counting(making: false, screens.Count);
        var (seen, failed) = await new PageMeasurer(source, new()).LookAsync(
            screens,
            shots,
            look => SeenAsync(look, source, folder, count, cancel),
            cancel
        );
        if (seen.Count == 0)
        {
            throw new PageFaultException(failed[0].Why);
        }

        var files = await loaded.ReadAsync(seen.SelectMany(look => look.Images).Select(image => image.Address).Distinct(), cancel);
        var pictures = files.Keys.ToHashSet(StringComparer.Ordinal);
        var others = new Dictionary<string, long>(StringComparer.Ordinal);
        foreach (var address in seen.SelectMany(look => look.Asked).Where(address => !pictures.Contains(address)).Distinct())
        {
            var answer = await source.GetAsync(new(address), cancel);
            others[address] = answer.Trouble is null ? answer.Body.LongLength : 0;
        }

        return new(
            request.Page,
            source.Own,
            [
                .. seen.Select(look => new VisitedScreen(
                    look.Screen,
                    look.Height,
                    look.Asked.Sum(address => others.GetValueOrDefault(address))
                )),
            ],
            PageImage.Of([.. seen.Select(look => (look.Screen, look.Images))], files),
            [
                .. failed.Select(one => PageTexts.OnAScreenOfPxAt(one.Screen.Viewport, one.Screen.Density, one.Why)),
                .. seen.SelectMany(look => look.Notes).Distinct(),
            ],
            clock.Elapsed
        );
    }

    // A screen is shown as soon as it is measured: what it looks like is kept, and what it comes to is told.
    private async Task SeenAsync(LookedAt? look, PageSource source, string folder, Action count, CancellationToken cancel)
    {
        if (look is not null)
        {
            Keep(look, folder);
            var bytes = 0L;
            foreach (var address in look.Asked.Where(address => address.StartsWith("http", StringComparison.OrdinalIgnoreCase)))
            {
                var answer = await source.GetAsync(new(address), cancel);
                bytes += answer.Trouble is null ? answer.Body.LongLength : 0;
            }

            lock (_gate)
            {
                _measured.Add(new(look.Screen.Viewport, look.Screen.Density, look.Height, look.Images.Count, bytes));
            }
        }

        count();
    }

    private static void Keep(LookedAt look, string folder)
    {
        if (look.Shot is null)
        {
            return;
        }

        WholeFile.Write(Path.Combine(folder, ShotName(look.Screen.Viewport)), look.Shot);
        WholeFile.Write(Path.Combine(folder, ElementsName(look.Screen.Viewport)), WorkLines.Write(look.Elements));
    }

    /// <summary>The name of a page's picture in the folder that is kept.</summary>
    /// <param name="viewport">The width of the screen.</param>
    public static string ShotName(int viewport) => $"page-{viewport}.png";

    /// <summary>The name of the list of a page's elements in the folder that is kept.</summary>
    /// <param name="viewport">The width of the screen.</param>
    public static string ElementsName(int viewport) => $"elements-{viewport}.json";

    private async Task<IReadOnlyList<IReadOnlyList<PossibleFile>>> MakeAsync(
        PageVisit visit,
        LoadedFiles loaded,
        string folder,
        CancellationToken cancel
    )
    {
        Directory.CreateDirectory(folder);
        var possible = new IReadOnlyList<PossibleFile>[visit.Images.Count];
        Array.Fill(possible, []);
        // The same file at the same places is made once, wherever it stands.
        var alike = visit
            .Images.Select((image, i) => (Image: image, Places: PossiblePlace.Of(image), At: i))
            .Where(one => one.Places.Count > 0 && loaded.IsStill(one.Image.Address))
            .GroupBy(one =>
                (
                    one.Image.Address,
                    string.Join(';', one.Places.Select(place => $"{place.Part}{place.Size}{string.Join(',', place.Screens)}"))
                )
            )
            .OrderByDescending(group => group.First().Image.File.Bytes)
            .Take(MostMade)
            .ToList();
        var room = new WorkRoom(request.Jobs);
        var count = Counting(making: true, alike.Count);
        await Parallel.ForEachAsync(
            alike,
            new ParallelOptions { MaxDegreeOfParallelism = request.Jobs, CancellationToken = cancel },
            async (group, stop) =>
            {
                var first = group.First();
                var made = await OneAsync(first.Image, first.Places, loaded, Path.Combine(folder, $"{first.At}"), room, stop);
                foreach (var one in group)
                {
                    possible[one.At] = made;
                }

                count();
            }
        );
        return possible;
    }

    // Tells one more at each call, whoever calls.
    private Action Counting(bool making, int of)
    {
        var done = 0;
        return () =>
        {
            lock (_gate)
            {
                tells?.Invoke(new(making, ++done, of, [.. _measured]));
            }
        };
    }

    private async Task<IReadOnlyList<PossibleFile>> OneAsync(
        PageImage image,
        IReadOnlyList<PossiblePlace> places,
        LoadedFiles loaded,
        string folder,
        WorkRoom room,
        CancellationToken cancel
    )
    {
        var wanted = new List<Wanted>();
        foreach (var place in places)
        {
            wanted.Add(new(place.SlotFor(Modern, MendRule.UsualLikeness), place.Part));
        }

        // What the type costs is told at the largest place.
        var own = image.File.Format!.Value;
        if (PictureFormats.Written.Contains(own))
        {
            wanted.Add(new(places[0].SlotFor([new(own)], MendRule.UsualLikeness), places[0].Part));
        }

        try
        {
            var picture = await PictureMaker.MakeAsync(loaded.PathOf(image.Address), [], null, wanted, room, cancel);
            if (picture.Facts is null)
            {
                return [];
            }

            return
            [
                .. places.Select(
                    (place, i) =>
                    {
                        var modern = picture.Made[i][0];
                        var same = i == 0 ? picture.Made.ElementAtOrDefault(places.Count)?[0] : null;
                        var lightest = new[] { modern, same }.Where(IsGood).MinBy(made => made!.File!.Length);
                        var path = lightest is null || request.Keep is null ? null : Keep(lightest, folder, i);
                        return new PossibleFile(place, Told(same), Told(lightest), path);
                    }
                ),
            ];
        }
        catch (VipsException fault)
        {
            ImagingFault.Tell(fault);
            return [];
        }
    }

    private static string Keep(MadeVariant made, string folder, int number)
    {
        Directory.CreateDirectory(folder);
        var name = $"{number}.{made.Format!.Value.Ending()}";
        WholeFile.Write(Path.Combine(folder, name), made.File!);
        return $"made/{Path.GetFileName(folder)}/{name}";
    }

    // What does not reach the likeness would be enough only on paper.
    private static bool IsGood(MadeVariant? made) =>
        made is { File: not null, Likeness: var likeness } && !(likeness?.Score < MendRule.UsualLikeness);

    private static MadeFile? Told(MadeVariant? made) =>
        IsGood(made) ? new(made!.Format!.Value, made.Size, made.File!.LongLength, made.Likeness?.Score) : null;
}
