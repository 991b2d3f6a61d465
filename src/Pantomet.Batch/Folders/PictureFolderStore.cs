using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Background;
using Pantomet.Application.Jobs;
using Pantomet.Batch.Mending;
using Pantomet.Core.Likeness;
using Pantomet.Core.Mending;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Folders;
using Pantomet.Platform;

namespace Pantomet.Batch.Folders;

/// <summary>The folders of pictures that are optimised.</summary>
public sealed class PictureFolderStore(
    IServiceScopeFactory scopes,
    DataFolder folder,
    AllowedFolders allowed,
    Writer writer,
    TimeProvider clock
)
{
    /// <summary>How many files a folder may have that is sent.</summary>
    public const int MostFiles = 20_000;

    /// <summary>How many bytes all its files may have.</summary>
    public const long MostBytes = 20_000_000_000;

    private const int LongestName = 200;
    private const string SentName = "sent";

    private readonly ReceivedFiles _received = new(folder, "A folder", MostFiles, MostBytes);

    /// <summary>The folders that the owner allowed, as whole paths.</summary>
    public IReadOnlyList<string> Allowed => allowed.Named;

    /// <summary>All of them, the newest first.</summary>
    public async Task<IReadOnlyList<PictureFolderRow>> AllAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await Rows(scope).OrderByDescending(row => row.AddedAt).ToListAsync(cancel);
    }

    /// <summary>One of them; null when there is none.</summary>
    public async Task<PictureFolderRow?> OneAsync(Guid id, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await Rows(scope).SingleOrDefaultAsync(row => row.Id == id, cancel);
    }

    /// <summary>The one that waits longest; null when none does.</summary>
    public async Task<PictureFolderRow?> NextAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await Rows(scope)
            .Where(row =>
                row.State != PictureFolderState.Receiving && row.State != PictureFolderState.Ready && row.State != PictureFolderState.Paused
            )
            .OrderBy(row => row.AskedAt)
            .FirstOrDefaultAsync(cancel);
    }

    /// <summary>Adds a folder; a sentence when it cannot be.</summary>
    public async Task<(PictureFolderRow? Row, string? Fault)> AddAsync(string path, CancellationToken cancel)
    {
        if (Allowed.Count == 0)
        {
            return (null, FolderTexts.NoFolderIsAllowedStartThe);
        }

        string full;
        try
        {
            full = Path.GetFullPath(path.Trim());
        }
        catch (ArgumentException)
        {
            return (null, FolderTexts.ThisIsNotThePathOf);
        }

        if (!Path.IsPathRooted(path.Trim()) || !Directory.Exists(full))
        {
            return (null, FolderTexts.ThisFolderDoesNotExistOn);
        }

        // A link may lead elsewhere: what it leads to counts.
        var real = RealPath.Of(full);
        if (allowed.RootOf(real) is not { } root)
        {
            return (null, FolderTexts.OnlyTheseFoldersAndTheirSubfolders(string.Join(", ", Allowed)));
        }

        if (allowed.HoldsData(real))
        {
            return (null, FolderTexts.ThisFolderAndTheDataFolder);
        }

        if (
            (await AllAsync(cancel)).FirstOrDefault(row => RealPath.IsInside(row.Folder, real) || RealPath.IsInside(real, row.Folder)) is
            { } other
        )
        {
            return (null, FolderTexts.IsAlreadyInTheListThe(other.Folder));
        }

        return (await AddAsync(Guid.CreateVersion7(), NameOf(real, root), real, PictureFolderState.Scanning, cancel), null);
    }

    /// <summary>Adds a folder whose files will be sent.</summary>
    /// <param name="name">What people call it.</param>
    /// <param name="cancel">Stops.</param>
    public Task<PictureFolderRow> ReceiveAsync(string name, CancellationToken cancel)
    {
        var id = Guid.CreateVersion7();
        var files = Path.Combine(WorkOf(id), SentName);
        Directory.CreateDirectory(files);
        var called = name.Trim() is { Length: > 0 } given ? given : "Pictures";
        return AddAsync(id, called.Length > LongestName ? called[..LongestName] : called, files, PictureFolderState.Receiving, cancel);
    }

    /// <summary>Takes one file of a folder that is sent; a sentence when it cannot be.</summary>
    /// <param name="row">The folder, which must be receiving.</param>
    /// <param name="path">Where the file lies within it.</param>
    /// <param name="content">What it holds.</param>
    /// <param name="changed">When it was changed, UTC; null where that is not known.</param>
    /// <param name="cancel">Stops.</param>
    public Task<string?> PutAsync(PictureFolderRow row, string path, Stream content, DateTime? changed, CancellationToken cancel) =>
        _received.PutAsync(row.Id, row.Folder, path, content, changed, cancel);

    private async Task<PictureFolderRow> AddAsync(Guid id, string name, string files, PictureFolderState state, CancellationToken cancel)
    {
        var now = clock.GetUtcNow().UtcDateTime;
        var row = new PictureFolderRow
        {
            Id = id,
            Name = name,
            IsSent = state == PictureFolderState.Receiving,
            Folder = files,
            Rule = StoredJson.Write(new PictureFolderRule()),
            State = state,
            AddedAt = now,
            AskedAt = now,
        };
        await writer.WriteAsync<bool>(
            async db =>
            {
                db.PictureFolders.Add(row);
                await db.SaveChangesAsync(CancellationToken.None);
                return (true, null);
            },
            cancel
        );
        return row;
    }

    /// <summary>Has something done with one.</summary>
    /// <returns>False when there is none.</returns>
    public Task<bool> AskAsync(Guid id, PictureFolderState state, PictureFolderRule? rule, IReadOnlyList<string>? paths) =>
        ChangeAsync(
            id,
            row =>
            {
                (row.State, row.Trouble, row.AskedAt) = (state, null, clock.GetUtcNow().UtcDateTime);
                row.Rule = rule is null ? row.Rule : StoredJson.Write(rule);
                row.Paths = paths is null ? null : StoredJson.Write(paths);
                row.Mended &= state is PictureFolderState.Restoring && paths is not null;
            }
        );

    /// <summary>Changes one.</summary>
    /// <returns>False when there is none.</returns>
    public Task<bool> ChangeAsync(Guid id, Action<PictureFolderRow> change) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                if (await db.PictureFolders.SingleOrDefaultAsync(row => row.Id == id, CancellationToken.None) is not { } row)
                {
                    return (false, null);
                }

                change(row);
                await db.SaveChangesAsync(CancellationToken.None);
                return (true, null);
            },
            CancellationToken.None
        );

    /// <summary>Takes one out of the list, with its lists and the originals that are kept.</summary>
    public async Task<bool> RemoveAsync(Guid id, CancellationToken cancel)
    {
        var removed = await writer.WriteAsync<bool>(
            async db => (await db.PictureFolders.Where(row => row.Id == id).ExecuteDeleteAsync(CancellationToken.None) > 0, null),
            cancel
        );
        _received.Forget(id);
        _held.TryRemove(id, out _);
        if (removed && Directory.Exists(WorkOf(id)))
        {
            Directory.Delete(WorkOf(id), recursive: true);
        }

        return removed;
    }

    /// <summary>How one is shown.</summary>
    public PictureFolderView ViewOf(PictureFolderRow row, PictureFolderProgress? progress)
    {
        var lists = Lists(row.Id);
        var figures = lists.Figures();
        return new(
            row.Id,
            row.Name,
            row.IsSent,
            row.State,
            row.Mended,
            row.Trouble,
            progress,
            progress?.Left,
            figures,
            StoredJson.Read<PictureFolderRule>(row.Rule),
            lists.Trial(),
            Outcome(id: row.Id, lists, figures?.Unread ?? 0)
        );
    }

    /// <summary>A part of its pictures: the least alike first where files of them were made, else the heaviest.</summary>
    public PictureFolderPage Page(Guid id, PictureFolderShow show, int from, int count)
    {
        var results = Latest(id);
        var previews = Lists(id).Trial()?.Pictures.ToDictionary(one => one.Path, StringComparer.Ordinal) ?? [];
        var wanted = HeldOf(id)
            .Pictures.Now()
            .Select(one => Known(one, results.GetValueOrDefault(one.Path), previews.GetValueOrDefault(one.Path)))
            .Where(one => IsOf(one, show))
            .OrderBy(one => LikenessIn(one, show) ?? 1)
            .ThenByDescending(one => one.Picture.Bytes)
            .ToList();
        return new(wanted.Count, [.. wanted.Skip(Math.Max(0, from)).Take(Math.Clamp(count, 1, 500))]);
    }

    /// <summary>Opens a file of a picture; null where there is none, or where a link has taken its place.</summary>
    /// <param name="row">The folder.</param>
    /// <param name="path">The picture's path from the folder's root.</param>
    /// <param name="file">Which file of it.</param>
    public RegularFile? Open(PictureFolderRow row, string path, PictureFolderFile file)
    {
        var lists = Lists(row.Id);
        var root = file switch
        {
            PictureFolderFile.Original => lists.Kept,
            PictureFolderFile.Previewed => lists.Tried,
            _ => PathOf(row),
        };
        // Only what was found when the folder was scanned: nothing else of the machine can be asked for.
        if (root is null || !Directory.Exists(root) || !HeldOf(row.Id).Pictures.Now().Any(one => one.Path == path))
        {
            return null;
        }

        try
        {
            using var folder = FolderHandle.Open(RealPath.Of(root));
            return folder.OpenFile(path);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return null;
        }
    }

    /// <summary>The lists of one.</summary>
    public PictureFolderLists Lists(Guid id) => new(WorkOf(id));

    /// <summary>Where the pictures of one lie, no part of the path a link; null where the owner does not allow that folder any more.</summary>
    public string? PathOf(PictureFolderRow row) =>
        row.IsSent ? Path.Combine(RealPath.Of(WorkOf(row.Id)), SentName)
        : allowed.RootOf(row.Folder) is not null ? row.Folder
        : null;

    /// <summary>The folder of the lists of one.</summary>
    public string WorkOf(Guid id) => Path.Combine(folder.PictureFolders, $"{id:N}");

    // The allowed folder's own name, and the way from there.
    private static string NameOf(string real, string root) => Path.GetRelativePath(Path.GetDirectoryName(root) ?? root, real);

    private static bool IsOf(PictureFolderPicture one, PictureFolderShow show) =>
        show switch
        {
            PictureFolderShow.Over => one.Picture.Bytes >= PictureFolderFigures.Heavy,
            PictureFolderShow.Near => one.Picture.Bytes is >= PictureFolderFigures.NearHeavy and < PictureFolderFigures.Heavy,
            PictureFolderShow.OnSide => one.Picture.OnSide,
            PictureFolderShow.Located => one.Picture.Located,
            PictureFolderShow.Misnamed => one.Picture.Misnamed,
            PictureFolderShow.Moving => one.Picture.Moves,
            PictureFolderShow.Troubles => one.Picture.Trouble is not null || IsTrouble(one.Result),
            PictureFolderShow.Mended => one.Result?.After is not null,
            PictureFolderShow.Previewed => one.Preview is not null,
            _ => true,
        };

    private static PictureFolderPicture Known(SurveyedPicture picture, MendedPicture? result, MendedPicture? preview) =>
        new(picture, result, preview, (result?.Likeness ?? preview?.Likeness) is { } score ? Likeness.WordFor(score) : null);

    private static double? LikenessIn(PictureFolderPicture one, PictureFolderShow show) =>
        show switch
        {
            PictureFolderShow.Mended => one.Result?.Likeness,
            PictureFolderShow.Previewed => one.Preview?.Likeness,
            _ => null,
        };

    private static bool IsTrouble(MendedPicture? result) => result is { Code: null, Sentence: not null };

    private PictureFolderOutcome Outcome(Guid id, PictureFolderLists lists, int unread)
    {
        var results = Latest(id).Values;
        var mended = results.Where(one => one.After is not null).ToList();
        var troubles = results.Where(IsTrouble).Select(one => one.Path).ToHashSet(StringComparer.Ordinal);
        return new(
            results.Count(one => one.Code != PictureFolderLists.PutBack),
            mended.Count,
            mended.Sum(one => one.Before ?? 0),
            mended.Sum(one => one.After ?? 0),
            lists.KeptCount(),
            troubles.Count,
                // The list is read for this only where both may tell of the same picture.
                troubles.Count == 0
                    ? unread
                : unread == 0 ? troubles.Count
                : HeldOf(id).Pictures.Now().Count(one => one.Trouble is not null || troubles.Contains(one.Path))
        );
    }

    // What is looked at is asked for once a second: only what came since is read. A few folders are enough, and no more are held.
    private (GrowingList<SurveyedPicture> Pictures, GrowingList<MendedPicture> Results) HeldOf(Guid id)
    {
        if (_held.Count >= MostHeld && !_held.ContainsKey(id))
        {
            _held.Clear();
        }

        return _held.GetOrAdd(id, _ => (Lists(id).Pictures.Growing(isOnlyAdded: false), Lists(id).Results.Growing(isOnlyAdded: true)));
    }

    private const int MostHeld = 8;

    private readonly ConcurrentDictionary<Guid, (GrowingList<SurveyedPicture> Pictures, GrowingList<MendedPicture> Results)> _held = new();

    private Dictionary<string, MendedPicture> Latest(Guid id)
    {
        var latest = new Dictionary<string, MendedPicture>(StringComparer.Ordinal);
        foreach (var one in HeldOf(id).Results.Now())
        {
            latest[one.Path] = one;
        }

        return latest;
    }

    private static IQueryable<PictureFolderRow> Rows(AsyncServiceScope scope) =>
        scope.ServiceProvider.GetRequiredService<PantometDb>().PictureFolders.AsNoTracking();
}
