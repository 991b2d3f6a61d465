namespace Pantomet.Application.Sites;

/// <summary>The copy of a site: what is written into it is whole, and what an earlier run put there leaves when nothing wants it.</summary>
internal sealed class SiteCopy(SiteFolder site, string output)
{
    /// <summary>Takes a file over as it is.</summary>
    /// <param name="path">From the site's root.</param>
    /// <returns>True when it was not there yet.</returns>
    public bool Take(string path)
    {
        var (from, to) = (new FileInfo(site.At(path)), new FileInfo(Path.Combine(output, path)));
        if (to.Exists && to.Length == from.Length && to.LastWriteTimeUtc == from.LastWriteTimeUtc)
        {
            return false;
        }

        WriteWhole(to.FullName, part => File.Copy(from.FullName, part, overwrite: true));
        return true;
    }

    /// <summary>Writes a page, unless it stands there already.</summary>
    /// <param name="path">From the site's root.</param>
    /// <param name="bytes">The page.</param>
    public void Write(string path, byte[] bytes)
    {
        var full = Path.Combine(output, path);
        if (!File.Exists(full) || !File.ReadAllBytes(full).AsSpan().SequenceEqual(bytes))
        {
            WriteWhole(full, part => File.WriteAllBytes(part, bytes));
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
        var root = Path.GetFullPath(output);
        foreach (var path in gone.Select(name => $"{SiteRun.PicturesFolder}/{name}").Concat(copies))
        {
            var full = Path.GetFullPath(Path.Combine(root, path));
            if (full == root || !SiteFolder.IsInside(full, root))
            {
                continue;
            }

            if (File.Exists(full))
            {
                File.Delete(full);
            }

            RemoveIfEmpty(Path.GetDirectoryName(full)!, root);
        }
    }

    private static void RemoveIfEmpty(string folder, string root)
    {
        while (folder != root && (!Directory.Exists(folder) || !Directory.EnumerateFileSystemEntries(folder).Any()))
        {
            if (Directory.Exists(folder))
            {
                Directory.Delete(folder);
            }

            folder = Path.GetDirectoryName(folder)!;
        }
    }

    private static void WriteWhole(string path, Action<string> write)
    {
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        var part = path + ".part";
        write(part);
        File.Move(part, path, overwrite: true);
    }
}
