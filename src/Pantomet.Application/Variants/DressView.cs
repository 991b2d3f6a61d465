using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Verdicts;

namespace Pantomet.Application.Variants;

/// <summary>What became of what is drawn over a picture. Boxes are left, top, right, bottom in pixels of the file.</summary>
/// <param name="Fade">The amount of the fade, 0 to 1; null without one.</param>
/// <param name="Ink">The text colour; null where there is no text.</param>
/// <param name="Contrast">The contrast that the worst hundredth of the pixels reaches; null where there is no ink.</param>
/// <param name="Wanted">The contrast that was wanted.</param>
/// <param name="TitleBox">Where the title stands.</param>
/// <param name="MarkBox">Where the mark lies.</param>
/// <param name="Last">Where the contrast is reached last.</param>
/// <param name="Fits">The size of the title's letters in CSS px where the one that was asked for does not fit.</param>
public sealed record DressView(
    double? Fade,
    string? Ink,
    double? Contrast,
    double? Wanted,
    IReadOnlyList<int>? TitleBox,
    IReadOnlyList<int>? MarkBox,
    IReadOnlyList<int>? Last,
    double? Fits
)
{
    internal static DressView? Of(Dressed? dressed) =>
        dressed is null
            ? null
            : new(
                dressed.Fade,
                dressed.Ink?.ToString(),
                dressed.Contrast,
                dressed.Wanted,
                Edges(dressed.TitleBox),
                Edges(dressed.MarkBox),
                Edges(dressed.Last),
                dressed.Fits
            );

    private static IReadOnlyList<int>? Edges(Crop? box) => box is { } one ? [one.Left, one.Top, one.Right, one.Bottom] : null;
}

/// <summary>A text colour that can be used here.</summary>
/// <param name="Ink">The colour.</param>
/// <param name="Ratio">The contrast that it reaches without a fade.</param>
/// <param name="Fade">The fade that it needs, 0 to 1.</param>
/// <param name="Reached">True where that makes it readable.</param>
public sealed record InkView(string Ink, double Ratio, double Fade, bool Reached);

/// <summary>One side of a file's edge.</summary>
/// <param name="Colour">Its colour.</param>
/// <param name="Even">True when a page can continue it in that colour.</param>
public sealed record EdgeView(string Colour, bool Even);

/// <summary>The colours of a file before anything is drawn over it.</summary>
/// <param name="Leading">The few that lead, the largest first.</param>
/// <param name="Edges">Those of its edges: left, top, right, bottom.</param>
/// <param name="Background">The rule of a page that continues the edge; null where no one colour does.</param>
/// <param name="Inks">Text colours for what is written here, the one that needs the least fade first.</param>
/// <param name="Calm">Where words are placed at first: left, top, right and bottom as fractions of the slot.</param>
public sealed record ColoursView(
    IReadOnlyList<string> Leading,
    IReadOnlyList<EdgeView> Edges,
    string? Background,
    IReadOnlyList<InkView> Inks,
    IReadOnlyList<double> Calm
);

/// <summary>A dressed file to look at, before it is decided on.</summary>
/// <param name="Id">Its pixels' identity in addresses; for a few minutes.</param>
/// <param name="Width">Pixels across.</param>
/// <param name="Height">Pixels down.</param>
/// <param name="Dress">What became of the dress.</param>
/// <param name="Reasons">What it had to give up.</param>
/// <param name="Colours">The colours, where they were asked for.</param>
public sealed record PreviewView(string Id, int Width, int Height, DressView? Dress, IReadOnlyList<Reason> Reasons, ColoursView? Colours);
