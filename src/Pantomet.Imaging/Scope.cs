using NetVips;

namespace Pantomet.Imaging;

/// <summary>Every step of a pipeline holds native memory; this frees the steps when the pixels are out.</summary>
internal sealed class Scope : IDisposable
{
    private readonly List<Image> _owned = [];

    public Image Own(Image image)
    {
        _owned.Add(image);
        return image;
    }

    public void Dispose()
    {
        foreach (var image in _owned)
        {
            image.Dispose();
        }
    }
}
