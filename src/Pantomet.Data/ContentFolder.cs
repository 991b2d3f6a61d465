using System.Buffers;
using System.Security.Cryptography;

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

    /// <summary>Every file that is kept, by its name and where it lies.</summary>
    public IEnumerable<(string Hash, string Path)> Names() =>
        Directory
            .EnumerateDirectories(_root, "??")
            .SelectMany(folder =>
                Directory
                    .EnumerateFiles(folder)
                    .Select(path => (System.IO.Path.GetFileName(folder) + System.IO.Path.GetFileName(path), path))
            );

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
        return hash;
    }

    /// <summary>Removes a file for good.</summary>
    public void Remove(string hash) => File.Delete(PathOf(hash));

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
