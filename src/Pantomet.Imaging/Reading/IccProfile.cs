using System.Buffers.Binary;
using System.Text;
using Pantomet.Core.Texts;

namespace Pantomet.Imaging.Reading;

/// <summary>
/// Reads the name of a colour profile (ICC.1:2022, 7.3 the tag table, 10.15 multiLocalizedUnicodeType; ICC.1:2001-04, 6.5.17
/// textDescriptionType).
/// </summary>
public static class IccProfile
{
    private const int HeaderLength = 128;

    /// <summary>The profile's description, or "unnamed profile".</summary>
    public static string Description(ReadOnlySpan<byte> profile)
    {
        const string unnamed = PictureTexts.UnnamedProfile;
        if (profile.Length < HeaderLength + 4)
        {
            return unnamed;
        }

        var count = BinaryPrimitives.ReadUInt32BigEndian(profile[HeaderLength..]);
        for (var i = 0; i < Math.Min(count, 100); i++)
        {
            var at = HeaderLength + 4 + (i * 12);
            if (at + 12 > profile.Length)
            {
                break;
            }

            if (!profile[at..(at + 4)].SequenceEqual("desc"u8))
            {
                continue;
            }

            var offset = BinaryPrimitives.ReadUInt32BigEndian(profile[(at + 4)..]);
            var size = BinaryPrimitives.ReadUInt32BigEndian(profile[(at + 8)..]);
            return (ulong)offset + size <= (ulong)profile.Length && size >= 16
                ? Text(profile.Slice((int)offset, (int)size)) is { Length: > 0 } text
                    ? text
                    : unnamed
                : unnamed;
        }

        return unnamed;
    }

    private static string Text(ReadOnlySpan<byte> tag)
    {
        if (tag.StartsWith("desc"u8))
        {
            var length = BinaryPrimitives.ReadUInt32BigEndian(tag[8..]);
            return length <= tag.Length - 12 ? Clean(Encoding.ASCII.GetString(tag.Slice(12, (int)length))) : "";
        }

        return tag.StartsWith("mluc"u8) && tag.Length >= 28 ? Localised(tag) : "";
    }

    // The English record where there is one, else the first.
    private static string Localised(ReadOnlySpan<byte> tag)
    {
        const int head = 16;
        const int record = 12;
        var count = (int)Math.Min(BinaryPrimitives.ReadUInt32BigEndian(tag[8..]), (uint)((tag.Length - head) / record));
        var chosen = head;
        for (var i = 0; i < count; i++)
        {
            if (tag.Slice(head + (i * record), 2).SequenceEqual("en"u8))
            {
                chosen = head + (i * record);
                break;
            }
        }

        var length = BinaryPrimitives.ReadUInt32BigEndian(tag[(chosen + 4)..]);
        var offset = BinaryPrimitives.ReadUInt32BigEndian(tag[(chosen + 8)..]);
        return (ulong)offset + length <= (ulong)tag.Length
            ? Clean(Encoding.BigEndianUnicode.GetString(tag.Slice((int)offset, (int)length)))
            : "";
    }

    private static string Clean(string text) => new([.. text.Where(letter => !char.IsControl(letter)).Take(100)]);
}
