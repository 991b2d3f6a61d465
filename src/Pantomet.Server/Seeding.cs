using Pantomet.Core.Rules;
using Pantomet.Server.Destinations;
using Pantomet.Server.Pictures;

namespace Pantomet.Server;

/// <summary>Fills a data folder from files, through the same doors as a person's uploads.</summary>
public sealed class Seeding
{
    private readonly PictureIntake _intake;
    private readonly RuleShelf _shelf;

    internal Seeding(PictureIntake intake, RuleShelf shelf) => (_intake, _shelf) = (intake, shelf);

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
}
