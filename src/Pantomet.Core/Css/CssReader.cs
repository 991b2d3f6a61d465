using System.Globalization;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Css;

/// <summary>What is wrong in a piece of CSS, on its way out of a nested reading; never leaves this namespace.</summary>
internal sealed class CssFaultException(string message) : Exception(message);

/// <summary>Reads words, numbers and brackets one after the other, as CSS Syntax Level 3 tells them apart.</summary>
internal sealed class CssReader
{
    /// <summary>The longest text that is read.</summary>
    public const int Longest = 2000;

    // Brackets in brackets beyond this are no page's.
    private const int Deepest = 20;

    private readonly string _text;
    private int _at;
    private int _depth;

    public CssReader(string text)
    {
        _text = text;
        if (text.Length > Longest)
        {
            throw new CssFaultException(RuleTexts.AtMostCharactersAreAllowed(Longest));
        }

        SkipSpace();
    }

    public bool AtEnd => _at >= _text.Length;

    /// <summary>True when a space or a comment stood before the next character.</summary>
    public bool AfterSpace { get; private set; }

    public CssFaultException Fault(string message) =>
        new(AtEnd ? RuleTexts.AtTheEnd(message) : RuleTexts.AtCharacter(message, Rest(), _at + 1));

    /// <summary>Takes a character if it stands here.</summary>
    public bool Took(char character)
    {
        if (AtEnd || _text[_at] != character)
        {
            return false;
        }

        _at++;
        SkipSpace();
        return true;
    }

    public void Need(char character, string after)
    {
        if (!Took(character))
        {
            throw Fault(RuleTexts.IsMissing2(character, after));
        }
    }

    /// <summary>True when an opening bracket stands here.</summary>
    public bool AtBracket => !AtEnd && _text[_at] == '(';

    /// <summary>True when a character of comparison stands here.</summary>
    public bool AtComparison => !AtEnd && _text[_at] is '<' or '>' or '=';

    /// <summary>Takes an opening bracket if it stands here; <see cref="Close"/> takes its partner.</summary>
    public bool Opened()
    {
        if (!Took('('))
        {
            return false;
        }

        return ++_depth <= Deepest ? true : throw Fault(RuleTexts.AtMostNestedBracketsAreAllowed(Deepest));
    }

    public void Close()
    {
        _depth--;
        Need(')', "here");
    }

    /// <summary>The word that stands here, in lower case, without taking it; empty when none does.</summary>
    public string Word()
    {
        var end = _at;
        while (end < _text.Length && (char.IsAsciiLetterOrDigit(_text[end]) || _text[end] is '-' or '_'))
        {
            end++;
        }

        return end > _at && char.IsAsciiLetter(_text[_at]) ? _text[_at..end].ToLowerInvariant() : "";
    }

    /// <summary>Takes a word if it stands here.</summary>
    public bool Took(string word)
    {
        if (Word() != word)
        {
            return false;
        }

        _at += word.Length;
        SkipSpace();
        return true;
    }

    /// <summary>True when a number begins here.</summary>
    public bool AtNumber() => CssScanner.IsNumber(_text, _at);

    /// <summary>Takes a number and the unit that stands on it, in lower case; <c>%</c> is a unit here.</summary>
    public (double Value, string Unit) Number()
    {
        if (!AtNumber())
        {
            throw Fault(RuleTexts.ALengthIsNeeded);
        }

        var behind = _at;
        var (digits, unit) = CssScanner.Number(_text, ref behind);
        if (
            !double.TryParse(digits, NumberStyles.Float, CultureInfo.InvariantCulture, out var value)
            || digits.EndsWith('.')
            || Math.Abs(value) > 1e6
        )
        {
            throw Fault(digits.Length > 20 || Math.Abs(value) > 1e6 ? RuleTexts.TheNumberIsOutOfRange : RuleTexts.ThisIsNotANumber);
        }

        _at = behind;
        SkipSpace();
        return (value, unit);
    }

    private string Rest() => _text.Length - _at <= 20 ? _text[_at..] : _text[_at..(_at + 20)] + "...";

    private void SkipSpace()
    {
        var from = _at;
        while (true)
        {
            _at = CssScanner.Space(_text, _at);
            if (_at >= _text.Length || CssScanner.Comment(_text, _at) is not { } end)
            {
                break;
            }

            _at = end < 0 ? throw Fault(RuleTexts.ACommentHasNoEnd) : end;
        }

        AfterSpace = _at > from;
    }
}
