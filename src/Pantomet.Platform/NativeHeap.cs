using System.Runtime.InteropServices;

namespace Pantomet.Platform;

/// <summary>
/// How the C library keeps the memory of native code. Left alone it keeps what was freed for the next that asks, in a heap for each thread:
/// after one large picture a process stays as large as it ever was. Where the C library knows no such settings (only glibc does) nothing is done.
/// </summary>
public static partial class NativeHeap
{
    // mallopt(3): what is larger is mapped apart, and given back the moment it is freed; and how many heaps there are.
    private const int MapThreshold = -3;
    private const int MostHeaps = -8;

    // A picture's pixels go back at once, while what every step needs again is kept: new pages cost time (decision 22).
    private const int Usual = 4 << 20;
    private const int Sparing = 128 << 10;

    private static readonly bool Knows = OperatingSystem.IsLinux() && NativeLibrary.TryLoad("libc.so.6", out var library) && Has(library);

    /// <summary>Keeps little of what is freed from now on; to be said before native code takes memory.</summary>
    public static void KeepLittle()
    {
        if (Knows)
        {
            _ = Set(MostHeaps, Math.Max(2, Environment.ProcessorCount / 2));
            _ = Set(MapThreshold, Usual);
        }
    }

    /// <summary>Does something that takes much memory for a short time, and gives back all that it left free.</summary>
    /// <param name="work">What is done; slower, as hardly anything that it frees is kept for its next step.</param>
    public static T Sparingly<T>(Func<T> work)
    {
        ArgumentNullException.ThrowIfNull(work);
        if (!Knows)
        {
            return work();
        }

        _ = Set(MapThreshold, Sparing);
        try
        {
            return work();
        }
        finally
        {
            _ = Set(MapThreshold, Usual);
            GiveBack();
        }
    }

    /// <summary>Gives back what is free.</summary>
    public static void GiveBack()
    {
        if (Knows)
        {
            _ = Trim(0);
        }
    }

    private static bool Has(nint library) =>
        NativeLibrary.TryGetExport(library, "mallopt", out _) && NativeLibrary.TryGetExport(library, "malloc_trim", out _);

    [LibraryImport("libc.so.6", EntryPoint = "mallopt")]
    private static partial int Set(int what, int value);

    [LibraryImport("libc.so.6", EntryPoint = "malloc_trim")]
    private static partial int Trim(nuint keep);
}
