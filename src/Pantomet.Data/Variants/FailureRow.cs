namespace Pantomet.Data.Variants;

/// <summary>A file that could not be made: why, how often it was tried, and when it is tried again.</summary>
public sealed class FailureRow
{
    /// <summary>The file: the hash of its recipe.</summary>
    public required string FileId { get; set; }

    /// <summary>The picture.</summary>
    public Guid PictureId { get; set; }

    /// <summary>How often it was tried.</summary>
    public int Tries { get; set; }

    /// <summary>When it failed last, UTC.</summary>
    public DateTime At { get; set; }

    /// <summary>When it is tried again, UTC; null when it was given up until somebody asks for it.</summary>
    public DateTime? NextAt { get; set; }

    /// <summary>What kind of failure it was: one of the failures' codes.</summary>
    public required string Code { get; set; }

    /// <summary>The code of one whose pause is over: it is to be tried again.</summary>
    public const string Due = "due";

    /// <summary>Why, as a sentence.</summary>
    public required string Reason { get; set; }
}
