namespace Pantomet.Core.Framing;

/// <summary>
/// Finds what catches the eye: places that differ from their surroundings and from the picture's mean in lightness and colour
/// (centre against surround after L. Itti, C. Koch, E. Niebur, "A model of saliency-based visual attention", 1998; the distance from the
/// mean after R. Achanta et al., "Frequency-tuned salient region detection", 2009), a little more so near the middle.
/// </summary>
internal static class Saliency
{
    /// <summary>The pixels of the most eye-catching region and of those nearly as strong.</summary>
    public static bool[] EyeCatching(Thumb thumb)
    {
        var (width, height) = (thumb.Width, thumb.Height);
        var map = new double[width * height];
        var smooth = Math.Max(1, Math.Min(width, height) / 40);
        foreach (var channel in Opponents(thumb))
        {
            var mean = channel.Average();
            var centre = Blurred(channel, width, height, smooth);
            foreach (var reach in (int[])[Math.Max(3, Math.Min(width, height) / 8), Math.Max(5, Math.Min(width, height) / 4)])
            {
                var surround = Blurred(channel, width, height, reach);
                for (var i = 0; i < map.Length; i++)
                {
                    map[i] += Math.Abs(centre[i] - surround[i]) + (0.35 * Math.Abs(centre[i] - mean));
                }
            }
        }

        map = Blurred(map, width, height, smooth * 2);
        for (var y = 0; y < height; y++)
        {
            for (var x = 0; x < width; x++)
            {
                var (dx, dy) = (((x + 0.5) / width) - 0.5, ((y + 0.5) / height) - 0.5);
                map[(y * width) + x] *= 0.55 + (0.45 * Math.Exp(-((dx * dx) + (dy * dy)) / 0.12));
            }
        }

        return Strongest(map, width, height);
    }

    // Grows from the strongest place down to a level at which the region is still one thing and not the scene.
    private static bool[] Strongest(double[] map, int width, int height)
    {
        var (mean, most) = (map.Average(), map.Max());
        var deviation = Math.Sqrt(map.Average(value => (value - mean) * (value - mean)));
        var level = Math.Min(most * 0.8, mean + (1.2 * deviation));
        var strong = Array.ConvertAll(map, value => value >= level);
        var peak = Array.IndexOf(map, most);
        var kept = new bool[map.Length];
        var open = new Stack<int>([peak]);
        kept[peak] = true;
        while (open.TryPop(out var at))
        {
            var (x, y) = (at % width, at / width);
            foreach (var (nx, ny) in ((int, int)[])[(x - 1, y), (x + 1, y), (x, y - 1), (x, y + 1)])
            {
                if (nx >= 0 && ny >= 0 && nx < width && ny < height && strong[(ny * width) + nx] && !kept[(ny * width) + nx])
                {
                    kept[(ny * width) + nx] = true;
                    open.Push((ny * width) + nx);
                }
            }
        }

        return kept;
    }

    // Lightness and two colour oppositions, roughly alike in reach; colour counts more because fewer things have it.
    private static double[][] Opponents(Thumb thumb)
    {
        var count = thumb.Width * thumb.Height;
        double[][] channels = [new double[count], new double[count], new double[count]];
        for (var i = 0; i < count; i++)
        {
            var at = i * thumb.Bands;
            var (r, g, b) = ((double)thumb.Pixels[at], (double)thumb.Pixels[at + 1], (double)thumb.Pixels[at + 2]);
            channels[0][i] = ((2 * r) + (4 * g) + b) / 7;
            channels[1][i] = 1.5 * (r - g);
            channels[2][i] = 1.2 * (b - ((r + g) / 2));
        }

        return channels;
    }

    // A box blur over (2 reach + 1) squared pixels, less at the edges; twice, which is smooth enough.
    private static double[] Blurred(double[] map, int width, int height, int reach)
    {
        var once = Box(Box(map, width, height, reach, 1, width), height, width, reach, width, 1);
        return Box(Box(once, width, height, reach, 1, width), height, width, reach, width, 1);
    }

    private static double[] Box(double[] map, int length, int lines, int reach, int step, int lineStep)
    {
        var result = new double[map.Length];
        for (var line = 0; line < lines; line++)
        {
            var start = line * lineStep;
            double sum = 0;
            for (var i = -reach; i < length + reach; i++)
            {
                if (i + reach < length)
                {
                    sum += map[start + ((i + reach) * step)];
                }

                if (i - reach - 1 >= 0)
                {
                    sum -= map[start + ((i - reach - 1) * step)];
                }

                if (i >= 0 && i < length)
                {
                    result[start + (i * step)] = sum / (Math.Min(length - 1, i + reach) - Math.Max(0, i - reach) + 1);
                }
            }
        }

        return result;
    }
}
