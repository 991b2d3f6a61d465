using System.Net;
using System.Text;
using System.Text.Json;

namespace Pantomet.Server.Tests;

/// <summary>Every address of the description of the interface, asked with values that nobody would ask with: a sentence, and never a fault of ours.</summary>
public sealed class OddRequestTests(ServerFixture server) : IClassFixture<ServerFixture>
{
    private static readonly string[] Odd =
    [
        "",
        "%00",
        "..%2f..%2fetc%2fpasswd",
        "%F0%9F%92%A9",
        "-1",
        "99999999999999999999",
        "NaN",
        "1e400",
        "00000000-0000-0000-0000-000000000000",
        "a%2Fb",
        "%EF%BF%BD",
        "%C3%28",
        "x%20%27%22%3C%3E%7C",
        new('y', 3000),
    ];

    private static readonly string?[] Bodies =
    [
        null,
        "",
        "null",
        "[]",
        "{}",
        "\"x\"",
        "[null]",
        "[{}]",
        "NaN",
        "{\"commands\":[null]}",
        "{\"name\":null,\"pictures\":[\"00000000-0000-0000-0000-000000000000\"]}",
        "[{\"picture\":\"x\",\"slot\":\"y\"}]",
        new string('[', 200),
    ];

    [Fact]
    public async Task Each_of_them_answers_with_a_sentence()
    {
        var api = await server.SendAsync(HttpMethod.Get, "/openapi/v1.json");
        var asked = 0;
        List<string> broken = [];
        foreach (var path in api.GetProperty("paths").EnumerateObject())
        {
            foreach (
                var operation in path.Value.EnumerateObject().Where(one => one.Name is "get" or "put" or "post" or "delete" or "patch")
            )
            {
                // What begins something that goes on for long, or lets everything go, is not begun here.
                if (path.Name is "/api/jobs/{id}/events" or "/api/jobs/events")
                {
                    continue;
                }

                foreach (var (address, body) in Calls(path.Name, operation))
                {
                    asked++;
                    if (await FaultAsync(new(operation.Name.ToUpperInvariant()), address, body) is { } fault)
                    {
                        broken.Add($"{operation.Name} {(address.Length > 160 ? address[..160] : address)} {body}: {fault}");
                    }
                }
            }
        }

        foreach (
            var address in (string[])
                ["/live", "/live/", "/live//", "/live/%00", "/live/a/b/c?w=NaN", "/api", "/api/", "/openapi", "/healthz/x"]
        )
        {
            if (await FaultAsync(HttpMethod.Get, address, null) is { } fault)
            {
                broken.Add($"{address}: {fault}");
            }
        }

        Assert.True(asked > 1_000, $"only {asked} were asked");
        Assert.True(broken.Count == 0, string.Join('\n', broken));
        Assert.DoesNotContain(server.Log.Lines, line => line.StartsWith("Error", StringComparison.Ordinal));
    }

    private static IEnumerable<(string Address, string? Body)> Calls(string path, JsonProperty operation)
    {
        var queries = operation.Value.TryGetProperty("parameters", out var all)
            ? all.EnumerateArray()
                .Where(one => one.GetProperty("in").GetString() == "query")
                .Select(one => one.GetProperty("name").GetString()!)
                .ToList()
            : [];
        var hasBody = operation.Value.TryGetProperty("requestBody", out _);
        foreach (var odd in Odd)
        {
            var query = queries.Count == 0 ? "" : "?" + string.Join('&', queries.Select(name => $"{name}={odd}"));
            yield return (Filled(path, odd) + query, hasBody ? "{}" : null);
        }

        if (hasBody)
        {
            foreach (var body in Bodies)
            {
                yield return (Filled(path, Guid.NewGuid().ToString()), body);
            }
        }
    }

    private static bool IsNoRequest(string address) => address.Contains("%00", StringComparison.Ordinal) || address.Length > 8_000;

    private static string Filled(string path, string value) =>
        System.Text.RegularExpressions.Regex.Replace(path, @"\{[^}]+\}", value.Replace("$", "$$", StringComparison.Ordinal));

    private async Task<string?> FaultAsync(HttpMethod method, string address, string? body)
    {
        using var request = new HttpRequestMessage(method, new Uri(server.Client.BaseAddress + address.TrimStart('/')));
        if (body is not null)
        {
            request.Content = new StringContent(body, Encoding.UTF8, "application/json");
        }

        using var answer = await server.Client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        if (answer.IsSuccessStatusCode || answer.StatusCode is HttpStatusCode.NotModified)
        {
            return null;
        }

        var text = await answer.Content.ReadAsStringAsync();
        return (int)answer.StatusCode >= 500 && answer.StatusCode != HttpStatusCode.NotImplemented ? $"{(int)answer.StatusCode} {text}"
            // What is no request by the standard is refused before anybody of ours could say anything.
            : text.Length == 0 && answer.StatusCode != HttpStatusCode.MethodNotAllowed && !IsNoRequest(address)
                ? $"{(int)answer.StatusCode} without a word"
            : null;
    }
}
