using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Planning;

public class TypeChooserTests
{
    private static readonly SlotType Jpeg = new(PictureFormat.Jpeg);
    private static readonly SlotType WebP = new(PictureFormat.WebP);
    private static readonly SlotType Avif = new(PictureFormat.Avif);

    [Fact]
    public void Named_types_stand_in_their_order_each_once() =>
        Assert.Equal([PictureFormat.Avif, PictureFormat.Jpeg], TypeChooser.Resolve(With(Avif, Jpeg, Avif), transparent: true));

    [Fact]
    public void By_content_alone_every_type_that_is_written_comes_into_question() =>
        Assert.Equal(
            [PictureFormat.Jpeg, PictureFormat.Png, PictureFormat.WebP, PictureFormat.Avif],
            TypeChooser.Resolve(With(SlotType.Auto), transparent: false)
        );

    [Fact]
    public void By_content_among_named_types_no_other_comes_into_question() =>
        Assert.Equal([PictureFormat.WebP, PictureFormat.Jpeg], TypeChooser.Resolve(With(SlotType.Auto, WebP, Jpeg), transparent: false));

    [Fact]
    public void By_content_what_shows_through_goes_on_showing_through_where_a_type_can()
    {
        Assert.DoesNotContain(PictureFormat.Jpeg, TypeChooser.Resolve(With(SlotType.Auto), transparent: true));
        Assert.Equal([PictureFormat.WebP], TypeChooser.Resolve(With(Jpeg, SlotType.Auto, WebP), transparent: true));
        Assert.Equal([PictureFormat.Jpeg], TypeChooser.Resolve(With(Jpeg, SlotType.Auto), transparent: true));
    }

    [Fact]
    public void Where_each_named_type_is_made_there_is_nothing_left_to_choose()
    {
        Assert.False((With(Jpeg, SlotType.Auto) with { Each = true }).ByContent);
        Assert.True((With(SlotType.Auto) with { Each = true }).ByContent);
    }

    private static Slot With(params SlotType[] types) =>
        new()
        {
            Key = "place",
            Name = "Place",
            Size = new SizeRule.SideAlone(Side.Width, 600),
            Types = types,
        };
}
