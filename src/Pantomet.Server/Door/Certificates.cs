using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Pantomet.Core.Texts;

namespace Pantomet.Server.Door;

/// <summary>The certificate for TLS, read from its file; read again when the file is another, as after a renewal.</summary>
internal sealed class Certificates
{
    private const string Password = "PANTOMET_CERTIFICATE_PASSWORD";
    private static readonly TimeSpan Often = TimeSpan.FromMinutes(1);

    private readonly string _path;
    private readonly string? _key;
    private readonly TimeProvider _clock;
    private readonly Lock _gate = new();
    private X509Certificate2 _current;
    private DateTime _written;
    private DateTimeOffset _looked;

    /// <summary>Reads it for the first time.</summary>
    /// <exception cref="InvalidDataException">The file cannot be read; the message is a sentence.</exception>
    public Certificates(string path, string? key, TimeProvider clock)
    {
        (_path, _key, _clock) = (path, key, clock);
        (_written, _looked) = (Written(), clock.GetUtcNow());
        _current = Read();
    }

    /// <summary>The certificate as it is now. A new file that cannot be read changes nothing: the one before goes on.</summary>
    public X509Certificate2 Current
    {
        get
        {
            lock (_gate)
            {
                var now = _clock.GetUtcNow();
                if (now - _looked > Often)
                {
                    _looked = now;
                    Renew();
                }

                return _current;
            }
        }
    }

    private void Renew()
    {
        var written = Written();
        if (written == _written)
        {
            return;
        }

        try
        {
            _current = Read();
            _written = written;
        }
        catch (InvalidDataException)
        {
            // It may be half written: it is looked at again in a minute.
        }
    }

    private DateTime Written()
    {
        var key = _key is null ? default : File.GetLastWriteTimeUtc(_key);
        var certificate = File.GetLastWriteTimeUtc(_path);
        return key > certificate ? key : certificate;
    }

    private X509Certificate2 Read()
    {
        try
        {
            if (X509Certificate2.GetCertContentType(_path) == X509ContentType.Pkcs12)
            {
                return X509CertificateLoader.LoadPkcs12FromFile(_path, Environment.GetEnvironmentVariable(Password));
            }

            using var pem = X509Certificate2.CreateFromPemFile(_path, _key);
            // A key that is only in memory cannot be used by all platforms.
            return X509CertificateLoader.LoadPkcs12(pem.Export(X509ContentType.Pkcs12), null);
        }
        catch (Exception fault) when (fault is CryptographicException or IOException or UnauthorizedAccessException or ArgumentException)
        {
            throw new InvalidDataException(AccountTexts.TheCertificateCannotBeRead(_path, fault.Message), fault);
        }
    }
}
