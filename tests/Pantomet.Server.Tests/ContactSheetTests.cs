using System.Net;
using AngleSharp.Html.Parser;

namespace Pantomet.Server.Tests;

public sealed class ContactSheetTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>
{
    private const string Square = "website/grid-square";

    [Fact]
    public async Task It_shows_every_file_with_its_figures_and_names_what_is_missing()
    {
        var pictures = new[] { await server.PictureAsync("barometer-from-chat.jpg"), await server.PictureAsync("DSC_0452.JPG") };
        var id = await server.JobAsync(pictures, [Square, "shop/listing"], name: "Yes <or> no");
        await server.MadeAsync(id);
        using var answer = await server.Client.GetAsync(Sheet(id));
        Assert.Equal("yes-or-no-contact-sheet.html", answer.Content.Headers.ContentDisposition?.FileName);
        var page = new HtmlParser().ParseDocument(await answer.Content.ReadAsStringAsync());
        Assert.Equal("Yes <or> no", page.QuerySelector("h1")!.TextContent);
        Assert.Equal(2, page.QuerySelectorAll("main > section").Length);
        var figures = page.QuerySelectorAll("figure");
        Assert.All(
            figures,
            figure => Assert.StartsWith("data:image/", figure.QuerySelector("img")!.GetAttribute("src")!, StringComparison.Ordinal)
        );
        Assert.Contains(figures, figure => figure.TextContent.Contains("300 × 300 px", StringComparison.Ordinal));
        Assert.Contains(figures, figure => figure.QuerySelector(".meets") is not null);
        // Nothing is asked of any other place, and nothing runs.
        Assert.Empty(page.QuerySelectorAll("script, link, [src]:not([src^='data:']), [href]:not([href^='#'])"));
        var missing = page.QuerySelector("#missing")!.TextContent;
        Assert.Contains("barometer from chat in Marketplace", missing, StringComparison.Ordinal);
        Assert.Contains("It has no alternative text.", missing, StringComparison.Ordinal);
    }

    [Fact]
    public async Task It_shows_chosen_pictures_alone()
    {
        var chosen = await server.PictureAsync("DSC_0412.JPG");
        var id = await server.JobAsync([chosen, await server.PictureAsync("DSC_0415.JPG")], [Square]);
        await server.MadeAsync(id);
        var page = new HtmlParser().ParseDocument(await server.Client.GetStringAsync(Sheet(id, $"?picture={chosen}")));
        Assert.Single(page.QuerySelectorAll("main > section"));
        var both = new HtmlParser().ParseDocument(await server.Client.GetStringAsync(Sheet(id)));
        Assert.Equal(2, both.QuerySelectorAll("main > section").Length);
    }

    [Fact]
    public async Task A_job_without_files_has_a_sheet_that_says_so_and_no_job_has_none()
    {
        var id = await server.JobAsync([], [Square]);
        var page = new HtmlParser().ParseDocument(await server.Client.GetStringAsync(Sheet(id)));
        Assert.Contains("0 files", page.QuerySelector("header")!.TextContent, StringComparison.Ordinal);
        using var none = await server.Client.GetAsync(Sheet(Guid.Empty));
        Assert.Equal(HttpStatusCode.NotFound, none.StatusCode);
    }

    private static Uri Sheet(object id, string query = "") => new($"/api/jobs/{id}/contact-sheet.html{query}", UriKind.Relative);
}
