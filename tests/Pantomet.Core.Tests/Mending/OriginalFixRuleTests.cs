using Pantomet.Core.Facts;
using Pantomet.Core.Mending;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Mending;

public sealed class PutRightRuleTests
{
    private static readonly PictureFacts Photograph = new()
    {
        Size = new(6000, 4000),
        Format = PictureFormat.Jpeg,
        Bytes = 9_000_000,
    };

    private static readonly PictureFacts Mark = Photograph with { Format = PictureFormat.Png, HasAlpha = true };

    private static readonly Rgb White = new(255, 255, 255);

    [Fact]
    public void What_is_upright_small_enough_and_of_its_type_is_left()
    {
        Assert.Equal("The original is already like this.", new OriginalFixRule().Nothing(Photograph));
        Assert.Equal(
            "The original is already like this.",
            new OriginalFixRule
            {
                MaxSide = 6000,
                Format = PictureFormat.Jpeg,
                Background = White,
            }.Nothing(Photograph)
        );
        Assert.Null(new OriginalFixRule().Nothing(Photograph with { Orientation = 6 }));
        Assert.Null(new OriginalFixRule().Nothing(Photograph with { HasLocation = true }));
        Assert.Null(new OriginalFixRule { MaxSide = 3000 }.Nothing(Photograph));
        Assert.Null(new OriginalFixRule { Format = PictureFormat.WebP }.Nothing(Photograph));
        Assert.Null(new OriginalFixRule { Background = White }.Nothing(Mark));
    }

    [Fact]
    public void Drawings_and_what_moves_are_left() =>
        Assert.All(
            (PictureFacts[])[Photograph with { Format = PictureFormat.Svg }, Photograph with { Format = PictureFormat.Gif, Frames = 9 }],
            facts => Assert.NotNull(new OriginalFixRule { MaxSide = 100 }.Nothing(facts))
        );

    [Theory]
    [InlineData(PictureFormat.Heic, false, PictureFormat.Jpeg)]
    [InlineData(PictureFormat.Tiff, true, PictureFormat.Png)]
    [InlineData(PictureFormat.WebP, true, PictureFormat.WebP)]
    public void A_type_that_is_not_written_becomes_one_that_is(PictureFormat format, bool alpha, PictureFormat becomes) =>
        Assert.Equal(becomes, new OriginalFixRule().FormatFor(Photograph with { Format = format, HasAlpha = alpha }));

    [Fact]
    public void On_a_ground_it_becomes_a_jpeg_of_that_ground()
    {
        var slot = new OriginalFixRule { Background = White }.SlotFor(Mark);
        Assert.Equal(PictureFormat.Jpeg, slot.Types[0].Format);
        Assert.Equal(White, slot.Background!.Colour);
        Assert.NotNull(new OriginalFixRule { Background = White, Format = PictureFormat.Png }.Fault());
    }

    /// <summary>The engine gets the rule as a rules file: nothing of it may be lost on the way.</summary>
    [Fact]
    public void The_rule_survives_being_written_and_read()
    {
        var slot = new OriginalFixRule { MaxSide = 2000, Background = White }.SlotFor(Mark);
        Assert.True(RulesReader.TryReadSlot(RulesWriter.Write(slot), out var read, out var fault), fault?.ToString());
        Assert.Equal(
            (slot.Size, slot.Fit, slot.Aims, slot.Background, slot.Profile, slot.Metadata),
            (read!.Size, read.Fit, read.Aims, read.Background, read.Profile, read.Metadata)
        );
        Assert.Equal(slot.Types, read.Types);
    }
}
