using System.CommandLine;
using System.Net;
using System.Net.NetworkInformation;
using System.Net.Sockets;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Accounts;
using Pantomet.Core.Texts;
using Pantomet.Server;

namespace Pantomet.Cli;

/// <summary>What of the call <c>serve</c> is about who may come in: people, TLS, proxies, and the first owner.</summary>
internal sealed class SignInCall
{
    private readonly Option<bool> _accounts = new("--accounts") { Description = AccountTexts.PeopleSignIn };
    private readonly Option<bool> _owner = new("--new-owner") { Description = AccountTexts.AnotherOwner };
    private readonly Option<string?> _certificate = new("--certificate") { Description = AccountTexts.ACertificate, HelpName = "FILE" };
    private readonly Option<string?> _key = new("--certificate-key")
    {
        Description = AccountTexts.TheKeyOfTheCertificate,
        HelpName = "FILE",
    };
    private readonly Option<string[]> _proxies = new("--proxy")
    {
        Description = AccountTexts.AProxy,
        HelpName = "ADDRESS",
        DefaultValueFactory = _ => [],
    };

    /// <summary>The options.</summary>
    public SignInCall() =>
        _proxies.Validators.Add(result =>
        {
            if (result.Tokens.FirstOrDefault(token => NetworkOf(token.Value) is null) is { } none)
            {
                result.AddError(AccountTexts.ProxyTakesAnAddress(none.Value));
            }
        });

    /// <summary>Adds them to a command.</summary>
    public void AddTo(Command command)
    {
        foreach (var option in new Option[] { _accounts, _owner, _certificate, _key, _proxies })
        {
            command.Add(option);
        }
    }

    /// <summary>What a call says of them.</summary>
    public ServerOptions Of(ParseResult call) =>
        new()
        {
            Data = "",
            Accounts = call.GetValue(_accounts),
            Certificate = call.GetValue(_certificate),
            CertificateKey = call.GetValue(_key),
            Proxies = [.. call.GetValue(_proxies)!.Select(one => NetworkOf(one)!.Value)],
        };

    /// <summary>Says how to become the owner where there is none, or where it was asked for; and what is sent in the clear.</summary>
    public async Task TellAsync(ParseResult call, WebApplication app, ServerOptions options)
    {
        if (!options.PeopleSignIn)
        {
            return;
        }

        var has = await app.Services.GetRequiredService<PeopleRegistry>().HasOwnerAsync(CancellationToken.None);
        if (!has || call.GetValue(_owner))
        {
            var address = $"{Reachable(app)}/welcome#{app.Services.GetRequiredService<FirstOwner>().Make()}";
            CallOutput.Out.WriteLine(has ? AccountTexts.OpenToBecomeAnotherOwner(address) : AccountTexts.OpenToBecomeOwner(address));
        }

        if (!options.HasTls && !options.IsLocal && options.Proxies.Count == 0)
        {
            await CallOutput.Error.WriteLineAsync($"pantomet: {AccountTexts.ThePasswordsAreSentInTheClear}");
        }
    }

    private static IPNetwork? NetworkOf(string text) =>
        IPNetwork.TryParse(text, out var network) ? network
        : IPAddress.TryParse(text, out var address) ? new IPNetwork(address, address.AddressFamily == AddressFamily.InterNetwork ? 32 : 128)
        : null;

    // Whoever opens the address may sit at another machine: where the server listens on all addresses, one that others reach is shown.
    private static string Reachable(WebApplication app)
    {
        var address = app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First();
        var uri = new UriBuilder(
            address.Replace("//+:", "//0.0.0.0:", StringComparison.Ordinal).Replace("//*:", "//0.0.0.0:", StringComparison.Ordinal)
        );
        if (!IPAddress.TryParse(uri.Host.Trim('[', ']'), out var host) || !(host.Equals(IPAddress.Any) || host.Equals(IPAddress.IPv6Any)))
        {
            return address;
        }

        var shown = NetworkInterface
            .GetAllNetworkInterfaces()
            .Where(one => one.OperationalStatus == OperationalStatus.Up && one.NetworkInterfaceType != NetworkInterfaceType.Loopback)
            .SelectMany(one => one.GetIPProperties().UnicastAddresses)
            .Select(one => one.Address)
            .FirstOrDefault(one => one.AddressFamily == AddressFamily.InterNetwork);
        uri.Host = (shown ?? IPAddress.Loopback).ToString();
        return uri.Uri.GetLeftPart(UriPartial.Authority);
    }
}
