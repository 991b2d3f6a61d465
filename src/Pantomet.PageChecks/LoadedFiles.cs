using Pantomet.Browsing;
using Pantomet.Core.Facts;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Texts;
using Pantomet.Imaging.Reading;

namespace Pantomet.PageChecks;

/// <summary>The pictures that a page loaded, as files that can be read again.</summary>
/// <param name="source">Where they come from.</param>
/// <param name="folder">Where they are put.</param>
/// <param name="kept">True where they stay there.</param>
internal sealed class LoadedFiles(IPageFiles source, string folder, bool kept)
{
    private const int MostMoves = 10;

    private readonly Dictionary<string, string> _paths = new(StringComparer.Ordinal);
    private readonly HashSet<string> _still = new(StringComparer.Ordinal);

    /// <summary>Where the picture of an address lies.</summary>
    public string PathOf(string address) => _paths[address];

    /// <summary>True for a picture of one frame that can be read.</summary>
    public bool IsStill(string address) => _still.Contains(address);

    /// <summary>Reads what lies under addresses.</summary>
    public async Task<Dictionary<string, LoadedFile>> ReadAsync(IEnumerable<string> addresses, CancellationToken cancel)
    {
        Directory.CreateDirectory(folder);
        var files = new Dictionary<string, LoadedFile>(StringComparer.Ordinal);
        foreach (var address in addresses)
        {
            files[address] = await OneAsync(address, cancel);
        }

        return files;
    }

    private async Task<LoadedFile> OneAsync(string address, CancellationToken cancel)
    {
        // What the page made itself lies nowhere, and weighs nothing on the way.
        if (address.StartsWith("blob:", StringComparison.OrdinalIgnoreCase))
        {
            return new(0, null, null, null);
        }

        var answer = address.StartsWith("data:", StringComparison.OrdinalIgnoreCase)
            ? DataAddress.Read(address)
            : await AskAsync(address, cancel);
        if (answer.Trouble is { } trouble)
        {
            return new(0, null, null, trouble);
        }

        var path = Path.Combine(folder, $"{_paths.Count}");
        await File.WriteAllBytesAsync(path, answer.Body, cancel);
        _paths[address] = path;
        if (PictureReader.ReadFacts(path).Facts is not { } facts)
        {
            return new(answer.Body.LongLength, null, null, null);
        }

        if (facts.Frames == 1)
        {
            _still.Add(address);
        }

        return new(
            answer.Body.LongLength,
            facts.Format,
            facts.Size,
            null,
            kept ? $"{Path.GetFileName(folder)}/{Path.GetFileName(path)}" : null
        );
    }

    private async Task<PageAnswer> AskAsync(string address, CancellationToken cancel)
    {
        if (!Uri.TryCreate(address.Split('#')[0], UriKind.Absolute, out var at) || at.Scheme is not ("http" or "https"))
        {
            return PageAnswer.None(0, PageTexts.APageCannotLoadFromThis);
        }

        for (var moves = 0; moves <= MostMoves; moves++)
        {
            var answer = await source.GetAsync(at, cancel);
            if (answer.Moved is null)
            {
                return answer;
            }

            at = answer.Moved;
        }

        return PageAnswer.None(0, PageTexts.TheAddressRedirectsWithoutEnd);
    }
}
