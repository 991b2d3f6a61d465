using NetVips;
using Pantomet.Core.Texts;

namespace Pantomet.Imaging;

/// <summary>
/// What the imaging library says when it fails. People are told a sentence of ours; the library's own words go to the log, where whoever looks
/// for the cause needs them.
/// </summary>
public static class ImagingFault
{
    /// <summary>How a line of the library's own words begins on the error stream of an imaging process.</summary>
    public const string Prefix = "imaging library: ";

    /// <summary>What is said of a picture that needs more memory than one may take.</summary>
    public const string TooLarge = PictureTexts.ThisPictureNeedsMoreMemoryThan;

    /// <summary>Told what the library said; null where nobody keeps it.</summary>
    public static Action<string>? Told { get; set; }

    /// <summary>The sentence for a failure.</summary>
    /// <param name="fault">What the library said.</param>
    /// <param name="sentence">What is said unless memory was short, which is no fault of the file's data.</param>
    internal static string Sentence(VipsException fault, string sentence)
    {
        Tell(fault);
        return IsMemory(fault) ? TooLarge : sentence;
    }

    /// <summary>Passes on what the library said.</summary>
    /// <param name="fault">What it said.</param>
    public static void Tell(VipsException fault)
    {
        ArgumentNullException.ThrowIfNull(fault);
        Told?.Invoke(
            Prefix + string.Join(' ', fault.Message.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        );
    }

    /// <summary>True where the library got no more memory.</summary>
    internal static bool IsMemory(VipsException fault) =>
        fault.Message.Contains("out of memory", StringComparison.OrdinalIgnoreCase)
        || fault.Message.Contains("insufficient memory", StringComparison.OrdinalIgnoreCase)
        || fault.Message.Contains("memory allocation", StringComparison.OrdinalIgnoreCase)
        || fault.Message.Contains("cannot allocate", StringComparison.OrdinalIgnoreCase);
}
