using System.CommandLine;
using Pantomet.Cli;
using Pantomet.Imaging.Tests.Support;

namespace Pantomet.Imaging.Tests;

/// <summary>Every option of every command with values that nobody would give: a sentence, and never a fault of ours.</summary>
public sealed class OddCallTests : IDisposable
{
    private static readonly string[] Odd =
    [
        "",
        " ",
        "NaN",
        "-1",
        "0",
        "1e400",
        "Infinity",
        "99999999999999999999",
        "\u0001",
        "\uD83D",
        "a b",
        "../..",
        "/dev/null",
        "/proc/self/mem",
        "http://",
        "http://[",
        "file:///etc/passwd",
        "{}",
        "%00",
        new('x', 5000),
    ];

    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    public static TheoryData<string> Commands => new("render", "site", "mend", "page");

    [Theory]
    [MemberData(nameof(Commands))]
    public void Each_of_them_ends_with_a_sentence(string name)
    {
        var good = Good(name);
        var command = CommandLine.Build().Subcommands.Single(one => one.Name == name);
        List<string> broken = [];
        foreach (var option in command.Options.Where(one => one is not Option<bool> && one.Name.StartsWith("--", StringComparison.Ordinal)))
        {
            foreach (var value in Odd)
            {
                // Whatever is written, it is written where the test may write.
                var odd =
                    option.Name is "--out" or "--keep" or "--report" && value.Length > 0 && value[0] is not ('/' or '.')
                        ? _place.At(value)
                        : value;
                if (option.Name is "--out" or "--keep" or "--report" && value.StartsWith('.'))
                {
                    continue;
                }

                // What is not asked about is right; a call that goes well has nothing to say.
                string[] call =
                [
                    name,
                    .. good.Where(one => one.Key != option.Name && one.Key != "").SelectMany(one => (string[])[one.Key, one.Value]),
                    option.Name,
                    odd,
                    .. good.Where(one => one.Key == "").Select(one => one.Value),
                ];
                var answer = Programs.Pantomet(call);
                if (
                    answer.Code is not (ExitCodes.Fine or ExitCodes.SomethingBroke or ExitCodes.WrongCall)
                    || (answer.Code != ExitCodes.Fine && answer.Error.Length == 0)
                    || answer.Error.Contains("   at ", StringComparison.Ordinal)
                )
                {
                    broken.Add($"{option.Name} \"{(odd.Length > 40 ? odd[..40] : odd)}\": {answer.Code} {answer.Error}");
                }
            }
        }

        Assert.True(broken.Count == 0, string.Join('\n', broken));
    }

    [Fact]
    public void The_calls_that_serve_are_read_without_a_fault()
    {
        foreach (var command in CommandLine.Build().Subcommands.Where(one => one.Name is "serve" or "demo"))
        {
            foreach (var option in command.Options)
            {
                foreach (var odd in Odd)
                {
                    var parsed = CommandLine.Build().Parse([command.Name, "--data", _place.At("data"), option.Name, odd]);
                    Assert.NotNull(parsed.CommandResult);
                }
            }
        }
    }

    // The least that each command takes, so that the option that is asked about decides.
    private List<KeyValuePair<string, string>> Good(string name)
    {
        Directory.CreateDirectory(_place.At("in"));
        File.Copy(_place.Quarters("a.png", 40, 40), _place.At("in/a.png"));
        _place.Write("in/index.html", "<p>words");
        var rules = _place.Rules("""{ "key": "a", "size": { "width": 20 } }""");
        return name switch
        {
            "render" => [new("--rules", rules), new("--out", _place.Out), new("", _place.At("in/a.png"))],
            "site" => [new("--rules", rules), new("--in", _place.At("in")), new("--out", _place.Out)],
            "mend" => [new("--out", _place.Out), new("", _place.At("in"))],
            // What opens a browser a hundred times is looked at elsewhere: here there is no page.
            _ => [new("--page", _place.At("nowhere"))],
        };
    }
}
