namespace Pantomet.Core.PageChecks;

/// <summary>A page on one screen.</summary>
/// <param name="Screen">The screen.</param>
/// <param name="Height">How long the page is, in CSS pixels.</param>
/// <param name="OtherBytes">The weight of everything but pictures that it loaded.</param>
public sealed record VisitedScreen(Screen Screen, double Height, long OtherBytes);

/// <summary>What was seen of a page on all screens.</summary>
/// <param name="Page">The page as it was given.</param>
/// <param name="Own">How the whole addresses of its own files begin.</param>
/// <param name="Screens">Each screen.</param>
/// <param name="Images">Its pictures.</param>
/// <param name="Notes">What could not be seen, a sentence each.</param>
/// <param name="Took">How long it took.</param>
public sealed record PageVisit(
    string Page,
    string Own,
    IReadOnlyList<VisitedScreen> Screens,
    IReadOnlyList<PageImage> Images,
    IReadOnlyList<string> Notes,
    TimeSpan Took
)
{
    private const int LongestData = 64;

    /// <summary>An address as people read it: without what all own files begin with, and data cut short.</summary>
    public string NameOf(string address)
    {
        ArgumentNullException.ThrowIfNull(address);
        return address.StartsWith(Own, StringComparison.Ordinal) ? Uri.UnescapeDataString(address[Own.Length..])
            : address.StartsWith("data:", StringComparison.Ordinal) && address.Length > LongestData ? address[..LongestData] + "..."
            : address;
    }
}
