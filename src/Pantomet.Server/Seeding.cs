using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Jobs;
using Pantomet.Core.Rules;
using Pantomet.Data;
using Pantomet.Server.Destinations;
using Pantomet.Server.Jobs;
using Pantomet.Server.Pictures;

namespace Pantomet.Server;

/// <summary>Fills a data folder from files, through the same doors as a person's uploads.</summary>
public sealed class Seeding
{
    private readonly PictureIntake _intake;
    private readonly RuleShelf _shelf;
    private readonly JobRoom _room;
    private readonly PantometDb _db;

    internal Seeding(PictureIntake intake, RuleShelf shelf, JobRoom room, PantometDb db) => (_intake, _shelf, _room, _db) = (intake, shelf, room, db);

    /// <summary>Replaces the book of rules.</summary>
    /// <exception cref="InvalidDataException">The text has a fault.</exception>
    public async Task RulesAsync(string json, CancellationToken cancel)
    {
        if (!RulesReader.TryRead(json, out _, out var fault))
        {
            throw new InvalidDataException(fault!.ToString());
        }

        await _shelf.ReplaceAsync(json, cancel);
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
        string name, string prefix, IReadOnlyList<string> slots, IEnumerable<(string Name, string Keywords, string Alternative)> pictures, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(pictures);
        await _room.LoadAsync(cancel);
        var rows = await _db.Pictures.ToDictionaryAsync(row => row.Name, row => row.Id, cancel);
        var job = new Job
        {
            Name = name,
            Prefix = prefix,
            Slots = [.. slots.Select(address => address.Split('/')).Select(parts => new JobSlot(parts[0], parts[1]))],
            Pictures =
            [
                .. pictures.Select(picture => new JobPicture(
                    rows.TryGetValue(picture.Name, out var id) ? id : throw new InvalidDataException($"there is no picture \"{picture.Name}\""),
                    Decisions.None with { Keywords = picture.Keywords, Alternative = picture.Alternative })),
            ],
        };
        await _room.CreateAsync(job, cancel);
    }
}
