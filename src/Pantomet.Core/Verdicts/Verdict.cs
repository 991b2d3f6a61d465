namespace Pantomet.Core.Verdicts;

/// <summary>How a variant stands against its slot.</summary>
public enum Verdict
{
    /// <summary>Everything asked is there.</summary>
    Meets,

    /// <summary>Within every limit, by giving something up that is named.</summary>
    Concedes,

    /// <summary>A limit is broken; no file is delivered.</summary>
    Breaks,

    /// <summary>Left out because the slot says so.</summary>
    Skipped,
}

/// <summary>Why a verdict is what it is.</summary>
/// <param name="Code">One of <see cref="ReasonCodes"/>.</param>
/// <param name="Message">A sentence with the figures.</param>
public sealed record Reason(string Code, string Message);

/// <summary>The codes that reports and the API carry beside each sentence.</summary>
public static class ReasonCodes
{
    /// <summary>The framing has fewer pixels than the slot asks for.</summary>
    public const string TooSmall = "too-small";

    /// <summary>The pixel size was reduced to the slot's largest side.</summary>
    public const string LargestSide = "largest-side";

    /// <summary>The pixel size is below the slot's smallest side.</summary>
    public const string SmallestSide = "smallest-side";

    /// <summary>The file is over the weight limit and nothing more could be given up.</summary>
    public const string OverWeight = "over-weight";

    /// <summary>The quality had to go below what is comfortable, or below the slot's floor.</summary>
    public const string LowQuality = "low-quality";

    /// <summary>The colours were reduced to a palette to meet the weight.</summary>
    public const string Palette = "palette";

    /// <summary>A later type of the slot's list was taken to meet the weight.</summary>
    public const string NextType = "next-type";

    /// <summary>Fewer pixels than the rule allows at most, to meet the weight.</summary>
    public const string FewerPixels = "fewer-pixels";

    /// <summary>Transparency was laid on the background because the type has none.</summary>
    public const string Flattened = "flattened";

    /// <summary>A frame set by hand had another shape than the slot.</summary>
    public const string Reshaped = "reshaped";

    /// <summary>Only the first frame of a file with several was used.</summary>
    public const string FirstFrame = "first-frame";

    /// <summary>The picture could not be drawn into a file.</summary>
    public const string Unreadable = "unreadable";
}
