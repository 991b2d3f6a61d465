using System.Net;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using NetVips;

namespace Pantomet.TestReceivers;

/// <summary>
/// Small places that take files as the places of the demo would: a marketplace, a network, a store, a media library, an object store. They know
/// nothing of the application, listen on this machine alone, and keep what they are given in a folder.
/// </summary>
public static class TestReceiverServer
{
    // More than any of them takes, so that each refuses by itself.
    private const long MostBody = 64_000_000;

    /// <summary>Sets the imaging library up for a process that does nothing else: what its authors do not trust stays shut.</summary>
    public static void Guard()
    {
        NetVips.NetVips.BlockUntrusted = true;
        Cache.Max = 0;
    }

    /// <summary>Puts them together; the caller runs them.</summary>
    /// <param name="folder">Where they keep what they are given; made if missing.</param>
    /// <param name="port">The port; 0 takes a free one.</param>
    public static WebApplication Build(string folder, int port)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.Listen(IPAddress.Loopback, port);
            kestrel.Limits.MaxRequestBodySize = MostBody;
        });
        builder.Services.AddProblemDetails();
        var app = builder.Build();
        app.UseExceptionHandler();
        Market.Map(app, new(Path.Combine(folder, "market")));
        Network.Map(app, new(Path.Combine(folder, "network")));
        Shop.Map(app, new(Path.Combine(folder, "shop")));
        MediaLibrary.Map(app, new(Path.Combine(folder, "media-library")));
        ObjectStore.Map(app, new(Path.Combine(folder, "objects")));
        return app;
    }

    /// <summary>The address at which they listen, once they do: without a slash at its end.</summary>
    public static string AddressOf(WebApplication app)
    {
        ArgumentNullException.ThrowIfNull(app);
        return app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First();
    }

    /// <summary>The one file of a form, in memory; null where the form has none under this name.</summary>
    internal static async Task<(string Name, byte[] Bytes)?> FileOfAsync(HttpRequest request, string field, CancellationToken cancel)
    {
        if (!request.HasFormContentType || (await request.ReadFormAsync(cancel)).Files.GetFile(field) is not { } file)
        {
            return null;
        }

        using var held = new MemoryStream();
        await file.CopyToAsync(held, cancel);
        return (file.FileName, held.ToArray());
    }

    /// <summary>The whole body, in memory.</summary>
    internal static async Task<byte[]> BodyOfAsync(HttpRequest request, CancellationToken cancel)
    {
        using var held = new MemoryStream();
        await request.Body.CopyToAsync(held, cancel);
        return held.ToArray();
    }

    /// <summary>True where a request says by HTTP's basic scheme (RFC 7617) that it comes from a user.</summary>
    internal static bool IsFrom(HttpRequest request, string user, string password) =>
        request.Headers.Authorization.ToString()
        == $"Basic {Convert.ToBase64String(System.Text.Encoding.UTF8.GetBytes($"{user}:{password}"))}";
}
