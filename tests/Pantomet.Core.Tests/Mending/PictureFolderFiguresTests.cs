using Pantomet.Core.Mending;

namespace Pantomet.Core.Tests.Mending;

/// <summary>What a folder of pictures comes to.</summary>
public sealed class PictureFolderFiguresTests
{
    [Fact]
    public void Each_picture_is_counted_for_what_it_is()
    {
        SurveyedPicture[] pictures =
        [
            new("a.jpg", 3_000_000, 4000, 3000, "jpeg", true, true, false, false, null),
            new("b.png", 950_000, 800, 600, "jpeg", false, false, true, false, null),
            new("c.webp", 1_000_000, 500, 400, "webp", false, false, false, true, null),
            new("d.jpg", 899_999, 8000, 2000, "jpeg", false, true, false, false, null),
            SurveyedPicture.Unread("e.jpg", 12, "It is cut off."),
        ];
        var told = pictures.Aggregate(new PictureFolderFigures(), (figures, one) => figures.With(one));
        Assert.Equal((5, 5_850_011), (told.Count, told.Bytes));
        Assert.Equal(("a.jpg", 3_000_000), (told.Heaviest, told.HeaviestBytes));
        Assert.Equal(("d.jpg", 8000, 2000), (told.Largest, told.LargestWidth, told.LargestHeight));
        Assert.Equal((1, 2, 4_000_000), (told.Near, told.Over, told.OverBytes));
        Assert.Equal((1, 2, 1, 1, 1), (told.OnSide, told.Located, told.Misnamed, told.Moving, told.Unread));
        Assert.Equal((3, 4_849_999), (told.Mendable, told.MendableBytes));
    }
}
