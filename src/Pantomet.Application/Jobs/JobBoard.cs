using System.Collections.Concurrent;
using System.Diagnostics;
using System.Threading.Channels;
using Pantomet.Application.Variants;
using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Naming;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Jobs;

/// <summary>One of the pictures that stand side by side, as the job has it.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Mine">What was decided about it.</param>
public sealed record BoardPart(PictureRow Picture, JobPicture Mine)
{
    /// <summary>The same parts as before, as they are now.</summary>
    public static bool AreSame(IReadOnlyList<BoardPart>? before, IReadOnlyList<BoardPart>? now) =>
        before is null
            ? now is null
            : now is not null
                && before.Count == now.Count
                && before
                    .Zip(now)
                    .All(pair =>
                        ReferenceEquals(pair.First.Mine, pair.Second.Mine)
                        && pair.First.Picture.ContentHash == pair.Second.Picture.ContentHash
                        && pair.First.Picture.Suggestion == pair.Second.Picture.Suggestion
                    );
}

/// <summary>One picture in one slot of a job: its plan and the files that are wanted.</summary>
public sealed record BoardCell(PictureRow Picture, JobPicture Mine, JobSlot Place, BoardSlot Slot, Slot Own, string OwnKey, CellPlan Plan)
{
    /// <summary>The files that are wanted.</summary>
    public IReadOnlyList<WantedFile> Files { get; init; } = [];

    /// <summary>The pictures that stand side by side, those of them that the job has; null for a single picture.</summary>
    public IReadOnlyList<BoardPart>? Parts { get; init; }

    /// <summary>The file of one request for this cell.</summary>
    public WantedFile Wanted(FileRequest request) => Wanted(Own, OwnKey, request);

    /// <summary>The file of one request for this cell under another rule.</summary>
    public WantedFile Wanted(Slot slot, string key, FileRequest request) =>
        Parts is { } parts && request.Plan.Parts is not null
            ? WantedFile.OfPair(
                Picture,
                [.. parts.Select(part => (part.Picture.ContentHash, part.Mine.Decisions.Turn))],
                slot,
                key,
                request
            )
            : WantedFile.Of(Picture, Mine.Decisions.Turn, slot, key, request);

    /// <summary>The decision that holds in this cell.</summary>
    public CellDecision Decision => Mine.Decisions.For(Place.Address);

    /// <summary>What must be seen of the picture, as fractions of a file: its keep boxes, else what is suggested; of pictures side by side nothing is known.</summary>
    public IReadOnlyList<Frame> KeptIn(VariantPlan plan)
    {
        var decisions = Mine.Decisions;
        var suggested = decisions.SuggestionRejected ? null : CellPlan.SuggestionOf(Picture.Facts, decisions.Turn)?.Box;
        return Parts is not null
            ? []
            : CalmArea.InFile(
                decisions.Keep.Count > 0 ? decisions.Keep
                    : suggested is { } box ? [box]
                    : [],
                decisions.Turn.SizeOf(Picture.Facts.Size),
                plan
            );
    }

    /// <summary>Plans a cell.</summary>
    public static BoardCell Of(PictureRow picture, JobPicture mine, JobSlot place, BoardSlot slot, IReadOnlyList<BoardPart>? parts = null)
    {
        var (own, key) = slot.For(mine.Decisions, place.Address);
        var cell = new BoardCell(picture, mine, place, slot, own, key, PlanOf(picture, mine, own, place, parts)) { Parts = parts };
        return cell with { Files = [.. cell.Plan.Requests.Where(request => request.Plan.IsMade).Select(cell.Wanted)] };
    }

    /// <summary>The plan of this cell under another rule.</summary>
    public CellPlan PlanOf(Slot slot, JobSlot place) => PlanOf(Picture, Mine, slot, place, Parts);

    /// <summary>The same cell under other decisions.</summary>
    public BoardCell With(Decisions decisions) => Of(Picture, Mine with { Decisions = decisions }, Place, Slot, Parts);

    private static CellPlan PlanOf(PictureRow picture, JobPicture mine, Slot slot, JobSlot place, IReadOnlyList<BoardPart>? parts) =>
        parts is null ? CellPlan.Of(picture.Facts, mine.Decisions, slot, place)
        : picture.Parts!.Where(part => parts.All(one => one.Picture.Id != part.Id)).ToList() is { Count: > 0 } gone
            ? CellPlan.OfBrokenPair(picture.Facts.Size, mine.Decisions, slot, place, Lacks(gone))
        : CellPlan.OfPair([.. parts.Select(part => (part.Picture.Facts, part.Mine.Decisions))], mine.Decisions, slot, place);

    private static string Lacks(List<PartOfPair> gone) =>
        JobTexts.NoLongerInThisJobAdd(string.Join(" and ", gone.Select(part => $"\"{part.Name}\"")), (gone.Count == 1 ? "is" : "are"));
}

/// <summary>What is counted of some cells.</summary>
/// <param name="Files">Files that are wanted.</param>
/// <param name="Done">Files that are made.</param>
/// <param name="Failed">Files that could not be made.</param>
/// <param name="Bytes">What the made files weigh.</param>
/// <param name="Left">The work of the files that are still to be made.</param>
/// <param name="ToReview">Cells that are to review.</param>
public readonly record struct Tally(int Files, int Done, int Failed, long Bytes, long Left, int ToReview)
{
    /// <summary>Adds two counts.</summary>
    public static Tally operator +(Tally a, Tally b) =>
        new(a.Files + b.Files, a.Done + b.Done, a.Failed + b.Failed, a.Bytes + b.Bytes, a.Left + b.Left, a.ToReview + b.ToReview);

    /// <summary>Subtracts a count from another.</summary>
    public static Tally operator -(Tally a, Tally b) =>
        new(a.Files - b.Files, a.Done - b.Done, a.Failed - b.Failed, a.Bytes - b.Bytes, a.Left - b.Left, a.ToReview - b.ToReview);
}

/// <summary>A job as it was stored last. It never changes: a change is another one.</summary>
public sealed record BoardState
{
    /// <summary>Identity of the job.</summary>
    public required Guid Id { get; init; }

    /// <summary>The job with its decisions.</summary>
    public required Job Job { get; init; }

    /// <summary>When the job was added, UTC.</summary>
    public required DateTime CreatedAt { get; init; }

    /// <summary>
    /// Counts what was stored and told. What passes, such as that a file is being made, is told under the number of what was stored last.
    /// </summary>
    public long Sequence { get; init; }

    /// <summary>When the job was archived, UTC; null for a current one.</summary>
    public DateTime? ArchivedAt { get; init; }

    /// <summary>Whether files are made now.</summary>
    public RunState Run { get; init; }

    /// <summary>Pictures of the job that the library has.</summary>
    public required IReadOnlyDictionary<Guid, PictureRow> Rows
    {
        get;
        init
        {
            field = value;
            _pairs = [.. value.Values.Where(row => row.Parts is not null)];
        }
    }

    // Asked for with every picture that changes.
    private readonly IReadOnlyList<PictureRow> _pairs = [];

    /// <summary>Slots of the job that the book has.</summary>
    public required IReadOnlyDictionary<string, BoardSlot> Slots { get; init; }

    /// <summary>Slots whose cells were laid out by another rule than the book has, as the tables say.</summary>
    public IReadOnlySet<string> Stale { get; init; } = new HashSet<string>();

    /// <summary>The place of each picture in the order of the job.</summary>
    public required IReadOnlyDictionary<Guid, long> Places { get; init; }

    /// <summary>How many files and bytes are made and wanted.</summary>
    public Tally Tally { get; init; }

    /// <summary>True where a command can be undone.</summary>
    public bool CanUndo { get; init; }

    /// <summary>True where a command can be redone.</summary>
    public bool CanRedo { get; init; }

    /// <summary>Slots of the job that the book no longer has.</summary>
    public IEnumerable<JobSlot> Missing => Job.Slots.Where(place => !Slots.ContainsKey(place.Address));

    /// <summary>The pictures that are shown, in order.</summary>
    public IEnumerable<JobPicture> Shown => Job.Pictures.Where(one => Rows.ContainsKey(one.Id));

    /// <summary>The pictures that stand side by side, those of them that the job has; null for a single picture.</summary>
    public IReadOnlyList<BoardPart>? PartsOf(PictureRow row) =>
        row.Parts is { } parts
            ?
            [
                .. parts.SelectMany(part =>
                    Rows.TryGetValue(part.Id, out var one) && Job.Find(part.Id) is { } mine ? [new BoardPart(one, mine)] : (BoardPart[])[]
                ),
            ]
            : null;

    /// <summary>
    /// The words a picture is named by; null when only a camera's number is there and nobody said what to do. Pictures side by side have
    /// the words of their parts until they are given some of their own.
    /// </summary>
    public string? WordsOf(JobPicture mine)
    {
        var row = Rows[mine.Id];
        return row.Parts is null || mine.Decisions.Keywords.Any(char.IsLetterOrDigit)
            ? BundleNames.WordsFor(Job, mine, row.Name)
            : OfParts(row) ?? BundleNames.WordsFor(Job, mine, row.Name);
    }

    /// <summary>The names of all pictures, as they arrived; of pictures side by side, the words of their parts.</summary>
    public IReadOnlyDictionary<Guid, string> FileNames =>
        Rows.ToDictionary(
            pair => pair.Key,
            // A dot would begin an ending.
            pair => pair.Value.Parts is null ? pair.Value.Name : OfParts(pair.Value)?.Replace('.', ' ') ?? pair.Value.Name
        );

    private string? OfParts(PictureRow row) =>
        PartsOf(row)!.Select(part => WordsOf(part.Mine)).OfType<string>().ToList() is { Count: > 0 } words
            ? string.Join(", ", words)
            : null;

    /// <summary>The pictures side by side that a picture is a part of.</summary>
    public IEnumerable<Guid> PairsWith(Guid picture) =>
        _pairs.Where(row => row.Parts!.Any(part => part.Id == picture)).Select(row => row.Id);

    /// <summary>True while files wait or are being made.</summary>
    public bool IsAtWork => ArchivedAt is null && Run == RunState.Running;
}

/// <summary>
/// One open job in memory: a copy of its tables, plans that were worked out, and who looks on. It can be thrown away at any moment. Only
/// <see cref="JobRoom"/>
/// changes it, after what is stored; readers take the state as a whole.
/// </summary>
public sealed class JobBoard(BoardState state)
{
    // What is beyond is planned again when it is asked for.
    private const int MostPlans = 8000;
    private const int MostWaiting = 2000;
    private static readonly TimeSpan LookLasts = TimeSpan.FromSeconds(30);
    private readonly List<Channel<JobEvent>> _listeners = [];
    private readonly ConcurrentDictionary<(Guid, string), BoardCell> _plans = new();
    private readonly Lock _gate = new();
    private JobViewport _look = JobViewport.Nothing;
    private long _lookedAt;
    private int _planned;

    /// <summary>Identity of the job.</summary>
    public Guid Id => State.Id;

    /// <summary>The job as it stands; replaced as a whole by every change.</summary>
    public BoardState State { get; private set; } = state;

    /// <summary>How fast files are made.</summary>
    public Pace Pace { get; } = new();

    /// <summary>When the job was last used, UTC.</summary>
    public DateTime UsedAt { get; set; }

    /// <summary>True while a client shows the job.</summary>
    public bool IsLookedAt
    {
        get
        {
            lock (_gate)
            {
                return _listeners.Count > 0;
            }
        }
    }

    /// <summary>
    /// The pictures and slots that are on a screen now, nearest first; nothing once no page is there and what was said of one is a while
    /// ago.
    /// </summary>
    public JobViewport Look
    {
        get
        {
            lock (_gate)
            {
                return _listeners.Count > 0 || Stopwatch.GetElapsedTime(_lookedAt) < LookLasts ? _look : JobViewport.Nothing;
            }
        }
    }

    /// <summary>Tells which cells a client shows, so that their files are made first.</summary>
    public void LookAt(JobViewport look)
    {
        lock (_gate)
        {
            (_look, _lookedAt) = (look, Stopwatch.GetTimestamp());
        }
    }

    /// <summary>One cell, planned; null when job, library or book have it not.</summary>
    public BoardCell? Cell(Guid picture, string address) => Cell(State, picture, address);

    /// <summary>The cell of a picture in a slot; null where there is none.</summary>
    public BoardCell? Cell(BoardState state, Guid picture, string address) =>
        state.Job.Find(picture) is { } mine && state.Job.SlotOf(address) is { } place ? Cell(state, mine, place) : null;

    /// <summary>Cells of some pictures, in order; those of all pictures where none are named.</summary>
    public IEnumerable<BoardCell> Cells(BoardState state, IReadOnlySet<Guid>? pictures = null) =>
        state
            .Shown.Where(one => pictures?.Contains(one.Id) != false)
            .SelectMany(mine => state.Job.Slots.Select(place => Cell(state, mine, place)).OfType<BoardCell>());

    /// <summary>The cell of a picture in a slot of the job.</summary>
    public BoardCell? Cell(BoardState state, JobPicture mine, JobSlot place)
    {
        if (!state.Rows.TryGetValue(mine.Id, out var row) || !state.Slots.TryGetValue(place.Address, out var slot))
        {
            return null;
        }

        var key = (mine.Id, place.Address);
        var parts = state.PartsOf(row);
        if (
            _plans.TryGetValue(key, out var known)
            && ReferenceEquals(known.Mine, mine)
            && ReferenceEquals(known.Slot, slot)
            && known.Place == place
            && known.Picture.ContentHash == row.ContentHash
            && known.Picture.Suggestion == row.Suggestion
            && BoardPart.AreSame(known.Parts, parts)
        )
        {
            return known;
        }

        if (Interlocked.Increment(ref _planned) > MostPlans)
        {
            _plans.Clear();
            _planned = 0;
        }

        return _plans[key] = BoardCell.Of(row, mine, place, slot, parts);
    }

    /// <summary>Takes over what was stored.</summary>
    public void Take(BoardState state) => State = state;

    /// <summary>Listens. A page that is too slow is cut off and reads again, rather than missing something unnoticed.</summary>
    public Channel<JobEvent> Listen()
    {
        var channel = Channel.CreateBounded<JobEvent>(new BoundedChannelOptions(MostWaiting));
        lock (_gate)
        {
            _listeners.Add(channel);
        }

        return channel;
    }

    /// <summary>Ends the events of a client.</summary>
    public void Leave(Channel<JobEvent> channel)
    {
        lock (_gate)
        {
            _listeners.Remove(channel);
        }

        channel.Writer.TryComplete();
    }

    /// <summary>Sends an event to every client that shows the job.</summary>
    public void Tell(JobEvent what)
    {
        lock (_gate)
        {
            foreach (var slow in _listeners.Where(channel => !channel.Writer.TryWrite(what)).ToList())
            {
                _listeners.Remove(slow);
                slow.Writer.TryComplete();
            }
        }
    }
}
