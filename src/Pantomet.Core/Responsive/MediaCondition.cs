using Pantomet.Core.Css;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Responsive;

/// <summary>
/// A condition on the width of the viewport, as it stands in <c>media</c> and before the lengths of <c>sizes</c> (Media Queries Level 4, 3):
/// <c>min-width</c>, <c>max-width</c>, ranges of <c>width</c>, joined by <c>and</c>, <c>or</c>, <c>not</c>.
/// </summary>
/// <param name="Text">As written.</param>
/// <param name="Holds">The viewports where it holds.</param>
public sealed record MediaCondition(string Text, ViewportRanges Holds)
{
    /// <summary>Reads the list of conditions of a <c>media</c> attribute, or says in a sentence what is wrong.</summary>
    /// <param name="text">What was written.</param>
    /// <param name="condition">The condition read.</param>
    /// <param name="error">What is wrong, without a full stop.</param>
    public static bool TryParse(string text, out MediaCondition? condition, out string? error)
    {
        ArgumentNullException.ThrowIfNull(text);
        (condition, error) = (null, null);
        try
        {
            var css = new CssReader(text);
            var holds = Query(css);
            while (css.Took(','))
            {
                holds = holds.Or(Query(css));
            }

            if (!css.AtEnd)
            {
                throw css.Fault(RuleTexts.ACommaOrTheEndIs);
            }

            condition = new(text.Trim(), holds);
            return true;
        }
        catch (CssFaultException fault)
        {
            error = fault.Message;
            return false;
        }
    }

    private static ViewportRanges Query(CssReader css)
    {
        _ = css.Took("only");
        if (css.Took("screen") || css.Took("all"))
        {
            return css.Took("and") ? Condition(css, mayOr: false) : ViewportRanges.All;
        }

        return css.Word() is { Length: > 0 } word and not "not"
            ? throw css.Fault(RuleTexts.IsNotAMediaTypeFor(word))
            : Condition(css, mayOr: true);
    }

    /// <summary>A condition, without a list and without a type of medium, as <c>sizes</c> takes it.</summary>
    internal static ViewportRanges Condition(CssReader css, bool mayOr)
    {
        if (css.Took("not"))
        {
            return InBrackets(css).Not();
        }

        var holds = InBrackets(css);
        if (css.Word() == "and")
        {
            while (css.Took("and"))
            {
                holds = holds.And(InBrackets(css));
            }

            return css.Word() == "or" ? throw css.Fault(RuleTexts.UseBracketsToCombineAndAnd) : holds;
        }

        while (mayOr && css.Took("or"))
        {
            holds = holds.Or(InBrackets(css));
        }

        return css.Word() == "and" ? throw css.Fault(RuleTexts.UseBracketsToCombineAndAnd) : holds;
    }

    private static ViewportRanges InBrackets(CssReader css)
    {
        if (!css.Opened())
        {
            throw css.Fault(RuleTexts.WriteAConditionLikeMinWidth);
        }

        var holds = css.Word() == "not" || css.AtBracket ? Condition(css, mayOr: true) : Feature(css);
        css.Close();
        return holds;
    }

    private static ViewportRanges Feature(CssReader css)
    {
        if (css.Took("min-width"))
        {
            css.Need(':', "after min-width");
            return AtLeast(Pixels(css));
        }

        if (css.Took("max-width"))
        {
            css.Need(':', "after max-width");
            return AtMost(Pixels(css));
        }

        if (css.Took("width"))
        {
            if (css.Took(':'))
            {
                var exact = Pixels(css);
                return AtLeast(exact).And(AtMost(exact));
            }

            return Compared(Sign(css), Pixels(css));
        }

        if (css.Word() is { Length: > 0 } word && word != "calc")
        {
            throw css.Fault(RuleTexts.CannotBeCalculatedOnlyConditionsOn(word));
        }

        var first = Pixels(css);
        var sign = Sign(css);
        if (!css.Took("width"))
        {
            throw css.Fault(RuleTexts.WidthIsNeeded);
        }

        // "400px <= width" says of the width what "width >= 400px" says.
        var holds = Compared(Turned(sign), first);
        if (css.AtComparison)
        {
            var next = Sign(css);
            holds =
                next[0] == sign[0] && sign[0] != '='
                    ? holds.And(Compared(next, Pixels(css)))
                    : throw css.Fault(RuleTexts.BothSignsOfARangeMust);
        }

        return holds;
    }

    private static double Pixels(CssReader css)
    {
        var length = LengthReader.Length(css);
        return length.PerViewport != 0 ? throw css.Fault(RuleTexts.AConditionOnTheViewportCannot) : length.Pixels;
    }

    private static string Sign(CssReader css)
    {
        var sign =
            css.Took('<') ? "<"
            : css.Took('>') ? ">"
            : css.Took('=') ? "="
            : throw css.Fault(RuleTexts.OneOfIsNeeded);
        return sign != "=" && css.Took('=') ? sign + "=" : sign;
    }

    private static string Turned(string sign) => sign.Replace('<', '!').Replace('>', '<').Replace('!', '>');

    private static ViewportRanges Compared(string sign, double pixels) =>
        sign switch
        {
            "<" => AtLeast(pixels).Not(),
            "<=" => AtMost(pixels),
            ">" => AtMost(pixels).Not(),
            ">=" => AtLeast(pixels),
            _ => AtLeast(pixels).And(AtMost(pixels)),
        };

    // Viewports are whole pixels, conditions need not be.
    private static ViewportRanges AtLeast(double pixels) =>
        ViewportRanges.Between((int)Math.Ceiling(Math.Min(pixels, ViewportRanges.Widest + 1)), ViewportRanges.Widest);

    private static ViewportRanges AtMost(double pixels) =>
        pixels < 0 ? ViewportRanges.None : ViewportRanges.Between(0, (int)Math.Floor(Math.Min(pixels, ViewportRanges.Widest)));
}
