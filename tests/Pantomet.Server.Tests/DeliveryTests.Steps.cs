using System.Text.Json;
using Microsoft.AspNetCore.Builder;
using Pantomet.TestReceivers;

namespace Pantomet.Server.Tests;

/// <summary>The test receivers, and the steps that the tests take.</summary>
public sealed partial class DeliveryTests
{
    private readonly string _folder = Directory.CreateTempSubdirectory("pantomet-receivers-").FullName;
    private WebApplication? _receivers;
    private string _address = "";

    public async Task InitializeAsync()
    {
        _receivers = TestReceiverServer.Build(_folder, port: 0);
        await _receivers.StartAsync();
        _address = TestReceiverServer.AddressOf(_receivers);
    }

    public async Task DisposeAsync()
    {
        await _receivers!.DisposeAsync();
        Directory.Delete(_folder, recursive: true);
        foreach (var receiver in (await server.SendAsync(HttpMethod.Get, "/api/receivers")).EnumerateArray())
        {
            await server.SendAsync(HttpMethod.Delete, $"/api/receivers/{receiver.GetProperty("id").GetString()}");
        }
    }

    private async Task<(string Job, List<string> Pictures)> MadeJobAsync(string[] names, params string[] slots)
    {
        var (job, pictures) = await server.FreshJobAsync(names, slots);
        await server.CommandAsync(
            job,
            new
            {
                @do = "name-job",
                name = "Handed over",
                prefix = "",
                numbered = true,
            }
        );
        await server.MadeAsync(job);
        return (job, pictures);
    }

    private async Task<string> ReceiverAsync(string way, string address, object more, string? secret = null)
    {
        var rule = JsonSerializer.SerializeToNode(more)!.AsObject();
        rule["name"] = $"A {way}";
        rule["way"] = way;
        rule["address"] = way == "folder" || address.StartsWith("http", StringComparison.Ordinal) ? address : _address + address;
        return (await server.SendAsync(HttpMethod.Post, "/api/receivers", new { rule, secret })).GetProperty("id").GetString()!;
    }

    private Task<JsonElement> ChangeAsync(string id, string address) =>
        server.SendAsync(
            HttpMethod.Put,
            $"/api/receivers/{id}",
            new
            {
                rule = new
                {
                    name = "Changed",
                    way = "form",
                    address,
                },
            }
        );

    private async Task<JsonElement> SentAsync(string job, string receiver)
    {
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{job}/deliveries/{receiver}");
        return await UntilAsync(job, receiver, view => view.GetProperty("state").GetString() != "waiting");
    }

    private async Task<JsonElement> UntilAsync(string job, string receiver, Func<JsonElement, bool> isIt) =>
        Of(await server.UntilAsync($"/api/jobs/{job}/deliveries", all => isIt(Of(all, receiver))), receiver);

    private async Task<JsonElement> ViewAsync(string job, string receiver) =>
        Of(await server.SendAsync(HttpMethod.Get, $"/api/jobs/{job}/deliveries"), receiver);

    private async Task<List<JsonElement>> SaidAsync(string job, string slot) =>
        [
            .. (await server.SendAsync(HttpMethod.Get, $"/api/jobs/{job}/deliveries/said"))
                .EnumerateArray()
                .Where(one => one.GetProperty("slot").GetString() == slot),
        ];

    private static JsonElement Of(JsonElement all, string receiver) =>
        all.EnumerateArray().Single(view => view.GetProperty("receiver").GetProperty("id").GetString() == receiver);

    private static List<JsonElement> Files(JsonElement sent) => [.. sent.GetProperty("files").EnumerateArray()];

    private static JsonElement File(JsonElement sent, string ending) =>
        Files(sent).Single(file => file.GetProperty("path").GetString()!.EndsWith(ending, StringComparison.Ordinal));

    private static List<string> Said(JsonElement file) => [.. file.GetProperty("said").EnumerateArray().Select(one => one.GetString()!)];

    private List<(string, DateTime)> Times() =>
        [
            .. Directory
                .GetFiles(Path.Combine(_folder, "shop"), "*", SearchOption.AllDirectories)
                .Order(StringComparer.Ordinal)
                .Select(path => (path, System.IO.File.GetLastWriteTimeUtc(path))),
        ];
}
