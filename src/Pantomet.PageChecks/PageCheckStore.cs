using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application;
using Pantomet.Application.Background;
using Pantomet.Application.Jobs;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Pages;

namespace Pantomet.PageChecks;

/// <summary>A page check that somebody asks for.</summary>
public sealed record PageDraft
{
    /// <summary>What people call it; the address where it is not given.</summary>
    public string? Name { get; init; }

    /// <summary>The page's address; null where its files are sent.</summary>
    public string? Address { get; init; }

    /// <summary>Other hosts that may be read; none where it is not given.</summary>
    public IReadOnlyList<string>? Allowed { get; init; }

    /// <summary>The widths of screens in CSS pixels; the usual ones where they are not given.</summary>
    public IReadOnlyList<int>? Viewports { get; init; }

    /// <summary>The densities of screens; the usual ones where they are not given.</summary>
    public IReadOnlyList<double>? Densities { get; init; }
}

/// <summary>A page check as it stands.</summary>
/// <param name="Id">Identity.</param>
/// <param name="Name">What people call it.</param>
/// <param name="Address">The page's address; null for one that lies in files.</param>
/// <param name="Allowed">Other hosts that may be read.</param>
/// <param name="Viewports">The widths of screens in CSS pixels.</param>
/// <param name="Densities">The densities of screens.</param>
/// <param name="State">Where it stands.</param>
/// <param name="Trouble">Why it could not be measured: a sentence.</param>
/// <param name="Progress">How far it is; null where it is not under way.</param>
/// <param name="Images">How many pictures it has; null until it is measured.</param>
/// <param name="Mean">What a screen loads of them in the mean, in bytes; null until it is measured.</param>
/// <param name="Possible">What would be enough, in bytes; null until it is measured.</param>
/// <param name="AddedAt">When it was asked for, UTC.</param>
public sealed record PageCheckView(
    Guid Id,
    string Name,
    string? Address,
    IReadOnlyList<string> Allowed,
    IReadOnlyList<int> Viewports,
    IReadOnlyList<double> Densities,
    PageCheckState State,
    string? Trouble,
    PageProgress? Progress,
    int? Images,
    long? Mean,
    long? Possible,
    DateTime AddedAt
);

/// <summary>A page check with what came of it.</summary>
/// <param name="Check">The check.</param>
/// <param name="Report">What was measured; null until it is.</param>
public sealed record PageCheckDetail(PageCheckView Check, PageReport? Report);

/// <summary>The pages that are checked, each in a folder of its own.</summary>
public sealed class PageCheckStore(IServiceScopeFactory scopes, DataFolder folder, Writer writer, TimeProvider clock)
{
    /// <summary>How many files one page may have.</summary>
    public const int MostFiles = 5_000;

    /// <summary>How many bytes all files of one page may have.</summary>
    public const long MostBytes = 1_000_000_000;

    private readonly ReceivedFiles _received = new(folder, "A page", MostFiles, MostBytes);

    /// <summary>All of them, the newest first.</summary>
    public async Task<IReadOnlyList<PageCheckRow>> AllAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await scope
            .ServiceProvider.GetRequiredService<PantometDb>()
            .PageChecks.AsNoTracking()
            .OrderByDescending(row => row.AddedAt)
            .ToListAsync(cancel);
    }

    /// <summary>One of them; null when there is none.</summary>
    public async Task<PageCheckRow?> OneAsync(Guid id, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await scope
            .ServiceProvider.GetRequiredService<PantometDb>()
            .PageChecks.AsNoTracking()
            .SingleOrDefaultAsync(row => row.Id == id, cancel);
    }

    /// <summary>The one that waits longest; null when none does.</summary>
    public async Task<PageCheckRow?> NextAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await scope
            .ServiceProvider.GetRequiredService<PantometDb>()
            .PageChecks.AsNoTracking()
            .Where(row => row.State == PageCheckState.Waiting)
            .OrderBy(row => row.AddedAt)
            .FirstOrDefaultAsync(cancel);
    }

    /// <summary>Adds one; a sentence when it cannot be. One with an address waits at once, another for its files.</summary>
    public async Task<(PageCheckRow? Row, string? Fault)> AddAsync(PageDraft draft, CancellationToken cancel)
    {
        var address = draft.Address is null ? null : PageSource.AddressOf(draft.Address.Trim());
        if (Fault(draft, address) is { } fault)
        {
            return (null, fault);
        }

        var name = draft.Name?.Trim() is { Length: > 0 } given ? given : address?.AbsoluteUri ?? "A page";
        var row = new PageCheckRow
        {
            Id = Guid.CreateVersion7(),
            Name = name.Length > 200 ? name[..200] : name,
            Address = address?.AbsoluteUri,
            Allowed = string.Join(',', draft.Allowed ?? []),
            Viewports = Listed(draft.Viewports ?? Screen.UsualViewports),
            Densities = Listed(draft.Densities ?? Screen.UsualDensities),
            State = address is null ? PageCheckState.Receiving : PageCheckState.Waiting,
            AddedAt = clock.GetUtcNow().UtcDateTime,
        };
        Directory.CreateDirectory(FilesOf(row.Id));
        await writer.WriteAsync<bool>(
            async db =>
            {
                db.PageChecks.Add(row);
                await db.SaveChangesAsync(CancellationToken.None);
                return (true, null);
            },
            cancel
        );
        return (row, null);
    }

    /// <summary>Takes one file of a page; a sentence when it cannot be.</summary>
    /// <param name="id">The check, which must be receiving.</param>
    /// <param name="path">Where the file lies within the page's folder.</param>
    /// <param name="content">What it holds.</param>
    /// <param name="cancel">Stops.</param>
    public Task<string?> PutAsync(Guid id, string path, Stream content, CancellationToken cancel) =>
        _received.PutAsync(id, FilesOf(id), path, content, changed: null, cancel);

    /// <summary>Changes one.</summary>
    /// <returns>False when there is none.</returns>
    public Task<bool> ChangeAsync(Guid id, Action<PageCheckRow> change, CancellationToken cancel) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                if (await db.PageChecks.SingleOrDefaultAsync(row => row.Id == id, CancellationToken.None) is not { } row)
                {
                    return (false, null);
                }

                change(row);
                await db.SaveChangesAsync(CancellationToken.None);
                return (true, null);
            },
            cancel
        );

    /// <summary>Takes one away, with all that lies in its folder.</summary>
    public async Task<bool> RemoveAsync(Guid id, CancellationToken cancel)
    {
        var removed = await writer.WriteAsync<bool>(
            async db => (await db.PageChecks.Where(row => row.Id == id).ExecuteDeleteAsync(CancellationToken.None) > 0, null),
            cancel
        );
        _received.Forget(id);
        if (removed && Directory.Exists(Path.Combine(folder.Pages, $"{id:N}")))
        {
            Directory.Delete(Path.Combine(folder.Pages, $"{id:N}"), recursive: true);
        }

        return removed;
    }

    /// <summary>What is asked of the process that measures it.</summary>
    public PageCheckRequest WishOf(PageCheckRow row, WorkOptions options) =>
        new()
        {
            Page = row.Address ?? Opened(row.Id),
            Viewports = [.. Numbers(row.Viewports).Select(number => (int)number)],
            Densities = [.. Numbers(row.Densities)],
            Allowed = row.Allowed.Split(',', StringSplitOptions.RemoveEmptyEntries),
            PrivateHosts = options.ReachesPrivate ? null : options.PrivateHosts,
            Jobs = options.Workers,
            Keep = CheckOf(row.Id),
        };

    /// <summary>How it is shown.</summary>
    public static PageCheckView ViewOf(PageCheckRow row, PageProgress? progress) =>
        new(
            row.Id,
            row.Name,
            row.Address,
            row.Allowed.Split(',', StringSplitOptions.RemoveEmptyEntries),
            [.. Numbers(row.Viewports).Select(number => (int)number)],
            [.. Numbers(row.Densities)],
            row.State,
            row.Trouble,
            progress,
            row.Images,
            row.Mean,
            row.Possible,
            row.AddedAt
        );

    /// <summary>What was measured; null until it is.</summary>
    public async Task<PageReport?> ReportAsync(PageCheckRow row, CancellationToken cancel) =>
        row.State == PageCheckState.Done ? await MeasuredAsync(row.Id, cancel) : null;

    /// <summary>What the last run of a check left; null where it left nothing.</summary>
    public async Task<PageReport?> MeasuredAsync(Guid id, CancellationToken cancel)
    {
        var text = await WholeFile.TextAsync(Path.Combine(CheckOf(id), PageWork.ReportName), cancel);
        return text is null ? null : PageReport.FromJson(text);
    }

    /// <summary>The folder of what comes of a check.</summary>
    public string CheckOf(Guid id) => Path.Combine(folder.Pages, $"{id:N}", "check");

    private string FilesOf(Guid id) => Path.Combine(folder.Pages, $"{id:N}", "page");

    // A single file is a zip, a saved page or a page alone; several are a folder.
    private string Opened(Guid id)
    {
        var root = FilesOf(id);
        var files = Directory.EnumerateFiles(root, "*", SearchOption.AllDirectories).Take(2).ToList();
        return files.Count == 1 ? files[0] : root;
    }

    private static string? Fault(PageDraft draft, Uri? address)
    {
        if (draft.Address is not null && address is null)
        {
            return "An address begins with http:// or https://.";
        }

        if (draft.Allowed?.FirstOrDefault(host => !PageCheckRequest.IsHost(host)) is { } none)
        {
            return PageTexts.IsNotAHostWriteIt(none);
        }

        return draft.Viewports is { } widths
            && (
                widths.Count is 0 or > PageCheckRequest.MostOfEach
                || widths.Any(width => width < PageCheckRequest.Widths.Least || width > PageCheckRequest.Widths.Most)
            )
                ? PageTexts.GiveAtMostScreenWidthsEach(
                    PageCheckRequest.Widths.Least,
                    PageCheckRequest.Widths.Most,
                    PageCheckRequest.MostOfEach
                )
            : draft.Densities is { } densities
            && (
                densities.Count is 0 or > PageCheckRequest.MostOfEach
                || densities.Any(density => !(density >= PageCheckRequest.Dense.Least && density <= PageCheckRequest.Dense.Most))
            )
                ? PageTexts.DensitiesMustBeFromTo(PageCheckRequest.Dense.Least, PageCheckRequest.Dense.Most)
            : null;
    }

    private static string Listed<T>(IEnumerable<T> numbers)
        where T : IFormattable => string.Join(',', numbers.Select(number => number.ToString(null, CultureInfo.InvariantCulture)));

    private static IEnumerable<double> Numbers(string list) =>
        list.Split(',', StringSplitOptions.RemoveEmptyEntries).Select(number => double.Parse(number, CultureInfo.InvariantCulture));
}
