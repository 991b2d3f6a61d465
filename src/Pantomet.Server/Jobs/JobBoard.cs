using System.Diagnostics;
using System.Threading.Channels;
using Pantomet.Core.Jobs;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;
using Pantomet.Server.Variants;

namespace Pantomet.Server.Jobs;

/// <summary>One picture in one slot of a job: its plan and its files.</summary>
internal sealed record BoardCell(PictureRow Picture, JobPicture Mine, JobSlot Place, BoardSlot Slot, CellPlan Plan, IReadOnlyList<WantedFile> Files)
{
    public CellDecision Decision => Mine.Decisions.For(Place.Address);

    /// <summary>Plans a cell.</summary>
    public static BoardCell Of(PictureRow picture, JobPicture mine, JobSlot place, BoardSlot slot)
    {
        var plan = CellPlan.Of(picture.Facts, mine.Decisions, slot.Slot, place);
        return new(picture, mine, place, slot, plan,
            [.. plan.Wishes.Where(wish => wish.Plan.IsMade).Select(wish => VariantStore.Wanted(picture, mine.Decisions.Turn, slot.Slot, slot.BytesKey, wish))]);
    }

    /// <summary>The same cell under other decisions.</summary>
    public BoardCell With(Decisions decisions) => Of(Picture, Mine with { Decisions = decisions }, Place, Slot);
}

/// <summary>A slot of the book, with what is asked of it again and again.</summary>
internal sealed record BoardSlot(Destination Destination, Slot Slot, string BytesKey);

/// <summary>One job laid out: every cell with the files that are wanted. Guarded by the room; readers take <see cref="Gate"/>.</summary>
internal sealed class JobBoard(Guid id, Job job, DateTime createdAt)
{
    private const int MostSteps = 200;
    private const int Ahead = 400;
    private static readonly TimeSpan Closely = TimeSpan.FromSeconds(20);
    private readonly Stack<Job> _past = new();
    private readonly Stack<Job> _future = new();
    private readonly List<Channel<JobEvent>> _listeners = [];
    private Dictionary<Guid, PictureRow> _rows = [];
    private ILookup<string, BoardCell> _cellsByFile = Array.Empty<BoardCell>().ToLookup(_ => "");
    private List<(WantedFile File, bool Seen)> _queue = [];
    private bool _queueIsStale = true;
    private string? _together;
    private long _changed;

    public Guid Id { get; } = id;

    public Lock Gate { get; } = new();

    public Job Job { get; private set; } = job;

    public DateTime CreatedAt { get; } = createdAt;

    public DateTime? ArchivedAt { get; set; }

    public RunState Run { get; set; }

    public long Version { get; private set; }

    /// <summary>The pictures and slots that are on a screen now, nearest first.</summary>
    public JobLook Look { get; private set; } = new([], []);

    public Dictionary<(Guid Picture, string Address), BoardCell> Cells { get; private set; } = [];

    public IReadOnlyDictionary<Guid, PictureRow> Rows => _rows;

    /// <summary>Slots of the job that the book no longer has.</summary>
    public IReadOnlyList<JobSlot> Missing { get; private set; } = [];

    public IReadOnlyDictionary<string, BoardSlot> Slots { get; private set; } = new Dictionary<string, BoardSlot>();

    public Pace Pace { get; } = new();

    /// <summary>Counts what was told about the job.</summary>
    public long Told { get; private set; }

    public bool CanUndo => _past.Count > 0;

    public bool CanRedo => _future.Count > 0;

    /// <summary>Takes over a changed job; the one before can be gone back to.</summary>
    /// <param name="job">The changed job.</param>
    /// <param name="together">Changes of one kind that follow each other closely are one step: a hundred pictures that are dropped at once arrive one by one.</param>
    public void Change(Job job, string? together = null)
    {
        lock (Gate)
        {
            var now = Stopwatch.GetTimestamp();
            var same = together is not null && together == _together && Stopwatch.GetElapsedTime(_changed, now) < Closely && _past.Count > 0 && _future.Count == 0;
            (_together, _changed) = (together, now);
            if (!same)
            {
                _past.Push(Job);
            }

            _future.Clear();
            if (_past.Count > 2 * MostSteps)
            {
                var kept = _past.Take(MostSteps).Reverse().ToList();
                _past.Clear();
                kept.ForEach(_past.Push);
            }

            Job = job;
            Version++;
        }
    }

    /// <summary>Goes one step back or forward; false when there is none.</summary>
    public bool Step(bool back)
    {
        lock (Gate)
        {
            var (from, to) = back ? (_past, _future) : (_future, _past);
            if (!from.TryPop(out var job))
            {
                return false;
            }

            to.Push(Job);
            _together = null;
            Job = job;
            Version++;
            return true;
        }
    }

    /// <summary>Plans every cell that differs from before and gives those back.</summary>
    public IReadOnlyList<BoardCell> LayOut(Dictionary<Guid, PictureRow> rows, IReadOnlyDictionary<string, BoardSlot> slots)
    {
        lock (Gate)
        {
            var cells = new Dictionary<(Guid, string), BoardCell>();
            var changed = new List<BoardCell>();
            foreach (var mine in Job.Pictures.Where(one => rows.ContainsKey(one.Id)))
            {
                var row = rows[mine.Id];
                foreach (var place in Job.Slots)
                {
                    if (!slots.TryGetValue(place.Address, out var slot))
                    {
                        continue;
                    }

                    var key = (mine.Id, place.Address);
                    if (!Cells.TryGetValue(key, out var cell) || !ReferenceEquals(cell.Mine, mine) || !ReferenceEquals(cell.Slot, slot) || cell.Place != place
                        || cell.Picture.ContentHash != row.ContentHash)
                    {
                        cell = BoardCell.Of(row, mine, place, slot);
                        changed.Add(cell);
                    }

                    cells[key] = cell;
                }
            }

            Cells = cells;
            _cellsByFile = cells.Values.SelectMany(cell => cell.Files.Select(file => (file.Id, cell))).ToLookup(pair => pair.Id, pair => pair.cell);
            _rows = rows;
            Slots = slots;
            Missing = [.. Job.Slots.Where(place => !slots.ContainsKey(place.Address))];
            _queueIsStale = true;
            return changed;
        }
    }

    public void LookAt(JobLook look)
    {
        lock (Gate)
        {
            Look = look;
            _queueIsStale = true;
        }
    }

    public void Requeue()
    {
        lock (Gate)
        {
            _queueIsStale = true;
        }
    }

    /// <summary>The next file to make: of the cells on screen first, then the nearest; a picture that another worker has at hand only when there is no other.</summary>
    /// <param name="isOpen">True for a file that is neither made nor being made.</param>
    /// <param name="busyPictures">Pictures that workers have at hand.</param>
    /// <param name="awaited">True for a file that a person waits for, or none: one of the single picture that is looked at.</param>
    public WantedFile? Next(Func<string, bool> isOpen, IReadOnlySet<Guid> busyPictures, bool awaited)
    {
        lock (Gate)
        {
            if (_queueIsStale)
            {
                _queue = [.. InOrder(isOpen)];
                _queueIsStale = false;
            }

            _queue.RemoveAll(one => !isOpen(one.File.Id));
            if (_queue.Count == 0 || (awaited && !(_queue[0].Seen && Look.Pictures.Count == 1)))
            {
                return null;
            }

            // Never past what is on the screen for the sake of another worker's decode.
            var seen = _queue[0].Seen;
            var other = _queue.Take(Ahead).FirstOrDefault(one => one.Seen == seen && !busyPictures.Contains(one.File.Picture.Id)).File;
            return other ?? _queue[0].File;
        }
    }

    /// <summary>The cells that want a file.</summary>
    public IReadOnlyList<BoardCell> CellsWith(string file)
    {
        lock (Gate)
        {
            return [.. _cellsByFile[file]];
        }
    }

    /// <summary>All files that are wanted; two slots may want the same.</summary>
    public IEnumerable<WantedFile> AllFiles() => Cells.Values.SelectMany(cell => cell.Files);

    public Channel<JobEvent> Listen()
    {
        var channel = Channel.CreateBounded<JobEvent>(new BoundedChannelOptions(4000) { FullMode = BoundedChannelFullMode.DropOldest });
        lock (_listeners)
        {
            _listeners.Add(channel);
        }

        return channel;
    }

    public void Leave(Channel<JobEvent> channel)
    {
        lock (_listeners)
        {
            _listeners.Remove(channel);
        }

        channel.Writer.TryComplete();
    }

    public void Tell(JobEvent what)
    {
        lock (_listeners)
        {
            Told++;
            _listeners.ForEach(channel => channel.Writer.TryWrite(what));
        }
    }

    private IEnumerable<(WantedFile File, bool Seen)> InOrder(Func<string, bool> isOpen)
    {
        var pictures = Job.Pictures.Select((one, index) => (one.Id, index)).ToDictionary(pair => pair.Id, pair => pair.index);
        var slots = Job.Slots.Select((one, index) => (one.Address, index)).GroupBy(pair => pair.Address).ToDictionary(group => group.Key, group => group.First().index);
        var rows = Span(Look.Pictures.Where(pictures.ContainsKey).Select(one => pictures[one]));
        var columns = Span(Look.Slots.Where(slots.ContainsKey).Select(one => slots[one]));
        return Cells.Values.SelectMany(cell => cell.Files.Where(file => isOpen(file.Id)).Select(file =>
            {
                var (row, column) = (pictures[cell.Picture.Id], slots[cell.Place.Address]);
                return (File: file, Row: row, Down: Away(row, rows), Seen: Away(row, rows) + Away(column, columns) == 0);
            }))
            .OrderByDescending(one => one.Seen).ThenBy(one => one.Down).ThenBy(one => one.Row).ThenByDescending(one => one.File.Wish.Plan.Size.Area)
            .Select(one => (one.File, one.Seen)).DistinctBy(one => one.File.Id);
    }

    private static (int From, int To)? Span(IEnumerable<int> indexes)
    {
        var all = indexes.ToList();
        return all.Count == 0 ? null : (all.Min(), all.Max());
    }

    private static int Away(int index, (int From, int To)? span) =>
        span is not { } seen ? 0 : index < seen.From ? seen.From - index : index > seen.To ? index - seen.To : 0;
}

/// <summary>How fast files are being made: pixels written in the last while, on the clock on the wall.</summary>
internal sealed class Pace
{
    private const int Remembered = 40;
    private const int Needed = 3;
    private const double Overhead = 300_000;
    private readonly Queue<(DateTime Began, DateTime At, double Work)> _done = new();

    /// <summary>How much work a file is: its pixels, and a share for every file.</summary>
    public static double WorkOf(WantedFile file) => file.Wish.Plan.Size.Area + Overhead;

    public void Add(DateTime began, DateTime at, double work)
    {
        lock (_done)
        {
            _done.Enqueue((began, at, work));
            while (_done.Count > Remembered)
            {
                _done.Dequeue();
            }
        }
    }

    public void Forget()
    {
        lock (_done)
        {
            _done.Clear();
        }
    }

    /// <summary>Seconds that this much work takes; null while too little was seen.</summary>
    public double? SecondsFor(double work)
    {
        lock (_done)
        {
            if (_done.Count < Needed)
            {
                return null;
            }

            var seconds = (_done.Max(one => one.At) - _done.Min(one => one.Began)).TotalSeconds;
            return seconds <= 0 ? null : work * seconds / _done.Sum(one => one.Work);
        }
    }
}
