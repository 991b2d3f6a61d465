using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Imaging.Hosting;

namespace Pantomet.Application.Variants;

/// <summary>Dressed pixels that somebody looks at while they are decided on; the last few are kept, and none for long.</summary>
public sealed class PreviewCache(VariantStore store, DataFolder folder)
{
    private const int Most = 12;

    private readonly Lock _gate = new();
    private readonly LinkedList<(string Id, string Path)> _looks = new();

    /// <summary>Lays the dress of a file over its pixels; a sentence instead where that cannot be.</summary>
    /// <param name="wanted">The file.</param>
    /// <param name="colours">True to find the colours that inks are taken from.</param>
    /// <param name="keep">What must be seen, as fractions of the file.</param>
    /// <param name="cancel">Stops waiting.</param>
    public async Task<(PreviewView? Look, string? Refusal)> LookAsync(
        WantedFile wanted,
        bool colours,
        IReadOnlyList<Frame> keep,
        CancellationToken cancel
    )
    {
        var path = folder.Scratch();
        var outcome = await store.DressAsync(wanted, path, colours, keep, cancel);
        if (outcome.Dress is not { } look || !File.Exists(path))
        {
            File.Delete(path);
            return (null, outcome.Refusal ?? JobTexts.ThePictureCouldNotBeDrawn);
        }

        var id = Guid.NewGuid().ToString("N");
        lock (_gate)
        {
            _looks.AddLast((id, path));
            while (_looks.Count > Most)
            {
                File.Delete(_looks.First!.Value.Path);
                _looks.RemoveFirst();
            }
        }

        return (
            new(
                id,
                look.Size.Width,
                look.Size.Height,
                DressView.Of(look.Dressed),
                look.Dressed is { } dressed ? Dressings.Reasons(wanted.Slot, dressed) : [],
                look.Colours is { } found ? Of(found) : null
            ),
            null
        );
    }

    /// <summary>Where the pixels lie, as PNG; null when they are gone.</summary>
    public string? PathOf(string id)
    {
        lock (_gate)
        {
            return _looks.FirstOrDefault(look => look.Id == id).Path;
        }
    }

    private static ColoursView Of(DressColours found)
    {
        var edge = found.Edge;
        EdgeSide[] sides = [edge.Left, edge.Top, edge.Right, edge.Bottom];
        return new(
            [.. found.Leading.Select(leading => leading.Colour.ToString())],
            [.. sides.Select(side => new EdgeView(side.Colour.ToString(), side.IsEven))],
            edge.Continued is { } ground ? $"background: {ground} no-repeat center" : null,
            [.. found.Inks.Select(offer => new InkView(offer.Ink.ToString(), offer.Ratio, offer.Fade.Amount, offer.Fade.Reached))],
            [found.Calm.Left, found.Calm.Top, found.Calm.Right, found.Calm.Bottom]
        );
    }
}
