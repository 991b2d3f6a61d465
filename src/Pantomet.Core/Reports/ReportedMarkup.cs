using System.Text.Json.Serialization;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Reports;

/// <summary>How a page shows one picture in one place.</summary>
public sealed record ReportedMarkup
{
    /// <summary>The source's path as it was given.</summary>
    public required string Source { get; init; }

    /// <summary>The destination's key.</summary>
    public required string Destination { get; init; }

    /// <summary>The name of the group, or the key of a slot of its own.</summary>
    public required string Group { get; init; }

    /// <summary>The key of a slot of its own; absent for a group.</summary>
    public string? Slot { get; init; }

    /// <summary>A <c>picture</c> or <c>img</c>; absent where there is nothing to show.</summary>
    public string? Html { get; init; }

    /// <summary>A rule that shows it as a background.</summary>
    public string? Css { get; init; }

    /// <summary>An <c>img</c> for a mail; absent where no file of a type for mail was made.</summary>
    public string? Mail { get; init; }

    /// <summary>A data address of at most 900 characters: the blurred picture, a few pixels large.</summary>
    [JsonPropertyName("standIn")]
    public string? Placeholder { get; init; }

    /// <summary>The colour that continues its edge, such as <c>#a1b2c3</c>; absent where something shows through there.</summary>
    public string? Colour { get; init; }

    /// <summary>What is missing.</summary>
    public required IReadOnlyList<Reason> Reasons { get; init; }
}
