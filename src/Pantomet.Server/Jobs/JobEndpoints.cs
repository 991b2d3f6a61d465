using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Hosting;
using Pantomet.Core.Jobs;
using Pantomet.Core.Naming;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Jobs;

/// <summary>A new job.</summary>
/// <param name="Name">Its name; null takes the day's.</param>
/// <param name="Pictures">Its pictures.</param>
/// <param name="Slots">Its slots.</param>
public sealed record JobWish(string? Name, IReadOnlyList<Guid>? Pictures, IReadOnlyList<JobSlot>? Slots);

/// <summary>What of a job is named; what is null stays.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Prefix">Words that every file's name begins with.</param>
/// <param name="Numbered">True to name pictures without words after the job and count them.</param>
/// <param name="Patterns">Patterns of names by destination; an empty one goes back to the slots' own.</param>
public sealed record JobNames(string? Name, string? Prefix, bool? Numbered, IReadOnlyDictionary<string, string>? Patterns);

/// <summary>Decisions about one picture.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Decisions">The decisions, whole.</param>
public sealed record PictureDecisions(Guid Picture, Decisions Decisions);

/// <summary>Type and quality for whole slots.</summary>
/// <param name="Slots">Addresses; null for all.</param>
/// <param name="Choice">The choice; null finds them again.</param>
public sealed record SlotChoice(IReadOnlyList<string>? Slots, Choice? Choice);

/// <summary>A cell by name.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
public sealed record CellName(Guid Picture, string Slot);

/// <summary>Whether a job's files are to be made.</summary>
/// <param name="Run">The state.</param>
public sealed record RunWish(RunState Run);

/// <summary>Whether a job is to be put aside.</summary>
/// <param name="Archived">True to put it aside.</param>
public sealed record ArchiveWish(bool Archived);

/// <summary>Jobs: their pictures, slots and decisions, and what happens to them.</summary>
internal static class JobEndpoints
{
    public static void Map(IEndpointRouteBuilder routes)
    {
        var jobs = routes.MapGroup("/api/jobs").WithTags("Jobs").ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status400BadRequest);
        jobs.MapGet("/", ListAsync).WithName("listJobs").WithSummary("All jobs, the newest first.");
        jobs.MapPost("/", CreateAsync).WithName("createJob").WithSummary("Makes a job.");
        jobs.MapGet("/events", AllEvents).WithName("watchJobs").WithSummary("The jobs that changed, once a second at most, as server-sent events.");
        jobs.MapGet("/{id:guid}", GetAsync).WithName("getJob").WithSummary("A job with every cell.");
        jobs.MapPost("/{id:guid}/copy", CopyAsync).WithName("copyJob").WithSummary("Makes another job with the same pictures, slots and decisions.");
        jobs.MapPut("/{id:guid}/archived", ArchiveAsync).WithName("archiveJob").WithSummary("Puts a job aside, or takes it up again.");
        jobs.MapPut("/{id:guid}/names", NameAsync).WithName("nameJob").WithSummary("Sets the job's name, prefix and patterns.");
        jobs.MapPost("/{id:guid}/pictures", AddAsync).WithName("addPictures").WithSummary("Adds pictures of the library.");
        jobs.MapPost("/{id:guid}/pictures/remove", RemoveAsync).WithName("removePictures").WithSummary("Takes pictures out of the job; they stay in the library.");
        jobs.MapPut("/{id:guid}/slots", SlotsAsync).WithName("setSlots").WithSummary("Sets which slots must be filled.");
        jobs.MapPut("/{id:guid}/slots/choice", ChooseAsync).WithName("chooseForSlots").WithSummary("Chooses type and quality for whole slots.");
        jobs.MapPut("/{id:guid}/decisions", DecideAsync).WithName("decide").WithSummary("Sets the decisions about some pictures, as one step.");
        jobs.MapPost("/{id:guid}/undo", (Guid id, JobRoom room, CancellationToken cancel) => StepAsync(id, true, room, cancel)).WithName("undo").WithSummary("Goes one step back.");
        jobs.MapPost("/{id:guid}/redo", (Guid id, JobRoom room, CancellationToken cancel) => StepAsync(id, false, room, cancel)).WithName("redo").WithSummary("Goes one step forward.");
        jobs.MapPut("/{id:guid}/run", RunAsync).WithName("runJob").WithSummary("Runs, pauses or stops the making of files.");
        jobs.MapPost("/{id:guid}/again", AgainAsync).WithName("makeAgain").WithSummary("Makes the files of some cells again.");
        jobs.MapPut("/{id:guid}/look", LookAsync).WithName("lookAt").WithSummary("Says what is on a screen, so that it is made first.");
        jobs.MapGet("/{id:guid}/events", EventsAsync).WithName("watchJob").WithSummary("What happens to a job, as server-sent events.");
    }

    public static Results<Ok<JobEvent>, ProblemHttpResult> Answer(JobEvent? what) => what is null ? Problem.NoJob() : TypedResults.Ok(what);

    private static async Task<Ok<IReadOnlyList<JobSummary>>> ListAsync(JobRoom room, CancellationToken cancel)
    {
        await room.LoadAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<JobSummary>>([.. room.All().Select(room.SummaryOf)]);
    }

    private static ServerSentEventsResult<IReadOnlyList<JobSummary>> AllEvents(JobRoom room, IHostApplicationLifetime life, CancellationToken cancel) =>
        TypedResults.ServerSentEvents(ChangedAsync(room, life.ApplicationStopping, cancel));

    private static async IAsyncEnumerable<SseItem<IReadOnlyList<JobSummary>>> ChangedAsync(
        JobRoom room, CancellationToken stopping, [EnumeratorCancellation] CancellationToken cancel)
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(stopping, cancel);
        await room.LoadAsync(cancel);
        // What stood before is told too: something may have happened between reading the list and listening.
        var told = new Dictionary<Guid, long>();
        do
        {
            var changed = room.All().Where(board => !told.TryGetValue(board.Id, out var before) || before != board.Told).ToList();
            if (changed.Count > 0)
            {
                changed.ForEach(board => told[board.Id] = board.Told);
                yield return new([.. changed.Select(room.SummaryOf)], "jobs");
            }
        }
        while (await RestedAsync(either.Token));
    }

    private static async Task<bool> RestedAsync(CancellationToken cancel)
    {
        await Task.Delay(TimeSpan.FromSeconds(1), cancel).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        return !cancel.IsCancellationRequested;
    }

    private static async Task<Results<Ok<JobView>, ProblemHttpResult>> GetAsync(Guid id, JobRoom room, CancellationToken cancel)
    {
        await room.LoadAsync(cancel);
        return room.Find(id) is { } board ? TypedResults.Ok(room.ViewOf(board)) : Problem.NoJob();
    }

    private static async Task<Results<Ok<JobSummary>, ProblemHttpResult>> CreateAsync(JobWish wish, JobRoom room, PantometDb db, TimeProvider clock, CancellationToken cancel)
    {
        await room.LoadAsync(cancel);
        var name = wish.Name ?? Free($"Job of {clock.GetLocalNow():d MMMM}", room);
        if (Job.NameFault(name) is { } fault)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-name", fault);
        }

        var job = new Job { Name = name.Trim(), Slots = [.. (wish.Slots ?? []).DistinctBy(slot => slot.Address)] };
        return TypedResults.Ok(room.SummaryOf(await room.CreateAsync(Added(job, await KnownAsync(wish.Pictures ?? [], db, cancel), room), cancel)));
    }

    private static async Task<Results<Ok<JobSummary>, ProblemHttpResult>> CopyAsync(Guid id, JobRoom room, CancellationToken cancel) =>
        room.Find(id) is { } board
            ? TypedResults.Ok(room.SummaryOf(await room.CreateAsync(board.Job with { Name = Free($"{board.Job.Name}, copy", room) }, cancel)))
            : Problem.NoJob();

    private static async Task<Results<Ok<JobEvent>, ProblemHttpResult>> ArchiveAsync(Guid id, ArchiveWish wish, JobRoom room, CancellationToken cancel) =>
        Answer(await room.ArchiveAsync(id, wish.Archived, cancel));

    private static async Task<Results<Ok<JobEvent>, ProblemHttpResult>> NameAsync(Guid id, JobNames names, JobRoom room, CancellationToken cancel)
    {
        if (names.Name is { } name && Job.NameFault(name) is { } fault)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-name", fault);
        }

        if (names.Prefix is { Length: > 60 })
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-prefix", "A prefix has at most 60 characters.");
        }

        foreach (var (destination, pattern) in names.Patterns ?? new Dictionary<string, string>())
        {
            if (pattern.Length > 0 && !NamePattern.TryParse(pattern, out _, out var wrong))
            {
                return Problem.Of(StatusCodes.Status400BadRequest, "bad-pattern", $"The pattern for {destination} cannot be used: {wrong}.");
            }
        }

        return Answer(await room.ChangeAsync(id, job => job with
        {
            Name = names.Name?.Trim() ?? job.Name,
            Prefix = names.Prefix ?? job.Prefix,
            Numbered = names.Numbered ?? job.Numbered,
            Patterns = names.Patterns?.Where(pair => pair.Value.Length > 0).ToDictionary() ?? job.Patterns,
        }, cancel));
    }

    private static async Task<Results<Ok<JobEvent>, ProblemHttpResult>> AddAsync(Guid id, IReadOnlyList<Guid> pictures, JobRoom room, PantometDb db, CancellationToken cancel)
    {
        var known = await KnownAsync(pictures, db, cancel);
        if (room.Find(id)?.Job.Pictures.Count + known.Count > Job.MostPictures)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "too-many", $"A job holds at most {Job.MostPictures} pictures.");
        }

        return Answer(await room.ChangeAsync(id, job => Added(job, known, room), cancel, together: "pictures"));
    }

    private static async Task<Results<Ok<JobEvent>, ProblemHttpResult>> RemoveAsync(Guid id, IReadOnlyList<Guid> pictures, JobRoom room, CancellationToken cancel) =>
        Answer(await room.ChangeAsync(id, job => job with { Pictures = [.. job.Pictures.Where(one => !pictures.Contains(one.Id))] }, cancel));

    private static async Task<Results<Ok<JobEvent>, ProblemHttpResult>> SlotsAsync(Guid id, IReadOnlyList<JobSlot> slots, JobRoom room, CancellationToken cancel) =>
        Answer(await room.ChangeAsync(id, job =>
        {
            var known = job.Slots.ToDictionary(slot => slot.Address);
            return job with { Slots = [.. slots.DistinctBy(slot => slot.Address).Select(slot => known.GetValueOrDefault(slot.Address) ?? slot)] };
        }, cancel));

    private static async Task<Results<Ok<JobEvent>, ProblemHttpResult>> ChooseAsync(Guid id, SlotChoice choice, JobRoom room, CancellationToken cancel)
    {
        if (Decisions.None.With("slot", new() { Choice = choice.Choice }).Fault() is { } fault)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-choice", fault);
        }

        // What was chosen for one picture alone gives way: the slot's choice is newer.
        return Answer(await room.ChangeAsync(id, job => job with
        {
            Slots = [.. job.Slots.Select(slot => choice.Slots is null || choice.Slots.Contains(slot.Address) ? slot with { Choice = choice.Choice } : slot)],
            Pictures = [.. job.Pictures.Select(picture => picture with { Decisions = WithoutChoices(picture.Decisions, choice.Slots) })],
        }, cancel));
    }

    private static Decisions WithoutChoices(Decisions decisions, IReadOnlyList<string>? slots)
    {
        foreach (var (address, cell) in decisions.Cells.Where(pair => pair.Value.Choice is not null && slots?.Contains(pair.Key) != false).ToList())
        {
            decisions = decisions.With(address, cell with { Choice = null });
        }

        return decisions;
    }

    private static async Task<Results<Ok<JobEvent>, ProblemHttpResult>> DecideAsync(Guid id, IReadOnlyList<PictureDecisions> all, JobRoom room, CancellationToken cancel)
    {
        if (all.Select(one => one.Decisions.Fault()).FirstOrDefault(fault => fault is not null) is { } fault)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-decision", fault);
        }

        var theirs = all.GroupBy(one => one.Picture).ToDictionary(group => group.Key, group => group.Last().Decisions);
        return Answer(await room.ChangeAsync(id, job => job with
        {
            Pictures = [.. job.Pictures.Select(one => theirs.TryGetValue(one.Id, out var decisions) ? one with { Decisions = decisions } : one)],
        }, cancel));
    }

    private static async Task<Results<Ok<JobEvent>, ProblemHttpResult>> StepAsync(Guid id, bool back, JobRoom room, CancellationToken cancel) =>
        Answer(await room.StepAsync(id, back, cancel));

    private static async Task<Results<Ok<JobEvent>, ProblemHttpResult>> RunAsync(Guid id, RunWish wish, JobRoom room, CancellationToken cancel) =>
        Answer(await room.RunAsync(id, wish.Run, cancel));

    private static async Task<Results<Ok<JobEvent>, ProblemHttpResult>> AgainAsync(Guid id, IReadOnlyList<CellName> cells, JobRoom room, CancellationToken cancel) =>
        Answer(await room.AgainAsync(id, cells.Select(cell => (cell.Picture, cell.Slot)).ToHashSet(), cancel));

    private static Results<NoContent, ProblemHttpResult> LookAsync(Guid id, JobLook look, JobRoom room)
    {
        if (room.Find(id) is not { } board)
        {
            return Problem.NoJob();
        }

        board.LookAt(look);
        return TypedResults.NoContent();
    }

    private static async Task<Results<ServerSentEventsResult<JobEvent>, ProblemHttpResult>> EventsAsync(
        Guid id, JobRoom room, IHostApplicationLifetime life, CancellationToken cancel)
    {
        await room.LoadAsync(cancel);
        return room.Find(id) is { } board ? TypedResults.ServerSentEvents(ListenAsync(board, room, life.ApplicationStopping, cancel)) : Problem.NoJob();
    }

    private static async IAsyncEnumerable<SseItem<JobEvent>> ListenAsync(
        JobBoard board, JobRoom room, CancellationToken stopping, [EnumeratorCancellation] CancellationToken cancel)
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(stopping, cancel);
        var channel = board.Listen();
        try
        {
            // The first one says how things stand; whoever was away compares its version.
            yield return new(new(board.Version, null, [], room.ProgressOf(board), board.Run), "job");
            while (await NextAsync(channel.Reader, either.Token) is { } what)
            {
                yield return new(what, "job");
            }
        }
        finally
        {
            board.Leave(channel);
        }
    }

    private static async Task<JobEvent?> NextAsync(System.Threading.Channels.ChannelReader<JobEvent> reader, CancellationToken cancel)
    {
        try
        {
            return await reader.ReadAsync(cancel);
        }
        catch (Exception end) when (end is OperationCanceledException or System.Threading.Channels.ChannelClosedException)
        {
            return null;
        }
    }

    private static async Task<List<Guid>> KnownAsync(IReadOnlyList<Guid> ids, PantometDb db, CancellationToken cancel)
    {
        var known = await db.Pictures.Where(row => ids.Contains(row.Id) && row.RemovedAt == null).Select(row => row.Id).ToListAsync(cancel);
        return [.. ids.Where(known.Contains).Distinct()];
    }

    private static Job Added(Job job, IReadOnlyList<Guid> pictures, JobRoom room)
    {
        var fresh = pictures.Where(id => job.Find(id) is null).ToList();
        return fresh.Count == 0 ? job : job with { Pictures = [.. job.Pictures, .. fresh.Select(id => new JobPicture(id, room.MarksOf(id)))] };
    }

    private static string Free(string name, JobRoom room)
    {
        var taken = room.All().Select(board => board.Job.Name).ToHashSet(StringComparer.OrdinalIgnoreCase);
        return Enumerable.Range(1, int.MaxValue).Select(n => n == 1 ? name : $"{name} {n}").First(one => !taken.Contains(one));
    }
}
