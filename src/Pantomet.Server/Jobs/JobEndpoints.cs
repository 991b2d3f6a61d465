using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Jobs;
using Pantomet.Application.Pictures;
using Pantomet.Core.Accounts;
using Pantomet.Core.Jobs;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Texts;
using Pantomet.Data.Jobs;
using Pantomet.Server.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Jobs;

/// <summary>A new job.</summary>
/// <param name="Name">Its name; null takes the day's.</param>
/// <param name="Pictures">Its pictures.</param>
/// <param name="Slots">Its slots.</param>
public sealed record JobRequest(string? Name = null, IReadOnlyList<Guid>? Pictures = null, IReadOnlyList<JobSlot>? Slots = null);

/// <summary>Commands that are applied together, all or none.</summary>
/// <param name="Commands">The commands, in order.</param>
/// <param name="Id">The sender's own id of them: what is sent twice is applied once.</param>
/// <param name="Gesture">Commands of one gesture are one step of undo.</param>
/// <param name="Actor">Who decides.</param>
public sealed record CommandList(IReadOnlyList<JobCommand> Commands, string? Id = null, string? Gesture = null, string? Actor = null);

/// <summary>What a change came to.</summary>
/// <param name="Sequence">The job's sequence afterwards: the event of that number tells what changed.</param>
public sealed record Reached(long Sequence);

/// <summary>Pictures that are to stand side by side.</summary>
/// <param name="Pictures">Two to four pictures of the job, from left to right.</param>
/// <param name="Instead">Pictures side by side that they take the place of, such as the same in another order.</param>
public sealed record PairRequest(IReadOnlyList<Guid> Pictures, Guid? Instead = null);

/// <summary>Pictures that stand side by side now.</summary>
/// <param name="Picture">They together, as a picture of the job.</param>
/// <param name="Sequence">The job's sequence afterwards.</param>
public sealed record PairMade(Guid Picture, long Sequence);

/// <summary>A cell by name.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
public sealed record CellName(Guid Picture, string Slot);

/// <summary>Whether a job's files are to be made.</summary>
/// <param name="Run">The state.</param>
public sealed record RunRequest(RunState Run);

/// <summary>Where a window is in a job.</summary>
/// <param name="Window">The window, by a name that it gave itself.</param>
/// <param name="Picture">The picture; null for none.</param>
/// <param name="Slot">The slot's address; null for none.</param>
/// <param name="Leaves">True when it is closed.</param>
public sealed record PresenceRequest(string Window, Guid? Picture = null, string? Slot = null, bool Leaves = false);

/// <summary>Whether a job is to be archived.</summary>
/// <param name="Archived">True to archive it.</param>
public sealed record ArchiveRequest(bool Archived);

/// <summary>Jobs: their pictures, slots and decisions. Every change is commands; some addresses are short forms of them.</summary>
internal static class JobEndpoints
{
    private const int MostCommands = 2000;
    private const int LongestWord = 100;
    private static readonly TimeSpan Closely = TimeSpan.FromSeconds(20);

    public static void Map(IEndpointRouteBuilder routes)
    {
        var jobs = routes
            .MapGroup("/api/jobs")
            .NeedsRight(Right.Look, Right.Edit)
            .WithTags("Jobs")
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status400BadRequest);
        jobs.MapGet("/", ListAsync).WithName("listJobs").WithSummary("All jobs, the newest first.");
        jobs.MapPost("/", CreateAsync).WithName("createJob").WithSummary("Makes a job.");
        jobs.MapGet("/{id:guid}", GetAsync)
            .WithName("getJob")
            .AlsoForGuests()
            .WithSummary("A job with its cells, or the first of them where there are many.");
        jobs.MapGet("/{id:guid}/cells", MoreAsync)
            .WithName("getCells")
            .AlsoForGuests()
            .WithSummary("The cells of a job's pictures from a place on.");
        jobs.MapGet("/{id:guid}/alike", AlikeAsync)
            .WithName("getAlikePictures")
            .AlsoForGuests()
            .WithSummary(
                "The pictures of a job that can be framed as one, in groups of two and more: shots of a series, copies in other sizes."
            );
        jobs.MapPost("/{id:guid}/commands", CommandAsync)
            .WithName("sendCommands")
            .NotLogged()
            .WithSummary("Applies commands, all or none.")
            .ProducesProblem(StatusCodes.Status409Conflict);
        jobs.MapPost("/{id:guid}/copy", CopyAsync)
            .WithName("copyJob")
            .WithSummary("Makes another job with the same pictures, slots and decisions.");
        jobs.MapPut("/{id:guid}/archived", ArchiveAsync).WithName("archiveJob").WithSummary("Archives a job, or restores it.");
        jobs.MapPost("/{id:guid}/pictures", AddAsync)
            .WithName("addPictures")
            .NotLogged()
            .WithSummary("Short for the command add-pictures; those that follow each other closely are one step.");
        jobs.MapPost("/{id:guid}/pairs", PairAsync)
            .WithName("pairPictures")
            .NotLogged()
            .WithSummary("Combines two to four pictures of the job side by side: one picture that follows its parts.");
        jobs.MapPost("/{id:guid}/pictures/remove", RemoveAsync)
            .WithName("removePictures")
            .NotLogged()
            .WithSummary("Short for the command remove-pictures.");
        jobs.MapPut("/{id:guid}/slots", SlotsAsync)
            .WithName("setSlots")
            .NotLogged()
            .WithSummary("Short for the commands that add these slots, with their choices, and remove all others.");
        jobs.MapPost(
                "/{id:guid}/undo",
                (Guid id, HttpContext context, JobRoom room, CancellationToken cancel) => StepAsync(id, true, context, room, cancel)
            )
            .WithName("undo")
            .NotLogged()
            .WithSummary("Undoes one step.");
        jobs.MapPost(
                "/{id:guid}/redo",
                (Guid id, HttpContext context, JobRoom room, CancellationToken cancel) => StepAsync(id, false, context, room, cancel)
            )
            .WithName("redo")
            .NotLogged()
            .WithSummary("Redoes one step.");
        jobs.MapPut("/{id:guid}/run", RunAsync).WithName("runJob").WithSummary("Starts, pauses or stops making files.");
        jobs.MapPost("/{id:guid}/remake", RemakeAsync).WithName("remakeFiles").WithSummary("Makes the files of some cells again.");
        jobs.MapPut("/{id:guid}/viewport", ViewportAsync)
            .WithName("setViewport")
            .NotLogged()
            .NeedsRight(Right.Look)
            .AlsoForGuests()
            .WithSummary("Says which pictures and slots are on a screen, so that their files are made first.");
        jobs.MapPut("/{id:guid}/presence", PresenceAsync)
            .WithName("setPresence")
            .WithSummary("Says where in a job a window is, for the others who have it open.")
            .NotLogged()
            .NeedsRight(Right.Look)
            .AlsoForGuests();
        JobEventEndpoints.Map(jobs);
    }

    private static async Task<Ok<IReadOnlyList<JobSummary>>> ListAsync(JobList list, CancellationToken cancel) =>
        TypedResults.Ok(await list.AllAsync(null, cancel));

    private static async Task<Results<Ok<JobView>, ProblemHttpResult>> GetAsync(Guid id, JobList list, CancellationToken cancel) =>
        await list.ViewAsync(id, cancel) is { } view ? TypedResults.Ok(view) : Problem.NoJob();

    private static async Task<Results<Ok<IReadOnlyList<IReadOnlyList<Guid>>>, ProblemHttpResult>> AlikeAsync(
        Guid id,
        AlikePictureStore alike,
        CancellationToken cancel
    ) => await alike.OfJobAsync(id, cancel) is { } groups ? TypedResults.Ok(groups) : Problem.NoJob();

    private static async Task<Results<Ok<JobCells>, ProblemHttpResult>> MoreAsync(
        Guid id,
        int from,
        JobList list,
        CancellationToken cancel
    ) =>
        from < 0 ? Problem.Of(StatusCodes.Status400BadRequest, "bad-place", JobTexts.TheListOfCellsStartsAt)
        : await list.MoreAsync(id, from, cancel) is { } cells ? TypedResults.Ok(cells)
        : Problem.NoJob();

    private static async Task<Results<Ok<JobSummary>, ProblemHttpResult>> CreateAsync(
        JobRequest request,
        JobRoom room,
        JobList list,
        CancellationToken cancel
    )
    {
        if (request.Name is not null && Job.NameFault(request.Name) is { } fault)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-name", fault, "$.name");
        }

        var begin = new List<JobCommand> { new AddPictures(request.Pictures ?? []) };
        begin.AddRange(Ticking(request.Slots ?? []));
        var (id, refused) = await room.CreateAsync(request.Name, begin, cancel);
        return refused is null ? TypedResults.Ok((await list.AllAsync([id], CancellationToken.None))[0]) : Problem.Of(refused, place: null);
    }

    private static async Task<Results<Ok<JobSummary>, ProblemHttpResult>> CopyAsync(
        Guid id,
        JobRoom room,
        JobList list,
        CancellationToken cancel
    ) =>
        await room.CopyAsync(id, cancel) is { } copy
            ? TypedResults.Ok((await list.AllAsync([copy], CancellationToken.None))[0])
            : Problem.NoJob();

    private static async Task<Results<Ok<Reached>, ProblemHttpResult>> CommandAsync(
        Guid id,
        CommandList sent,
        HttpContext context,
        JobRoom room,
        CancellationToken cancel
    )
    {
        if (sent.Commands.Count > MostCommands)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "too-many", JobTexts.SendAtMostCommandsAtOnce(MostCommands), "$.commands");
        }

        foreach (var (word, place) in new[] { (sent.Id, "$.id"), (sent.Gesture, "$.gesture"), (sent.Actor, "$.actor") })
        {
            if (word is not null && word.Length is 0 or > LongestWord)
            {
                return Problem.Of(StatusCodes.Status400BadRequest, "bad-value", JobTexts.TheTextMustHaveToCharacters(LongestWord), place);
            }
        }

        return Answer(await room.SendAsync(id, new(sent.Commands, sent.Id, sent.Gesture, Sender(sent, context)), cancel));
    }

    private static async Task<Results<Ok<Reached>, ProblemHttpResult>> AddAsync(
        Guid id,
        IReadOnlyList<Guid> pictures,
        HttpContext context,
        JobRoom room,
        CancellationToken cancel
    ) =>
        Answer(
            await room.SendAsync(
                id,
                new([new AddPictures(pictures)], Gesture: JobTexts.PicturesThatArrive, Actor: context.Actor(), Within: Closely),
                cancel
            )
        );

    private static async Task<Results<Ok<PairMade>, ProblemHttpResult>> PairAsync(
        Guid id,
        PairRequest request,
        HttpContext context,
        PairStore pairs,
        CancellationToken cancel
    ) =>
        await pairs.MakeAsync(id, request.Pictures, request.Instead, context.Actor(), cancel) switch
        {
            null => Problem.NoJob(),
            { Refusal: { } refusal } => Problem.Of(StatusCodes.Status400BadRequest, "no-pair", refusal),
            var made => TypedResults.Ok(new PairMade(made.Picture, made.Sequence)),
        };

    private static async Task<Results<Ok<Reached>, ProblemHttpResult>> RemoveAsync(
        Guid id,
        IReadOnlyList<Guid> pictures,
        HttpContext context,
        JobRoom room,
        CancellationToken cancel
    ) => Answer(await room.SendAsync(id, new([new RemovePictures(pictures)], Actor: context.Actor()), cancel));

    private static async Task<Results<Ok<Reached>, ProblemHttpResult>> SlotsAsync(
        Guid id,
        IReadOnlyList<JobSlot> slots,
        HttpContext context,
        JobRoom room,
        CancellationToken cancel
    )
    {
        if (await room.OpenAsync(id, cancel) is not { } board)
        {
            return Problem.NoJob();
        }

        var wanted = slots.Select(slot => slot.Address).ToHashSet();
        var others = board.State.Job.Slots.Select(slot => slot.Address).Where(address => !wanted.Contains(address)).ToList();
        return Answer(await room.SendAsync(id, new([new RemoveSlots(others), .. Ticking(slots)], Actor: context.Actor()), cancel));
    }

    private static async Task<Results<Ok<Reached>, ProblemHttpResult>> StepAsync(
        Guid id,
        bool back,
        HttpContext context,
        JobRoom room,
        CancellationToken cancel
    ) => Answer(await room.StepAsync(id, back, context.Actor(), cancel));

    private static async Task<Results<Ok<Reached>, ProblemHttpResult>> ArchiveAsync(
        Guid id,
        ArchiveRequest request,
        JobRoom room,
        TimeProvider clock,
        CancellationToken cancel
    ) =>
        Answer(
            await room.SetAsync(
                id,
                state => state with { ArchivedAt = request.Archived ? state.ArchivedAt ?? clock.GetUtcNow().UtcDateTime : null },
                cancel
            )
        );

    private static async Task<Results<Ok<Reached>, ProblemHttpResult>> RunAsync(
        Guid id,
        RunRequest request,
        JobRoom room,
        CancellationToken cancel
    ) => Answer(await room.SetAsync(id, state => state with { Run = request.Run }, cancel));

    private static async Task<Results<Ok<Reached>, ProblemHttpResult>> RemakeAsync(
        Guid id,
        IReadOnlyList<CellName> cells,
        JobFiles files,
        CancellationToken cancel
    ) => Answer(await files.RemakeAsync(id, [.. cells.Select(cell => new CellKey(cell.Picture, cell.Slot))], cancel));

    private static async Task<Results<NoContent, ProblemHttpResult>> ViewportAsync(
        Guid id,
        JobViewport look,
        JobRoom room,
        JobNotifier notifier,
        CancellationToken cancel
    )
    {
        if (await room.OpenAsync(id, cancel) is not { } board)
        {
            return Problem.NoJob();
        }

        board.LookAt(look);
        notifier.Ring();
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> PresenceAsync(
        Guid id,
        PresenceRequest request,
        HttpContext context,
        JobPresence presence,
        CancellationToken cancel
    )
    {
        if (request.Window.Length is 0 or > LongestWord)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-value", JobTexts.TheTextMustHaveToCharacters(LongestWord), "$.window");
        }

        if (request.Leaves)
        {
            await presence.LeaveAsync(id, request.Window, cancel);
            return TypedResults.NoContent();
        }

        var person = new PersonInJob(request.Window, context.User.Identity?.Name ?? "", request.Picture, request.Slot);
        return await presence.IsAtAsync(id, person, cancel) ? TypedResults.NoContent() : Problem.NoJob();
    }

    private static IEnumerable<JobCommand> Ticking(IReadOnlyList<JobSlot> slots) =>
        [
            new AddSlots([.. slots.Select(slot => slot.Address)]),
            .. slots.Where(slot => slot.Choice is not null).Select(slot => new ChooseForSlots([slot.Address], slot.Choice)),
        ];

    // Whoever signed in is who decides, whatever the body says.
    private static Actor Sender(CommandList sent, HttpContext context) =>
        context.User.Identity?.Name is null && sent.Actor is { } name ? new(name) : context.Actor();

    private static Results<Ok<Reached>, ProblemHttpResult> Answer(CommandResult? result) =>
        result is null ? Problem.NoJob()
        : result.Refused is { } refused ? Problem.Of(refused, "$.commands")
        : TypedResults.Ok(new Reached(result.Sequence));
}
