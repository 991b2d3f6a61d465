using System.Text.Json;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Deliveries;

/// <summary>What an answer means for a file, and for those after it.</summary>
public enum AnswerMeaning
{
    /// <summary>The receiver has the file.</summary>
    Accepted,

    /// <summary>It does not want this file.</summary>
    Refused,

    /// <summary>It could not take it now; another try may do better.</summary>
    Later,

    /// <summary>It takes nothing from whoever sends this way.</summary>
    Closed,
}

/// <summary>What a receiver said to a file over HTTP, in sentences.</summary>
/// <param name="Meaning">What it means.</param>
/// <param name="Said">What it said, in its own words; ours where it said nothing.</param>
public sealed partial record ReceiverAnswer(AnswerMeaning Meaning, IReadOnlyList<string> Said)
{
    /// <summary>The most characters of an answer that are looked at.</summary>
    public const int MostRead = 1_000_000;

    private const int MostSentences = 12;
    private const int LongestSentence = 300;

    /// <summary>Reads an answer.</summary>
    /// <param name="status">Its status (RFC 9110, 15).</param>
    /// <param name="mediaType">Its type, without parameters; null for none.</param>
    /// <param name="body">What it holds.</param>
    /// <param name="location">Where it sends elsewhere, if it does.</param>
    public static ReceiverAnswer Read(int status, string? mediaType, string body, string? location = null)
    {
        ArgumentNullException.ThrowIfNull(body);
        // A server that puts a file down may say so on a page (201); one that answers 200 with a page has shown a form or asks to sign in.
        if (status == 200 && IsPage(mediaType))
        {
            return new(AnswerMeaning.Closed, [ReceiverTexts.TheReceiverAnsweredWithAWeb]);
        }

        var said = Sentences(mediaType, body);
        return status switch
        {
            >= 200 and < 300 => new(AnswerMeaning.Accepted, said),
            >= 300 and < 400 => new(
                AnswerMeaning.Closed,
                [ReceiverTexts.TheReceiverRedirectsUseThatAddress((location is null ? "" : $", to {Short(location)}"))]
            ),
            401 or 407 => new(AnswerMeaning.Closed, [ReceiverTexts.TheUserPasswordOrTokenIs, .. said]),
            408 or 425 or 429 or >= 500 => new(AnswerMeaning.Later, Or(said, ReceiverTexts.TheReceiverCouldNotAcceptThe(status))),
            404 or 405 or 501 => new(AnswerMeaning.Refused, Or(said, ReceiverTexts.ThisAddressDoesNotAcceptFiles(status))),
            413 => new(AnswerMeaning.Refused, Or(said, ReceiverTexts.TheFileIsTooHeavyFor)),
            415 => new(AnswerMeaning.Refused, Or(said, ReceiverTexts.TheReceiverDoesNotAcceptThis)),
            _ => new(AnswerMeaning.Refused, Or(said, ReceiverTexts.TheReceiverRefusedTheFileWithout(status))),
        };
    }

    /// <summary>The addresses that an answer names of what is shown.</summary>
    /// <param name="body">The answer, as JSON.</param>
    /// <param name="pointer">A JSON pointer (RFC 6901) to an address, an object with one, or a list of those.</param>
    public static IReadOnlyList<string> Shown(string body, string pointer)
    {
        ArgumentNullException.ThrowIfNull(pointer);
        try
        {
            using var json = JsonDocument.Parse(body);
            return At(json.RootElement, pointer) is { } found ? [.. Addresses(found).Take(MostSentences)] : [];
        }
        catch (JsonException)
        {
            return [];
        }
    }

    private static JsonElement? At(JsonElement root, string pointer)
    {
        var now = root;
        foreach (var part in pointer.Split('/').Skip(1).Select(part => part.Replace("~1", "/").Replace("~0", "~")))
        {
            if (now.ValueKind == JsonValueKind.Object && now.TryGetProperty(part, out var member))
            {
                now = member;
            }
            else if (now.ValueKind == JsonValueKind.Array && int.TryParse(part, out var at) && at >= 0 && at < now.GetArrayLength())
            {
                now = now[at];
            }
            else
            {
                return null;
            }
        }

        return now;
    }

    private static IEnumerable<string> Addresses(JsonElement found) =>
        found.ValueKind switch
        {
            JsonValueKind.String => [found.GetString()!],
            JsonValueKind.Array => found.EnumerateArray().SelectMany(Addresses),
            JsonValueKind.Object => ((string[])["href", "url", "src", "address", "location"])
                .Where(name => found.TryGetProperty(name, out var one) && one.ValueKind == JsonValueKind.String)
                .Select(name => found.GetProperty(name).GetString()!)
                .Take(1),
            _ => [],
        };

    private static IReadOnlyList<string> Or(IReadOnlyList<string> said, string ours) => said.Count > 0 ? said : [ours];

    private static bool IsPage(string? mediaType) => mediaType is "text/html" or "application/xhtml+xml";

    private static IReadOnlyList<string> Sentences(string? mediaType, string body)
    {
        IEnumerable<string?> found =
            body.Length == 0 || IsPage(mediaType) ? []
            : mediaType?.EndsWith("json", StringComparison.Ordinal) == true ? OfJson(body)
            : mediaType?.EndsWith("xml", StringComparison.Ordinal) == true ? OfXml(body)
            : mediaType is null or "text/plain" ? body.Split('\n')
            : [];
        return
        [
            .. found
                .Select(sentence => Short(Blanks().Replace(sentence ?? "", " ").Trim()))
                .Where(sentence => sentence.Length > 0)
                .Distinct(StringComparer.Ordinal)
                .Take(MostSentences),
        ];
    }

    // Problem details (RFC 9457, 3): what is wrong with this file, else what kind of problem it is; and the list of its example. Others have
    // a message, and lists of those.
    private static IEnumerable<string?> OfJson(string body)
    {
        try
        {
            using var json = JsonDocument.Parse(body);
            return json.RootElement.ValueKind == JsonValueKind.Object ? [.. OfObject(json.RootElement)] : [.. OfList(json.RootElement)];
        }
        catch (JsonException)
        {
            return [];
        }
    }

    private static IEnumerable<string?> OfObject(JsonElement one)
    {
        if ((Text(one, "detail") ?? Text(one, "message") ?? Text(one, "title") ?? Text(one, "error")) is { } first)
        {
            yield return first;
        }

        foreach (var name in (string[])["errors", "reasons", "messages", "error"])
        {
            if (one.TryGetProperty(name, out var more) && more.ValueKind is JsonValueKind.Array or JsonValueKind.Object)
            {
                foreach (var sentence in OfList(more))
                {
                    yield return sentence;
                }
            }
        }
    }

    private static IEnumerable<string?> OfList(JsonElement more) =>
        more.ValueKind switch
        {
            JsonValueKind.String => [more.GetString()],
            JsonValueKind.Array => more.EnumerateArray().SelectMany(OfList),
            JsonValueKind.Object => (Text(more, "detail") ?? Text(more, "message") ?? Text(more, "title")) is { } sentence
                ? [sentence]
                // By field, as form checkers list them.
                : more.EnumerateObject().Where(one => one.Value.ValueKind == JsonValueKind.Array).SelectMany(one => OfList(one.Value)),
            _ => [],
        };

    private static string? Text(JsonElement one, string name) =>
        one.TryGetProperty(name, out var member) && member.ValueKind == JsonValueKind.String ? member.GetString() : null;

    private static IEnumerable<string?> OfXml(string body)
    {
        try
        {
            using var reader = XmlReader.Create(
                new StringReader(body),
                new() { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null }
            );
            return [.. XElement.Load(reader).DescendantsAndSelf().Where(one => one.Name.LocalName == "Message").Select(one => one.Value)];
        }
        catch (XmlException)
        {
            return [];
        }
    }

    private static string Short(string text) => text.Length <= LongestSentence ? text : $"{text[..(LongestSentence - 3)]}...";

    // Whatever a receiver says, it is one line of text.
    [GeneratedRegex(@"[\s\p{C}]+")]
    private static partial Regex Blanks();
}
