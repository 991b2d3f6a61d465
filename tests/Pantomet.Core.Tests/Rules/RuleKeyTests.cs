using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using Pantomet.Core.Rules;
using Pantomet.Core.Rules.Keys;
using Pantomet.Core.Tests.Vectors;

namespace Pantomet.Core.Tests.Rules;

/// <summary>
/// One table of keys gives reader, writer, the client's form and the documentation. Set PANTOMET_WRITE_VECTORS=1 to write the last two anew.
/// </summary>
public sealed class RuleKeyTests
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        WriteIndented = true,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    };

    [Fact]
    public void The_client_and_the_documentation_have_the_table_of_the_core()
    {
        WrittenFile.Check(
            Path.Combine("client", "src", "domain", "ruleKeys.json"),
            JsonSerializer.Serialize(RulesReader.SlotKeys, Json) + "\n"
        );
        WrittenFile.Check(Path.Combine("docs", "rules.md"), Page());
    }

    [Fact]
    public void A_text_over_a_picture_is_written_by_the_client_as_it_is_here()
    {
        string[] given =
        [
            "{}",
            """{ "title": { "size": 20 } }""",
            """{ "title": { "size": 20, "align": "left", "area": [0, 0, 1, 1], "fade": false, "ink": "auto" } }""",
            """{ "title": { "fade": true, "contrast": 7, "align": "right", "area": [0.1, 0.2, 0.9, 1], "ink": "#102030", "size": 31.5 } }""",
            """{ "fade": { "to": "#ffffff", "amount": 0.4, "reach": "all" } }""",
            """{ "fade": { "ink": "#222222", "to": "#ffffff" } }""",
            """{ "fade": { "to": "#000000", "reach": "side", "ink": "#ffffff", "contrast": 4.5, "area": [0, 0.5, 1, 1] } }""",
            """{ "mark": { "file": "mark.svg" } }""",
            """{ "mark": { "opacity": 0.5, "file": "mark.svg", "onDark": "light.svg", "at": "top-left", "share": 0.2, "margin": 0 } }""",
            """{ "mark": { "file": "a.png" }, "title": { "size": 9, "text": "Sale" }, "fade": { "to": "#ffffff", "amount": 1 } }""",
        ];
        var cases = given.Select(one =>
        {
            Assert.True(DressReader.TryRead(one, out _, out var written, out var fault), fault);
            return new
            {
                Given = JsonSerializer.Deserialize<JsonElement>(one),
                Written = JsonSerializer.Deserialize<JsonElement>(written!),
            };
        });
        WrittenFile.Check(Path.Combine("client", "src", "domain", "overlay.vectors.json"), JsonSerializer.Serialize(cases, Json) + "\n");
    }

    [Fact]
    public void What_is_not_given_is_the_default_and_a_default_that_is_given_is_not_written()
    {
        var bare = Read("""{ "key": "a", "size": { "width": 9, "height": 9 } }""");
        foreach (var key in RulesReader.SlotKeys.Where(key => key is { Default: not null, Kind: not "object", Key: not "shownAs" }))
        {
            var given = Read(
                $$"""{ "key": "a", "size": { "width": 9, "height": 9 }, "{{key.Key}}": {{key.Default!.Value.GetRawText()}} }"""
            );
            Assert.Equal(RulesWriter.Write(bare), RulesWriter.Write(given));
        }
    }

    [Fact]
    public void Numbers_outside_of_the_range_that_is_described_are_refused_and_those_at_its_ends_are_not()
    {
        foreach (var (place, key) in Numbers(RulesReader.SlotKeys, ""))
        {
            Assert.False(IsRead(place, key.Least!.Value - 1), $"{place}: less than {key.Least}");
            Assert.False(IsRead(place, key.Most!.Value + 1), $"{place}: more than {key.Most}");
            // A share is more than nothing; of surplus pixels also less than all, and not so little that it takes too many files.
            var (least, most) = place == "responsive.waste" ? (0.3, 0.99) : (key.Least.Value == 0 ? 0.01 : key.Least.Value, key.Most.Value);
            Assert.True(IsRead(place, least), place);
            Assert.True(IsRead(place, most), place);
        }
    }

    [Fact]
    public void Every_word_of_a_choice_is_read_and_any_other_is_refused()
    {
        var choices = RulesReader.SlotKeys.Where(key => key.Kind == "choice").ToList();
        Assert.Equal(["fit", "whenTooSmall", "sharpen", "profile", "metadata", "frames"], choices.Select(key => key.Key));
        foreach (var key in choices)
        {
            Assert.All(key.Choices!, word => Assert.True(IsRead(Slot(key.Key, $"\"{word}\""))));
            Assert.False(IsRead(Slot(key.Key, "\"another\"")));
        }
    }

    private static IEnumerable<(string Place, RuleKeyDescription Key)> Numbers(IReadOnlyList<RuleKeyDescription> keys, string within) =>
        keys.SelectMany(key =>
            key.Keys is { } inner ? Numbers(inner, $"{within}{key.Key}.")
            : key is { Kind: "number", Least: not null, Most: not null } ? [($"{within}{key.Key}", key)]
            : []
        );

    // An object around the key, with what it needs beside it.
    private static bool IsRead(string place, double value)
    {
        var parts = place.Split('.');
        var needed = new Dictionary<string, string>
        {
            ["responsive"] = "\"sizes\": \"100vw\", ",
            ["fade"] = parts[^1] == "contrast" ? "\"to\": \"#ffffff\", \"ink\": \"#000000\", " : "\"to\": \"#ffffff\", ",
            ["title"] = parts[^1] == "size" ? "" : "\"size\": 20, ",
            ["mark"] = "\"file\": \"mark.svg\", ",
        };
        var json = value.ToString("0.####", CultureInfo.InvariantCulture);
        foreach (var i in Enumerable.Range(1, parts.Length - 1).Reverse())
        {
            json = $$"""{ {{needed.GetValueOrDefault(parts[i - 1], "")}}"{{parts[i]}}": {{json}} }""";
        }

        return IsRead(Slot(parts[0], json));
    }

    private static string Slot(string key, string value) =>
        $$"""{ "key": "a", "size": { "width": 900, "height": 900 }, "{{key}}": {{value}} }""";

    private static bool IsRead(string json) => RulesReader.TryReadSlot(json, out _, out _);

    private static Slot Read(string json) =>
        RulesReader.TryReadSlot(json, out var slot, out var fault) ? slot! : throw new ArgumentException(fault!.ToString());

    private static string Page()
    {
        var lines = new List<string>
        {
            "# Keys of a slot's rule",
            "",
            "All keys that a slot can have in a rules file. The table is written from the one in the core that reader, writer and form use",
            "(`PANTOMET_WRITE_VECTORS=1 ./test core` writes it anew).",
            "",
            "| key | value | default | meaning |",
            "|---|---|---|---|",
        };
        Rows(RulesReader.SlotKeys, "");
        return string.Join('\n', lines) + "\n";

        void Rows(IReadOnlyList<RuleKeyDescription> keys, string within)
        {
            foreach (var key in keys)
            {
                var value = key.Choices is { } words ? string.Join(", ", words.Select(word => $"`{word}`")) : key.Kind;
                var range = (key.Least, key.Most) switch
                {
                    ({ } least, { } most) when key.Choices is null => $", {Figure(least)} to {Figure(most)}",
                    _ => "",
                };
                var usual =
                    key.Needed == true ? "must be given"
                    : key.Default is { } json && key.Kind != "object" && json.ToString() != "[]" ? $"`{JsonSerializer.Serialize(json)}`"
                    : "";
                lines.Add($"| `{within}{key.Key}` | {value}{range} | {usual} | {key.About} |");
                Rows(key.Keys ?? [], $"{within}{key.Key}.");
            }
        }

        static string Figure(double value) => value.ToString("0.##", CultureInfo.InvariantCulture);
    }
}
