using System.Net;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Accounts;

namespace Pantomet.Server.Tests;

/// <summary>A server to which people sign in.</summary>
public class AccountFixture : ServerFixture
{
    /// <summary>A password that the rules take.</summary>
    public const string Password = "four plain words here";

    protected override ServerOptions Adjusted(ServerOptions options) =>
        options with
        {
            Accounts = true,
            Limits = new() { SignIns = 10_000 },
        };

    /// <summary>A browser of its own: it keeps its cookies, and nobody else has them.</summary>
    public HttpClient Browser()
    {
        var client = new HttpClient(new SocketsHttpHandler { AllowAutoRedirect = false }) { BaseAddress = Client.BaseAddress };
        client.DefaultRequestHeaders.Add("Origin", Client.BaseAddress!.GetLeftPart(UriPartial.Authority));
        return client;
    }

    /// <summary>A program that sends a token.</summary>
    public HttpClient Program(string token)
    {
        var program = new HttpClient { BaseAddress = Client.BaseAddress };
        program.DefaultRequestHeaders.Authorization = new("Bearer", token);
        return program;
    }

    /// <summary>A secret that makes an owner.</summary>
    public string OwnerSecret() => Services.GetRequiredService<FirstOwner>().Make();

    /// <summary>Somebody who has signed in, in a browser of their own.</summary>
    public async Task<HttpClient> SignedInAsync(string name, string role)
    {
        var browser = Browser();
        string secret;
        if (role == "owner")
        {
            secret = OwnerSecret();
        }
        else
        {
            using var owner = await SignedInAsync($"{name}-owner", "owner");
            var link = await JsonAsync(owner, HttpMethod.Post, "/api/people/invitations", new { name, role });
            secret = link.GetProperty("address").GetString()!.Split('#')[1];
        }

        await JsonAsync(
            browser,
            HttpMethod.Post,
            "/api/accounts",
            new
            {
                secret,
                signInName = name,
                name = $"{name} of the shop",
                password = Password,
            }
        );
        return browser;
    }

    /// <summary>Sends JSON and gives the JSON that comes back; a refusal fails the test.</summary>
    public static async Task<JsonElement> JsonAsync(HttpClient client, HttpMethod method, string address, object? body = null)
    {
        using var request = RequestOf(method, address, body);
        using var answer = await client.SendAsync(request);
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, $"{method} {address}: {(int)answer.StatusCode} {text}");
        return text.Length == 0 ? default : JsonDocument.Parse(text).RootElement;
    }

    /// <summary>The status of an answer and the code of its problem.</summary>
    public static async Task<(HttpStatusCode Status, string? Code)> RefusedAsync(
        HttpClient client,
        HttpMethod method,
        string address,
        object? body = null
    )
    {
        using var request = RequestOf(method, address, body);
        return await RefusedAsync(client, request);
    }

    /// <summary>The same of a request that is put together already.</summary>
    public static async Task<(HttpStatusCode Status, string? Code)> RefusedAsync(HttpClient client, HttpRequestMessage request)
    {
        using var answer = await client.SendAsync(request);
        var text = await answer.Content.ReadAsStringAsync();
        return (
            answer.StatusCode,
            text.StartsWith('{') && JsonDocument.Parse(text).RootElement.TryGetProperty("code", out var code) ? code.GetString() : null
        );
    }

    /// <summary>What an app for the second step shows now (RFC 6238: HMAC-SHA-1, 30 s, 6 digits).</summary>
    public static string CodeOf(string key, DateTimeOffset at)
    {
        var counter = BitConverter.GetBytes(at.ToUnixTimeSeconds() / 30);
        Array.Reverse(counter);
#pragma warning disable CA5350 // The standard of the second step names this hash.
        var hash = HMACSHA1.HashData(FromBase32(key), counter);
#pragma warning restore CA5350
        var place = hash[^1] & 0xf;
        var number = ((hash[place] & 0x7f) << 24) | (hash[place + 1] << 16) | (hash[place + 2] << 8) | hash[place + 3];
        return (number % 1_000_000).ToString("D6", System.Globalization.CultureInfo.InvariantCulture);
    }

    private static byte[] FromBase32(string text)
    {
        var (bytes, buffer, bits) = (new List<byte>(), 0, 0);
        foreach (var letter in text)
        {
            buffer = (buffer << 5) | "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567".IndexOf(letter, StringComparison.Ordinal);
            bits += 5;
            if (bits >= 8)
            {
                bits -= 8;
                bytes.Add((byte)(buffer >> bits));
            }
        }

        return [.. bytes];
    }

    private static HttpRequestMessage RequestOf(HttpMethod method, string address, object? body) =>
        new(method, address) { Content = body is null ? null : JsonContent.Create(body) };
}

/// <summary>Short forms to read answers.</summary>
internal static class Answers
{
    /// <summary>A member of an answer as text.</summary>
    public static string Text(this JsonElement answer, string member) => answer.GetProperty(member).GetString()!;
}
