using Pantomet.Core.Framing;
using Pantomet.Imaging.Objects;
using Pantomet.Imaging.Reading;

namespace Pantomet.Imaging.Tests;

/// <summary>The network and what the core makes of it, on open photographs boxed by eye; bench/subjects looks at ninety.</summary>
public class SubjectTests
{
    [Theory]
    [InlineData("free_by_Peter_Nerlich.jpg", 0.245, 0.585, 0.645, 0.85)]
    [InlineData("friends_by_Aitzol_Berasategi.jpg", 0.305, 0.235, 0.665, 0.655)]
    [InlineData("Dragonfly_by_Bolly.jpg", 0.45, 0.31, 0.79, 0.58)]
    public void What_a_person_would_name_is_found(string name, double left, double top, double right, double bottom)
    {
        var path = Path.Combine("/usr/share/backgrounds", name);
        var facts = SubjectDetector.Sought(path, PictureReader.ReadWhole(path).Facts!);
        var found = facts.Suggestion!.Value;
        Assert.Equal(SuggestionKind.Object, found.Kind);
        Pantomet.Core.Geometry.Frame.TryCreate(left, top, right, bottom, out var boxed, out _);
        Assert.True(found.Box.Shared(boxed) / boxed.Area > 0.9, $"{found.Box} does not hold {boxed}");
        Assert.True(found.Box.Area < 3 * boxed.Area, $"{found.Box} is far wider than {boxed}");
    }

    [Theory]
    [InlineData("picosdeeuropa_by_Aitzol_Berasategi.jpg")]
    [InlineData("life_by_Aitzol_Berasategi.jpg")]
    public void A_view_without_a_subject_says_where_its_content_lies_and_asks_for_no_look(string name)
    {
        var path = Path.Combine("/usr/share/backgrounds", name);
        var found = SubjectDetector.Sought(path, PictureReader.ReadWhole(path).Facts!).Suggestion!.Value;
        Assert.Equal(SuggestionKind.Content, found.Kind);
        Assert.True(found.NeedsNoReview(found.Box));
    }

    [Fact]
    public void The_network_takes_any_shape_of_picture_and_answers_alike_from_several_threads()
    {
        foreach (var (width, height) in new[] { (480, 30), (30, 480), (64, 64), (480, 317) })
        {
            var pixels = new byte[width * height * 3];
            new Random(3).NextBytes(pixels);
            var thumb = new Thumb(pixels, width, height, 3);
            var maps = Enumerable.Range(0, 3).AsParallel().Select(_ => ObjectNetwork.Instance.Of(thumb)).ToList();
            Assert.All(maps, one => Assert.Equal(3, one.Count));
            Assert.All(maps, one => Assert.Equal(maps[0][2].Values, one[2].Values));
        }
    }
}
