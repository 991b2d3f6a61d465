using System.Runtime.InteropServices;

namespace Pantomet.Platform;

/// <summary>The calls of the C library that .NET has no method for. Numbers are those of Linux (uapi/asm-generic/fcntl.h and its two exceptions).</summary>
internal static partial class Posix
{
    public const int NoEntry = 2;
    public const int Access = 13;
    public const int NotDirectory = 20;
    public const int TooManyLinks = 40;

    public const int ReadOnly = 0;
    public const int NonBlocking = 0x800;
    public const int CloseOnExec = 0x8_0000;
    public const int PathOnly = 0x20_0000;

    public const int Here = -100;
    public const int EmptyPath = 0x1000;
    public const int NoFollowAt = 0x100;
    public const uint BasicStats = 0x7ff;

    private const ushort TypeMask = 0xf000;
    private const ushort Regular = 0x8000;
    private const ushort Link = 0xa000;
    private const ushort Folder = 0x4000;

    /// <summary>True where folders and files can be held by descriptors and named by them.</summary>
    public static readonly bool IsLinux = OperatingSystem.IsLinux();

    // ARM numbers these two otherwise.
    private static readonly bool IsArm = RuntimeInformation.ProcessArchitecture is Architecture.Arm or Architecture.Arm64;

    public static int Directory => IsArm ? 0x4000 : 0x1_0000;

    public static int NoFollow => IsArm ? 0x8000 : 0x2_0000;

    /// <summary>True for the mode of a regular file.</summary>
    public static bool IsRegular(ushort mode) => (mode & TypeMask) == Regular;

    /// <summary>True for the mode of a link.</summary>
    public static bool IsLink(ushort mode) => (mode & TypeMask) == Link;

    /// <summary>True for the mode of a folder.</summary>
    public static bool IsFolder(ushort mode) => (mode & TypeMask) == Folder;

    /// <summary>What stands behind a descriptor.</summary>
    public static FileFacts Facts(int handle)
    {
        Span<byte> buffer = stackalloc byte[256];
        return Stat(handle, "", EmptyPath, BasicStats, ref MemoryMarshal.GetReference(buffer)) == 0
            ? Read(buffer)
            : throw Fault(Marshal.GetLastPInvokeError(), "");
    }

    /// <summary>What stands under a name in a folder; null where nothing does.</summary>
    public static FileFacts? Facts(int folder, string name, bool links = false)
    {
        Span<byte> buffer = stackalloc byte[256];
        return Stat(folder, name, links ? 0 : NoFollowAt, BasicStats, ref MemoryMarshal.GetReference(buffer)) == 0 ? Read(buffer)
            : Marshal.GetLastPInvokeError() is NoEntry or NotDirectory ? null
            : throw Fault(Marshal.GetLastPInvokeError(), name);
    }

    /// <summary>What a failed call means.</summary>
    public static IOException Fault(int error, string name) =>
        error switch
        {
            NoEntry => new FileNotFoundException(PlatformTexts.DoesNotExist(name)),
            TooManyLinks or NotDirectory => new LinkedPathException(name),
            Access => new IOException(PlatformTexts.CannotBeOpenedPermissionDenied(name)),
            _ => new IOException(PlatformTexts.CannotBeOpened(name, Marshal.GetPInvokeErrorMessage(error))),
        };

    // struct statx (statx(2)): the same on every architecture.
    private static FileFacts Read(ReadOnlySpan<byte> buffer) =>
        new(
            new(
                ((ulong)BitConverter.ToUInt32(buffer[136..]) << 32) | BitConverter.ToUInt32(buffer[140..]),
                BitConverter.ToUInt64(buffer[32..])
            ),
            BitConverter.ToInt64(buffer[40..]),
            DateTime.UnixEpoch.AddTicks(
                (BitConverter.ToInt64(buffer[112..]) * TimeSpan.TicksPerSecond) + (BitConverter.ToUInt32(buffer[120..]) / 100)
            ),
            BitConverter.ToUInt16(buffer[28..]),
            (BitConverter.ToInt64(buffer[96..]) * TimeSpan.TicksPerSecond) + (BitConverter.ToUInt32(buffer[104..]) / 100)
        );

    [LibraryImport("libc", EntryPoint = "openat", StringMarshalling = StringMarshalling.Utf8, SetLastError = true)]
    public static partial int OpenAt(int folder, string name, int flags);

    [LibraryImport("libc", EntryPoint = "mkdirat", StringMarshalling = StringMarshalling.Utf8, SetLastError = true)]
    public static partial int MakeFolderAt(int folder, string name, uint mode);

    [LibraryImport("libc", EntryPoint = "statx", StringMarshalling = StringMarshalling.Utf8, SetLastError = true)]
    private static partial int Stat(int folder, string name, int flags, uint mask, ref byte buffer);

    [LibraryImport("libc", EntryPoint = "setrlimit", SetLastError = true)]
    public static partial int SetLimit(int resource, ref ResourceLimit limit);

    [LibraryImport("libc", EntryPoint = "getppid")]
    public static partial int Parent();

    [LibraryImport("libc", EntryPoint = "kill", SetLastError = true)]
    public static partial int Kill(int process, int signal);

    [LibraryImport("libc", EntryPoint = "alarm")]
    public static partial uint Alarm(uint seconds);
}

/// <summary><c>struct rlimit</c> of getrlimit(2) on a machine of 64 bits.</summary>
[StructLayout(LayoutKind.Sequential)]
internal struct ResourceLimit
{
    public ulong Soft;
    public ulong Hard;
}
