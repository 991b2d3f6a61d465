using System.Security.Cryptography;
using Pantomet.Application.Background;
using Pantomet.Core.Deliveries;
using Pantomet.Core.Texts;
using Pantomet.Platform;

namespace Pantomet.Deliveries;

/// <summary>A folder of this machine, within those that the owner allowed. Another's file of the same name is never replaced.</summary>
internal sealed class FolderLine(ReceiverRule rule, AllowedFolders allowed) : IReceiverLine
{
    public Task<Handed> HandAsync(Outgoing file, CancellationToken cancel)
    {
        if (Open(out var fault) is not { } folder)
        {
            return Task.FromResult(Handed.Closed(fault));
        }

        using (folder)
        {
            try
            {
                return Task.FromResult(Hand(folder, file));
            }
            catch (LinkedPathException)
            {
                return Task.FromResult(Handed.Refused(ReceiverTexts.ThePathContainsALinkThat));
            }
            catch (Exception fail) when (fail is IOException or UnauthorizedAccessException)
            {
                return Task.FromResult(Handed.Later(ReceiverTexts.TheFileCouldNotBeWritten(fail.Message)));
            }
        }
    }

    public Task<ReceiverTrial> TryAsync(CancellationToken cancel)
    {
        if (Open(out var fault) is not { } folder)
        {
            return Task.FromResult(new ReceiverTrial(false, fault));
        }

        using (folder)
        {
            var part = PartFile.For(Path.Combine(folder.Path, ".trial"));
            try
            {
                File.WriteAllBytes(part, []);
                File.Delete(part);
                PartFile.Sweep(folder);
                return Task.FromResult(new ReceiverTrial(true, ReceiverTexts.FilesCanBeWrittenToThis));
            }
            catch (Exception fail) when (fail is IOException or UnauthorizedAccessException)
            {
                return Task.FromResult(new ReceiverTrial(false, ReceiverTexts.FilesCannotBeWrittenToThis(fail.Message)));
            }
        }
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private static Handed Hand(FolderHandle folder, Outgoing file)
    {
        using var place = folder.Place(file.Path, create: true);
        if (place.Exists)
        {
            using var there = place.Open();
            using var content = there.Read();
            if (Convert.ToHexStringLower(SHA256.HashData(content)) is var hash && hash != file.Hash && hash != file.HeldHash)
            {
                return Handed.Refused(ReceiverTexts.TheFolderAlreadyHasAnotherFile);
            }
        }

        WholeFile.Put(place, like: null, part => File.WriteAllBytes(part, file.Bytes));
        var length = place.Facts()?.Bytes ?? 0;
        return length == file.Bytes.Length ? Handed.Accepted() : Handed.Later(Sizes.Differ(length, file.Bytes.Length));
    }

    // Held as it was looked at: what takes the path's place meanwhile is not written into.
    private FolderHandle? Open(out string fault)
    {
        fault = "";
        var full = Path.GetFullPath(rule.Address);
        if (!Directory.Exists(full))
        {
            fault = ReceiverTexts.ThisFolderDoesNotExistOn;
            return null;
        }

        // A link may lead elsewhere: what it leads to counts.
        var real = RealPath.Of(full);
        if (allowed.RootOf(real) is null)
        {
            fault =
                allowed.Named.Count == 0
                    ? ReceiverTexts.NoFolderIsAllowedStartThe
                    : ReceiverTexts.OnlyTheseFoldersAndTheirSubfolders(string.Join(", ", allowed.Named));
            return null;
        }

        if (allowed.HoldsData(real))
        {
            fault = ReceiverTexts.ThisFolderAndTheDataFolder;
            return null;
        }

        try
        {
            return FolderHandle.Open(real);
        }
        catch (IOException gone)
        {
            fault = ReceiverTexts.TheFolderCannotBeOpened(gone.Message);
            return null;
        }
    }
}

/// <summary>Sentences about sizes that do not agree.</summary>
internal static class Sizes
{
    /// <summary>What is said when a receiver holds another number of bytes than it was given.</summary>
    public static string Differ(long there, long given) => ReceiverTexts.TheReceiverHasBytesOfA(there, given);
}
