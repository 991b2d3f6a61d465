using System.Globalization;
using System.Text;
using Pantomet.Core.Geometry;
using Pantomet.Core.Markup;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Reports;

/// <summary>One file as a contact sheet shows it.</summary>
/// <param name="Place">The name of its slot, with its destination.</param>
/// <param name="Descriptor">The density, or the width of the ladder: 2x, 800w.</param>
/// <param name="Path">Its path in the bundle; null where it has none.</param>
/// <param name="Size">Its pixels.</param>
/// <param name="Type">Its type: JPEG, WebP.</param>
/// <param name="Bytes">Its weight in bytes.</param>
/// <param name="Limit">What it may weigh, in bytes; null where there is no limit.</param>
/// <param name="Verdict">The verdict.</param>
/// <param name="Allowed">True when it breaks a limit and is handed over anyway.</param>
/// <param name="Reasons">What there is to know about it, as sentences.</param>
public sealed record ContactFile(
    string Place,
    string Descriptor,
    string? Path,
    PixelSize Size,
    string Type,
    long Bytes,
    long? Limit,
    Verdict Verdict,
    bool Allowed,
    IReadOnlyList<string> Reasons
);

/// <summary>Something that is missing: a file, a text.</summary>
/// <param name="Of">The picture, and the place where it is that of a file.</param>
/// <param name="What">What is missing and why, as sentences.</param>
public sealed record ContactGap(string Of, string What);

/// <summary>
/// One page of HTML with every file of a job as a picture, for somebody who has to say yes. It holds everything itself, prints on A4 and is
/// read on a phone; it has no script. The parts are written one after the other, as a sheet can be larger than memory.
/// </summary>
public static class ContactSheet
{
    /// <summary>How the page begins.</summary>
    /// <param name="job">What the job is called.</param>
    /// <param name="day">The day that it shows.</param>
    /// <param name="files">How many files it shows.</param>
    /// <param name="bytes">What they weigh together.</param>
    /// <param name="gaps">How much is missing.</param>
    public static string Head(string job, DateOnly day, int files, long bytes, int gaps) =>
        Begin.Replace("%TITLE%", HtmlWriter.Escaped(job), StringComparison.Ordinal)
        + $"<header>\n<h1>{HtmlWriter.Escaped(job)}</h1>\n<p>"
        + HtmlWriter.Escaped(JobTexts.FilesOnADay(files, Figures.Weight(bytes), day.ToString("d MMMM yyyy", CultureInfo.InvariantCulture)))
        + (gaps > 0 ? $" <a href=\"#missing\">{HtmlWriter.Escaped(JobTexts.ThingsAreMissing(gaps))}</a>" : "")
        + "</p>\n</header>\n<main>\n";

    /// <summary>How the files of a picture begin.</summary>
    /// <param name="picture">What it is called.</param>
    /// <param name="alternative">What it shows, in words; null or empty where nobody said it.</param>
    public static string Picture(string picture, string? alternative) =>
        $"<section>\n<h2>{HtmlWriter.Escaped(picture)}</h2>\n"
        + (string.IsNullOrEmpty(alternative) ? "" : $"<p class=\"alt\">{HtmlWriter.Escaped(alternative)}</p>\n")
        + "<div class=\"files\">\n";

    /// <summary>How the files of a picture end.</summary>
    public const string PictureEnd = "</div>\n</section>\n";

    /// <summary>One file.</summary>
    /// <param name="file">The file.</param>
    /// <param name="mediaType">The type of the small copy.</param>
    /// <param name="small">A small copy of it; empty where it cannot be read.</param>
    /// <param name="alternative">What the picture shows, in words.</param>
    public static string File(ContactFile file, string mediaType, ReadOnlySpan<byte> small, string? alternative)
    {
        ArgumentNullException.ThrowIfNull(file);
        var text = new StringBuilder("<figure>\n<div class=\"picture\">");
        if (!small.IsEmpty)
        {
            text.Append(CultureInfo.InvariantCulture, $"<img alt=\"{HtmlWriter.Escaped(alternative ?? "")}\" ")
                .Append(CultureInfo.InvariantCulture, $"src=\"data:{mediaType};base64,{Convert.ToBase64String(small)}\">");
        }

        text.Append("</div>\n<figcaption>\n");
        text.Append(CultureInfo.InvariantCulture, $"<b>{HtmlWriter.Escaped(file.Place)}</b> {HtmlWriter.Escaped(file.Descriptor)}\n");
        var weight = file.Limit is { } limit
            ? JobTexts.WeightOfLimit(Figures.Weight(file.Bytes), Figures.Weight(limit))
            : Figures.Weight(file.Bytes);
        text.Append(
            CultureInfo.InvariantCulture,
            $"<span>{Figures.Size(file.Size)}, {HtmlWriter.Escaped(file.Type)}</span>\n<span>{HtmlWriter.Escaped(weight)}</span>\n"
        );
        text.Append(
            CultureInfo.InvariantCulture,
            $"<span class=\"{ClassOf(file.Verdict)}\">{HtmlWriter.Escaped(file.Allowed ? JobTexts.AllowedAnyway : JobTexts.VerdictWord(file.Verdict))}</span>\n"
        );
        foreach (var reason in file.Reasons)
        {
            text.Append(CultureInfo.InvariantCulture, $"<span class=\"reason\">{HtmlWriter.Escaped(reason)}</span>\n");
        }

        if (file.Path is { } path)
        {
            text.Append(CultureInfo.InvariantCulture, $"<code>{HtmlWriter.Escaped(path)}</code>\n");
        }

        return text.Append("</figcaption>\n</figure>\n").ToString();
    }

    /// <summary>How the page ends: what is missing.</summary>
    /// <param name="gaps">What is missing.</param>
    public static string Tail(IReadOnlyList<ContactGap> gaps)
    {
        ArgumentNullException.ThrowIfNull(gaps);
        var text = new StringBuilder("</main>\n");
        if (gaps.Count > 0)
        {
            text.Append(CultureInfo.InvariantCulture, $"<section id=\"missing\">\n<h2>{HtmlWriter.Escaped(JobTexts.Missing)}</h2>\n<dl>\n");
            foreach (var gap in gaps)
            {
                text.Append(
                    CultureInfo.InvariantCulture,
                    $"<dt>{HtmlWriter.Escaped(gap.Of)}</dt><dd>{HtmlWriter.Escaped(gap.What)}</dd>\n"
                );
            }

            text.Append("</dl>\n</section>\n");
        }

        return text.Append("</body>\n</html>\n").ToString();
    }

    private static string ClassOf(Verdict verdict) =>
        verdict switch
        {
            Verdict.Meets => "meets",
            Verdict.Concedes => "concedes",
            _ => "breaks",
        };

    // Greys are neutral beside pictures. A verdict differs by its rule as well as by its colour: plain, dashed, doubled.
    private const string Begin = """
        <!DOCTYPE html>
        <html lang="en">
        <head>
        <meta charset="utf-8">
        <meta name="viewport" content="width=device-width, initial-scale=1">
        <title>%TITLE%</title>
        <style>
        * { box-sizing: border-box }
        body { margin: 0; font: 13px/1.4 system-ui, sans-serif; background: #d4d4d4; color: #1b1b1b; font-variant-numeric: tabular-nums }
        header, section { padding: 14px 20px }
        header { background: #f6f6f6; border-bottom: 1px solid #b4b4b4 }
        h1 { margin: 0; font-size: 19px }
        h2 { margin: 0; font-size: 15px; overflow-wrap: anywhere }
        p { margin: 2px 0; color: #3f3f3f }
        a { color: #17616f }
        .files { display: grid; grid-template-columns: repeat(auto-fill, minmax(150px, 1fr)); gap: 14px; margin-top: 8px }
        figure { margin: 0; display: flex; flex-direction: column; break-inside: avoid; background: #f6f6f6 }
        .picture { position: relative; aspect-ratio: 4 / 3; background: #e6e6e6 }
        .picture img { position: absolute; inset: 6px; width: calc(100% - 12px); height: calc(100% - 12px); object-fit: contain }
        figcaption { padding: 6px 8px 8px; overflow-wrap: anywhere }
        figcaption span { display: block }
        code { display: block; margin-top: 3px; font: 11px/1.35 ui-monospace, monospace; color: #3f3f3f }
        .meets, .concedes, .breaks { width: fit-content; margin-top: 2px; font-weight: 600; border-bottom: 2px solid }
        .meets { color: #1f5630 }
        .concedes { color: #6d4300; border-bottom-style: dashed }
        .breaks { color: #9c1616; border-bottom: 4px double }
        .reason { color: #3f3f3f }
        #missing { background: #f6f6f6 }
        dl { margin: 6px 0 0; display: grid; grid-template-columns: minmax(120px, 1fr) 3fr; gap: 4px 16px; overflow-wrap: anywhere }
        dt { font-weight: 600 }
        dd { margin: 0 }
        @media (max-width: 480px) { header, section { padding: 12px } dl { grid-template-columns: 1fr } dd { margin-bottom: 6px } }
        @page { size: A4; margin: 12mm }
        @media print {
          body, .picture, figure, header { background: none }
          header, section { padding: 0 0 8mm }
          figure, .picture { border: 0.3mm solid #b4b4b4 }
          h2 { break-after: avoid }
          .files { grid-template-columns: repeat(4, 1fr); gap: 4mm }
        }
        </style>
        </head>
        <body>

        """;
}
