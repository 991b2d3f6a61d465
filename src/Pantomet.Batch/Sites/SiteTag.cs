using Pantomet.Core.Markup;

namespace Pantomet.Batch.Sites;

/// <summary>An <c>img</c> of a page that names its place, and where it stands in the page's text.</summary>
/// <param name="Start">Where the tag begins.</param>
/// <param name="End">Where it ends, behind its bracket.</param>
/// <param name="Line">Its line, from 1.</param>
/// <param name="Place">The value of <c>data-slot</c>.</param>
/// <param name="Source">The value of <c>src</c>.</param>
/// <param name="Kept">Its other attributes as they are written.</param>
/// <param name="InPicture">True inside a <c>picture</c> element.</param>
public sealed record SiteTag(int Start, int End, int Line, string Place, string Source, IReadOnlyList<HtmlAttribute> Kept, bool InPicture)
{
    /// <summary>Names the place for people.</summary>
    public string At(string page) => $"{page}, line {Line}";
}
