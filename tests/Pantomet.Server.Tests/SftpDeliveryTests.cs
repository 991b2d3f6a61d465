using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Sockets;
using Pantomet.Application;
using Pantomet.Core.Deliveries;
using Pantomet.Deliveries;

namespace Pantomet.Server.Tests;

/// <summary>Files handed to a host over SSH's file transfer: Debian's own server, with a key made for the test.</summary>
public sealed class SftpDeliveryTests : IAsyncLifetime
{
    private readonly string _folder = Directory.CreateTempSubdirectory("pantomet-sftp-").FullName;
    private readonly WorkOptions _options = new() { Data = "", LongestAnswer = TimeSpan.FromSeconds(10) };
    private Process? _host;
    private int _port;

    public async Task InitializeAsync()
    {
        using (var free = new TcpListener(IPAddress.Loopback, 0))
        {
            free.Start();
            _port = ((IPEndPoint)free.LocalEndpoint).Port;
        }

        Run("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", At("host"));
        Run("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", At("user"));
        File.Copy(At("user.pub"), At("authorized"));
        await File.WriteAllTextAsync(
            At("config"),
            $"""
            Port {_port}
            ListenAddress 127.0.0.1
            HostKey {At("host")}
            AuthorizedKeysFile {At("authorized")}
            PidFile none
            StrictModes no
            UsePAM no
            PasswordAuthentication no
            Subsystem sftp internal-sftp
            """
        );
        // Where it splits off what it does for strangers it wants this folder, which the system makes when it starts it itself.
        if (Environment.IsPrivilegedProcess)
        {
            Directory.CreateDirectory("/run/sshd");
        }

        _host = Process.Start(new ProcessStartInfo("/usr/sbin/sshd", ["-D", "-e", "-f", At("config")]) { RedirectStandardError = true })!;
        await _host.StandardError.ReadLineAsync();
    }

    public Task DisposeAsync()
    {
        _host!.Kill();
        _host.Dispose();
        Directory.Delete(_folder, recursive: true);
        return Task.CompletedTask;
    }

    [Fact]
    public async Task Only_a_host_whose_key_was_accepted_gets_files_and_they_arrive_whole()
    {
        var place = At("place");
        var secret = await File.ReadAllTextAsync(At("user"));
        var rule = new ReceiverRule
        {
            Name = "Host",
            Way = ReceiverWay.Sftp,
            Address = $"sftp://127.0.0.1:{_port.ToString(CultureInfo.InvariantCulture)}{place}",
            User = Environment.UserName,
        };
        var file = new Outgoing("market/a/barometer.jpg", "image/jpeg", [.. Enumerable.Range(0, 300_000).Select(i => (byte)i)], "", null);

        ReceiverTrial seen;
        await using (var line = new SftpLine(rule, secret, _options))
        {
            seen = await line.TryAsync(CancellationToken.None);
            Assert.False(seen.Reached);
            var refused = await line.HandAsync(file, CancellationToken.None);
            Assert.Equal(AnswerMeaning.Closed, refused.Meaning);
        }

        // The same as the host's own tool tells.
        Assert.Contains(seen.HostKey!, Run("ssh-keygen", "-l", "-f", At("host.pub")), StringComparison.Ordinal);
        Assert.False(Directory.Exists(place));

        await using (var line = new SftpLine(rule with { HostKey = seen.HostKey }, secret, _options))
        {
            Assert.True((await line.TryAsync(CancellationToken.None)).Reached);
            Assert.Equal(AnswerMeaning.Accepted, (await line.HandAsync(file, CancellationToken.None)).Meaning);
            Assert.Equal(file.Bytes, await File.ReadAllBytesAsync(Path.Combine(place, file.Path)));
            // Again, in the place of what is there.
            var other = file with
            {
                Bytes = [1, 2, 3],
            };
            Assert.Equal(AnswerMeaning.Accepted, (await line.HandAsync(other, CancellationToken.None)).Meaning);
            Assert.Equal(other.Bytes, await File.ReadAllBytesAsync(Path.Combine(place, file.Path)));
            Assert.Single(Directory.GetFiles(place, "*", SearchOption.AllDirectories));
        }

        // From where the user begins.
        var home = rule with
        {
            HostKey = seen.HostKey,
            Address = $"sftp://127.0.0.1:{_port}/~/pantomet-none",
        };
        await using (var line = new SftpLine(home, secret, _options))
        {
            var known = await line.TryAsync(CancellationToken.None);
            Assert.Contains($"{Environment.GetEnvironmentVariable("HOME")}/pantomet-none", known.Sentence, StringComparison.Ordinal);
        }

        await using (var line = new SftpLine(rule with { HostKey = "SHA256:another" }, secret, _options))
        {
            var handed = await line.HandAsync(file, CancellationToken.None);
            Assert.Equal(AnswerMeaning.Closed, handed.Meaning);
            Assert.StartsWith("The host key has changed", handed.Said[0], StringComparison.Ordinal);
        }

        await using (var line = new SftpLine(rule with { HostKey = seen.HostKey }, "a password", _options))
        {
            Assert.Equal("The user, password or key is wrong.", (await line.HandAsync(file, CancellationToken.None)).Said[0]);
        }
    }

    private string At(string name) => Path.Combine(_folder, name);

    private static string Run(string program, params string[] arguments)
    {
        using var process = Process.Start(new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true })!;
        var said = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        Assert.Equal(0, process.ExitCode);
        return said;
    }
}
