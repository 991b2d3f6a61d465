using System.Buffers;
using System.Collections.Concurrent;
using System.Globalization;
using System.Security.Cryptography;
using Pantomet.Platform;

namespace Pantomet.Data;

/// <summary>A file that has arrived but is not yet kept. Discarded unless it is.</summary>
public sealed class ReceivedFile : IDisposable
{
    internal ReceivedFile(string path, string hash, long bytes) => (Path, Hash, Bytes) = (path, hash, bytes);

    /// <summary>Where it lies for now.</summary>
    public string Path { get; }

    /// <summary>SHA-256, lower-case hexadecimal.</summary>
    public string Hash { get; }

    /// <summary>Weight in bytes.</summary>
    public long Bytes { get; }

    /// <summary>Removes it, if it was not kept.</summary>
    public void Dispose() => File.Delete(Path);
}

/// <summary>
/// A folder of files named by their SHA-256, each stored once and never changed. A file is written under a temporary name,
/// flushed to disk, and renamed: after a crash there is the whole file or none.
/// </summary>
public sealed class ContentFolder
{
    private readonly ConcurrentDictionary<UInt128, FileFacts> _whole = new();
    private readonly string _root;
    private readonly string _incoming;

    /// <summary>Opens the folder, made if missing; whatever was arriving when the last run ended is removed.</summary>
    public ContentFolder(string root)
    {
        _root = root;
        _incoming = Path.Combine(root, "incoming");
        Directory.CreateDirectory(_incoming);
        foreach (var left in Directory.EnumerateFiles(_incoming))
        {
            File.Delete(left);
        }
    }

    /// <summary>Where the file with this hash lies, or would.</summary>
    public string PathOf(string hash) => Path.Combine(_root, hash[..2], hash[2..]);

    /// <summary>True when the file is here.</summary>
    public bool Holds(string hash) => File.Exists(PathOf(hash));

    /// <summary>True when the file is here and so long.</summary>
    public bool Holds(string hash, long bytes) => new FileInfo(PathOf(hash)) is { Exists: true } file && file.Length == bytes;

    /// <summary>
    /// True when the file is here and holds what its name says. It is read and hashed when it is first asked for in a run, and whenever the file
    /// system tells that something of it changed since; otherwise only that is asked.
    /// </summary>
    /// <param name="hash">The file.</param>
    /// <param name="cancel">Stops reading.</param>
    public ValueTask<bool> IsWholeAsync(string hash, CancellationToken cancel) =>
        FileFacts.Of(PathOf(hash)) is not { } facts ? ValueTask.FromResult(false)
        : _whole.TryGetValue(KeyOf(hash), out var known) && known == facts ? ValueTask.FromResult(true)
        : new(CheckAsync(hash, null, cancel));

    /// <summary>Reads a file and holds it against its name, whatever is known of it.</summary>
    /// <param name="hash">The file.</param>
    /// <param name="pace">Told how many bytes were read; what it waits for slows the reading down. Null to read at once.</param>
    /// <param name="cancel">Stops reading.</param>
    /// <returns>False when it is missing or damaged.</returns>
    public async Task<bool> CheckAsync(string hash, Func<int, Task>? pace, CancellationToken cancel)
    {
        try
        {
            // Before it is read: what changes while it is, is read again the next time.
            var facts = FileFacts.Of(PathOf(hash));
            await using var file = new FileStream(
                PathOf(hash),
                FileMode.Open,
                FileAccess.Read,
                FileShare.Read | FileShare.Delete,
                1,
                FileOptions.Asynchronous | FileOptions.SequentialScan
            );
            if (facts is not null && await HashAsync(file, pace, cancel) == hash)
            {
                Remember(hash, facts.Value);
                return true;
            }
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            // What cannot be read is not whole.
        }

        _whole.TryRemove(KeyOf(hash), out _);
        return false;
    }

    private static async Task<string> HashAsync(FileStream file, Func<int, Task>? pace, CancellationToken cancel)
    {
        if (pace is null)
        {
            return Convert.ToHexStringLower(await SHA256.HashDataAsync(file, cancel));
        }

        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        var part = new byte[1 << 17];
        int read;
        while ((read = await file.ReadAsync(part, cancel)) > 0)
        {
            hash.AppendData(part, 0, read);
            await pace(read);
        }

        return Convert.ToHexStringLower(hash.GetHashAndReset());
    }

    // Half of a hash tells one from the other, at a quarter of the memory of its text.
    private static UInt128 KeyOf(string hash) => UInt128.Parse(hash.AsSpan(0, 32), NumberStyles.HexNumber, CultureInfo.InvariantCulture);

    // What was written and hashed by this very program is whole.
    private void Remember(string hash)
    {
        if (FileFacts.Of(PathOf(hash)) is { } facts)
        {
            Remember(hash, facts);
        }
    }

    // What changed this very moment may change once more without another time: it is read again when it is next asked for.
    private void Remember(string hash, FileFacts facts)
    {
        if (DateTime.UnixEpoch.AddTicks(facts.Touched) < DateTime.UtcNow - Moment)
        {
            _whole[KeyOf(hash)] = facts;
        }
    }

    // Longer than a tick of any file system's clock.
    private static readonly TimeSpan Moment = TimeSpan.FromMilliseconds(30);

    /// <summary>Every file that is kept, by its name and where it lies.</summary>
    public IEnumerable<(string Hash, string Path)> Names() =>
        Directory
            .EnumerateDirectories(_root, "??")
            .SelectMany(folder =>
                Directory
                    .EnumerateFiles(folder)
                    .Select(path => (System.IO.Path.GetFileName(folder) + System.IO.Path.GetFileName(path), path))
            );

    /// <summary>Where files lie that are under way, or were when somebody ended.</summary>
    public IEnumerable<string> HalfFiles() => Directory.EnumerateFiles(_incoming);

    /// <summary>A free path on the same disk, for a file under way.</summary>
    public string TemporaryPath() => Path.Combine(_incoming, $"{Guid.NewGuid():n}.part");

    /// <summary>Takes in a stream under a temporary name.</summary>
    /// <param name="source">The bytes.</param>
    /// <param name="most">The most bytes that are taken.</param>
    /// <param name="cancel">Stops and leaves nothing behind.</param>
    /// <returns>The file, or null when the stream holds more than <paramref name="most"/>.</returns>
    public async Task<ReceivedFile?> ReceiveAsync(Stream source, long most, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(source);
        var path = TemporaryPath();
        var buffer = ArrayPool<byte>.Shared.Rent(1 << 17);
        try
        {
            using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
            long total = 0;
            await using (var file = new FileStream(path, FileMode.CreateNew, FileAccess.Write, FileShare.None, 1, FileOptions.Asynchronous))
            {
                int read;
                while ((read = await source.ReadAsync(buffer, cancel)) > 0)
                {
                    total += read;
                    if (total > most)
                    {
                        break;
                    }

                    hash.AppendData(buffer, 0, read);
                    await file.WriteAsync(buffer.AsMemory(0, read), cancel);
                }

                file.Flush(flushToDisk: true);
            }

            if (total > most)
            {
                File.Delete(path);
                return null;
            }

            return new(path, Convert.ToHexStringLower(hash.GetHashAndReset()), total);
        }
        catch
        {
            File.Delete(path);
            throw;
        }
        finally
        {
            ArrayPool<byte>.Shared.Return(buffer);
        }
    }

    /// <summary>Keeps a received file under its hash. The same content twice is stored once.</summary>
    public void Keep(ReceivedFile file)
    {
        ArgumentNullException.ThrowIfNull(file);
        Durable.Move(file.Path, PathOf(file.Hash));
        Remember(file.Hash);
    }

    /// <summary>A file as a whole; null when it is missing or its bytes are no longer those of its name.</summary>
    public async Task<byte[]?> ReadWholeAsync(string hash, CancellationToken cancel)
    {
        try
        {
            var bytes = await File.ReadAllBytesAsync(PathOf(hash), cancel);
            return Convert.ToHexStringLower(SHA256.HashData(bytes)) == hash ? bytes : null;
        }
        catch (Exception fault) when (fault is FileNotFoundException or DirectoryNotFoundException)
        {
            return null;
        }
    }

    /// <summary>Takes over a file from the same disk, under its hash.</summary>
    /// <returns>Its SHA-256.</returns>
    public async Task<string> StoreFileAsync(string path, CancellationToken cancel)
    {
        string hash;
        await using (var stream = File.OpenRead(path))
        {
            hash = Convert.ToHexStringLower(await SHA256.HashDataAsync(stream, cancel));
        }

        Durable.Flush(path);
        Durable.Move(path, PathOf(hash));
        Remember(hash);
        return hash;
    }

    /// <summary>Removes a file for good.</summary>
    public void Remove(string hash)
    {
        File.Delete(PathOf(hash));
        _whole.TryRemove(KeyOf(hash), out _);
    }

    /// <summary>Stores bytes at once.</summary>
    /// <returns>Their SHA-256.</returns>
    public async Task<string> StoreAsync(byte[] bytes, CancellationToken cancel)
    {
        using var stream = new MemoryStream(bytes, writable: false);
        using var file = await ReceiveAsync(stream, long.MaxValue, cancel);
        Keep(file!);
        return file!.Hash;
    }
}
