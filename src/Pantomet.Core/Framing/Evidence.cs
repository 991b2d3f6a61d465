using System.Numerics;

namespace Pantomet.Core.Framing;

/// <summary>How much each place of a picture speaks for a subject: a grid of cells, row by row.</summary>
/// <param name="Values">Any scale; more is more.</param>
/// <param name="Width">Cells across.</param>
/// <param name="Height">Cells down.</param>
internal sealed record Evidence(float[] Values, int Width, int Height)
{
    /// <summary>
    /// How unlike everything at the border the place is that is most unlike it, as the coarsest layer sees it: 0 alike, 1 nothing in
    /// common, up to 2. In a texture nothing is.
    /// </summary>
    public double Apart { get; private set; }

    // How much of what all cells have in common is removed before cells are compared; measured (docs/subjects.md).
    private const float InCommon = 0.7f;

    // How many cells of the border a cell is compared with: those most like it.
    private const int Nearest = 3;

    /// <summary>
    /// Adds up what the layers say, each scaled to 0 to 1: strong answers of features that are rare in this picture (after X.-S. Wei et
    /// al., "Selective convolutional descriptor aggregation", 2017, with the channels weighted by their rarity after Y. Kalantidis et al.,
    /// "Cross-dimensional weighting for aggregated deep convolutional features", 2016), and, in the coarser layers, how unlike a cell is to
    /// everything at the picture's border (the border as what lies behind: after Y. Wei et al., "Geodesic saliency using background
    /// priors", 2012).
    /// </summary>
    /// <param name="layers">The layers from fine to coarse.</param>
    public static Evidence Of(IReadOnlyList<ObjectMap> layers)
    {
        var finest = layers[0];
        var sum = new Evidence(new float[4 * finest.Width * finest.Height], 2 * finest.Width, 2 * finest.Height);
        for (var i = 0; i < layers.Count; i++)
        {
            sum.Add(Rare(layers[i]));
            if (i > 0)
            {
                var unlike = UnlikeTheBorder(layers[i]);
                sum.Add(unlike);
                sum.Apart = unlike.Values.Max();
            }
        }

        return sum;
    }

    /// <summary>The same on another grid, bilinear between the cells' centres.</summary>
    public Evidence On(int width, int height)
    {
        if ((width, height) == (Width, Height))
        {
            return this;
        }

        var values = new float[width * height];
        for (var y = 0; y < height; y++)
        {
            var (top, bottom, down) = Between(y, height, Height);
            for (var x = 0; x < width; x++)
            {
                var (left, right, across) = Between(x, width, Width);
                var above = float.Lerp(Values[(top * Width) + left], Values[(top * Width) + right], across);
                var below = float.Lerp(Values[(bottom * Width) + left], Values[(bottom * Width) + right], across);
                values[(y * width) + x] = float.Lerp(above, below, down);
            }
        }

        return new(values, width, height);
    }

    private static (int Before, int Behind, float Share) Between(int at, int count, int cells)
    {
        var place = Math.Clamp(((at + 0.5f) / count * cells) - 0.5f, 0, cells - 1);
        var before = (int)place;
        return (before, Math.Min(cells - 1, before + 1), place - before);
    }

    private void Add(Evidence layer)
    {
        var (least, most) = (layer.Values.Min(), layer.Values.Max());
        var span = Math.Max(most - least, 1e-9f);
        var mine = layer.On(Width, Height);
        for (var i = 0; i < Values.Length; i++)
        {
            Values[i] += (mine.Values[i] - least) / span;
        }
    }

    private static Evidence Rare(ObjectMap map)
    {
        var cells = map.Width * map.Height;
        var sum = new float[cells];
        for (var channel = 0; channel < map.Channels; channel++)
        {
            var values = map.Values.AsSpan(channel * cells, cells);
            var answering = 0;
            foreach (var value in values)
            {
                answering += value > 0 ? 1 : 0;
            }

            var weight = MathF.Log(1 / (((float)answering / cells) + 0.01f));
            for (var i = 0; i < cells; i++)
            {
                sum[i] += weight * values[i];
            }
        }

        return new(sum, map.Width, map.Height);
    }

    private static Evidence UnlikeTheBorder(ObjectMap map)
    {
        var cells = map.Width * map.Height;
        var features = Directions(map);
        var border = Enumerable
            .Range(0, cells)
            .Where(i => i % map.Width == 0 || i % map.Width == map.Width - 1 || i / map.Width == 0 || i / map.Width == map.Height - 1)
            .ToArray();
        var unlike = new float[cells];
        Span<float> nearest = stackalloc float[Nearest];
        for (var i = 0; i < cells; i++)
        {
            nearest.Fill(-1);
            foreach (var other in border)
            {
                if (other != i)
                {
                    Keep(nearest, Dot(features[i], features[other]));
                }
            }

            unlike[i] = 1 - ((nearest[0] + nearest[1] + nearest[2]) / Nearest);
        }

        return new(unlike, map.Width, map.Height);
    }

    private static void Keep(Span<float> nearest, float likeness)
    {
        for (var i = 0; i < nearest.Length; i++)
        {
            if (likeness > nearest[i])
            {
                (nearest[i], likeness) = (likeness, nearest[i]);
            }
        }
    }

    // Each cell's features as a direction of length 1, roots taken so that no single feature decides, less what all have in common.
    private static float[][] Directions(ObjectMap map)
    {
        var cells = map.Width * map.Height;
        var features = new float[cells][];
        var mean = new float[map.Channels];
        for (var i = 0; i < cells; i++)
        {
            var feature = features[i] = new float[map.Channels];
            for (var channel = 0; channel < map.Channels; channel++)
            {
                feature[channel] = MathF.Sqrt(map.Values[(channel * cells) + i]);
            }

            Shorten(feature);
            for (var channel = 0; channel < map.Channels; channel++)
            {
                mean[channel] += feature[channel] / cells;
            }
        }

        foreach (var feature in features)
        {
            for (var channel = 0; channel < map.Channels; channel++)
            {
                feature[channel] -= InCommon * mean[channel];
            }

            Shorten(feature);
        }

        return features;
    }

    private static void Shorten(float[] feature)
    {
        var length = 1 / MathF.Sqrt(Dot(feature, feature) + 1e-9f);
        for (var i = 0; i < feature.Length; i++)
        {
            feature[i] *= length;
        }
    }

    private static float Dot(float[] one, float[] other)
    {
        var sum = Vector<float>.Zero;
        var i = 0;
        for (; i <= one.Length - Vector<float>.Count; i += Vector<float>.Count)
        {
            sum += new Vector<float>(one, i) * new Vector<float>(other, i);
        }

        var rest = Vector.Sum(sum);
        for (; i < one.Length; i++)
        {
            rest += one[i] * other[i];
        }

        return rest;
    }
}
