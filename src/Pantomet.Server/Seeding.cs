using Pantomet.Application.Destinations;
using Pantomet.Application.Jobs;
using Pantomet.Application.Live;
using Pantomet.Application.Pictures;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Rules;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pages;
using Pantomet.Data.Pictures;
using Pantomet.Deliveries;
using Pantomet.PageChecks;
using Pantomet.Server.Deliveries;

namespace Pantomet.Server;

/// <summary>Fills a data folder from files, through the same doors as a person's uploads.</summary>
public sealed class Seeding
{
    private readonly PictureIntake _intake;
    private readonly Writer _writer;
    private readonly OpenJobs _jobs;
    private readonly JobRoom _room;
    private readonly PictureQueries _pictures;
    private readonly HandOverQueries _handOvers;
    private readonly PublicationReader _publications;
    private readonly Publishing _publishing;
    private readonly PageCheckStore _pages;
    private readonly PageChecker _checker;
    private readonly ReceiverStore _receivers;

    internal Seeding(
        PictureIntake intake,
        Writer writer,
        OpenJobs jobs,
        JobRoom room,
        PictureQueries pictures,
        HandOverQueries handOvers,
        PublicationReader publications,
        Publishing publishing,
        PageCheckStore pages,
        PageChecker checker,
        ReceiverStore receivers
    ) =>
        (_intake, _writer, _jobs, _room, _pictures, _handOvers, _publications, _publishing, _pages, _checker, _receivers) = (
            intake,
            writer,
            jobs,
            room,
            pictures,
            handOvers,
            publications,
            publishing,
            pages,
            checker,
            receivers
        );

    /// <summary>Adds receivers.</summary>
    /// <param name="json">A list of what the interface takes to add one.</param>
    /// <exception cref="InvalidDataException">One of them has a fault.</exception>
    public async Task ReceiversAsync(string json)
    {
        foreach (var draft in StoredJson.Read<IReadOnlyList<ReceiverDraft>>(json))
        {
            if (draft.Rule.Fault() is var (_, sentence))
            {
                throw new InvalidDataException($"{draft.Rule.Name}: {sentence}");
            }

            await _receivers.AddAsync(draft.Rule, draft.Secret);
        }
    }

    /// <summary>Replaces the book of rules.</summary>
    /// <exception cref="InvalidDataException">The text has a fault.</exception>
    public async Task RulesAsync(string json, CancellationToken cancel)
    {
        if (!RulesReader.TryRead(json, out var book, out var fault))
        {
            throw new InvalidDataException(fault!.ToString());
        }

        await RuleStore.ChangeAsync(_writer, _jobs, _ => new(book, null, null), cancel);
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

    /// <summary>Has a page that lies in a folder measured.</summary>
    /// <param name="name">What people call it.</param>
    /// <param name="folder">Its folder.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="InvalidDataException">It is refused.</exception>
    public async Task PageAsync(string name, string folder, CancellationToken cancel)
    {
        var (row, fault) = await _pages.AddAsync(new() { Name = name }, cancel);
        foreach (var path in Directory.EnumerateFiles(folder, "*", SearchOption.AllDirectories))
        {
            await using var file = File.OpenRead(path);
            fault ??= await _pages.PutAsync(row!.Id, Path.GetRelativePath(folder, path), file, cancel);
        }

        if (fault is not null)
        {
            throw new InvalidDataException($"{folder}: {fault}");
        }

        await _pages.ChangeAsync(row!.Id, page => page.State = PageCheckState.Waiting, cancel);
        _checker.Ring();
    }

    /// <summary>Makes a job live once all of its files are made.</summary>
    /// <param name="name">The job's name.</param>
    /// <param name="cancel">Stops waiting.</param>
    /// <returns>The elements for pages, by the path of the place.</returns>
    public async Task<IReadOnlyDictionary<string, string>> PublishAsync(string name, CancellationToken cancel)
    {
        var id = await _handOvers.JobNamedAsync(name, cancel) ?? throw new InvalidDataException($"there is no job \"{name}\"");
        var board = await _room.OpenAsync(id, cancel) ?? throw new InvalidDataException($"there is no job \"{name}\"");
        while (
            board.State.Rows.Values.Any(row => !row.SubjectSought)
            || board.State.Tally is var tally && tally.Done + tally.Failed < tally.Files
        )
        {
            await Task.Delay(TimeSpan.FromSeconds(1), cancel);
            board = (await _room.OpenAsync(id, cancel))!;
        }

        await _publishing.PublishAsync(board, null, cancel);
        var published = await _publications.OfAsync(board, "/", cancel);
        return published.Places.Where(place => place.Html is not null).ToDictionary(place => place.Path, place => place.Html!);
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
        var rows = await _pictures.IdsByNameAsync(cancel);
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
                new AddSlots(slots),
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
