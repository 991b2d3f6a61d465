using System.Buffers;
using System.Security.Cryptography;

namespace Pantomet.Backups;

/// <summary>Copies bytes and hashes them on the way: what is written is what was hashed.</summary>
internal static class HashedCopy
{
    private const int Part = 1 << 17;

    /// <summary>Copies all of a stream.</summary>
    /// <returns>How many bytes there were, and their SHA-256 in lower-case hexadecimal.</returns>
    public static async Task<(long Bytes, string Sha256)> CopyAsync(Stream from, Stream to, CancellationToken cancel)
    {
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        var buffer = ArrayPool<byte>.Shared.Rent(Part);
        try
        {
            var total = 0L;
            int read;
            while ((read = await from.ReadAsync(buffer, cancel)) > 0)
            {
                hash.AppendData(buffer, 0, read);
                await to.WriteAsync(buffer.AsMemory(0, read), cancel);
                total += read;
            }

            return (total, Convert.ToHexStringLower(hash.GetHashAndReset()));
        }
        finally
        {
            ArrayPool<byte>.Shared.Return(buffer);
        }
    }

    /// <summary>A file for reading, which others may replace or remove meanwhile.</summary>
    public static FileStream Open(string path) =>
        new(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete, 1, FileOptions.SequentialScan);
}
