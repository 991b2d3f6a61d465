using Pantomet.Core.Reports;

namespace Pantomet.Batch.Mending;

/// <summary>What became of a picture of a folder.</summary>
/// <param name="Path">From the folder's root.</param>
/// <param name="Before">Its weight before, in bytes; null where it could not be read.</param>
/// <param name="After">The weight of the file that takes its place; null where none does.</param>
/// <param name="Likeness">How much that looks like it, 0 to 1.</param>
/// <param name="Code">Why it stays, as a code; null where it does not.</param>
/// <param name="Sentence">Why it stays, or what is wrong with it.</param>
/// <param name="Seconds">How long it took.</param>
public sealed record MendedPicture(string Path, long? Before, long? After, double? Likeness, string? Code, string? Sentence, double Seconds)
{
    /// <summary>What a run reports of one.</summary>
    internal static MendedPicture Of(ReportedSource source, ReportedVariant? variant, TimeSpan took)
    {
        var taken = variant?.File is not null;
        var reason =
            taken ? null
            : variant?.Reasons is [var first, ..] ? first
            : null;
        return new(
            source.File,
            source.Bytes,
            taken ? variant!.Bytes : null,
            taken ? variant!.Likeness : null,
            reason?.Code,
            source.Error ?? reason?.Message,
            Math.Round(took.TotalSeconds, 3)
        );
    }
}
