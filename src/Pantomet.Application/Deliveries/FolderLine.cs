using System.Security.Cryptography;
using Pantomet.Application.Sites;
using Pantomet.Core.Deliveries;
using Pantomet.Data;

namespace Pantomet.Application.Deliveries;

/// <summary>A folder of this machine, within those that the owner allowed. Another's file of the same name is never replaced.</summary>
internal sealed class FolderLine(ReceiverRule rule, DataFolder data, WorkOptions options) : IReceiverLine
{
    public async Task<Handed> HandAsync(Outgoing file, CancellationToken cancel)
    {
        if (Fault() is { } fault)
        {
            return Handed.Closed(fault);
        }

        var path = Path.GetFullPath(Path.Combine(rule.Address, file.Path));
        var part = $"{path}.{Guid.NewGuid():N}.part";
        try
        {
            var within = Path.GetDirectoryName(path)!;
            Directory.CreateDirectory(within);
            if (!SiteFolder.IsInside(SiteFolder.Real(within), SiteFolder.Real(Path.GetFullPath(rule.Address))))
            {
                return Handed.Refused("A link leads out of the folder there.");
            }

            if (File.Exists(path) && await HashAsync(path, cancel) is var there && there != file.Hash && there != file.HeldHash)
            {
                return Handed.Refused(
                    "Another file of this name lies there, which did not come from here. Take it away, or change the name."
                );
            }

            await File.WriteAllBytesAsync(part, file.Bytes, cancel);
            Durable.Flush(part);
            Durable.Move(part, path);
            var length = new FileInfo(path).Length;
            return length == file.Bytes.Length ? Handed.Taken() : Handed.Later(Sizes.Differ(length, file.Bytes.Length));
        }
        catch (Exception fail) when (fail is IOException or UnauthorizedAccessException)
        {
            return Handed.Later($"It could not be written: {fail.Message}");
        }
        finally
        {
            TryDelete(part);
        }
    }

    public Task<ReceiverTrial> TryAsync(CancellationToken cancel)
    {
        if (Fault() is { } fault)
        {
            return Task.FromResult(new ReceiverTrial(false, fault));
        }

        var part = Path.Combine(rule.Address, $".{Guid.NewGuid():N}.part");
        try
        {
            File.WriteAllBytes(part, []);
            return Task.FromResult(new ReceiverTrial(true, "Files can be written there."));
        }
        catch (Exception fail) when (fail is IOException or UnauthorizedAccessException)
        {
            return Task.FromResult(new ReceiverTrial(false, $"Nothing can be written there: {fail.Message}"));
        }
        finally
        {
            TryDelete(part);
        }
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private string? Fault()
    {
        var full = Path.GetFullPath(rule.Address);
        if (!Directory.Exists(full))
        {
            return "There is no such folder on the server's machine.";
        }

        // A link may lead elsewhere: what it leads to counts.
        var real = SiteFolder.Real(full);
        if (!options.PictureFolders.Any(allowed => SiteFolder.IsInside(real, SiteFolder.Real(Path.GetFullPath(allowed)))))
        {
            return options.PictureFolders.Count == 0
                ? "No folder of this machine was allowed; start the program with --folder to allow one."
                : $"Only these folders, and those in them, may be written to: {string.Join(", ", options.PictureFolders)}.";
        }

        return SiteFolder.IsInside(SiteFolder.Real(data.Root), real) || SiteFolder.IsInside(real, SiteFolder.Real(data.Root))
            ? "The data of this program lies in that folder, or it in the data. Choose another."
            : null;
    }

    private static async Task<string> HashAsync(string path, CancellationToken cancel)
    {
        await using var stream = File.OpenRead(path);
        return Convert.ToHexStringLower(await SHA256.HashDataAsync(stream, cancel));
    }

    private static void TryDelete(string path)
    {
        try
        {
            File.Delete(path);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            // It lies where nobody takes it for a picture.
        }
    }
}

/// <summary>Sentences about sizes that do not agree.</summary>
internal static class Sizes
{
    /// <summary>What is said when a receiver holds another number of bytes than it was given.</summary>
    public static string Differ(long there, long given) => $"It says that it has {there} bytes of a file of {given}.";
}
