using System.Net.Sockets;
using System.Text;
using Pantomet.Application;
using Pantomet.Application.Background;
using Pantomet.Core.Deliveries;
using Pantomet.Core.Texts;
using Renci.SshNet;
using Renci.SshNet.Common;

namespace Pantomet.Deliveries;

/// <summary>
/// A host over SSH's file transfer. Only the host whose key was accepted gets anything; files are written beside their place, looked at, and
/// renamed.
/// </summary>
internal sealed class SftpLine(ReceiverRule rule, string? secret, WorkOptions options) : IReceiverLine
{
    private const int UsualPort = 22;

    private readonly Uri _address = new(rule.Address);
    private readonly HostReach _reach = new(PrivateHosts.Of(options));
    private readonly HashSet<string> _folders = new(StringComparer.Ordinal);
    private SftpClient? _client;
    private string? _seen;

    public async Task<Handed> HandAsync(Outgoing file, CancellationToken cancel)
    {
        try
        {
            var client = await OpenAsync(cancel);
            return await Task.Run(() => Put(client, file), cancel);
        }
        catch (Exception fault) when (TroubleOf(fault, cancel) is var (meaning, sentence))
        {
            await CloseAsync();
            return new(meaning, [sentence]);
        }
    }

    public async Task<ReceiverTrial> TryAsync(CancellationToken cancel)
    {
        try
        {
            var client = await OpenAsync(cancel);
            var root = Root(client);
            return client.Exists(root)
                ? new(true, ReceiverTexts.TheHostAnswersAndAcceptsThis)
                : new(true, ReceiverTexts.TheHostAcceptsThisUserWill(root));
        }
        catch (Exception fault) when (TroubleOf(fault, cancel) is var (_, sentence))
        {
            return new(false, sentence, rule.HostKey == _seen ? null : _seen);
        }
        finally
        {
            await CloseAsync();
        }
    }

    public async ValueTask DisposeAsync() => await CloseAsync();

    private async Task<SftpClient> OpenAsync(CancellationToken cancel)
    {
        if (_client is { IsConnected: true } open)
        {
            return open;
        }

        await CloseAsync();
        var port = _address.Port > 0 ? _address.Port : UsualPort;
        var host = (await _reach.AddressesAsync(_address.Host, port, cancel))[0].ToString();
        var client = new SftpClient(new ConnectionInfo(host, port, rule.User!, Method()) { Timeout = options.LongestAnswer })
        {
            OperationTimeout = options.LongestAnswer,
        };
        client.HostKeyReceived += (_, key) =>
        {
            _seen = $"SHA256:{key.FingerPrintSHA256}";
            key.CanTrust = _seen == rule.HostKey;
        };
        _client = client;
        await client.ConnectAsync(cancel);
        return client;
    }

    // A key in the form that SSH's own tools write, else a password.
    private AuthenticationMethod Method()
    {
        if (secret?.StartsWith("-----BEGIN", StringComparison.Ordinal) != true)
        {
            return new PasswordAuthenticationMethod(rule.User!, secret ?? "");
        }

        using var text = new MemoryStream(Encoding.ASCII.GetBytes(secret));
        return new PrivateKeyAuthenticationMethod(rule.User!, new PrivateKeyFile(text));
    }

    private Handed Put(SftpClient client, Outgoing file)
    {
        var path = $"{Root(client)}/{file.Path}";
        Make(client, path[..path.LastIndexOf('/')]);
        var part = $"{path}.part";
        using (var content = new MemoryStream(file.Bytes, writable: false))
        {
            client.UploadFile(content, part, canOverride: true);
        }

        var there = client.GetAttributes(part).Size;
        if (there != file.Bytes.Length)
        {
            client.DeleteFile(part);
            return Handed.Later(Sizes.Differ(there, file.Bytes.Length));
        }

        // In one step where the host can; else what is there gives way first.
        try
        {
            client.RenameFile(part, path, isPosix: true);
        }
        catch (Exception fault) when (fault is NotSupportedException or SshException)
        {
            if (client.Exists(path))
            {
                client.DeleteFile(path);
            }

            client.RenameFile(part, path);
        }

        return Handed.Accepted();
    }

    private string Root(SftpClient client)
    {
        var path = Uri.UnescapeDataString(_address.AbsolutePath).TrimEnd('/');
        // As other programs write it: "~" is where the user begins.
        return path.Length == 0 || path == "/~" || path.StartsWith("/~/", StringComparison.Ordinal)
            ? $"{client.WorkingDirectory.TrimEnd('/')}{path[Math.Min(2, path.Length)..]}"
            : path;
    }

    private void Make(SftpClient client, string folder)
    {
        if (folder.Length == 0 || !_folders.Add(folder) || client.Exists(folder))
        {
            return;
        }

        Make(client, folder[..Math.Max(0, folder.LastIndexOf('/'))]);
        client.CreateDirectory(folder);
    }

    private async Task CloseAsync()
    {
        if (_client is { } client)
        {
            _client = null;
            _folders.Clear();
            // Saying goodbye may wait for a host that says nothing any more.
            await Task.Run(client.Dispose, CancellationToken.None);
        }
    }

    private (AnswerMeaning Meaning, string Sentence)? TroubleOf(Exception fault, CancellationToken cancel) =>
        cancel.IsCancellationRequested ? null
        : fault is SshConnectionException && _seen is not null && _seen != rule.HostKey
            ? (
                AnswerMeaning.Closed,
                rule.HostKey is null ? ReceiverTexts.TheHostKeyIsNotTrusted(_seen) : ReceiverTexts.TheHostKeyHasChangedThis(_seen)
            )
        : fault is SshAuthenticationException ? (AnswerMeaning.Closed, ReceiverTexts.TheUserPasswordOrKeyIs)
        : fault is SshPassPhraseNullOrEmptyException ? (AnswerMeaning.Closed, ReceiverTexts.TheKeyHasAPassphraseUse)
        : fault is SftpPermissionDeniedException ? (AnswerMeaning.Refused, ReceiverTexts.ThisUserMayNotWriteTo)
        : fault is SshOperationTimeoutException or OperationCanceledException or TimeoutException
            ? (AnswerMeaning.Later, ReceiverTexts.TheReceiverDidNotAnswerIn)
        : fault is SocketException or SshConnectionException ? (AnswerMeaning.Later, ReceiverTexts.TheHostCannotBeReached(fault.Message))
        : fault is IOException && fault.Message == HostReach.IsPrivate ? (AnswerMeaning.Closed, fault.Message)
        : fault is SshException or IOException or ObjectDisposedException or NotSupportedException or InvalidOperationException
            ? (AnswerMeaning.Later, ReceiverTexts.TheTransferFailed(fault.Message))
        : null;
}
