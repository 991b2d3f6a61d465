using Pantomet.Core.Css;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Responsive;

/// <summary>
/// Reads lengths in px, em, rem and vw, and <c>calc()</c> of them with + - * / (CSS Values and Units Level 4, 6 and 10). An em is 16 px: in
/// media conditions and in <c>sizes</c> it is the browser's own, whatever the page's style says.
/// </summary>
internal static class LengthReader
{
    private const double Em = 16;

    /// <summary>A length.</summary>
    public static ViewportLength Length(CssReader css)
    {
        if (css.Took("calc"))
        {
            var sum = Bracketed(css);
            return sum.IsNumber ? throw css.Fault(RuleTexts.CalcGivesANumberHereA) : sum.Length;
        }

        if (css.Word() is { Length: > 0 } word)
        {
            throw css.Fault(RuleTexts.IsNotASupportedLengthUse(word));
        }

        var plain = Plain(css);
        return plain is { IsNumber: true, Length.Pixels: not 0 } ? throw css.Fault(RuleTexts.ALengthNeedsItsUnit) : plain.Length;
    }

    private static Value Bracketed(CssReader css)
    {
        if (!css.Opened())
        {
            throw css.Fault(RuleTexts.IsMissing);
        }

        var sum = Sum(css);
        css.Close();
        return sum;
    }

    private static Value Sum(CssReader css)
    {
        var sum = Product(css);
        while (true)
        {
            var before = css.AfterSpace;
            var sign =
                css.Took('+') ? 1
                : css.Took('-') ? -1
                : 0;
            if (sign == 0)
            {
                return sum;
            }

            if (!before || !css.AfterSpace)
            {
                throw css.Fault(RuleTexts.AndNeedASpaceOnBoth);
            }

            var next = Product(css);
            if (next.IsNumber != sum.IsNumber)
            {
                throw css.Fault(RuleTexts.ANumberAndALengthCannot);
            }

            sum = new(
                new(sum.Length.Pixels + (sign * next.Length.Pixels), sum.Length.PerViewport + (sign * next.Length.PerViewport)),
                sum.IsNumber
            );
        }
    }

    private static Value Product(CssReader css)
    {
        var product = One(css);
        while (true)
        {
            if (css.Took('*'))
            {
                var next = One(css);
                product =
                    next.IsNumber ? product.Times(next.Length.Pixels)
                    : product.IsNumber ? next.Times(product.Length.Pixels)
                    : throw css.Fault(RuleTexts.ALengthCannotBeMultipliedBy);
            }
            else if (css.Took('/'))
            {
                var next = One(css);
                product =
                    !next.IsNumber ? throw css.Fault(RuleTexts.ALengthCannotBeDividedBy)
                    : next.Length.Pixels == 0 ? throw css.Fault(RuleTexts.NothingCanBeDividedBy)
                    : product.Times(1 / next.Length.Pixels);
            }
            else
            {
                return product;
            }
        }
    }

    private static Value One(CssReader css) =>
        css.Took("calc") ? Bracketed(css)
        : css.AtNumber() ? Plain(css)
        : css.Opened() ? Closed(css)
        : throw css.Fault(RuleTexts.ALengthOrANumberIs);

    private static Value Closed(CssReader css)
    {
        var sum = Sum(css);
        css.Close();
        return sum;
    }

    private static Value Plain(CssReader css)
    {
        var (value, unit) = css.Number();
        return unit switch
        {
            "" => new(new(value, 0), true),
            "px" => new(new(value, 0), false),
            "em" or "rem" => new(new(value * Em, 0), false),
            "vw" => new(new(0, value / 100), false),
            "%" => throw css.Fault(RuleTexts.PercentagesAreNotAllowedInSizes),
            _ => throw css.Fault(RuleTexts.IsNotASupportedUnitUse(unit)),
        };
    }

    private readonly record struct Value(ViewportLength Length, bool IsNumber)
    {
        public Value Times(double factor) => this with { Length = new(Length.Pixels * factor, Length.PerViewport * factor) };
    }
}
