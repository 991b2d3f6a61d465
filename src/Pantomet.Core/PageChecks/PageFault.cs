using System.Text.Json.Serialization;

namespace Pantomet.Core.PageChecks;

/// <summary>What can be wrong with a picture of a page.</summary>
[JsonConverter(typeof(JsonStringEnumConverter<PageFaultCode>))]
public enum PageFaultCode
{
    /// <summary>It could not be loaded.</summary>
    [JsonStringEnumMemberName("missing")]
    Missing,

    /// <summary>It has more pixels than any screen needs.</summary>
    [JsonStringEnumMemberName("too-large")]
    TooLarge,

    /// <summary>It weighs more than it has to at its pixels.</summary>
    [JsonStringEnumMemberName("heavy")]
    Heavy,

    /// <summary>Another type is lighter at the same look.</summary>
    [JsonStringEnumMemberName("old-type")]
    OldType,

    /// <summary>All screens load the same file, though some need far less.</summary>
    [JsonStringEnumMemberName("one-size")]
    OneSize,

    /// <summary>It is drawn larger than it is.</summary>
    [JsonStringEnumMemberName("enlarged")]
    Enlarged,

    /// <summary>Its sides are drawn at two scales.</summary>
    [JsonStringEnumMemberName("squashed")]
    Squashed,

    /// <summary>No room is kept for it, so what stands below moves when it comes.</summary>
    [JsonStringEnumMemberName("no-size")]
    NoSize,

    /// <summary>Nothing says what it shows.</summary>
    [JsonStringEnumMemberName("no-alt")]
    NoAlt,

    /// <summary>It belongs to what is seen first, and waits.</summary>
    [JsonStringEnumMemberName("lazy-first")]
    LazyFirst,

    /// <summary>It is loaded at once, and nobody sees it at first.</summary>
    [JsonStringEnumMemberName("eager-below")]
    EagerBelow,
}

/// <summary>A fault of a picture on a page.</summary>
/// <param name="Code">Which.</param>
/// <param name="Message">What is wrong, what to do, and what it gains: a sentence or two.</param>
public sealed record PageFault(PageFaultCode Code, string Message);
