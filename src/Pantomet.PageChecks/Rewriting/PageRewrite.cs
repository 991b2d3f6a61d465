using System.IO.Compression;
using System.Text;
using Pantomet.Application.Background;
using Pantomet.Batch.Sites;
using Pantomet.Browsing;
using Pantomet.Core.Markup;
using Pantomet.Core.PageChecks;
using Pantomet.PageChecks;

namespace Pantomet.PageChecks.Rewriting;

/// <summary>
/// Mends a page and opens it beside what it was. What moved, or shows something else, is held otherwise and looked at again, and in the end
/// left as it was: a page is not to look other than before.
/// </summary>
/// <param name="request">What is asked.</param>
/// <param name="tells">Told how far it is.</param>
internal sealed class PageRewrite(PageRewriteRequest request, Action<PageProgress>? tells = null)
{
    // Each picture can be held in so many ways; a page has settled then.
    private const int MostRounds = 5;

    private readonly Dictionary<string, long> _weights = new(StringComparer.Ordinal);
    private readonly string _folder = request.Page.Keep!;
    private readonly string _pictures = Path.Combine(request.Page.Keep!, MendedNames.Pictures);

    /// <summary>Does it.</summary>
    /// <exception cref="PageFaultException">The page cannot be opened.</exception>
    /// <exception cref="NoBrowserException">There is no browser.</exception>
    public async Task<RewrittenPage> ExecuteAsync(CancellationToken cancel)
    {
        var page = request.Page;
        using var source = await PageSource.OpenAsync(page.Page, page.Allowed, page.PrivateHosts, cancel);
        List<Screen> screens = [.. page.Viewports.SelectMany(width => page.Densities.Select(density => new Screen(width, density)))];
        var shots = page.Viewports.Select(width => new Screen(width, page.Densities[0])).ToHashSet();
        // The page as it was, a round on the screens of which pictures are taken, and the rest of the screens.
        var (done, of) = (0, screens.Count + shots.Count + screens.Count);
        void Count() => tells?.Invoke(new(false, Math.Min(of, Interlocked.Increment(ref done)), of, []));

        var before = await LookAsync(source, screens, shots, Count, cancel);
        var text = await RewrittenText.ReadAsync(source, before, request.Places, cancel);
        var files = new MendedFiles(source, text.Pictures, _pictures);
        foreach (var shot in before.Where(look => look.Shot is not null))
        {
            WholeFile.Write(At(MendedNames.Before(shot.Screen.Viewport)), shot.Shot!);
        }

        IReadOnlyList<RewrittenImage> images;
        IReadOnlyList<LookedAt> seen;
        List<RewrittenScreen> taken;
        for (var round = 0; ; round++)
        {
            text.Write(files);
            seen = await LookAsync(files, [.. shots], shots, Count, cancel);
            (images, taken) = await CompareAsync(text, source, files, before, seen, cancel);
            var change = RewrittenPage.ToChange(images, taken);
            // After the last round what does not fit goes back, and nothing is looked at that nobody sees.
            if (change.Count == 0 || round > MostRounds)
            {
                break;
            }

            of += shots.Count;
            text.Change(change, leave: round == MostRounds);
        }

        var others = screens.Where(screen => !shots.Contains(screen)).ToList();
        var rest = others.Count == 0 ? [] : await LookAsync(files, others, new HashSet<Screen>(), Count, cancel);
        taken.AddRange(await ScreensAsync(source, files, before, rest, null, cancel));
        await WriteZipAsync(files, [.. seen, .. rest], cancel);
        return new(
            [.. taken.OrderBy(one => one.Viewport).ThenBy(one => one.Density)],
            images,
            [.. before.Concat(seen).SelectMany(look => look.Notes).Concat(text.Notes).Distinct()]
        );
    }

    private string At(string name) => Path.Combine(_folder, name);

    private static async Task<IReadOnlyList<LookedAt>> LookAsync(
        IPageFiles files,
        IReadOnlyList<Screen> screens,
        IReadOnlySet<Screen> shots,
        Action count,
        CancellationToken cancel
    )
    {
        var (seen, failed) = await new PageMeasurer(files, new()).LookAsync(
            screens,
            shots,
            _ =>
            {
                count();
                return Task.CompletedTask;
            },
            cancel
        );
        return failed.Count > 0 ? throw new PageFaultException(failed[0].Why) : seen;
    }

    private async Task<(IReadOnlyList<RewrittenImage> Images, List<RewrittenScreen> Screens)> CompareAsync(
        RewrittenText text,
        IPageFiles source,
        MendedFiles files,
        IReadOnlyList<LookedAt> before,
        IReadOnlyList<LookedAt> after,
        CancellationToken cancel
    )
    {
        var (looks, similar) = (new List<(int Place, RewrittenView Look)>(), new Dictionary<int, (double? Whole, double? Others)>());
        foreach (var look in after)
        {
            var old = before.First(one => one.Screen == look.Screen);
            List<(int Place, SeenImage Seen)> places =
            [
                .. request
                    .Places.Select((place, i) => (i, old.Images.FirstOrDefault(one => one.Where == place.Where && one.Kind == place.Kind)))
                    .Where(one => one.Item2 is { Place: { Width: > 0, Height: > 0 } })
                    .Select(one => (one.i, one.Item2!)),
            ];
            IReadOnlyList<PlaceLikeness> each = [.. places.Select(_ => default(PlaceLikeness))];
            if (look.Shot is not null && old.Shot is not null)
            {
                var path = At(MendedNames.After(look.Screen.Viewport));
                WholeFile.Write(path, look.Shot);
                var (whole, rest, parts) = PageLikeness.Compare(
                    At(MendedNames.Before(look.Screen.Viewport)),
                    path,
                    [.. places.Select(one => one.Seen.Place)],
                    places
                        .Select((one, i) => (one.Place, i))
                        .Where(one => request.Places[one.Place].Altered)
                        .Select(one => one.i)
                        .ToHashSet(),
                    At(MendedNames.Difference(look.Screen.Viewport))
                );
                (similar[look.Screen.Viewport], each) = ((whole, rest), parts);
            }

            looks.AddRange(
                places.Select(
                    (one, i) =>
                        (
                            one.Place,
                            new RewrittenView(
                                look.Screen.Viewport,
                                Rounded(each[i].Similarity),
                                each[i].WasBlurred,
                                look.Images.Any(now => now.Kind == one.Seen.Kind && IsThere(now.Place, one.Seen.Place))
                            )
                            {
                                Area = Math.Round(one.Seen.Place.Width * one.Seen.Place.Height, 2),
                            }
                        )
                )
            );
        }

        return (
            text.Images(looks.ToLookup(one => one.Place, one => one.Look)),
            await ScreensAsync(source, files, before, after, similar, cancel)
        );
    }

    private static double? Rounded(double? score) => score is { } known ? Math.Round(known, 4) : null;

    // Within a pixel.
    private static bool IsThere(PageBox now, PageBox before) =>
        Math.Abs(now.X - before.X) <= 1
        && Math.Abs(now.Y - before.Y) <= 1
        && Math.Abs(now.Width - before.Width) <= 1
        && Math.Abs(now.Height - before.Height) <= 1;

    private async Task<List<RewrittenScreen>> ScreensAsync(
        IPageFiles source,
        MendedFiles files,
        IReadOnlyList<LookedAt> before,
        IReadOnlyList<LookedAt> after,
        Dictionary<int, (double? Whole, double? Others)>? similar,
        CancellationToken cancel
    )
    {
        var screens = new List<RewrittenScreen>();
        foreach (var look in after)
        {
            var old = before.First(one => one.Screen == look.Screen);
            var (whole, rest) = similar?.GetValueOrDefault(look.Screen.Viewport) ?? default;
            screens.Add(
                new(
                    look.Screen.Viewport,
                    look.Screen.Density,
                    await WeightAsync(source, old.Asked, cancel),
                    await WeightAsync(files, look.Asked, cancel),
                    Math.Round(look.Height, 2),
                    Math.Round(old.Height, 2),
                    Rounded(rest),
                    Rounded(whole)
                )
            );
        }

        return screens;
    }

    // A file weighs the same in every round, but for the texts that are mended anew.
    private async Task<long> WeightAsync(IPageFiles files, IEnumerable<string> asked, CancellationToken cancel)
    {
        var bytes = 0L;
        foreach (var address in asked)
        {
            if (files is MendedFiles mended && mended.Mended.TryGetValue(address, out var text))
            {
                bytes += text.Body.LongLength;
                continue;
            }

            if (!_weights.TryGetValue(address, out var weight))
            {
                _weights[address] = weight = (await files.GetAsync(new(address), cancel)).Body.LongLength;
            }

            bytes += weight;
        }

        return bytes;
    }

    // All that the page asked for of its own, and all new files: it can be opened as it lies there, or put where the old one was.
    private async Task WriteZipAsync(MendedFiles files, IReadOnlyList<LookedAt> seen, CancellationToken cancel)
    {
        await using var file = File.Create(At(MendedNames.Zip));
        await using var zip = await ZipArchive.CreateAsync(file, ZipArchiveMode.Create, leaveOpen: false, Encoding.UTF8, cancel);
        var written = new HashSet<string>(StringComparer.Ordinal);
        foreach (var address in seen.SelectMany(look => look.Asked).Concat(files.Mended.Keys).Append(files.Start.AbsoluteUri).Distinct())
        {
            var answer = await files.GetAsync(new(address), cancel);
            if (answer is { Trouble: null, Moved: null } && PathOf(files, address) is { } path)
            {
                await AddAsync(path, answer.Body);
            }
        }

        // Screens of other densities take others.
        var beside = PathOf(files, new Uri(files.Start, MendedNames.Pictures + "/x").AbsoluteUri)!;
        foreach (var picture in Directory.EnumerateFiles(_pictures, "*", SearchOption.AllDirectories).Order(StringComparer.Ordinal))
        {
            await AddAsync(
                beside[..^1] + Path.GetRelativePath(_pictures, picture).Replace('\\', '/'),
                await File.ReadAllBytesAsync(picture, cancel)
            );
        }

        async Task AddAsync(string path, byte[] bytes)
        {
            if (written.Add(path))
            {
                await using var entry = await zip.CreateEntry(path, CompressionLevel.Fastest).OpenAsync(cancel);
                await entry.WriteAsync(bytes, cancel);
            }
        }
    }

    private static string? PathOf(MendedFiles files, string address)
    {
        if (!address.StartsWith(files.Own, StringComparison.Ordinal))
        {
            return null;
        }

        var path = Uri.UnescapeDataString(new Uri(address).AbsolutePath).TrimStart('/');
        var isPage = address == files.Start.AbsoluteUri;
        return path.Length == 0 || path.EndsWith('/') ? path + "index.html"
            : isPage && !SiteFolder.IsPage(path) && Path.GetExtension(path).Length == 0 ? path + ".html"
            : path.Split('/').Any(part => part is ".." or ".") ? null
            : path;
    }
}
