using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Variants;
using Pantomet.Core.Facts;
using Pantomet.Core.Jobs;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;
using Pantomet.Data.Variants;

namespace Pantomet.Application.Jobs;

/// <summary>What commands ask for, read before they are applied.</summary>
internal sealed class CommandContext : ICommandContext
{
    private readonly BoardState _state;
    private readonly IReadOnlyDictionary<string, BoardSlot> _book;
    private readonly Dictionary<Guid, PictureRow> _fresh = [];
    private readonly Dictionary<Guid, Decisions> _marks = [];
    private readonly Dictionary<(Guid, string), CellStanding> _standings = [];

    private CommandContext(BoardState state, IReadOnlyDictionary<string, BoardSlot> book) => (_state, _book) = (state, book);

    /// <summary>Pictures of the library that the job had not yet.</summary>
    public IReadOnlyDictionary<Guid, PictureRow> Fresh => _fresh;

    public static async Task<CommandContext> OfAsync(
        PantometDb db,
        JobBoard? board,
        BoardState state,
        IReadOnlyDictionary<string, BoardSlot> book,
        IReadOnlyList<JobCommand> commands,
        CancellationToken cancel
    )
    {
        var around = new CommandContext(state, book);
        await around.PicturesAsync(
            db,
            [.. commands.OfType<AddPictures>().SelectMany(command => command.Pictures).Distinct().Where(id => !state.Rows.ContainsKey(id))],
            cancel
        );
        var cells = commands
            .Select(command =>
                command switch
                {
                    Accept { Reasons: null } accept => (accept.Picture, accept.Slot),
                    AllowAnyway through => (through.Picture, through.Slot),
                    _ => ((Guid Picture, string Slot)?)null,
                }
            )
            .OfType<(Guid Picture, string Slot)>()
            .Distinct()
            .Select(at => board?.Cell(state, at.Picture, at.Slot))
            .OfType<BoardCell>()
            .ToList();
        if (cells.Count > 0)
        {
            var standings = await FileStandings.OfAsync(db, cells.SelectMany(cell => cell.Files).Select(file => file.Id), cancel);
            foreach (var cell in cells)
            {
                var judged = CellJudge.Standing(cell, standings);
                around._standings[(cell.Picture.Id, cell.Place.Address)] = new(
                    judged.ToReview,
                    judged
                        .Files.Where(file => file is { Row: not null, Verdict: Verdict.Breaks })
                        .DistinctBy(file => file.Wanted.Id)
                        .ToDictionary(file => file.Wanted.Id, file => file.Wanted.Want)
                );
            }
        }

        return around;
    }

    public PictureFacts? FactsOf(Guid picture) => (_state.Rows.GetValueOrDefault(picture) ?? _fresh.GetValueOrDefault(picture))?.Facts;

    public Slot? SlotAt(string address) => _book.GetValueOrDefault(address)?.Slot;

    public int RankOf(string address) => _book.GetValueOrDefault(address)?.Rank ?? int.MaxValue;

    public CellStanding StandingOf(Guid picture, string address) => _standings.GetValueOrDefault((picture, address)) ?? CellStanding.None;

    public Decisions MarksOf(Guid picture) => _marks.GetValueOrDefault(picture) ?? Decisions.None;

    private async Task PicturesAsync(PantometDb db, IReadOnlyList<Guid> ids, CancellationToken cancel)
    {
        foreach (var chunk in ids.Chunk(Statements.AtOnce))
        {
            foreach (
                var row in await db
                    .Pictures.AsNoTracking()
                    .Where(row => chunk.Contains(row.Id) && row.RemovedAt == null)
                    .ToListAsync(cancel)
            )
            {
                _fresh[row.Id] = row;
                _marks[row.Id] = await JobTables.MarksOfAsync(db, row.Id, cancel);
            }
        }
    }
}
