using System.Text.Json;

namespace Pantomet.Server.Tests;

/// <summary>Steps of tests that send files one by one, and wait for what is done in the background.</summary>
internal static class DeliverySteps
{
    /// <summary>Asks again and again until an answer is as it should be.</summary>
    /// <exception cref="TimeoutException">It is not within a minute and a half.</exception>
    public static async Task<JsonElement> UntilAsync(this ServerFixture server, string address, Func<JsonElement, bool> isIt)
    {
        for (var tries = 0; tries < 900; tries++)
        {
            var now = await server.SendAsync(HttpMethod.Get, address);
            if (isIt(now))
            {
                return now;
            }

            await Task.Delay(100);
        }

        throw new TimeoutException($"{address} did not come to its end.");
    }

    /// <summary>Sends one file of a page or of a folder of pictures.</summary>
    /// <param name="server">The server.</param>
    /// <param name="whose">The address of the page or the folder.</param>
    /// <param name="path">Where it lies within it.</param>
    /// <param name="content">What it holds.</param>
    /// <param name="more">More of the query.</param>
    public static async Task<HttpResponseMessage> PutFileAsync(
        this ServerFixture server,
        string whose,
        string path,
        byte[] content,
        string more = ""
    )
    {
        using var body = new ByteArrayContent(content);
        return await server.Client.PutAsync(new Uri($"{whose}/files?path={Uri.EscapeDataString(path)}{more}", UriKind.Relative), body);
    }

    /// <summary>Sends a page for one narrow screen; it is not started.</summary>
    public static async Task<string> PageAsync(this ServerFixture server, string name, IReadOnlyList<(string Path, byte[] Content)> files)
    {
        var added = await server.SendAsync(
            HttpMethod.Post,
            "/api/page-checks",
            new
            {
                name,
                viewports = new[] { 360 },
                densities = new[] { 1 },
            }
        );
        var id = added.GetProperty("id").GetString()!;
        foreach (var (path, content) in files)
        {
            using var answer = await server.PutFileAsync($"/api/page-checks/{id}", path, content);
            answer.EnsureSuccessStatusCode();
        }

        return id;
    }

    /// <summary>Has a page measured that was sent, and waits for it.</summary>
    public static async Task<JsonElement> MeasuredAsync(this ServerFixture server, string id)
    {
        await server.SendAsync(HttpMethod.Post, $"/api/page-checks/{id}/start");
        return await server.PageEndedAsync(id);
    }

    /// <summary>Waits until a page is not measured any more.</summary>
    public static Task<JsonElement> PageEndedAsync(this ServerFixture server, string id) =>
        server.UntilAsync($"/api/page-checks/{id}", detail => detail.GetProperty("check").GetProperty("state").GetString() != "waiting");
}
