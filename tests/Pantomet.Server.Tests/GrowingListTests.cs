using Pantomet.Application.Background;

namespace Pantomet.Server.Tests;

public sealed class GrowingListTests : IDisposable
{
    private readonly string _path = Path.GetTempFileName();

    public void Dispose() => File.Delete(_path);

    [Fact]
    public void A_list_that_is_begun_anew_and_is_longer_than_before_shows_nothing_of_the_old_one()
    {
        var file = new LineFile<string>(_path);
        var list = file.Growing(isOnlyAdded: false);
        Write(file, "old", "older");
        Assert.Equal(["old", "older"], list.Now());
        Write(file, "new", "newer", "newest");
        Assert.Equal(["new", "newer", "newest"], list.Now());
    }

    [Fact]
    public void What_is_added_is_added_to_what_was_read_and_half_a_line_waits_for_its_end()
    {
        var file = new LineFile<string>(_path);
        Write(file, "one");
        var list = file.Growing(isOnlyAdded: true);
        var before = list.Now();
        File.AppendAllText(_path, "\"two\"\n\"thr");
        Assert.Equal(["one", "two"], list.Now());
        File.AppendAllText(_path, "ee\"\n");
        Assert.Equal(["one", "two", "three"], list.Now());
        Assert.Equal(["one"], before);
    }

    private static void Write(LineFile<string> file, params string[] lines)
    {
        using var writer = file.Begin();
        foreach (var line in lines)
        {
            writer.Add(line);
        }
    }
}
