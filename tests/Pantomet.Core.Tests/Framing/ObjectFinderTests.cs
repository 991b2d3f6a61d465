using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.Tests.Framing;

/// <summary>What a network says is made up here: what the core makes of it is looked at.</summary>
public class ObjectFinderTests
{
    private const int Width = 240;
    private const int Height = 160;

    private static readonly (byte Red, byte Green, byte Blue) Grass = (60, 120, 50);
    private static readonly (byte Red, byte Green, byte Blue) Fox = (200, 90, 30);

    [Fact]
    public void The_box_lies_tight_around_what_the_network_answers_to_however_coarse_its_cells_are()
    {
        var there = Box(0.3, 0.25, 0.62, 0.7);
        var found = ObjectFinder.Find(Picture(there), Network(there))!.Value;
        Assert.Equal(SuggestionKind.Object, found.Kind);
        Assert.True(found.Confidence >= Suggestion.Sure, $"{found.Confidence}");
        Assert.True(found.Strongest is { } heart && heart.Shared(found.Box) > 0.9 * heart.Area);
        AssertNear(there, found.Box, 0.04);
    }

    [Fact]
    public void Two_alike_are_one_box_and_the_stronger_is_named()
    {
        var (left, right) = (Box(0.1, 0.3, 0.3, 0.7), Box(0.7, 0.25, 0.92, 0.75));
        var found = ObjectFinder.Find(Picture(left, right), Network(left, right))!.Value;
        AssertNear(left.With(right), found.Box, 0.05);
        AssertNear(right, found.Strongest!.Value, 0.08);
    }

    [Fact]
    public void Where_it_answers_everywhere_alike_there_is_no_subject()
    {
        Assert.Null(ObjectFinder.Find(Picture(), new Answers((_, _, _) => 1)));
        // A texture: answers strewn over all of the picture.
        Assert.Null(ObjectFinder.Find(Picture(), new Answers((channel, x, y) => ((7 * x) + (13 * y) + channel) % 5 == 0 ? 1 : 0)));
    }

    [Fact]
    public void What_has_the_colours_of_all_around_it_is_texture_whatever_the_network_answers()
    {
        var there = Box(0.3, 0.25, 0.62, 0.7);
        Thumb Patterned(Func<int, bool> isFox) =>
            new(
                [.. Enumerable.Range(0, Width * Height).SelectMany(i => isFox(i) ? (byte[])[200, 90, 30] : [60, 120, 50])],
                Width,
                Height,
                3
            );
        var cloth = Patterned(i => (i % Width + (i / Width)) % 8 < 4);
        Assert.Equal(SuggestionKind.Content, ObjectFinder.Find(cloth, Network(there))!.Value.Kind);
        var patch = Patterned(i => there.Holds((i % Width + 0.5) / Width, (i / Width + 0.5) / Height) && (i % Width + (i / Width)) % 8 < 4);
        Assert.Equal(SuggestionKind.Object, ObjectFinder.Find(patch, Network(there))!.Value.Kind);
    }

    [Fact]
    public void What_is_turned_around_is_found_turned_around()
    {
        var there = Box(0.55, 0.4, 0.85, 0.9);
        var mirrored = Box(1 - there.Right, there.Top, 1 - there.Left, there.Bottom);
        var (one, other) = (ObjectFinder.Find(Picture(there), Network(there)), ObjectFinder.Find(Picture(mirrored), Network(mirrored)));
        AssertNear(Box(1 - one!.Value.Box.Right, one.Value.Box.Top, 1 - one.Value.Box.Left, one.Value.Box.Bottom), other!.Value.Box, 1e-6);
        Assert.Equal(one.Value.Confidence, other.Value.Confidence, 6);
    }

    private static void AssertNear(Frame expected, Frame actual, double slack)
    {
        var off = new[]
        {
            expected.Left - actual.Left,
            expected.Top - actual.Top,
            expected.Right - actual.Right,
            expected.Bottom - actual.Bottom,
        };
        Assert.True(off.All(edge => Math.Abs(edge) <= slack), $"{actual} is not {expected}");
    }

    private static Frame Box(double left, double top, double right, double bottom) =>
        Frame.TryCreate(left, top, right, bottom, out var frame, out var error) ? frame : throw new ArgumentException(error);

    private static Thumb Picture(params Frame[] subjects)
    {
        var pixels = new byte[Width * Height * 3];
        for (var i = 0; i < Width * Height; i++)
        {
            var at = ((i % Width + 0.5) / Width, (i / Width + 0.5) / Height);
            var (red, green, blue) = subjects.Any(box => box.Holds(at.Item1, at.Item2)) ? Fox : Grass;
            (pixels[3 * i], pixels[(3 * i) + 1], pixels[(3 * i) + 2]) = (red, green, blue);
        }

        return new(pixels, Width, Height, 3);
    }

    // Two features for what is there, two for what lies behind it.
    private static Answers Network(params Frame[] subjects) =>
        new((channel, x, y) => subjects.Any(box => box.Holds(x, y)) == (channel < 2) ? 1 + (0.1 * channel) : 0);

    private sealed class Answers(Func<int, double, double, double> answer) : IObjectMaps
    {
        public IReadOnlyList<ObjectMap> Of(Thumb picture) => [Layer(24, 16), Layer(12, 8), Layer(12, 8)];

        private ObjectMap Layer(int width, int height)
        {
            var values = new float[4 * width * height];
            for (var i = 0; i < values.Length; i++)
            {
                var (channel, x, y) = (i / (width * height), i % width, i / width % height);
                values[i] = (float)answer(channel, (x + 0.5) / width, (y + 0.5) / height);
            }

            return new(values, 4, width, height);
        }
    }
}
