using Microsoft.Win32.SafeHandles;

namespace Pantomet.Platform;

/// <summary>
/// A regular file that is held open. What happens to its name from now on changes nothing: <see cref="Path"/> leads to this very file, and
/// never to a pipe, at which a reader would wait for ever.
/// </summary>
public sealed class RegularFile : IDisposable
{
    private readonly SafeFileHandle _handle;

    private RegularFile(SafeFileHandle handle, string path, FileFacts facts) => (_handle, Path, Facts) = (handle, path, facts);

    /// <summary>A path to it that holds as long as this object does, in this process and in those that it starts.</summary>
    public string Path { get; }

    /// <summary>What the file system told when it was opened.</summary>
    public FileFacts Facts { get; }

    /// <summary>Opens the file that a path leads to. Links are followed: who named the path meant what they lead to.</summary>
    /// <exception cref="IOException">It is not there, is no regular file, or may not be read.</exception>
    public static RegularFile Open(string path)
    {
        ArgumentException.ThrowIfNullOrEmpty(path);
        return Posix.IsLinux ? Open(Posix.Here, path, links: true) : Plain(path);
    }

    /// <summary>What it holds.</summary>
    public Stream Read() => new FileStream(Path, FileMode.Open, FileAccess.Read, FileShare.Read | FileShare.Delete);

    /// <summary>All of its bytes.</summary>
    /// <param name="most">The most that is read.</param>
    /// <exception cref="IOException">It holds more.</exception>
    public byte[] ReadAll(long most = int.MaxValue)
    {
        using var stream = Read();
        if (stream.Length > most)
        {
            throw new IOException(PlatformTexts.TheFileIsLargerThanBytes(most));
        }

        var bytes = new byte[stream.Length];
        var read = stream.ReadAtLeast(bytes, bytes.Length, throwOnEndOfStream: false);
        return read == bytes.Length ? bytes : bytes[..read];
    }

    /// <summary>Lets it go.</summary>
    public void Dispose() => _handle.Dispose();

    /// <summary>Opens a file by its name in a folder that is held.</summary>
    internal static RegularFile Open(int folder, string name, bool links)
    {
        // First only its place, so that no pipe is opened and no device is woken; then what stands there, if it is a file.
        var flags = Posix.PathOnly | Posix.CloseOnExec | (links ? 0 : Posix.NoFollow);
        var place = Posix.OpenAt(folder, name, flags);
        if (place < 0)
        {
            throw Posix.Fault(System.Runtime.InteropServices.Marshal.GetLastPInvokeError(), name);
        }

        using var found = new SafeFileHandle(place, ownsHandle: true);
        var facts = Posix.Facts(place);
        if (facts.IsLink)
        {
            throw new LinkedPathException(name);
        }

        if (!facts.IsRegular)
        {
            throw new NotRegularException(name);
        }

        var opened = Posix.OpenAt(Posix.Here, $"/proc/self/fd/{place}", Posix.ReadOnly | Posix.NonBlocking | Posix.CloseOnExec);
        return opened < 0
            ? throw Posix.Fault(System.Runtime.InteropServices.Marshal.GetLastPInvokeError(), name)
            : new(new(opened, ownsHandle: true), $"/proc/{Environment.ProcessId}/fd/{opened}", facts);
    }

    /// <summary>Opens a file where nothing can be held by descriptors.</summary>
    internal static RegularFile Plain(string path)
    {
        var file = new FileInfo(path);
        var handle = File.OpenHandle(path);
        return new(handle, file.FullName, new(default, file.Length, file.LastWriteTimeUtc, 0));
    }
}
