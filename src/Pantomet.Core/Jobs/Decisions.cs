using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Jobs;

/// <summary>Type and quality that a person chose for a file. What is null is automatic.</summary>
/// <param name="Format">jpeg, png, webp or avif.</param>
/// <param name="Quality">1 to 100.</param>
public sealed record Choice(string? Format, int? Quality)
{
    /// <summary>What is wrong with a choice from outside, as a sentence; null when nothing is.</summary>
    public static string? Fault(Choice? choice) =>
        choice is { Quality: < 1 or > 100 } ? JobTexts.AQualityMustBeAWhole
        : choice is { Format: { } format } && PictureFormats.Written.All(one => one.Word() != format) ? JobTexts.FilesCanBeJpegPngWebp
        : null;
}

/// <summary>What a person decided about one picture in one slot.</summary>
public sealed record CellDecision
{
    /// <summary>Nothing was decided.</summary>
    public static readonly CellDecision None = new();

    /// <summary>True when the slot no longer follows the others of its shape.</summary>
    public bool Unlinked { get; init; }

    /// <summary>The slot's own frame, while it is loose; null follows marks and suggestion.</summary>
    public Frame? Frame { get; init; }

    /// <summary>True when the picture is skipped in this slot.</summary>
    public bool Skip { get; init; }

    /// <summary>The reasons that a person reviewed and accepted, by code.</summary>
    public IReadOnlyList<string> Accepted { get; init; } = [];

    /// <summary>Files that break a limit and are handed over anyway, by their variant's id.</summary>
    public IReadOnlyList<string> Allowed { get; init; } = [];

    /// <summary>The file's type and quality.</summary>
    public Choice? Choice { get; init; }

    /// <summary>
    /// What is drawn over the picture in this slot instead of what the slot lays over all, as the value of <c>dress</c> in a rules file; null
    /// follows the slot.
    /// </summary>
    public string? Dress { get; init; }

    /// <summary>True when it says no more than that nothing was decided.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool IsNone => Says(None);

    /// <summary>True when it says the same as another.</summary>
    public bool Says(CellDecision other)
    {
        ArgumentNullException.ThrowIfNull(other);
        return Unlinked == other.Unlinked
            && Frame == other.Frame
            && Skip == other.Skip
            && Choice == other.Choice
            && Dress == other.Dress
            && Accepted.SequenceEqual(other.Accepted)
            && Allowed.SequenceEqual(other.Allowed);
    }
}

/// <summary>
/// Everything a person decided about one picture in one job. Frames, boxes and points are fractions of the picture as displayed and turned.
/// </summary>
public sealed record Decisions
{
    /// <summary>Nothing was decided.</summary>
    public static readonly Decisions None = new();

    private const int MostBoxes = 20;
    private const int LongestText = 500;

    /// <summary>Quarter turns and straightening.</summary>
    public Turn Turn { get; init; }

    /// <summary>The focus point.</summary>
    public FocusPoint? Focus { get; init; }

    /// <summary>Boxes that must stay whole.</summary>
    public IReadOnlyList<Frame> Keep { get; init; } = [];

    /// <summary>True when the suggested box was rejected.</summary>
    public bool SuggestionRejected { get; init; }

    /// <summary>Words for names: "storm vane brass".</summary>
    public string Keywords { get; init; } = "";

    /// <summary>What the picture shows, for those who cannot see it.</summary>
    public string Alternative { get; init; } = "";

    /// <summary>The picture's own title, for slots that write it over the picture.</summary>
    public string Title { get; init; } = "";

    /// <summary>True when the picture shows nothing that those who cannot see it need to be told: its text on a page is empty.</summary>
    public bool Decorative { get; init; }

    /// <summary>The text that stands for the picture on a page: empty for a decorative picture, null where nobody said anything yet.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public string? AlternativeOnPages =>
        Decorative ? ""
        : Alternative.Length > 0 ? Alternative
        : null;

    /// <summary>Frames set by hand for all slots of one shape, by <see cref="Shapes.KeyOf"/>.</summary>
    public IReadOnlyDictionary<string, Frame> Framings { get; init; } = new Dictionary<string, Frame>();

    /// <summary>Decisions for one slot alone, by its address "destination/slot".</summary>
    public IReadOnlyDictionary<string, CellDecision> Cells { get; init; } = new Dictionary<string, CellDecision>();

    /// <summary>
    /// True when a newer original of another shape took the place of the one that frames by hand were set on, and nobody has looked yet.
    /// </summary>
    public bool OtherShape { get; init; }

    /// <summary>A slot as it is for this picture: what it lays over it, with the picture's own title.</summary>
    /// <param name="slot">The slot.</param>
    /// <param name="address">Its address.</param>
    public Slot Dressed(Slot slot, string address)
    {
        ArgumentNullException.ThrowIfNull(slot);
        if (For(address).Dress is not { } dress)
        {
            return slot.For(Title);
        }

        // A title is set in CSS px: it needs a slot of a set width.
        var own = DressReader.Stored(dress);
        return (slot with { Dress = slot.SetWidth is null ? own with { Title = null } : own }).For(Title);
    }

    /// <summary>The decision for one slot.</summary>
    public CellDecision For(string address) => Cells.TryGetValue(address, out var cell) ? cell : CellDecision.None;

    /// <summary>The same with another decision for one slot.</summary>
    public Decisions With(string address, CellDecision cell)
    {
        ArgumentNullException.ThrowIfNull(cell);
        var cells = new Dictionary<string, CellDecision>(Cells);
        if (cell.IsNone)
        {
            cells.Remove(address);
        }
        else
        {
            cells[address] = cell;
        }

        return this with
        {
            Cells = cells,
        };
    }

    /// <summary>The same with another frame by hand for all slots of a shape; null gives it up.</summary>
    public Decisions Framed(string shape, Frame? frame)
    {
        var framings = new Dictionary<string, Frame>(Framings);
        if (frame is { } set)
        {
            framings[shape] = set;
        }
        else
        {
            framings.Remove(shape);
        }

        return this with
        {
            Framings = framings,
        };
    }

    /// <summary>
    /// The same under another turn: marks stay on what they mark. Frames by hand stay with a small angle; another quarter gives them up, as
    /// they would have
    /// another shape.
    /// </summary>
    /// <param name="to">The turn.</param>
    /// <param name="original">The picture's size as displayed, not turned.</param>
    public Decisions Turned(Turn to, PixelSize original)
    {
        if (to == Turn)
        {
            return this;
        }

        var from = Turn;
        (double X, double Y) Move(double x, double y)
        {
            var (there, down) = from.Back(x, y, original);
            (there, down) = to.At(there, down, original);
            return (Math.Clamp(there, 0, 1), Math.Clamp(down, 0, 1));
        }

        Frame? MoveBox(Frame box)
        {
            (double X, double Y)[] corners =
            [
                Move(box.Left, box.Top),
                Move(box.Right, box.Top),
                Move(box.Left, box.Bottom),
                Move(box.Right, box.Bottom),
            ];
            var (left, top, right, bottom) = (
                corners.Min(at => at.X),
                corners.Min(at => at.Y),
                corners.Max(at => at.X),
                corners.Max(at => at.Y)
            );
            return right - left > Sliver && bottom - top > Sliver && Frame.TryCreate(left, top, right, bottom, out var moved, out _)
                ? moved
                : null;
        }

        var quarter = from.Quarters != to.Quarters;
        return this with
        {
            Turn = to,
            Keep = [.. Keep.Select(MoveBox).OfType<Frame>()],
            Focus = Focus is { } focus && Move(focus.X, focus.Y) is var at ? new FocusPoint(at.X, at.Y) : null,
            Framings = quarter ? new Dictionary<string, Frame>() : Framings,
            Cells = quarter ? Cells.ToDictionary(pair => pair.Key, pair => pair.Value with { Frame = null }) : Cells,
        };
    }

    // A box that was turned out of the picture but for less than this is gone.
    private const double Sliver = 0.001;

    /// <summary>What is wrong with decisions from outside, as a sentence; null when nothing is.</summary>
    public string? Fault()
    {
        if (!Turn.IsPossible)
        {
            return JobTexts.APictureCanBeTurnedBy(Turn.MostDegrees);
        }

        var frames = Keep.Concat(Framings.Values)
            .Concat(Cells.Values.Where(cell => cell.Frame is not null).Select(cell => cell.Frame!.Value));
        foreach (var frame in frames)
        {
            if (!Frame.TryCreate(frame.Left, frame.Top, frame.Right, frame.Bottom, out _, out var error))
            {
                return char.ToUpperInvariant(error![0]) + error[1..] + ".";
            }
        }

        return Focus is { } focus && (focus.X is not (>= 0 and <= 1) || focus.Y is not (>= 0 and <= 1)) ? JobTexts.AFocusIsTwoFractionsOf
            : Keep.Count > MostBoxes ? JobTexts.APictureCanHaveAtMost(MostBoxes)
            : Keywords.Length > LongestText || Alternative.Length > LongestText ? JobTexts.KeywordsAndAlternativeTextCanHave(LongestText)
            : Keywords.Concat(Alternative).Any(char.IsControl) ? JobTexts.KeywordsAndAlternativeTextCannotHave
            : Title.Length > Dressing.Title.LongestText ? JobTexts.ATitleCanHaveAtMost(Dressing.Title.LongestText, Title.Length)
            : Title.Any(character => char.IsControl(character) && character != '\n') ? JobTexts.ATitleCannotHaveControlCharacters
            : Cells.Values.Select(cell => Choice.Fault(cell.Choice)).FirstOrDefault(fault => fault is not null);
    }
}
