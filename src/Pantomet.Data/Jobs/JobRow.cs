namespace Pantomet.Data.Jobs;

/// <summary>Whether a job's files are being made.</summary>
public enum RunState
{
    /// <summary>What is missing is made in the background.</summary>
    Running,

    /// <summary>What is under way is finished, nothing new is begun.</summary>
    Paused,

    /// <summary>What was under way was given up.</summary>
    Stopped,
}

/// <summary>One job as it is stored: its names, and figures that are counted on with every change so that nobody has to sum them.</summary>
public sealed class JobRow
{
    /// <summary>Identity in addresses.</summary>
    public Guid Id { get; set; }

    /// <summary>A job of an earlier version, as one document of JSON, until it was brought over; null for all others.</summary>
    public string? Text { get; set; }

    /// <summary>Why the job cannot be read, as a sentence; it is set aside and everything else goes on. Null for all others.</summary>
    public string? Fault { get; set; }

    /// <summary>Name for people.</summary>
    public string Name { get; set; } = "";

    /// <summary>Words that every file's name begins with.</summary>
    public string Prefix { get; set; } = "";

    /// <summary>True when pictures without words are counted under the job's name.</summary>
    public bool Numbered { get; set; }

    /// <summary>Patterns of names by destination, as a JSON object.</summary>
    public string Patterns { get; set; } = "{}";

    /// <summary>When it was made, UTC.</summary>
    public DateTime CreatedAt { get; set; }

    /// <summary>When it was archived, UTC; null while it is at work.</summary>
    public DateTime? ArchivedAt { get; set; }

    /// <summary>Whether its files are being made.</summary>
    public RunState Run { get; set; }

    /// <summary>Counts everything that was told about the job; never goes back.</summary>
    public long Sequence { get; set; }

    /// <summary>How many pictures of the library it has.</summary>
    public int Pictures { get; set; }

    /// <summary>Files that are wanted.</summary>
    public int Files { get; set; }

    /// <summary>Of these, files that are made.</summary>
    public int Done { get; set; }

    /// <summary>Of these, files that could not be made.</summary>
    public int Failed { get; set; }

    /// <summary>What the made files weigh together.</summary>
    public long Bytes { get; set; }

    /// <summary>The work of the files that are still to be made: pixels, and a share for every file.</summary>
    public long Left { get; set; }

    /// <summary>Cells that are to review.</summary>
    public int ToReview { get; set; }
}

/// <summary>One picture of a job and what was decided about it as a whole.</summary>
public sealed class JobPictureRow
{
    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>The picture in the library.</summary>
    public Guid PictureId { get; set; }

    /// <summary>Its place: pictures stand in ascending order. There are gaps, so that one can be put between two others.</summary>
    public long Place { get; set; }

    /// <summary>Quarter turns clockwise, 0 to 3.</summary>
    public int Quarters { get; set; }

    /// <summary>The small angle in degrees.</summary>
    public double Degrees { get; set; }

    /// <summary>The focus across, 0 to 1; null without one.</summary>
    public double? FocusX { get; set; }

    /// <summary>The focus down, 0 to 1; null without one.</summary>
    public double? FocusY { get; set; }

    /// <summary>Keep boxes as a JSON array of arrays: left, top, right, bottom.</summary>
    public string Keep { get; set; } = "[]";

    /// <summary>True when the suggestion was turned down.</summary>
    public bool SuggestionRejected { get; set; }

    /// <summary>Words for names.</summary>
    public string Keywords { get; set; } = "";

    /// <summary>Alternative text.</summary>
    public string Alternative { get; set; } = "";

    /// <summary>The picture's own title.</summary>
    public string Title { get; set; } = "";

    /// <summary>True for a decorative picture, whose text is empty.</summary>
    public bool Decorative { get; set; }

    /// <summary>True when a newer original has another shape and nobody has looked yet.</summary>
    public bool OtherShape { get; set; }
}

/// <summary>A frame set by hand for all slots of one shape.</summary>
public sealed class JobFramingRow
{
    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>The picture.</summary>
    public Guid PictureId { get; set; }

    /// <summary>The shape's key.</summary>
    public required string Shape { get; set; }

    /// <summary>Left, top, right, bottom as fractions of the turned picture, as a JSON array.</summary>
    public required string Frame { get; set; }
}

/// <summary>What was decided about one picture in one slot.</summary>
public sealed class JobDecisionRow
{
    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>The picture.</summary>
    public Guid PictureId { get; set; }

    /// <summary>The slot's address.</summary>
    public required string Slot { get; set; }

    /// <summary>True when the slot no longer follows the others of its shape.</summary>
    public bool Unlinked { get; set; }

    /// <summary>Its own frame as a JSON array; null follows marks and suggestion.</summary>
    public string? Frame { get; set; }

    /// <summary>True when the picture does not go there.</summary>
    public bool Skip { get; set; }

    /// <summary>Reasons that were found good, by code, as a JSON array.</summary>
    public string Accepted { get; set; } = "[]";

    /// <summary>Files that go out though they break a limit, by what they are wanted as, as a JSON array.</summary>
    public string Allowed { get; set; } = "[]";

    /// <summary>A type chosen by hand.</summary>
    public string? Format { get; set; }

    /// <summary>A quality chosen by hand.</summary>
    public int? Quality { get; set; }

    /// <summary>True when a choice was made, if only that both are to be found.</summary>
    public bool Chosen { get; set; }

    /// <summary>What is drawn over the picture here, as in a rules file; null follows the slot.</summary>
    public string? Dress { get; set; }
}

/// <summary>One slot of a job.</summary>
public sealed class JobSlotRow
{
    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>The slot's address.</summary>
    public required string Slot { get; set; }

    /// <summary>Its place: slots stand in ascending order.</summary>
    public long Place { get; set; }

    /// <summary>A type chosen for all pictures.</summary>
    public string? Format { get; set; }

    /// <summary>A quality chosen for all pictures.</summary>
    public int? Quality { get; set; }

    /// <summary>True when a choice was made, if only that both are to be found.</summary>
    public bool Chosen { get; set; }

    /// <summary>A hash of the rule that its cells were laid out by; another one in the book lays them out anew.</summary>
    public string LaidOutBy { get; set; } = "";
}

/// <summary>Commands that were sent together, as they were applied, and the way back.</summary>
public sealed class CommandRow
{
    /// <summary>Identity; ascending in time.</summary>
    public long Id { get; set; }

    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>The job's sequence afterwards.</summary>
    public long Sequence { get; set; }

    /// <summary>The sender's own id of what was sent; what is sent twice is applied once. Null where none was given.</summary>
    public string? Sender { get; set; }

    /// <summary>Who decided.</summary>
    public required string Actor { get; set; }

    /// <summary>The person; null for guests, and where nobody signs in.</summary>
    public Guid? ActorId { get; set; }

    /// <summary>When, UTC.</summary>
    public DateTime At { get; set; }

    /// <summary>What it is: "commands", "undo", "redo", "return" for a picture that goes back to a moment, or "library" for what follows a
    /// change of the library.</summary>
    public required string Kind { get; set; }

    /// <summary>The step it belongs to; null for what is no step.</summary>
    public long? Step { get; set; }

    /// <summary>The version of <see cref="Body"/> and <see cref="Inverse"/>.</summary>
    public int Version { get; set; } = 1;

    /// <summary>The commands as JSON.</summary>
    public required string Body { get; set; }

    /// <summary>The patch that leads back, as JSON.</summary>
    public required string Inverse { get; set; }
}

/// <summary>Whether a step stands.</summary>
public enum StepState
{
    /// <summary>It stands.</summary>
    Done,

    /// <summary>It was undone and can be done again.</summary>
    Undone,

    /// <summary>It was undone, and another step was made since.</summary>
    Dropped,
}

/// <summary>One step that can be undone: the commands of one gesture.</summary>
public sealed class StepRow
{
    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>Its number in the job, ascending.</summary>
    public long Number { get; set; }

    /// <summary>The gesture it belongs to, as the sender names it; null where it stands alone.</summary>
    public string? Gesture { get; set; }

    /// <summary>When its last command came, UTC.</summary>
    public DateTime At { get; set; }

    /// <summary>Whether it stands.</summary>
    public StepState State { get; set; }
}

/// <summary>How one picture stands in one slot: what is counted and looked for.</summary>
public sealed class CellRow
{
    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>The picture.</summary>
    public Guid PictureId { get; set; }

    /// <summary>The slot's address.</summary>
    public required string Slot { get; set; }

    /// <summary>Planned, waiting, made, failed or skipped.</summary>
    public required string State { get; set; }

    /// <summary>The gravest verdict of its files and its frame.</summary>
    public required string Verdict { get; set; }

    /// <summary>The reasons that are to review, by code, with commas.</summary>
    public string ToReview { get; set; } = "";
}

/// <summary>One file that a cell wants.</summary>
public sealed class WantRow
{
    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>The picture.</summary>
    public Guid PictureId { get; set; }

    /// <summary>The slot's address.</summary>
    public required string Slot { get; set; }

    /// <summary>Which of the cell's files, from 0.</summary>
    public int Ordinal { get; set; }

    /// <summary>The file: the hash of its recipe.</summary>
    public required string FileId { get; set; }

    /// <summary>The picture's place in the job.</summary>
    public long Place { get; set; }

    /// <summary>The place among the files of one picture: the largest first.</summary>
    public long Rank { get; set; }

    /// <summary>How it stood when it was counted: one of the states below.</summary>
    public required string State { get; set; }

    /// <summary>What it weighed when it was counted; 0 before it is made.</summary>
    public long Bytes { get; set; }

    /// <summary>It is to be made.</summary>
    public const string Open = "open";

    /// <summary>It is made.</summary>
    public const string Made = "made";

    /// <summary>It could not be made: it rests until it is tried again.</summary>
    public const string Failed = "failed";
}
