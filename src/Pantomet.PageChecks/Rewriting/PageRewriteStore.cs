using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application;
using Pantomet.Application.Background;
using Pantomet.Application.Bundles;
using Pantomet.Application.Jobs;
using Pantomet.Application.Pages;
using Pantomet.Core.Facts;
using Pantomet.Core.Markup;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pages;
using Pantomet.PageChecks;

namespace Pantomet.PageChecks.Rewriting;

/// <summary>A picture of a job where it stands on the page that the job was made of.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Destination">The destination's key.</param>
/// <param name="Place">The slot's group, or the slot.</param>
/// <param name="Where">The selector that found its element.</param>
/// <param name="Kind">How the page holds it.</param>
/// <param name="Address">The address that it had.</param>
/// <param name="Cut">True where the page shows a part of it.</param>
/// <param name="Faults">What was wrong with it.</param>
public sealed record PageStanding(
    Guid Picture,
    string Destination,
    string Place,
    string Where,
    ImageKind Kind,
    string Address,
    bool Cut,
    IReadOnlyList<PageFaultCode> Faults
);

/// <summary>How far mending the page of a job is.</summary>
/// <param name="Check">The page check that the job was made of.</param>
/// <param name="Name">What people call the page.</param>
/// <param name="Pictures">How many places of it have a picture of the job.</param>
/// <param name="State">Where it stands; null where nobody asked for it.</param>
/// <param name="Trouble">Why it could not be mended: a sentence.</param>
/// <param name="Progress">How far it is; null where it is not under way.</param>
/// <param name="Page">What became of it; null until it is mended.</param>
/// <param name="AskedAt">When it was asked for, UTC.</param>
public sealed record PageRewriteView(
    Guid Check,
    string Name,
    int Pictures,
    PageCheckState? State,
    string? Trouble,
    PageProgress? Progress,
    RewrittenPage? Page,
    DateTime? AskedAt
);

/// <summary>The pages that jobs were made of, and what becomes of them when they get the jobs' files.</summary>
public sealed class PageRewriteStore(
    IServiceScopeFactory scopes,
    PageCheckStore store,
    JobRoom room,
    FileDesk desk,
    DataFolder folder,
    WorkOptions options,
    Writer writer,
    TimeProvider clock
)
{
    /// <summary>Puts down which job was made of which page.</summary>
    public Task<bool> RememberAsync(Guid job, Guid check, IReadOnlyList<PageStanding> standings) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                db.PageJobs.Add(
                    new()
                    {
                        JobId = job,
                        CheckId = check,
                        Places = StoredJson.Write(standings),
                    }
                );
                await db.SaveChangesAsync(CancellationToken.None);
                return (true, null);
            },
            CancellationToken.None
        );

    /// <summary>The page of a job; null for a job that was made of none.</summary>
    public async Task<PageJobRow?> OneAsync(Guid job, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await Rows(scope).SingleOrDefaultAsync(row => row.JobId == job, cancel);
    }

    /// <summary>The one that waits longest; null when none does.</summary>
    public async Task<PageJobRow?> NextAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await Rows(scope).Where(row => row.State == PageCheckState.Waiting).OrderBy(row => row.AskedAt).FirstOrDefaultAsync(cancel);
    }

    /// <summary>Asks for it; a sentence when it cannot be done.</summary>
    public async Task<string?> AskAsync(Guid job, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        if (await room.OpenAsync(job, cancel) is not { } board)
        {
            return PageTexts.TheJobNoLongerExists;
        }

        var contents = await BundleContents.OfAsync(scope.ServiceProvider.GetRequiredService<PantometDb>(), board, cancel);
        var waiting = contents.Files.Count(file => file.State == HandOver.Waiting);
        if (waiting > 0)
        {
            return PageTexts.StillToBeMade(waiting, (waiting == 1 ? PageTexts.FileIs : PageTexts.FilesAre));
        }

        await ChangeAsync(
            job,
            row => (row.State, row.Trouble, row.AskedAt) = (PageCheckState.Waiting, null, clock.GetUtcNow().UtcDateTime)
        );
        return null;
    }

    /// <summary>Changes how far it is.</summary>
    public Task<bool> ChangeAsync(Guid job, Action<PageJobRow> change) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                if (await db.PageJobs.SingleOrDefaultAsync(row => row.JobId == job, CancellationToken.None) is not { } row)
                {
                    return (false, null);
                }

                change(row);
                await db.SaveChangesAsync(CancellationToken.None);
                return (true, null);
            },
            CancellationToken.None
        );

    /// <summary>How it is shown.</summary>
    public async Task<PageRewriteView?> ViewAsync(PageJobRow row, PageProgress? progress, CancellationToken cancel) =>
        await store.OneAsync(row.CheckId, cancel) is not { } check
            ? null
            : new(
                check.Id,
                check.Name,
                Standings(row).Count,
                row.State,
                row.Trouble,
                progress,
                row.State == PageCheckState.Done ? await MendedAsync(row, cancel) : null,
                row.AskedAt
            );

    /// <summary>What the last run left; null where it left nothing.</summary>
    public async Task<RewrittenPage?> MendedAsync(PageJobRow row, CancellationToken cancel)
    {
        var text = await WholeFile.TextAsync(Path.Combine(FolderOf(row), MendedNames.Report), cancel);
        return text is null ? null : WorkLines.Read<RewrittenPage>(text);
    }

    /// <summary>The folder of what becomes of a page.</summary>
    public string FolderOf(PageJobRow row) => Path.Combine(folder.Pages, $"{row.CheckId:N}", $"mended-{row.JobId:N}");

    /// <summary>Puts down the job's files, and what is to stand where; null where the page or the job is gone.</summary>
    public async Task<PageRewriteRequest?> WishAsync(PageJobRow row, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        if (await store.OneAsync(row.CheckId, cancel) is not { } check || await room.OpenAsync(row.JobId, cancel) is not { } board)
        {
            return null;
        }

        var root = FolderOf(row);
        if (Directory.Exists(root))
        {
            Directory.Delete(root, recursive: true);
        }

        var contents = await BundleContents.OfAsync(scope.ServiceProvider.GetRequiredService<PantometDb>(), board, cancel);
        Directory.CreateDirectory(Path.Combine(root, MendedNames.Pictures));
        foreach (var file in contents.Going)
        {
            if (await desk.ReadAsync(file.File.Wanted, file.File.Row!, cancel) is var (bytes, _))
            {
                var path = Path.Combine(root, MendedNames.Pictures, file.Path!);
                Directory.CreateDirectory(Path.GetDirectoryName(path)!);
                await File.WriteAllBytesAsync(path, bytes, cancel);
            }
        }

        var pages = await JobPages.OfAsync(contents, PagePlace.Pictures, folder, null, cancel);
        return new()
        {
            Page = store.WishOf(check, options) with { Keep = root },
            Places =
            [
                .. Standings(row)
                    .Select(standing =>
                        PlaceOf(
                            standing,
                            pages.FirstOrDefault(page =>
                                page.Mine.Id == standing.Picture
                                && page.Place.Destination == standing.Destination
                                && page.Place.Key == standing.Place
                            )
                        )
                    ),
            ],
        };
    }

    private static PagePlace PlaceOf(PageStanding standing, JobPage? page)
    {
        var place = new PagePlace
        {
            Where = standing.Where,
            Kind = standing.Kind,
            Address = standing.Address,
            Altered = standing.Faults.Any(fault => fault is PageFaultCode.Squashed or PageFaultCode.Enlarged),
            Cut = standing.Cut,
            NoRoom = standing.Faults.Contains(PageFaultCode.NoSize),
            Lazy =
                standing.Faults.Contains(PageFaultCode.LazyFirst) ? false
                : standing.Faults.Contains(PageFaultCode.EagerBelow) ? true
                : null,
        };
        if (page?.Picture is not { } picture)
        {
            return place with { Left = page is null ? PageTexts.TheJobNoLongerHasThis : PageTexts.TheJobDeliversNoFileFor };
        }

        var (sources, image) = HtmlWriter.Parts(picture);
        var (isOne, last) = (picture.Slots.Count == 1, picture.Slots[^1]);
        return place with
        {
            Sources = sources,
            Image = Said(image, picture),
            Alone = isOne ? Said(HtmlWriter.Alone(picture), picture) : null,
            Plain = isOne ? last.Plain(last.ByType[^1]).Address : null,
            Css = standing.Kind == ImageKind.Background ? CssWriter.Property(picture, PagePlace.Root, PagePlace.Property) : null,
        };
    }

    // Where nobody said what a picture shows, the page is not to say that it shows nothing.
    private static IReadOnlyList<HtmlAttribute> Said(IReadOnlyList<HtmlAttribute> image, MarkupPicture picture) =>
        picture.Alternative is null ? [.. image.Where(one => one.Name != "alt")] : image;

    private static IReadOnlyList<PageStanding> Standings(PageJobRow row) => StoredJson.Read<IReadOnlyList<PageStanding>>(row.Places);

    private static IQueryable<PageJobRow> Rows(AsyncServiceScope scope) =>
        scope.ServiceProvider.GetRequiredService<PantometDb>().PageJobs.AsNoTracking();
}
