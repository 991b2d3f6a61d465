using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.Mending;

/// <summary>A picture of a folder as its header tells it.</summary>
/// <param name="Path">From the folder's root.</param>
/// <param name="Bytes">Its weight.</param>
/// <param name="Width">Pixels across as displayed; 0 where it cannot be read.</param>
/// <param name="Height">Pixels down as displayed.</param>
/// <param name="Format">jpeg, png ...; null where it cannot be read.</param>
/// <param name="OnSide">True where a tag rotates it.</param>
/// <param name="Located">True where its metadata contains the location.</param>
/// <param name="Misnamed">True where its file extension says another type.</param>
/// <param name="Moves">True where it is an animation or has several pages.</param>
/// <param name="Trouble">Why it cannot be read: a sentence; null where it can.</param>
public sealed record SurveyedPicture(
    string Path,
    long Bytes,
    int Width,
    int Height,
    string? Format,
    bool OnSide,
    bool Located,
    bool Misnamed,
    bool Moves,
    string? Trouble
)
{
    /// <summary>One that could be read.</summary>
    public static SurveyedPicture Of(string path, PictureFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        return new(
            path,
            facts.Bytes,
            facts.Size.Width,
            facts.Size.Height,
            facts.Format.Word(),
            facts.Orientation != 1,
            facts.HasLocation,
            PictureFormats.IsMisnamed(path, facts.Format),
            facts.Frames > 1,
            null
        );
    }

    /// <summary>One that could not.</summary>
    public static SurveyedPicture Unread(string path, long bytes, string trouble) =>
        new(path, bytes, 0, 0, null, false, false, false, false, trouble);

    /// <summary>Pixels of the longer side.</summary>
    public int LongSide => Math.Max(Width, Height);

    /// <summary>True where it can be optimised.</summary>
    public bool CanBeMended => !Moves && MendRule.Formats.Any(format => format.Word() == Format);
}

/// <summary>What a folder of pictures comes to.</summary>
public sealed record PictureFolderFigures
{
    /// <summary>From here on a picture is heavy for a page, in bytes (common practice, a value from memory).</summary>
    public const long Heavy = 1_000_000;

    /// <summary>From here on it is near that.</summary>
    public const long NearHeavy = 900_000;

    /// <summary>How many there are.</summary>
    public int Count { get; init; }

    /// <summary>What they weigh together.</summary>
    public long Bytes { get; init; }

    /// <summary>The path of the heaviest; null where there is none.</summary>
    public string? Heaviest { get; init; }

    /// <summary>What it weighs.</summary>
    public long HeaviestBytes { get; init; }

    /// <summary>The path of the one with the most pixels; null where there is none.</summary>
    public string? Largest { get; init; }

    /// <summary>Its pixels across.</summary>
    public int LargestWidth { get; init; }

    /// <summary>Its pixels down.</summary>
    public int LargestHeight { get; init; }

    /// <summary>How many weigh nearly 1 MB.</summary>
    public int Near { get; init; }

    /// <summary>How many weigh 1 MB or more.</summary>
    public int Over { get; init; }

    /// <summary>What those weigh together.</summary>
    public long OverBytes { get; init; }

    /// <summary>How many are rotated by tag until a tag turns them.</summary>
    public int OnSide { get; init; }

    /// <summary>How many tell where they were taken.</summary>
    public int Located { get; init; }

    /// <summary>How many have the ending of another type.</summary>
    public int Misnamed { get; init; }

    /// <summary>How many move or have several pages.</summary>
    public int Moving { get; init; }

    /// <summary>How many cannot be read.</summary>
    public int Unread { get; init; }

    /// <summary>What those weigh together that can be lightened.</summary>
    public long MendableBytes { get; init; }

    /// <summary>How many those are.</summary>
    public int Mendable { get; init; }

    /// <summary>The same with one more.</summary>
    public PictureFolderFigures With(SurveyedPicture one)
    {
        ArgumentNullException.ThrowIfNull(one);
        var heaviest = Heaviest is null || one.Bytes > HeaviestBytes;
        var largest = one.Trouble is null && (long)one.Width * one.Height > (long)LargestWidth * LargestHeight;
        return this with
        {
            Count = Count + 1,
            Bytes = Bytes + one.Bytes,
            Heaviest = heaviest ? one.Path : Heaviest,
            HeaviestBytes = heaviest ? one.Bytes : HeaviestBytes,
            Largest = largest ? one.Path : Largest,
            LargestWidth = largest ? one.Width : LargestWidth,
            LargestHeight = largest ? one.Height : LargestHeight,
            Near = Near + Of(one.Bytes is >= NearHeavy and < Heavy),
            Over = Over + Of(one.Bytes >= Heavy),
            OverBytes = OverBytes + (one.Bytes >= Heavy ? one.Bytes : 0),
            OnSide = OnSide + Of(one.OnSide),
            Located = Located + Of(one.Located),
            Misnamed = Misnamed + Of(one.Misnamed),
            Moving = Moving + Of(one.Moves),
            Unread = Unread + Of(one.Trouble is not null),
            MendableBytes = MendableBytes + (one.CanBeMended ? one.Bytes : 0),
            Mendable = Mendable + Of(one.CanBeMended),
        };
    }

    private static int Of(bool isSo) => isSo ? 1 : 0;
}
