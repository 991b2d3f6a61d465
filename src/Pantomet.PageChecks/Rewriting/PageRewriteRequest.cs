using Pantomet.Core.Markup;
using Pantomet.Core.PageChecks;
using Pantomet.PageChecks;

namespace Pantomet.PageChecks.Rewriting;

/// <summary>A picture of a page with what is to stand instead of it. Addresses of files begin with <see cref="Pictures"/>.</summary>
public sealed record PagePlace
{
    /// <summary>How addresses of the files begin until it is known where they are written; a name that no network has (RFC 6761, 6.4).</summary>
    public const string Pictures = "https://pictures.invalid/";

    /// <summary>The elements that a background's property is written for until it is known which.</summary>
    public const string Root = ":where(:root)";

    /// <summary>What a background's property is called until it has a number.</summary>
    public const string Property = "--picture";

    /// <summary>The selector that found its element.</summary>
    public required string Where { get; init; }

    /// <summary>How the page holds it.</summary>
    public required ImageKind Kind { get; init; }

    /// <summary>The address that people know it by.</summary>
    public required string Address { get; init; }

    /// <summary>Why nothing can stand instead of it: a sentence; null where something can.</summary>
    public string? Left { get; init; }

    /// <summary>True where it was squashed or blurred, and need not look the same.</summary>
    public bool Altered { get; init; }

    /// <summary>True where the files show a part of it.</summary>
    public bool Cut { get; init; }

    /// <summary>True where no room was kept for it.</summary>
    public bool NoRoom { get; init; }

    /// <summary>True where it is to wait until somebody comes near, false where it must not; null to leave that.</summary>
    public bool? Lazy { get; init; }

    /// <summary>The <c>source</c> elements of a <c>picture</c>.</summary>
    public IReadOnlyList<string> Sources { get; init; } = [];

    /// <summary>The attributes of the <c>img</c> in it.</summary>
    public IReadOnlyList<HtmlAttribute> Image { get; init; } = [];

    /// <summary>The attributes of an <c>img</c> that stands alone; null where one cannot.</summary>
    public IReadOnlyList<HtmlAttribute>? Alone { get; init; }

    /// <summary>The address of one file for all; null where the shape changes with the screen.</summary>
    public string? Plain { get; init; }

    /// <summary>The property that stands for a background.</summary>
    public string? Css { get; init; }
}

/// <summary>What is asked of mending a page: it is opened as it was, its pictures are replaced, and it is opened again.</summary>
public sealed record PageRewriteRequest
{
    /// <summary>The page and its screens; what is kept lies in <see cref="PageCheckRequest.Keep"/>, with the new files in its folder of pictures.</summary>
    public required PageCheckRequest Page { get; init; }

    /// <summary>The pictures.</summary>
    public required IReadOnlyList<PagePlace> Places { get; init; }
}

/// <summary>The names of what is kept of a mended page.</summary>
public static class MendedNames
{
    /// <summary>The folder of the new files, in the page's own and in what is kept.</summary>
    public const string Pictures = "_pictures";

    /// <summary>What became of it.</summary>
    public const string Report = "mended.json";

    /// <summary>The page with its files.</summary>
    public const string Zip = "page.zip";

    /// <summary>A picture of the page as it was.</summary>
    public static string Before(int viewport) => $"before-{viewport}.png";

    /// <summary>A picture of the page as it is.</summary>
    public static string After(int viewport) => $"after-{viewport}.png";

    /// <summary>A picture of where both differ.</summary>
    public static string Difference(int viewport) => $"difference-{viewport}.png";
}
