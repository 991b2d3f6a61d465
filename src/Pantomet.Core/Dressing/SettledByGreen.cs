namespace Pantomet.Core.Dressing;

/// <summary>The values of green that settle a pixel, whatever red and blue are: green has most of the luminance.</summary>
internal readonly record struct SettledByGreen(int Dark, int Light)
{
    public bool By(byte green) => green <= Dark || green >= Light;

    public static SettledByGreen Of(float[] table, float dark, float light)
    {
        var (least, most) = (table[0] + table[512], table[255] + table[767]);
        var (below, above) = (-1, 256);
        while (below < 255 && table[256 + below + 1] + most <= dark)
        {
            below++;
        }

        while (above > 0 && table[256 + above - 1] + least >= light)
        {
            above--;
        }

        return new(below, above);
    }
}
