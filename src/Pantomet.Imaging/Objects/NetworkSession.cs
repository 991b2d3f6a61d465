using Microsoft.ML.OnnxRuntime;
using NetVips;
using Pantomet.Core.Framing;
using Pantomet.Platform;

namespace Pantomet.Imaging.Objects;

/// <summary>Opens the networks that ship with the program; each is read from its file when it is needed first, and shared by all threads.</summary>
public static class NetworkSession
{
    private static int _threads = 1;

    /// <summary>
    /// How many threads look at one picture, to be said before the first: one where pictures are worked on side by side, more where this is
    /// the one that looks.
    /// </summary>
    /// <param name="count">1 or more.</param>
    public static void UseThreads(int count) => _threads = count;

    /// <summary>Opens one.</summary>
    /// <param name="name">The file's name beside the program.</param>
    internal static InferenceSession Open(string name)
    {
        // Without an arena memory is given back.
        using var options = new SessionOptions
        {
            IntraOpNumThreads = _threads,
            InterOpNumThreads = 1,
            EnableCpuMemArena = false,
        };
        // A thread that has nothing to do must not keep a core from others.
        options.AddSessionConfigEntry("session.intra_op.allow_spinning", "0");
        var path = Path.Combine(AppContext.BaseDirectory, name);
        // While it is opened, a network takes three times what it needs afterwards.
        return NativeHeap.Sparingly<InferenceSession>(() => File.Exists(path) ? new(path, options) : new(Joined(path), options));
    }

    /// <summary>A picture's pixels at the size that a network looks at, interleaved.</summary>
    /// <param name="picture">The picture, upright and opaque.</param>
    /// <param name="width">Pixels across.</param>
    /// <param name="height">Pixels down.</param>
    internal static (byte[] Pixels, int Bands) Resized(Thumb picture, int width, int height)
    {
        ImagingEngine.Start();
        using var image = Image.NewFromMemory(picture.Pixels, picture.Width, picture.Height, picture.Bands, Enums.BandFormat.Uchar);
        using var tagged = image.Copy(interpretation: Enums.Interpretation.Srgb);
        using var resized = tagged.ThumbnailImage(width, height: height, size: Enums.Size.Force);
        return (resized.WriteToMemory<byte>(), resized.Bands);
    }

    // A network too large for one file of the repository lies in several, numbered from 1.
    private static byte[] Joined(string path)
    {
        using var whole = new MemoryStream();
        for (var part = 1; File.Exists($"{path}.{part}"); part++)
        {
            whole.Write(File.ReadAllBytes($"{path}.{part}"));
        }

        return whole.Length > 0
            ? whole.ToArray()
            : throw new FileNotFoundException("A network that ships with the program is missing.", path);
    }
}
