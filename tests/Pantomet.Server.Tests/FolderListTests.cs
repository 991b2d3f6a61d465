using Pantomet.Batch.Folders;
using Pantomet.Core.Mending;

namespace Pantomet.Server.Tests;

/// <summary>What is known of a folder is asked for once a second, also at the very moment in which it is written.</summary>
public sealed class FolderListTests
{
    [Fact]
    public async Task Figures_and_trials_are_whole_whenever_they_are_read()
    {
        var work = Directory.CreateTempSubdirectory("pantomet-lists-").FullName;
        try
        {
            var lists = new PictureFolderLists(work);
            var figures = new PictureFolderFigures { Count = 12, Heaviest = new string('a', 4000) };
            var trial = new PictureFolderTrial(new(1, true, 1, 1, null, 1), new(), []);
            lists.WriteFigures(figures);
            var writing = Task.Run(() =>
            {
                for (var at = 0; at < 150; at++)
                {
                    lists.WriteFigures(figures);
                    lists.WriteTrial(trial);
                }
            });
            var read = 0;
            while (!writing.IsCompleted)
            {
                Assert.Equal(12, lists.Figures()!.Count);
                Assert.True(lists.Trial() is null or { Pictures.Count: 0 });
                read++;
            }

            await writing;
            Assert.NotEqual(0, read);
        }
        finally
        {
            Directory.Delete(work, recursive: true);
        }
    }
}
