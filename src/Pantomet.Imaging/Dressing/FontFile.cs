using System.Buffers.Binary;
using System.Text;
using Pantomet.Core.Texts;

namespace Pantomet.Imaging.Dressing;

/// <summary>
/// What a font file says of itself (ISO/IEC 14496-22, Open Font Format): family, weight, the height of its lines and which characters it has.
/// </summary>
public sealed class FontFile
{
    private static readonly string[] Needed = ["cmap", "head", "hhea", "hmtx", "maxp", "name"];

    private readonly (int From, int To)[] _characters;

    private FontFile(string path, string family, int weight, double lineHeight, (int From, int To)[] characters)
    {
        (Path, Family, Weight, LineHeight) = (path, family, weight, lineHeight);
        _characters = characters;
    }

    /// <summary>Where it lies.</summary>
    public string Path { get; }

    /// <summary>The family's name.</summary>
    public string Family { get; }

    /// <summary>100 to 900.</summary>
    public int Weight { get; }

    /// <summary>The height of a line, as a multiple of the letters' size.</summary>
    public double LineHeight { get; }

    /// <summary>True when it has a character.</summary>
    public bool Has(Rune character)
    {
        var (low, high) = (0, _characters.Length - 1);
        while (low <= high)
        {
            var middle = (low + high) / 2;
            var (from, to) = _characters[middle];
            if (character.Value < from)
            {
                high = middle - 1;
            }
            else if (character.Value > to)
            {
                low = middle + 1;
            }
            else
            {
                return true;
            }
        }

        return false;
    }

    /// <summary>
    /// The same font under a family's name of its own. The drawing library finds fonts by that name: without it, of two files that call
    /// themselves alike the one that was drawn with first would be taken for both.
    /// </summary>
    /// <remarks>A copy in the folder for temporary files, with another table of names (ISO/IEC 14496-22, 5.2.7).</remarks>
    /// <exception cref="IOException">The copy cannot be written.</exception>
    internal FontFile Apart()
    {
        var bytes = File.ReadAllBytes(Path);
        var family = $"apart-{SideFiles.NameOf(bytes, "")}";
        var folder = System.IO.Path.Combine(System.IO.Path.GetTempPath(), $"pantomet-fonts-{Environment.UserName}");
        var copy = System.IO.Path.Combine(folder, family + System.IO.Path.GetExtension(Path));
        if (!File.Exists(copy))
        {
            Directory.CreateDirectory(folder);
            var part = $"{copy}.{Guid.NewGuid():N}.part";
            File.WriteAllBytes(part, Named(bytes, family));
            File.Move(part, copy, overwrite: true);
        }

        return new(copy, family, Weight, LineHeight, _characters);
    }

    // Behind everything else, where its entry leads from now on.
    private static byte[] Named(byte[] font, string family)
    {
        var names = NamesOf(family);
        var start = (font.Length + 3) / 4 * 4;
        var named = new byte[start + names.Length];
        font.CopyTo(named, 0);
        names.CopyTo(named, start);
        for (var i = 0; i < Word(font, 4); i++)
        {
            var entry = named.AsSpan(12 + (16 * i), 16);
            if (entry[..4].SequenceEqual("name"u8))
            {
                BinaryPrimitives.WriteUInt32BigEndian(entry[8..], (uint)start);
                BinaryPrimitives.WriteUInt32BigEndian(entry[12..], (uint)names.Length);
            }
        }

        return named;
    }

    // Family, style, full and PostScript name, in Unicode for the Windows platform (3, 1) and English (0x409).
    private static byte[] NamesOf(string family)
    {
        (int Id, string Text)[] names = [(1, family), (2, "Regular"), (4, family), (6, family)];
        var head = 6 + (12 * names.Length);
        List<int> values = [0, names.Length, head];
        var offset = 0;
        foreach (var (id, text) in names)
        {
            values.AddRange([3, 1, 0x409, id, 2 * text.Length, offset]);
            offset += 2 * text.Length;
        }

        var table = new byte[head + offset];
        for (var i = 0; i < values.Count; i++)
        {
            BinaryPrimitives.WriteUInt16BigEndian(table.AsSpan(2 * i), (ushort)values[i]);
        }

        Encoding.BigEndianUnicode.GetBytes(string.Concat(names.Select(name => name.Text)), table.AsSpan(head));
        return table;
    }

    /// <summary>Every character it says it has.</summary>
    internal IEnumerable<Rune> Characters() =>
        _characters
            .SelectMany(range => Enumerable.Range(range.From, Math.Max(0, Math.Min(range.To, 0x10FFFF) - range.From + 1)))
            .Where(Rune.IsValid)
            .Select(one => new Rune(one));

    /// <summary>Reads a file.</summary>
    /// <param name="path">Where it lies.</param>
    /// <param name="font">The font, when it is one.</param>
    /// <param name="fault">Why it is none: a sentence.</param>
    public static bool TryRead(string path, out FontFile? font, out string? fault)
    {
        (font, fault) = (null, null);
        try
        {
            font = Read(path, File.ReadAllBytes(path));
            return true;
        }
        catch (Exception wrong) when (wrong is InvalidDataException or ArgumentOutOfRangeException or OverflowException)
        {
            fault = wrong is InvalidDataException ? wrong.Message : OverlayTexts.TheFontIsDamagedItsTables;
            return false;
        }
        catch (Exception wrong) when (wrong is IOException or UnauthorizedAccessException)
        {
            fault = OverlayTexts.TheFontCannotBeRead;
            return false;
        }
    }

    private static FontFile Read(string path, byte[] bytes)
    {
        if (bytes.Length < 12 || BinaryPrimitives.ReadUInt32BigEndian(bytes) is not (0x00010000 or 0x4F54544F or 0x74727565))
        {
            throw new InvalidDataException(OverlayTexts.ThisIsNotATTFOr);
        }

        var tables = new Dictionary<string, (int Start, int Length)>();
        for (var i = 0; i < Word(bytes, 4); i++)
        {
            var entry = bytes.AsSpan(12 + (16 * i), 16);
            var (start, length) = (
                checked((int)BinaryPrimitives.ReadUInt32BigEndian(entry[8..])),
                checked((int)BinaryPrimitives.ReadUInt32BigEndian(entry[12..]))
            );
            ArgumentOutOfRangeException.ThrowIfGreaterThan((long)start + length, bytes.Length);
            tables[Encoding.ASCII.GetString(entry[..4])] = (start, length);
        }

        if (Needed.FirstOrDefault(table => !tables.ContainsKey(table)) is { } missing)
        {
            throw new InvalidDataException(OverlayTexts.TheFontHasNoTable(missing));
        }

        if (!tables.ContainsKey("glyf") && !tables.ContainsKey("CFF ") && !tables.ContainsKey("CFF2"))
        {
            throw new InvalidDataException(OverlayTexts.TheFontHasNoOutlines);
        }

        ReadOnlySpan<byte> Table(string name) => bytes.AsSpan(tables[name].Start, tables[name].Length);
        var head = Table("head");
        var lines = Table("hhea");
        var square = Word(head, 18);
        if (square is < 16 or > 16_384)
        {
            throw new InvalidDataException(OverlayTexts.TheFontsUnitsPerEmAre);
        }

        var weight = tables.ContainsKey("OS/2") ? Math.Clamp((int)Word(Table("OS/2"), 4), 100, 900) : 400;
        var (above, below) = (BinaryPrimitives.ReadInt16BigEndian(lines[4..]), BinaryPrimitives.ReadInt16BigEndian(lines[6..]));
        return new(path, FamilyIn(Table("name")), weight, (above - below) / (double)square, Characters(Table("cmap")));
    }

    // The typographic family (16) where there is one, else the family (1).
    private static string FamilyIn(ReadOnlySpan<byte> names)
    {
        var (found, best) = ("", -1);
        var texts = Word(names, 4);
        for (var i = 0; i < Word(names, 2); i++)
        {
            var entry = names.Slice(6 + (12 * i), 12);
            var (platform, kind) = (Word(entry, 0), Word(entry, 6));
            var rank =
                (
                    kind == 16 ? 2
                    : kind == 1 ? 0
                    : -10
                ) + (platform == 3 ? 1 : 0);
            if (rank > best && platform is 0 or 1 or 3)
            {
                var text = names.Slice(texts + Word(entry, 10), Word(entry, 8));
                (found, best) = ((platform == 1 ? Encoding.Latin1 : Encoding.BigEndianUnicode).GetString(text).Trim(), rank);
            }
        }

        return found.Length > 0 ? found : throw new InvalidDataException(OverlayTexts.TheFontHasNoName);
    }

    private static (int, int)[] Characters(ReadOnlySpan<byte> map)
    {
        var (offset, best) = (-1, -1);
        for (var i = 0; i < Word(map, 2); i++)
        {
            var entry = map.Slice(4 + (8 * i), 8);
            var start = checked((int)BinaryPrimitives.ReadUInt32BigEndian(entry[4..]));
            var format = Word(map, start);
            var unicode = Word(entry, 0) is 0 or 3 && format is 4 or 12;
            var rank = unicode ? format : -1;
            (offset, best) = rank > best ? (start, rank) : (offset, best);
        }

        return best switch
        {
            12 => Groups(map[offset..]),
            4 => Segments(map[offset..]),
            _ => throw new InvalidDataException(OverlayTexts.TheFontHasNoListOf),
        };
    }

    private static (int, int)[] Groups(ReadOnlySpan<byte> table)
    {
        var count = checked((int)BinaryPrimitives.ReadUInt32BigEndian(table[12..]));
        var groups = new (int, int)[
            count <= table.Length / 12 ? count : throw new InvalidDataException(OverlayTexts.TheFontsListOfCharactersIs)
        ];
        for (var i = 0; i < count; i++)
        {
            var group = table.Slice(16 + (12 * i), 12);
            groups[i] = (
                checked((int)BinaryPrimitives.ReadUInt32BigEndian(group)),
                checked((int)BinaryPrimitives.ReadUInt32BigEndian(group[4..]))
            );
        }

        return groups;
    }

    private static (int, int)[] Segments(ReadOnlySpan<byte> table)
    {
        var count = Word(table, 6) / 2;
        var segments = new (int, int)[count];
        for (var i = 0; i < count; i++)
        {
            segments[i] = (Word(table, 16 + (2 * (count + i))), Word(table, 14 + (2 * i)));
        }

        // The last one only ends the list.
        return [.. segments.Where(segment => segment.Item1 != 0xFFFF)];
    }

    private static ushort Word(ReadOnlySpan<byte> bytes, int at) => BinaryPrimitives.ReadUInt16BigEndian(bytes[at..]);
}
