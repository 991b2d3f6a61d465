using System.Collections.Concurrent;
using System.Security.Cryptography;
using Pantomet.Core.Dressing;
using Pantomet.Core.Facts;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Imaging.Reading;

namespace Pantomet.Imaging.Dressing;

/// <summary>
/// The files that rules name: logos and fonts. Whoever draws knows them by a name made of their content, so that a file under an old name with
/// new content is another file.
/// </summary>
public static class SideFiles
{
    /// <summary>The most that a font's file weighs, in bytes.</summary>
    public const int MostFontBytes = 20_000_000;

    private static readonly ConcurrentDictionary<string, string> Known = new();

    private static readonly ConcurrentDictionary<string, bool> Folders = new();

    /// <summary>Looks for files in a folder from now on, where they lie under the names of their content.</summary>
    public static void Use(string folder) => Folders.TryAdd(folder, true);

    /// <summary>The name that a file's content gives it.</summary>
    /// <param name="content">The content.</param>
    /// <param name="ending">With its dot.</param>
    public static string NameOf(ReadOnlySpan<byte> content, string ending)
    {
        ArgumentNullException.ThrowIfNull(ending);
        return $"{Convert.ToHexStringLower(SHA256.HashData(content))[..32]}{ending.ToLowerInvariant()}";
    }

    /// <summary>Takes a file that lies beside a rules file; a sentence instead when it cannot be used.</summary>
    /// <param name="path">Where it lies.</param>
    /// <param name="name">The name of its content.</param>
    public static string? Take(string path, out string name)
    {
        ArgumentNullException.ThrowIfNull(path);
        name = Path.GetFileName(path);
        byte[] content;
        try
        {
            if (!File.Exists(path))
            {
                return OverlayTexts.ThereIsNoFileBesideThe(name);
            }

            if (new FileInfo(path).Length > MostFontBytes)
            {
                return OverlayTexts.IsTooHeavyForALogo(name);
            }

            content = File.ReadAllBytes(path);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return OverlayTexts.CannotBeOpened(name);
        }

        if (Fault(content, path) is { } wrong)
        {
            return OverlayTexts.CannotBeUsed(name, wrong);
        }

        name = NameOf(content, Path.GetExtension(path));
        Known[name] = Path.GetFullPath(path);
        return null;
    }

    /// <summary>Where a file lies, by the name of its content; null where there is none.</summary>
    public static string? Find(string name) =>
        Known.TryGetValue(name, out var path) ? path
        : SideFile.Fault(name, [.. SideFile.MarkEndings, .. SideFile.FontEndings]) is null
            ? Folders.Keys.Select(folder => Path.Combine(folder, name)).FirstOrDefault(File.Exists)
        : null;

    /// <summary>Why a file cannot be used as what its name says, as a sentence; null where it can.</summary>
    /// <param name="content">Its content.</param>
    /// <param name="path">Where it lies; its ending says what it is.</param>
    public static string? Fault(byte[] content, string path)
    {
        ArgumentNullException.ThrowIfNull(content);
        ArgumentNullException.ThrowIfNull(path);
        var ending = Path.GetExtension(path).ToLowerInvariant();
        if (SideFile.FontEndings.Contains(ending))
        {
            return FontFile.TryRead(path, out _, out var noFont) ? null : noFont;
        }

        if (content.Length > MakersMark.MostBytes)
        {
            return OverlayTexts.ALogoCanWeighAtMost(Core.Figures.Weight(MakersMark.MostBytes));
        }

        if (ending == ".svg")
        {
            using var drawing = new MemoryStream(content);
            if (MarkCheck.Refusal(drawing) is { } refusal)
            {
                return refusal;
            }
        }

        var read = PictureReader.ReadFacts(path);
        return read.Refusal
            ?? (
                read.Facts!.Format == (ending == ".svg" ? PictureFormat.Svg : PictureFormat.Png)
                    ? null
                    : OverlayTexts.TheFileIsNotWhatIts(read.Facts.Format.Label())
            );
    }
}
