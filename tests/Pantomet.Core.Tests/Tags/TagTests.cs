using System.Text;
using Pantomet.Core.Tags;

namespace Pantomet.Core.Tests.Tags;

public class TagTests
{
    private const string Packet = """
        <?xpacket begin="" id="W5M0MpCehiHzreSzNTczkc9d"?>
        <x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
          <rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:exif="http://ns.adobe.com/exif/1.0/"
          xmlns:photoshop="http://ns.adobe.com/photoshop/1.0/"
            exif:GPSLongitude="2,30.0E" photoshop:City="Harbour">
            <exif:GPSLatitude>1,30.0N</exif:GPSLatitude>
            <dc:creator><rdf:Seq><rdf:li>Ada Skerry</rdf:li></rdf:Seq></dc:creator>
            <dc:rights><rdf:Alt><rdf:li xml:lang="x-default">© Skerry</rdf:li></rdf:Alt></dc:rights>
          </rdf:Description></rdf:RDF></x:xmpmeta>
        <?xpacket end="w"?>
        """;

    [Fact]
    public void The_owners_lines_are_found_in_a_packet() =>
        Assert.Equal(("© Skerry", "Ada Skerry"), XmpPacket.Lines(Encoding.UTF8.GetBytes(Packet)));

    [Fact]
    public void A_packet_loses_its_places_and_nothing_else()
    {
        var text = Encoding.UTF8.GetString(XmpPacket.WithoutPlaces(Encoding.UTF8.GetBytes(Packet))!);
        Assert.DoesNotContain("GPS", text, StringComparison.Ordinal);
        Assert.DoesNotContain("Harbour", text, StringComparison.Ordinal);
        Assert.Contains("Ada Skerry", text, StringComparison.Ordinal);
        Assert.StartsWith("<?xpacket", text, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("")]
    [InlineData("<x:xmpmeta>")]
    [InlineData("<!DOCTYPE a [<!ENTITY b SYSTEM 'file:///etc/passwd'>]><a>&b;</a>")]
    public void A_packet_that_cannot_be_trusted_is_dropped(string packet)
    {
        Assert.Null(XmpPacket.WithoutPlaces(Encoding.UTF8.GetBytes(packet)));
        Assert.Equal((null, null), XmpPacket.Lines(Encoding.UTF8.GetBytes(packet)));
    }

    [Fact]
    public void An_agencys_block_loses_its_places_and_can_be_read_again()
    {
        byte[] iim = [.. Dataset(80, "Ada"), .. Dataset(90, "Harbour"), .. Dataset(116, "Skerry"), .. Dataset(101, "Nowhere")];
        var kept = IptcBlock.WithoutPlaces(iim)!;
        Assert.Equal(
            ("Ada", "Skerry", null, null),
            (IptcBlock.Text(kept, 80), IptcBlock.Text(kept, 116), IptcBlock.Text(kept, 90), IptcBlock.Text(kept, 101))
        );
        Assert.Equal(kept, IptcBlock.WithoutPlaces(kept));
        Assert.Equal(0, kept.Length % 2);
    }

    [Fact]
    public void A_damaged_block_is_dropped_and_never_read_beyond_its_end()
    {
        byte[] iim = [.. Dataset(80, "Ada"), .. Dataset(116, "Skerry")];
        var whole = IptcBlock.WithoutPlaces(iim)!;
        for (var length = 0; length < whole.Length; length++)
        {
            _ = IptcBlock.Text(whole.AsSpan(0, length), 116);
            _ = IptcBlock.WithoutPlaces(whole.AsSpan(0, length));
        }

        Assert.Null(IptcBlock.WithoutPlaces([.. IptcBlock.Identifier, .. "rubbish that is long enough"u8]));
        Assert.Null(IptcBlock.WithoutPlaces([]));
    }

    private static byte[] Dataset(byte number, string text) => [0x1C, 2, number, 0, (byte)text.Length, .. Encoding.UTF8.GetBytes(text)];
}
