namespace Pantomet.Data.Pages;

/// <summary>A job that was made of a page: what of it stands where on the page, and how far mending the page is.</summary>
public sealed class PageJobRow
{
    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>The page check that it was made of.</summary>
    public Guid CheckId { get; set; }

    /// <summary>Which picture stands where, as JSON.</summary>
    public required string Places { get; set; }

    /// <summary>How far mending is; null where nobody asked for it.</summary>
    public PageCheckState? State { get; set; }

    /// <summary>Why it could not be mended: a sentence.</summary>
    public string? Trouble { get; set; }

    /// <summary>When it was asked for, UTC.</summary>
    public DateTime? AskedAt { get; set; }
}
