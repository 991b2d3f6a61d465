namespace Pantomet.Data.Live;

/// <summary>A job whose files have addresses that pages can use.</summary>
public sealed class PublicationRow
{
    /// <summary>Identity.</summary>
    public Guid Id { get; set; }

    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>The first part of its addresses, unique; it stays whatever the job is called later.</summary>
    public required string Key { get; set; }

    /// <summary>When it was published last, UTC.</summary>
    public DateTime At { get; set; }

    /// <summary>When it was unpublished, UTC; null while it answers.</summary>
    public DateTime? UnpublishedAt { get; set; }
}

/// <summary>One picture in one place as it was published. It never changes; what is published later is another.</summary>
public sealed class PublishedPlaceRow
{
    /// <summary>Identity.</summary>
    public int Id { get; set; }

    /// <summary>The publication.</summary>
    public Guid PublicationId { get; set; }

    /// <summary>What its address goes on with: picture, destination, and slot or group, with slashes between them.</summary>
    public required string Path { get; set; }

    /// <summary>The picture.</summary>
    public Guid PictureId { get; set; }

    /// <summary>Eight hexadecimal digits over everything that its files depend on.</summary>
    public required string Version { get; set; }

    /// <summary>When it was published, UTC.</summary>
    public DateTime At { get; set; }

    /// <summary>When it stops to answer, UTC, once something newer took its place; null for the newest.</summary>
    public DateTime? ExpiresAt { get; set; }

    /// <summary>What the picture shows; empty for a decorative picture, null where nobody said it.</summary>
    public string? Alternative { get; set; }

    /// <summary>What was read from the original, as JSON, so that its files can be made when it has a newer one.</summary>
    public required string Facts { get; set; }

    /// <summary>Its slots with their rules, as JSON.</summary>
    public required string Slots { get; set; }
}

/// <summary>One file of a place as it was published; made already, or when somebody asks for it.</summary>
public sealed class PublishedFileRow
{
    /// <summary>The place.</summary>
    public int PlaceId { get; set; }

    /// <summary>Counts the files of a place.</summary>
    public int Ordinal { get; set; }

    /// <summary>The recipe's identity.</summary>
    public required string FileId { get; set; }

    /// <summary>The recipe as JSON.</summary>
    public required string Recipe { get; set; }

    /// <summary>The slot's key.</summary>
    public required string Slot { get; set; }

    /// <summary>The density or the width it stands for: 2x, 800w.</summary>
    public required string Descriptor { get; set; }

    /// <summary>True when it is handed over although it breaks a limit.</summary>
    public bool Allowed { get; set; }
}

/// <summary>How often a place was fetched, and how much that was.</summary>
public sealed class FetchCountRow
{
    /// <summary>The publication.</summary>
    public Guid PublicationId { get; set; }

    /// <summary>The path of the place.</summary>
    public required string Path { get; set; }

    /// <summary>How often one of its files was sent.</summary>
    public long Fetches { get; set; }

    /// <summary>How often it was found to be still the same.</summary>
    public long Unchanged { get; set; }

    /// <summary>Bytes of the files that were sent.</summary>
    public long Bytes { get; set; }
}
