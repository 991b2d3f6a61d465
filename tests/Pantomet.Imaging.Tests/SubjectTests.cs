using Pantomet.Core.Framing;
using Pantomet.Imaging.Objects;
using Pantomet.Imaging.Reading;

namespace Pantomet.Imaging.Tests;

/// <summary>The networks and what the core makes of them, on open photographs boxed by eye; bench/subjects looks at ninety.</summary>
public class SubjectTests
{
    [Theory]
    [InlineData("free_by_Peter_Nerlich.jpg", SuggestionKind.Object, 0.245, 0.585, 0.645, 0.85)]
    [InlineData("friends_by_Aitzol_Berasategi.jpg", SuggestionKind.Faces, 0.305, 0.235, 0.665, 0.655)]
    [InlineData("Dragonfly_by_Bolly.jpg", SuggestionKind.Object, 0.45, 0.31, 0.79, 0.58)]
    public void What_a_person_would_name_is_found(string name, SuggestionKind kind, double left, double top, double right, double bottom)
    {
        var path = Path.Combine("/usr/share/backgrounds", name);
        var facts = SubjectDetector.Sought(path, PictureReader.ReadWhole(path).Facts!);
        var found = facts.Suggestion!.Value;
        Assert.Equal(kind, found.Kind);
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
    public void Faces_lie_where_they_are_seen()
    {
        var faces = FaceNetwork.Find(SubjectDetector.ThumbOf("/usr/share/backgrounds/friends_by_Aitzol_Berasategi.jpg"));
        Assert.InRange(faces[0].Score, 0.8, 0.9);
        // Drawn by eye, before the network was asked.
        Assert.True(Detection.Overlap(faces[0].Box, Pantomet.Core.Geometry.Frame.Within(0.365, 0.25, 0.48, 0.37)) > 0.7, $"{faces[0].Box}");
    }

    [Theory]
    [InlineData(400, 300)]
    [InlineData(300, 400)]
    [InlineData(640, 60)]
    public void Nobody_and_nothing_is_seen_in_stripes_gradients_and_cloth(int width, int height)
    {
        foreach (
            var texture in new Func<int, int, int>[]
            {
                (x, _) => (x / 12 % 2 * 90) + 80,
                (x, _) => 255 * x / width,
                (x, y) => (int)(130 + (50 * Math.Sin(x / 1.3) * Math.Sin(y / 1.3))),
            }
        )
        {
            var pixels = new byte[width * height * 3];
            for (var i = 0; i < pixels.Length; i++)
            {
                pixels[i] = (byte)texture(i / 3 % width, i / 3 / width);
            }

            var thumb = new Thumb(pixels, width, height, 3);
            var objects = ObjectFinder.Find(thumb, ObjectNetwork.Instance);
            Assert.True(
                SubjectChoice.Of(objects, FaceNetwork.Find(thumb), ThingNetwork.Find(thumb)) is null or { Kind: SuggestionKind.Content },
                $"{objects}"
            );
        }
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
