using System.Text;
using Pantomet.Browsing;
using Pantomet.Core.Texts;

namespace Pantomet.PageChecks;

/// <summary>Reads addresses that hold their content (RFC 2397).</summary>
internal static class DataAddress
{
    /// <summary>What an address holds, or why that cannot be read.</summary>
    public static PageAnswer Read(string address)
    {
        var comma = address.IndexOf(',', StringComparison.Ordinal);
        if (comma < 0)
        {
            return PageAnswer.None(0, PageTexts.TheDataURLIsEmpty);
        }

        var head = address["data:".Length..comma];
        var content = Uri.UnescapeDataString(address[(comma + 1)..]);
        try
        {
            return PageAnswer.Of(
                head.Split(';')[0],
                head.EndsWith(";base64", StringComparison.OrdinalIgnoreCase)
                    ? Convert.FromBase64String(content)
                    : Encoding.UTF8.GetBytes(content)
            );
        }
        catch (FormatException)
        {
            return PageAnswer.None(0, PageTexts.TheDataURLIsDamaged);
        }
    }
}
