using System.Text.Encodings.Web;
using QRCoder;

namespace Pantomet.Server.Accounts;

/// <summary>The second step of a sign-in by time (TOTP, RFC 6238): what an app needs to know for it.</summary>
internal static class TwoStep
{
    /// <summary>How many digits a code has.</summary>
    public const int Digits = 6;

    private const string Issuer = "Pantomet";
    private const int PixelsOfModule = 4;

    /// <summary>The address that such an app reads, by the form that all of them share ("Key URI Format").</summary>
    public static string Address(string signInName, string key)
    {
        var name = UrlEncoder.Default.Encode(signInName);
        return $"otpauth://totp/{Issuer}:{name}?secret={key}&issuer={Issuer}&digits={Digits}";
    }

    /// <summary>The same as a QR code (ISO/IEC 18004), a picture in SVG.</summary>
    public static string Picture(string address)
    {
        using var data = QRCodeGenerator.GenerateQrCode(address, QRCodeGenerator.ECCLevel.M);
        using var code = new SvgQRCode(data);
        return code.GetGraphic(PixelsOfModule);
    }
}
