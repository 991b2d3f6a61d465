using Pantomet.Core.Css;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Responsive;

/// <summary>One part of <c>sizes</c>: how wide the picture is shown where this part is the one that counts.</summary>
/// <param name="Holds">The viewports for which it counts: its condition holds and none before it does.</param>
/// <param name="Width">How wide the picture is shown.</param>
public sealed record SizesPart(ViewportRanges Holds, ViewportLength Width);

/// <summary>
/// How wide a picture is shown at every viewport, as the <c>sizes</c> attribute says it (HTML Living Standard, 4.8.4.2.2): conditions with a
/// width each, the last without a condition.
/// </summary>
/// <param name="Text">As written.</param>
/// <param name="Parts">Its parts; together they hold every viewport once.</param>
public sealed record Sizes(string Text, IReadOnlyList<SizesPart> Parts)
{
    private const int MostParts = 30;

    /// <summary>Reads a <c>sizes</c> attribute, or says in a sentence what is wrong.</summary>
    /// <param name="text">What was written.</param>
    /// <param name="sizes">What was read.</param>
    /// <param name="error">What is wrong, without a full stop.</param>
    public static bool TryParse(string text, out Sizes? sizes, out string? error)
    {
        ArgumentNullException.ThrowIfNull(text);
        (sizes, error) = (null, null);
        try
        {
            sizes = new(text.Trim(), Read(new CssReader(text)));
            return true;
        }
        catch (CssFaultException fault)
        {
            error = fault.Message;
            return false;
        }
    }

    /// <summary>How wide the picture is shown at a viewport, in CSS pixels.</summary>
    /// <param name="viewport">The width of the viewport, 0 to <see cref="ViewportRanges.Widest"/>.</param>
    public double WidthAt(int viewport) => Parts.First(part => part.Holds.Contains(viewport)).Width.At(viewport);

    private static List<SizesPart> Read(CssReader css)
    {
        var parts = new List<SizesPart>();
        var left = ViewportRanges.All;
        while (true)
        {
            if (css.Word() == "auto")
            {
                throw css.Fault(RuleTexts.AutoIsNotSupportedOnlyThe);
            }

            if (!css.AtBracket && css.Word() != "not")
            {
                parts.Add(new(left, LengthReader.Length(css)));
                return css.AtEnd ? parts : throw css.Fault(RuleTexts.AWidthWithoutAConditionMust);
            }

            var holds = MediaCondition.Condition(css, mayOr: true);
            if (holds.IsEmpty)
            {
                throw css.Fault(RuleTexts.TheConditionBeforeThisWidthIs);
            }

            var mine = left.And(holds);
            if (mine.IsEmpty)
            {
                throw css.Fault(RuleTexts.ThisWidthIsNeverUsedThe);
            }

            parts.Add(new(mine, LengthReader.Length(css)));
            left = left.And(holds.Not());
            if (!css.Took(','))
            {
                throw css.Fault(RuleTexts.TheLastWidthMustHaveNo);
            }

            if (parts.Count == MostParts)
            {
                throw css.Fault(RuleTexts.AtMostWidthsAreAllowed(MostParts));
            }
        }
    }
}
