namespace Pantomet.Browsing;

/// <summary>What a page gets when it asks for a file.</summary>
/// <param name="Status">The HTTP status; 0 where nothing is answered at all.</param>
/// <param name="Type">The media type; null where none is told.</param>
/// <param name="Body">What it holds.</param>
/// <param name="Moved">Where it lies instead; null where it lies here.</param>
/// <param name="Trouble">Why it could not be had: a sentence; null where it could.</param>
public sealed record PageAnswer(int Status, string? Type, byte[] Body, Uri? Moved, string? Trouble)
{
    /// <summary>A file.</summary>
    public static PageAnswer Of(string? type, byte[] body) => new(200, type, body, null, null);

    /// <summary>No file, and why.</summary>
    public static PageAnswer None(int status, string trouble) => new(status, "text/plain", [], null, trouble);
}

/// <summary>All that a page can read. A browser that shows it reaches nothing else.</summary>
public interface IPageFiles
{
    /// <summary>The page's whole address.</summary>
    public Uri Start { get; }

    /// <summary>How the whole addresses of its own files begin.</summary>
    public string Own { get; }

    /// <summary>Gives the file under an address.</summary>
    /// <param name="address">The whole address, without its fragment.</param>
    /// <param name="cancel">Stops.</param>
    public Task<PageAnswer> GetAsync(Uri address, CancellationToken cancel);
}
