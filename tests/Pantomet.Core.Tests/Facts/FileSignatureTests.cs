using System.Text;
using Pantomet.Core.Facts;

namespace Pantomet.Core.Tests.Facts;

public class FileSignatureTests
{
    [Theory]
    [InlineData("<!DOCTYPE html><html>", "web page")]
    [InlineData("  \n<html>", "web page")]
    [InlineData("%PDF-1.7", "PDF")]
    [InlineData("PK\u0003\u0004", "ZIP")]
    [InlineData("hello", "not a picture of a known type")]
    [InlineData("", "empty")]
    [InlineData("\0\0\0\u0018ftypmp42\0\0\0\0mp42isom", "video")]
    [InlineData("BM is how this letter begins, and it goes on for a while.", "not a picture of a known type")]
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

    [Theory]
    [InlineData("\0\0\0\u0018ftypheic\0\0\0\0mif1heic", PictureFormat.Heic)]
    [InlineData("\0\0\0\u0018ftypmif1\0\0\0\0mif1heix", PictureFormat.Heic)]
    [InlineData("\0\0\0\u0018ftypmif1\0\0\0\0mif1avif", PictureFormat.Avif)]
    [InlineData("\u00ff\u000a\u00fa\u001f", PictureFormat.Jxl)]
    [InlineData("\0\0\0\u000cJXL \u000d\u000a\u0087\u000a", PictureFormat.Jxl)]
    [InlineData("BM\u0046\0\0\0\0\0\0\0\u0036\0\0\0\u0028\0\0\0\u0002\0\0\0\u0002\0\0\0\u0001\0\u0018\0", PictureFormat.Bmp)]
    public void What_phones_and_old_programs_write_is_known(string content, PictureFormat format) =>
        Assert.Equal(format, FileSignature.Recognise(Encoding.Latin1.GetBytes(content), out _));
}
