using Pantomet.Application.Background;
using Pantomet.Platform;

namespace Pantomet.Batch.Sites;

/// <summary>The copy of a site: what is written into it is whole, and what an earlier run put there leaves when nothing wants it.</summary>
/// <param name="site">The site.</param>
/// <param name="output">The folder of the copy, held.</param>
internal sealed class SiteCopy(SiteFolder site, FolderHandle output)
{
    /// <summary>Takes a file over as it is.</summary>
    /// <param name="path">From the site's root.</param>
    /// <returns>True when it was not there yet.</returns>
    /// <exception cref="IOException">It cannot be read or written.</exception>
    public bool Take(string path)
    {
        using var from = site.Open(path);
        using var to = output.Place(path, create: true);
        if (to.Facts() is { IsRegular: true } there && there.Bytes == from.Facts.Bytes && there.Changed == from.Facts.Changed)
        {
            return false;
        }

        WholeFile.Copy(from, to);
        return true;
    }

    /// <summary>Writes a page, unless it stands there already.</summary>
    /// <param name="path">From the site's root.</param>
    /// <param name="bytes">The page.</param>
    public void Write(string path, byte[] bytes)
    {
        using var to = output.Place(path, create: true);
        if (!IsThere(to, bytes))
        {
            WholeFile.Put(to, like: null, part => File.WriteAllBytes(part, bytes));
        }
    }

    /// <summary>Removes what an earlier run put there and nothing wants any more. What this program did not put there stays.</summary>
    /// <param name="before">What was known before the run.</param>
    /// <param name="after">What is known now.</param>
    public void Tidy(SiteState before, SiteState after)
    {
        var named = after.Files.Values.Select(file => file.Name).ToHashSet();
        var gone = before.Files.Values.Select(file => file.Name).Where(name => name is not null && !named.Contains(name));
        var copies = before.Site == after.Site ? before.Copies.Except(after.Copies) : [];
        foreach (var path in gone.Select(name => $"{SiteRun.PicturesFolder}/{name}").Concat(copies))
        {
            Remove(path);
        }
    }

    private void Remove(string path)
    {
        try
        {
            using (var place = output.Place(path))
            {
                if (place.Facts() is { IsFolder: false })
                {
                    File.Delete(place.Path);
                }
            }
        }
        catch (IOException)
        {
            // The list is a file that somebody may have changed, and the copy one's own to change: what it does not lead to is not ours.
        }

        for (var folder = Path.GetDirectoryName(path); !string.IsNullOrEmpty(folder); folder = Path.GetDirectoryName(folder))
        {
            try
            {
                using var place = output.Place(folder);
                if (place.Facts() is { IsFolder: true } && !Directory.EnumerateFileSystemEntries(place.Path).Any())
                {
                    Directory.Delete(place.Path);
                }
            }
            catch (IOException)
            {
                // It is gone already.
            }
        }
    }

    private static bool IsThere(FilePlace place, byte[] bytes)
    {
        if (place.Facts() is not { IsRegular: true } there || there.Bytes != bytes.Length)
        {
            return false;
        }

        using var file = place.Open();
        return file.ReadAll().AsSpan().SequenceEqual(bytes);
    }
}
