namespace Pantomet.Core.Css;

/// <summary>
/// A computed length of CSS in which a share may stand: <c>40px</c>, <c>50%</c>, <c>calc(100% - 10px)</c> (CSS Values Level 4, 10: a sum of
/// a percentage and a length is what remains of any calculation).
/// </summary>
/// <param name="Share">The share of what it is measured against; 1 for 100 %.</param>
/// <param name="Pixels">What is added, in CSS pixels.</param>
public readonly record struct CssOffset(double Share, double Pixels)
{
    /// <summary>The middle of what is free.</summary>
    public static readonly CssOffset Middle = new(0.5, 0);

    /// <summary>Its length against so many CSS pixels.</summary>
    public double Of(double whole) => (Share * whole) + Pixels;

    /// <summary>Reads one computed length; false for what is none, such as <c>auto</c>.</summary>
    public static bool TryParse(string? text, out CssOffset offset)
    {
        offset = default;
        try
        {
            var css = new CssReader(text ?? "");
            var bracketed = css.Took("calc") && css.Opened();
            var sum = Term(css, 1);
            while (Sign(css) is { } sign)
            {
                var next = Term(css, sign);
                sum = new(sum.Share + next.Share, sum.Pixels + next.Pixels);
            }

            if (bracketed)
            {
                css.Close();
            }

            offset = css.AtEnd ? sum : default;
            return css.AtEnd;
        }
        catch (CssFaultException)
        {
            return false;
        }
    }

    /// <summary>Reads two, across and down, with a space between; where only one stands, the other is in the middle.</summary>
    public static (CssOffset Across, CssOffset Down) Pair(string? text)
    {
        var (first, second) = Words(text);
        return (TryParse(first, out var across) ? across : Middle, TryParse(second, out var down) ? down : Middle);
    }

    /// <summary>The first two computed values of a list with spaces between; those in brackets are one.</summary>
    public static (string? First, string? Second) Words(string? text)
    {
        var words = new List<string>();
        for (var at = CssScanner.Space(text ?? "", 0); at < text?.Length; at = CssScanner.Space(text, at))
        {
            var from = at;
            while (at < text.Length && !char.IsWhiteSpace(text[at]))
            {
                at = text[at] == '(' ? CssScanner.Closed(text, at) : at + 1;
            }

            words.Add(text[from..at]);
        }

        return (words.ElementAtOrDefault(0), words.ElementAtOrDefault(1));
    }

    private static int? Sign(CssReader css) =>
        css.Took('+') ? 1
        : css.Took('-') ? -1
        : null;

    private static CssOffset Term(CssReader css, int sign)
    {
        var (value, unit) = css.Number();
        return unit switch
        {
            "%" => new(sign * value / 100, 0),
            "" or "px" => new(0, sign * value),
            _ => throw css.Fault(unit),
        };
    }
}
