using Pantomet.Application.Jobs;
using Pantomet.Application.Variants;
using Pantomet.Core.Facts;
using Pantomet.Core.Jobs;
using Pantomet.Core.Rules;
using Pantomet.Data;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Live;

/// <summary>Finds published files on the disk, and has those made that are not there: each once, however many ask.</summary>
public sealed class LiveMaker(FileDesk desk, DataFolder folder)
{
    /// <summary>The file of a width that suits who asks; null when none can be made.</summary>
    /// <param name="version">What was published.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="rung">The width.</param>
    /// <param name="accepts">The types that who asks can show.</param>
    /// <param name="cancel">Stops waiting.</param>
    public async ValueTask<StoredFile?> FindAsync(
        LiveVersion version,
        LiveSlot slot,
        LiveRung rung,
        AcceptedTypes accepts,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(rung);
        // What is accepted by name comes in the order of the slot; what every program shows is for all others.
        foreach (var file in rung.Files.Where(file => accepts.Takes(file.Type, rung.Files.Count == 1)))
        {
            if (await StoredAsync(version, slot, file, cancel) is { } stored)
            {
                return stored;
            }
        }

        foreach (var file in rung.Files.Reverse())
        {
            if (await StoredAsync(version, slot, file, cancel) is { } stored)
            {
                return stored;
            }
        }

        return null;
    }

    private async ValueTask<StoredFile?> StoredAsync(LiveVersion version, LiveSlot slot, LiveFile file, CancellationToken cancel)
    {
        if (file.Stored is { } known)
        {
            // One look at the file system: what was damaged since is made again, and never goes out under a hash that it does not have.
            if (await folder.Variants.IsWholeAsync(known.Hash, cancel))
            {
                return known;
            }

            file.Stored = null;
        }

        if (file.Unfit)
        {
            return null;
        }

        var part = file.Recipe.Parts[0];
        var picture = PictureRow.From("picture", part.Content, DateTime.UnixEpoch, version.Facts);
        picture.Id = version.PictureId;
        var wanted = new WantedFile(
            file.Id,
            file.Recipe,
            picture,
            slot.Slot,
            new FileRequest(VariantStore.PlanOf(file.Recipe), file.Type, file.Recipe.Quality)
        );
        // What is found goes out at once; its likeness is measured and put down whether or not somebody still waits. A quality by hand may be
        // over the limit: whether it goes out is known at the end.
        var waiting = new CancellationTokenSource();
        var found = new TaskCompletionSource<FoundFile>(TaskCreationOptions.RunContinuationsAsynchronously);
        var making = desk.MakeAsync(
            wanted,
            urgent: true,
            waiting.Token,
            file.Recipe.Quality is null ? one => found.TrySetResult(one) : null
        );
        using (cancel.UnsafeRegister(_ => waiting.Cancel(), null))
        {
            await Task.WhenAny(making, found.Task);
        }

        _ = making.ContinueWith(
            ended =>
            {
                waiting.Dispose();
                return ended.Exception;
            },
            CancellationToken.None,
            TaskContinuationOptions.ExecuteSynchronously,
            TaskScheduler.Default
        );
        if (!making.IsCompleted)
        {
            var (weighed, kept) = await found.Task;
            var hash = await kept;
            // It may have been found a while ago for somebody else, and be damaged since.
            if (await folder.Variants.IsWholeAsync(hash, cancel))
            {
                return file.Take(weighed, hash, folder.Variants.PathOf(hash));
            }
        }

        var made = (await making).Made(file.Id);
        return made is not null && await folder.Variants.IsWholeAsync(made.ContentHash, cancel)
            ? file.Take(made, folder.Variants.PathOf(made.ContentHash))
            : null;
    }
}

/// <summary>The types of pictures that a program says it can show, from its <c>Accept</c> (RFC 9110, 12.5.1).</summary>
/// <param name="WebP">True for WebP by its name.</param>
/// <param name="Avif">True for AVIF by its name.</param>
public readonly record struct AcceptedTypes(bool WebP, bool Avif)
{
    /// <summary>Reads the header. What is accepted as any type may be an old program: only named types beyond JPEG and PNG count.</summary>
    public static AcceptedTypes Of(string? header)
    {
        var (webp, avif) = (false, false);
        foreach (var range in (header ?? "").AsSpan().Split(','))
        {
            var one = header.AsSpan()[range].Trim();
            var end = one.IndexOf(';');
            var type = (end < 0 ? one : one[..end]).Trim();
            if (end >= 0 && IsRefused(one[end..]))
            {
                continue;
            }

            webp |= type.Equals("image/webp", StringComparison.OrdinalIgnoreCase);
            avif |= type.Equals("image/avif", StringComparison.OrdinalIgnoreCase);
        }

        return new(webp, avif);
    }

    /// <summary>True when a type may be sent.</summary>
    /// <param name="type">The type; null where the content chose it.</param>
    /// <param name="only">True when there is no other.</param>
    public bool Takes(PictureFormat? type, bool only) =>
        only
        || type switch
        {
            PictureFormat.WebP => WebP,
            PictureFormat.Avif => Avif,
            _ => true,
        };

    private static bool IsRefused(ReadOnlySpan<char> parameters)
    {
        foreach (var range in parameters.Split(';'))
        {
            var one = parameters[range].Trim();
            if (
                one.StartsWith("q=", StringComparison.OrdinalIgnoreCase)
                && double.TryParse(one[2..], System.Globalization.CultureInfo.InvariantCulture, out var weight)
            )
            {
                return weight <= 0;
            }
        }

        return false;
    }
}
