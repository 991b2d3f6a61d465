using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Http;

namespace Pantomet.TestReceivers;

/// <summary>Checks signed requests (Amazon S3 API reference, "Signature Calculations for the Authorization Header").</summary>
internal static class RequestSignature
{
    private const string Algorithm = "AWS4-HMAC-SHA256";

    /// <summary>What is wrong with a request's signature; null where nothing is.</summary>
    /// <param name="request">The request.</param>
    /// <param name="target">Its target as it was sent: path and query, encoded.</param>
    /// <param name="body">Its body.</param>
    /// <param name="accessKey">The key that is known.</param>
    /// <param name="secret">Its secret.</param>
    public static (string Code, string Message)? FaultOf(HttpRequest request, string target, byte[] body, string accessKey, string secret)
    {
        var header = request.Headers.Authorization.ToString();
        if (!header.StartsWith(Algorithm, StringComparison.Ordinal))
        {
            return ("AccessDenied", "Access Denied");
        }

        var said = header[Algorithm.Length..]
            .Split(',', StringSplitOptions.TrimEntries)
            .Select(part => part.Split('=', 2))
            .Where(part => part.Length == 2)
            .ToDictionary(part => part[0], part => part[1], StringComparer.Ordinal);
        var scope = said.GetValueOrDefault("Credential", "").Split('/');
        if (scope.Length != 5 || scope[0] != accessKey)
        {
            return ("InvalidAccessKeyId", "The access key Id you provided does not exist in our records.");
        }

        var hash = request.Headers["x-amz-content-sha256"].ToString();
        if (hash.Length == 64 && hash != Hex(SHA256.HashData(body)))
        {
            return ("XAmzContentSHA256Mismatch", "The provided 'x-amz-content-sha256' header does not match what was computed.");
        }

        var signed = said.GetValueOrDefault("SignedHeaders", "");
        var canonical = string.Join(
            '\n',
            request.Method,
            target.Split('?')[0],
            string.Join('&', target.Split('?').Skip(1).SelectMany(query => query.Split('&')).Select(Whole).Order(StringComparer.Ordinal)),
            string.Concat(signed.Split(';').Select(name => $"{name}:{request.Headers[name].ToString().Trim()}\n")),
            signed,
            hash
        );
        var time = request.Headers["x-amz-date"].ToString();
        var toSign = string.Join(
            '\n',
            Algorithm,
            time,
            string.Join('/', scope[1..]),
            Hex(SHA256.HashData(Encoding.UTF8.GetBytes(canonical)))
        );
        var key = scope[1..].Aggregate(Encoding.UTF8.GetBytes($"AWS4{secret}"), Mac);
        return CryptographicOperations.FixedTimeEquals(
            Encoding.ASCII.GetBytes(Hex(Mac(key, toSign))),
            Encoding.ASCII.GetBytes(said.GetValueOrDefault("Signature", ""))
        )
            ? null
            : ("SignatureDoesNotMatch", "The request signature we calculated does not match the signature you provided.");
    }

    private static string Whole(string part) => part.Contains('=', StringComparison.Ordinal) ? part : $"{part}=";

    private static byte[] Mac(byte[] key, string text) => HMACSHA256.HashData(key, Encoding.UTF8.GetBytes(text));

    private static string Hex(byte[] bytes) => Convert.ToHexStringLower(bytes);
}
