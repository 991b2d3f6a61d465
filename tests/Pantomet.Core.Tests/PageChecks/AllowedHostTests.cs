using Pantomet.Core.PageChecks;

namespace Pantomet.Core.Tests.PageChecks;

/// <summary>A host that a page may read is a name with its ports, and says nothing of other ports.</summary>
public sealed class AllowedHostTests
{
    [Theory]
    [InlineData("shop.example", "http://shop.example/a.jpg", true)]
    [InlineData("shop.example", "https://shop.example/a.jpg", true)]
    [InlineData("SHOP.example", "https://Shop.Example/a.jpg", true)]
    [InlineData("shop.example", "http://shop.example:9200/a.jpg", false)]
    [InlineData("shop.example", "http://shop.example:443/", false)]
    [InlineData("shop.example", "http://other.example/", false)]
    [InlineData("shop.example", "http://shop.example.other.example/", false)]
    [InlineData("shop.example:8080", "http://shop.example:8080/", true)]
    [InlineData("shop.example:8080", "https://shop.example:8080/", true)]
    [InlineData("shop.example:8080", "http://shop.example/", false)]
    [InlineData("https://shop.example", "https://shop.example/", true)]
    [InlineData("https://shop.example", "http://shop.example/", false)]
    [InlineData("https://shop.example:8443", "https://shop.example:8443/", true)]
    [InlineData("https://shop.example:8443", "https://shop.example/", false)]
    [InlineData("127.0.0.1", "http://127.0.0.1:9200/", false)]
    [InlineData("[::1]:3000", "http://[::1]:3000/", true)]
    [InlineData("[::1]", "http://[::1]:3000/", false)]
    [InlineData("shop.example", "ftp://shop.example/", false)]
    public void A_host_allows_its_own_ports_and_no_other(string host, string address, bool allows)
    {
        Assert.True(AllowedHost.TryParse(host, out var parsed));
        Assert.Equal(allows, parsed.Allows(new(address)));
    }

    [Theory]
    [InlineData("")]
    [InlineData("a b")]
    [InlineData("a,b")]
    [InlineData("*.example")]
    [InlineData("ftp://shop.example")]
    [InlineData("http://shop.example/path")]
    [InlineData("user@shop.example")]
    [InlineData("shop.example/path")]
    [InlineData("shop.example:port")]
    [InlineData("shop.example:99999")]
    public void What_is_no_host_is_told_apart(string text) => Assert.False(AllowedHost.TryParse(text, out _));

    [Theory]
    [InlineData("http://shop.example/page", "https://shop.example/", true)]
    [InlineData("http://shop.example/page", "http://shop.example:9200/", false)]
    [InlineData("http://localhost:3000/page", "http://localhost:3000/a.jpg", true)]
    [InlineData("http://localhost:3000/page", "http://localhost/", false)]
    [InlineData("http://localhost:3000/page", "http://localhost:9200/", false)]
    public void The_host_of_an_address_without_a_port_is_that_of_the_webs_two(string page, string address, bool allows) =>
        Assert.Equal(allows, AllowedHost.Of(new(page)).Allows(new(address)));

    [Theory]
    [InlineData("shop.example", 80, true)]
    [InlineData("shop.example", 443, true)]
    [InlineData("shop.example", 22, false)]
    [InlineData("shop.example:22", 22, true)]
    [InlineData("[::1]:22", 22, true)]
    public void A_connection_is_allowed_by_its_port(string host, int port, bool allows)
    {
        Assert.True(AllowedHost.TryParse(host, out var parsed));
        Assert.Equal(allows, parsed.IsAt(host.StartsWith('[') ? "::1" : "SHOP.example", port));
    }
}
