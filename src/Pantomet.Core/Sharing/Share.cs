using System.Buffers.Binary;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Pantomet.Core.Naming;

namespace Pantomet.Core.Sharing;

/// <summary>
/// One share of a batch that several machines work on: which pictures are its own follows from their names alone, so that no share has to
/// know of another. All shares together have every picture once.
/// </summary>
/// <param name="Number">Which share, from 1.</param>
/// <param name="Of">How many there are, 1 to 100 000.</param>
public sealed record Share(int Number, int Of)
{
    private const int Most = 100_000;

    /// <summary>Reads a share such as <c>3/8</c>.</summary>
    public static bool TryParse(string? text, out Share? share)
    {
        share = null;
        if (
            text?.Split('/') is [var first, var second]
            && int.TryParse(first, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            && int.TryParse(second, NumberStyles.None, CultureInfo.InvariantCulture, out var of)
            && of is >= 1 and <= Most
            && number >= 1
            && number <= of
        )
        {
            share = new(number, of);
        }

        return share is not null;
    }

    /// <summary>True when what has this key is of this share.</summary>
    public bool Has(string key) =>
        BinaryPrimitives.ReadUInt64BigEndian(SHA256.HashData(Encoding.UTF8.GetBytes(key))) % (ulong)Of == (ulong)(Number - 1);

    /// <summary>
    /// The key of a picture by the words of its name. Pictures whose names could be told apart by a number only have one key: they are of one
    /// share, and get the same numbers there as if all were made at once.
    /// </summary>
    /// <param name="words">The words of its name.</param>
    public static string KeyOf(string words)
    {
        var slug = Slug.From(words);
        while (slug.LastIndexOf('-') is var at and > 0 && slug.AsSpan(at + 1).ContainsOnlyDigits())
        {
            slug = slug[..at];
        }

        return slug;
    }

    /// <summary>As it is written: <c>3/8</c>.</summary>
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"{Number}/{Of}");
}

/// <summary>Short forms for spans of characters.</summary>
internal static class Spans
{
    /// <summary>True for one digit and more, and nothing else.</summary>
    public static bool ContainsOnlyDigits(this ReadOnlySpan<char> text) => text.Length > 0 && !text.ContainsAnyExceptInRange('0', '9');
}
