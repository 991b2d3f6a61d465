using System.Runtime.Versioning;
using Pantomet.Platform;

namespace Pantomet.Server.Tests;

/// <summary>A folder that is held stays the same, whatever takes its path, and nothing is reached through a link or waited for at a pipe.</summary>
[UnsupportedOSPlatform("windows")]
public sealed class FolderHandleTests : IDisposable
{
    private readonly string _root = Directory.CreateTempSubdirectory("pantomet-test-").FullName;

    public void Dispose() => Directory.Delete(_root, recursive: true);

    [Fact]
    public void A_link_that_takes_the_place_of_a_part_of_the_path_is_not_followed()
    {
        Write("inside/deep/a.txt", "ours");
        Write("outside/a.txt", "theirs");
        using var held = FolderHandle.Open(At("inside"));
        Directory.Move(At("inside/deep"), At("inside/aside"));
        Directory.CreateSymbolicLink(At("inside/deep"), At("outside"));
        Assert.Throws<LinkedPathException>(() => held.OpenFile("deep/a.txt"));
        Assert.Throws<LinkedPathException>(() => held.Place("deep/b.txt", create: true));
        Assert.Equal(["aside/a.txt"], held.Files());

        Directory.Move(At("inside"), At("elsewhere"));
        Directory.CreateSymbolicLink(At("inside"), At("outside"));
        Assert.Throws<LinkedPathException>(() => FolderHandle.Open(At("inside")));
        using (var file = held.OpenFile("aside/a.txt"))
        {
            Assert.Equal("ours"u8, file.ReadAll());
        }

        Assert.Equal("theirs", File.ReadAllText(At("outside/a.txt")));
    }

    [Fact]
    public void A_folder_that_was_moved_away_is_known_not_to_lie_there_any_more()
    {
        Write("inside/deep/a.txt", "ours");
        using var held = FolderHandle.Open(At("inside"));
        using var place = held.Place("deep/a.txt");
        place.MustBeStillThere();
        Directory.Move(At("inside/deep"), At("moved"));
        Assert.Throws<LinkedPathException>(place.MustBeStillThere);
        Directory.CreateDirectory(At("inside/deep"));
        Assert.Throws<LinkedPathException>(place.MustBeStillThere);
    }

    [Fact]
    public void Only_regular_files_are_opened_and_nothing_is_waited_for()
    {
        using (var made = System.Diagnostics.Process.Start("mkfifo", At("pipe.jpg")))
        {
            made.WaitForExit();
        }

        File.CreateSymbolicLink(At("link.jpg"), "/etc/hostname");
        using var held = FolderHandle.Open(_root);
        Assert.Contains(
            "not a regular file",
            Assert.Throws<NotRegularException>(() => held.OpenFile("pipe.jpg")).Message,
            StringComparison.Ordinal
        );
        Assert.Throws<LinkedPathException>(() => held.OpenFile("link.jpg"));
        Assert.Throws<NotRegularException>(() => RegularFile.Open(At("pipe.jpg")));
        Assert.Throws<FileNotFoundException>(() => held.OpenFile("nothing.jpg"));
        Assert.Throws<IOException>(() => held.OpenFile("../x"));
        // Who names a path by hand means what it leads to.
        using var named = RegularFile.Open(At("link.jpg"));
        Assert.Equal(File.ReadAllBytes("/etc/hostname"), named.ReadAll());
    }

    [Fact]
    public void A_file_that_is_held_stays_the_same_when_another_takes_its_name()
    {
        Write("a.txt", "first");
        using var held = FolderHandle.Open(_root);
        using var file = held.OpenFile("a.txt");
        File.Delete(At("a.txt"));
        Write("a.txt", "second");
        Assert.Equal("first", File.ReadAllText(file.Path));
        using var now = held.OpenFile("a.txt");
        Assert.NotEqual(file.Facts.Identity, now.Facts.Identity);
    }

    [Fact]
    public void What_links_lead_to_is_found_through_several_and_without_end()
    {
        Write("real/a.txt", "a");
        Directory.CreateSymbolicLink(At("one"), At("real"));
        Directory.CreateSymbolicLink(At("two"), "one");
        Directory.CreateSymbolicLink(At("round"), At("round"));
        Assert.Equal(At("real/a.txt"), RealPath.Of(At("two/a.txt")));
        Assert.Equal(At("real/not-yet"), RealPath.Of(At("two/not-yet")));
        Assert.StartsWith(_root, RealPath.Of(At("round")), StringComparison.Ordinal);
        using var held = FolderHandle.OpenNamed(At("two"));
        Assert.Equal(["a.txt"], held.Files());
    }

    [Fact]
    public void Half_files_of_processes_that_ended_are_swept_and_those_of_others_stay()
    {
        Write("deep/a.jpg.999999999-0123456789abcdef0123456789abcdef.part", "half");
        var mine = PartFile.For(At("deep/b.jpg"));
        File.WriteAllText(mine, "under way");
        Write("deep/c.part", "somebody's");
        using var held = FolderHandle.Open(_root);
        PartFile.Sweep(held);
        Assert.Equal(["deep/" + Path.GetFileName(mine), "deep/c.part"], held.Files().Order(StringComparer.Ordinal));
    }

    private string At(string path) => Path.Combine(_root, path);

    private void Write(string path, string text)
    {
        Directory.CreateDirectory(Path.GetDirectoryName(At(path))!);
        File.WriteAllText(At(path), text);
    }
}
