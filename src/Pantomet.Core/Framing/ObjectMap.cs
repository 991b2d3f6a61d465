namespace Pantomet.Core.Framing;

/// <summary>One layer of a network trained on objects, as it answers to a picture: channel by channel, each row by row.</summary>
/// <param name="Values">Channels × height × width values, none below 0.</param>
/// <param name="Channels">How many features it tells apart.</param>
/// <param name="Width">Cells across.</param>
/// <param name="Height">Cells down.</param>
public sealed record ObjectMap(float[] Values, int Channels, int Width, int Height);

/// <summary>Answers of a network trained on objects.</summary>
public interface IObjectMaps
{
    /// <summary>Its layers from fine to coarse.</summary>
    /// <param name="picture">The picture, upright, opaque, a few hundred pixels on its longest side.</param>
    public IReadOnlyList<ObjectMap> Of(Thumb picture);
}
