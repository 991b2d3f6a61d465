using System.Text;
using Pantomet.Core.Facts;

namespace Pantomet.Core.Tests.Facts;

public class FileSignatureTests
{
    [Theory]
    [InlineData("<!DOCTYPE html><html>", "web page")]
    [InlineData("  \n<html>", "web page")]
    [InlineData("%PDF-1.7", "PDF")]
    [InlineData("PK\u0003\u0004", "zip")]
    [InlineData("hello", "no picture of a known type")]
    [InlineData("", "empty")]
    [InlineData("\0\0\0\u0018ftypheic\0\0\0\0mif1heic", "HEIC")]
    [InlineData("\0\0\0\u0018ftypmp42\0\0\0\0mp42isom", "film")]
    public void What_is_no_picture_is_named(string content, string says)
    {
        Assert.Null(FileSignature.Recognise(Encoding.Latin1.GetBytes(content), out var reason));
        Assert.Contains(says, reason!, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("\u00ff\u00d8\u00ff\u00e0", PictureFormat.Jpeg)]
    [InlineData("\u0089PNG\r\n\u001a\n", PictureFormat.Png)]
    [InlineData("GIF89a", PictureFormat.Gif)]
    [InlineData("RIFF\0\0\0\0WEBP", PictureFormat.WebP)]
    [InlineData("II*\0", PictureFormat.Tiff)]
    [InlineData("\0\0\0\u0018ftypavif\0\0\0\0mif1avif", PictureFormat.Avif)]
    [InlineData("<?xml version=\"1.0\"?>\n<svg xmlns=", PictureFormat.Svg)]
    public void The_type_is_told_by_content(string content, PictureFormat format) =>
        Assert.Equal(format, FileSignature.Recognise(Encoding.Latin1.GetBytes(content), out _));

    [Theory]
    [InlineData("a.jpg", PictureFormat.Png, true)]
    [InlineData("a.JPEG", PictureFormat.Jpeg, false)]
    [InlineData("a", PictureFormat.Jpeg, false)]
    [InlineData("storm.vane", PictureFormat.Jpeg, false)]
    public void A_misleading_ending_is_noticed(string name, PictureFormat format, bool misnamed) =>
        Assert.Equal(misnamed, PictureFormats.IsMisnamed(name, format));
}
