using Pantomet.Application.Live;
using Pantomet.Core.Facts;

namespace Pantomet.Server.Tests;

/// <summary>Which types of pictures a program says it can show.</summary>
public class AcceptedTypesTests
{
    [Theory]
    [InlineData("image/avif,image/webp,image/apng,*/*;q=0.8", true, true)]
    [InlineData("image/webp", true, false)]
    [InlineData(" IMAGE/WEBP ; q=0.1 , text/html", true, false)]
    [InlineData("image/avif;q=0, image/webp;q=0.0, */*", false, false)]
    [InlineData("image/*", false, false)]
    [InlineData("*/*", false, false)]
    [InlineData("image/webpx;;;,,q=", false, false)]
    [InlineData("", false, false)]
    [InlineData(null, false, false)]
    public void Only_what_is_accepted_by_its_name_goes_beyond_what_every_program_shows(string? header, bool webp, bool avif)
    {
        var accepted = AcceptedTypes.Of(header);
        Assert.Equal((webp, avif), (accepted.Takes(PictureFormat.WebP, only: false), accepted.Takes(PictureFormat.Avif, only: false)));
        Assert.True(accepted.Takes(PictureFormat.Jpeg, only: false));
        Assert.True(accepted.Takes(PictureFormat.Avif, only: true));
    }
}
