using NetVips;
using Pantomet.Platform;

namespace Pantomet.Imaging;

/// <summary>The one place that sets up the imaging library for the whole process.</summary>
public static class ImagingEngine
{
    private static readonly Lazy<bool> Ready = new(SetUp);

    /// <summary>Makes sure that the library is set up. Cheap to call again.</summary>
    public static void Start() => _ = Ready.Value;

    /// <summary>
    /// How many threads one pipeline uses from now on. Work is spread over the cores by picture and by variant, and threads inside a
    /// pipeline
    /// would only get in each other's way: more than one is for an order that is alone.
    /// </summary>
    /// <param name="count">1 or more.</param>
    public static void UseThreads(int count)
    {
        NetVips.NetVips.Concurrency = count;
        Threads = count;
    }

    /// <summary>How many threads one pipeline uses.</summary>
    public static int Threads { get; private set; } = 1;

    private static bool SetUp()
    {
        NativeHeap.KeepLittle();
        // What goes wrong with one picture is told as its refusal, not on the program's error stream.
        Log.SetLogHandler("VIPS", Enums.LogLevelFlags.Warning, (_, _, _) => { });
        // Every picture is worked on once: a cache of operations would only hold memory.
        Cache.Max = 0;
        Cache.MaxFiles = 0;
        UseThreads(1);
        // Loaders that the library's own authors do not trust with strangers' files stay shut.
        // Drawings are the exception: shops live by their marks, and the drawing library reads no other host.
        NetVips.NetVips.BlockUntrusted = true;
        Operation.Block("VipsForeignLoadSvg", false);
        return true;
    }
}
