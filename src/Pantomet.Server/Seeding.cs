using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Destinations;
using Pantomet.Application.Jobs;
using Pantomet.Application.Pictures;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Rules;
using Pantomet.Data;

namespace Pantomet.Server;

/// <summary>Fills a data folder from files, through the same doors as a person's uploads.</summary>
public sealed class Seeding
{
    private readonly PictureIntake _intake;
    private readonly Writer _writer;
    private readonly OpenJobs _jobs;
    private readonly JobRoom _room;
    private readonly PantometDb _db;

    internal Seeding(PictureIntake intake, Writer writer, OpenJobs jobs, JobRoom room, PantometDb db) =>
        (_intake, _writer, _jobs, _room, _db) = (intake, writer, jobs, room, db);

    /// <summary>Replaces the book of rules.</summary>
    /// <exception cref="InvalidDataException">The text has a fault.</exception>
    public async Task RulesAsync(string json, CancellationToken cancel)
    {
        if (!RulesReader.TryRead(json, out var book, out var fault))
        {
            throw new InvalidDataException(fault!.ToString());
        }

        await RuleShelf.ChangeAsync(_writer, _jobs, _ => new(book, null, null), cancel);
    }

    /// <summary>Reads one file in.</summary>
    /// <exception cref="InvalidDataException">The file is refused.</exception>
    public async Task PictureAsync(string path, CancellationToken cancel)
    {
        await using var file = File.OpenRead(path);
        var result = await _intake.TakeAsync(Path.GetFileName(path), file, file.Length, cancel);
        if (result.Row is null)
        {
            throw new InvalidDataException($"{path}: {result.Refusal}");
        }
    }

    /// <summary>Makes a job.</summary>
    /// <param name="name">Its name.</param>
    /// <param name="prefix">Words that every file's name begins with.</param>
    /// <param name="slots">Addresses of its slots, "destination/slot".</param>
    /// <param name="pictures">Its pictures by the name they arrived under, each with keywords and alternative text.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="InvalidDataException">There is no such picture.</exception>
    public async Task JobAsync(
        string name,
        string prefix,
        IReadOnlyList<string> slots,
        IEnumerable<(string Name, string Keywords, string Alternative)> pictures,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(pictures);
        var rows = await _db.Pictures.ToDictionaryAsync(row => row.Name, row => row.Id, cancel);
        var mine = pictures
            .Select(picture =>
                (
                    Id: rows.TryGetValue(picture.Name, out var id)
                        ? id
                        : throw new InvalidDataException($"there is no picture \"{picture.Name}\""),
                    picture.Keywords,
                    picture.Alternative
                )
            )
            .ToList();
        var (_, refused) = await _room.CreateAsync(
            name,
            [
                new NameJob(Prefix: prefix),
                new TickSlots(slots),
                new AddPictures([.. mine.Select(picture => picture.Id)]),
                .. mine.Select(picture => new GiveWords(picture.Id, picture.Keywords, picture.Alternative)),
            ],
            cancel
        );
        if (refused is not null)
        {
            throw new InvalidDataException(refused.Fault.Sentence);
        }
    }
}
