using Pantomet.Core.Likeness;

namespace Pantomet.Core.Tests.Likeness;

public sealed class AlikePicturesTests
{
    private const int Side = PictureSketch.Side;

    private static readonly (double R, double G, double B) Brass = (190, 140, 50);
    private static readonly (double R, double G, double B) Sea = (60, 90, 120);

    [Fact]
    public void A_picture_is_no_way_from_itself()
    {
        var sketch = Thing(16, 16, 6, Brass);
        Assert.Equal(0, sketch.To(sketch), 9);
    }

    [Fact]
    public void The_way_is_as_far_in_both_directions()
    {
        var (one, other) = (Thing(16, 16, 6, Brass), Thing(12, 20, 8, Sea));
        Assert.Equal(one.To(other), other.To(one), 9);
    }

    [Theory]
    [InlineData(2, 0)]
    [InlineData(-1, 2)]
    [InlineData(1, -1)]
    public void A_thing_that_was_moved_a_little_is_alike(int right, int down) =>
        Assert.True(AlikePictures.AreAlike(Thing(16, 16, 6, Brass), Thing(16 + right, 16 + down, 6, Brass)));

    [Theory]
    [InlineData(15, 15, 15)]
    [InlineData(-12, -12, -12)]
    [InlineData(8, 2, -8)]
    public void Another_exposure_and_another_light_are_alike(double r, double g, double b) =>
        Assert.True(AlikePictures.AreAlike(Thing(16, 16, 6, Brass), Thing(16, 16, 6, Brass, light: (r, g, b))));

    [Fact]
    public void Another_thing_in_the_same_place_is_not_alike() =>
        Assert.False(AlikePictures.AreAlike(Thing(16, 16, 6, Brass), Thing(16, 16, 6, Sea)));

    [Fact]
    public void The_same_thing_in_another_place_is_not_alike() =>
        Assert.False(AlikePictures.AreAlike(Thing(10, 16, 6, Brass), Thing(22, 16, 6, Brass)));

    [Fact]
    public void Another_shape_is_not_alike_as_no_frame_fits_both() =>
        Assert.False(AlikePictures.AreAlike(Thing(16, 16, 6, Brass, ratio: 1.5), Thing(16, 16, 6, Brass, ratio: 1)));

    [Fact]
    public void Empty_backdrops_say_nothing_and_are_alike_to_nothing()
    {
        var empty = Thing(16, 16, 0, Brass);
        Assert.Equal(double.PositiveInfinity, empty.To(empty));
        Assert.Empty(AlikePictures.Groups([("one", empty), ("two", empty)]));
    }

    [Fact]
    public void Groups_stand_in_the_order_of_the_pictures_and_each_picture_is_in_one_at_most()
    {
        var groups = AlikePictures.Groups([
            ("barometer", Thing(16, 16, 6, Brass)),
            ("buoy", Thing(10, 20, 5, Sea)),
            ("barometer again", Thing(17, 16, 6, Brass)),
            ("alone", Thing(24, 8, 4, Sea)),
            ("buoy again", Thing(10, 21, 5, Sea)),
            ("barometer once more", Thing(15, 15, 6, Brass)),
        ]);
        Assert.Equal(
            [
                ["barometer", "barometer again", "barometer once more"],
                ["buoy", "buoy again"],
            ],
            groups
        );
    }

    [Fact]
    public void No_chain_of_small_steps_leads_from_one_picture_to_another()
    {
        var walk = Enumerable.Range(0, 9).Select(step => (step, Thing(8 + (2 * step), 16, 5, Brass))).ToList();
        Assert.All(AlikePictures.Groups(walk), group => Assert.True(group[^1] - group[0] < 4));
    }

    [Fact]
    public void A_sketch_of_another_length_is_refused() => Assert.Throws<ArgumentException>(() => PictureSketch.Of(1, new byte[12]));

    // A disc on a backdrop that is lighter above than below.
    private static PictureSketch Thing(
        double x,
        double y,
        double radius,
        (double R, double G, double B) colour,
        (double R, double G, double B) light = default,
        double ratio = 1.5
    )
    {
        var bytes = new byte[PictureSketch.Length];
        for (var i = 0; i < Side * Side; i++)
        {
            var (column, row) = (i % Side, i / Side);
            var inside = Math.Clamp(radius + 0.5 - Math.Sqrt(Math.Pow(column - x, 2) + Math.Pow(row - y, 2)), 0, 1);
            var backdrop = 225 - (row / 8.0);
            bytes[3 * i] = Mixed(colour.R, light.R);
            bytes[(3 * i) + 1] = Mixed(colour.G, light.G);
            bytes[(3 * i) + 2] = Mixed(colour.B, light.B);

            byte Mixed(double thing, double lighter) => (byte)Math.Clamp((inside * thing) + ((1 - inside) * backdrop) + lighter, 0, 255);
        }

        return PictureSketch.Of(ratio, bytes);
    }
}
