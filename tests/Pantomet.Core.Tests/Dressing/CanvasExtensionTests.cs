using Pantomet.Core.Dressing;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Dressing;

public sealed class CanvasExtensionTests
{
    [Fact]
    public void An_extended_frame_holds_the_box_in_its_clear_area_and_leaves_the_picture_no_farther_than_it_must()
    {
        var random = new Random(21);
        var extended = 0;
        for (var i = 0; i < 2000; i++)
        {
            var picture = new PixelSize(random.Next(200, 4000), random.Next(200, 4000));
            Assert.True(Ratio.TryParse($"{random.Next(1, 40)}:{random.Next(1, 40)}", out var shape, out _));
            var keep = Some(random, 0.1);
            var clear = random.Next(2) == 0 ? Frame.Whole : Some(random, 0.3);
            var subject = Subject.Of([keep], null, null);
            var found = FrameSolver.Solve(picture, shape, subject: subject, clear: clear, extend: true);
            Assert.True(found.Cut.IsNone && found.Covered.IsNone, $"{keep} in {clear} of {picture}: {found}");
            Assert.Equal(shape.Value, found.Region.Width / found.Region.Height, 1e-6);
            var inside = FrameSolver.Solve(picture, shape, subject: subject, clear: clear);
            if (inside.Cut.IsNone && inside.Covered.IsNone)
            {
                Assert.False(found.Extended);
                Assert.Equal(inside.Region, found.Region);
                continue;
            }

            extended++;
            // Any smaller one would not hold the box.
            var (box, part) = (keep.In(picture), found.Region.Part(clear));
            Assert.True(Math.Min(part.Width - box.Width, part.Height - box.Height) < 1e-6 * picture.LongSide);
        }

        Assert.True(extended > 300);
    }

    [Fact]
    public void A_plan_says_where_the_picture_lies_and_nothing_is_squashed()
    {
        var random = new Random(22);
        for (var i = 0; i < 500; i++)
        {
            var picture = new PixelSize(random.Next(500, 4000), random.Next(500, 4000));
            var slot = new Slot
            {
                Key = "a",
                Name = "a",
                Size = new SizeRule.Exact(new(random.Next(50, 400), random.Next(50, 400))),
                Extend = true,
            };
            var subject = Subject.Of([Some(random, 0.6)], null, null);
            var plan = VariantPlanner.Plan(picture, slot, Density.One, subject: subject);
            if (plan.Place is not { } place)
            {
                continue;
            }

            Assert.Equal(plan.Content, place.Size);
            Assert.True(place.Left >= 0 && place.Top >= 0 && place.Right <= plan.Size.Width && place.Bottom <= plan.Size.Height);
            Assert.True(
                plan.Crop.Left >= 0 && plan.Crop.Top >= 0 && plan.Crop.Right <= picture.Width && plan.Crop.Bottom <= picture.Height
            );
            var (across, down) = ((double)plan.Crop.Width / place.Width, (double)plan.Crop.Height / place.Height);
            Assert.True(Math.Abs((place.Width * across / down) - place.Width) < 1.5, $"{plan.Crop} to {place}");
        }
    }

    [Fact]
    public void An_even_edge_goes_on_in_its_colour_and_another_is_said_to_be_blurred()
    {
        var (even, loud) = (new byte[40 * 20 * 3], new byte[40 * 20 * 3]);
        Array.Fill(even, (byte)200);
        new Random(3).NextBytes(loud);
        var place = new Crop(10, 5, 50, 25);
        var (values, sides) = CanvasExtension.Extend(new(even, 40, 20, 3), place, new(60, 30));
        Assert.All(values, value => Assert.Equal(200, value));
        Assert.Equal(
            [
                new(EdgePlace.Left, 10, new Rgb(200, 200, 200)),
                new(EdgePlace.Right, 10, new Rgb(200, 200, 200)),
                new(EdgePlace.Top, 5, new Rgb(200, 200, 200)),
                new(EdgePlace.Bottom, 5, new Rgb(200, 200, 200)),
            ],
            sides
        );
        (values, sides) = CanvasExtension.Extend(new(loud, 40, 20, 3), new(10, 0, 50, 20), new(50, 20));
        Assert.Equal([new(EdgePlace.Left, 10, null)], sides);
        // The picture itself is as it was.
        for (var row = 0; row < 20; row++)
        {
            Assert.Equal(loud[(row * 120)..((row + 1) * 120)], values[(((row * 50) + 10) * 3)..((row + 1) * 150)]);
        }
    }

    private static Frame Some(Random random, double least)
    {
        var (width, height) = (least + (random.NextDouble() * (0.98 - least)), least + (random.NextDouble() * (0.98 - least)));
        var (left, top) = (random.NextDouble() * (1 - width), random.NextDouble() * (1 - height));
        return Frame.TryCreate(left, top, left + width, top + height, out var frame, out var error)
            ? frame
            : throw new ArgumentException(error);
    }
}
