using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Jobs;

/// <summary>A job of two pictures in three slots, and whatever may be done with it.</summary>
internal static class JobSteps
{
    public static readonly Guid One = Guid.Parse("00000000-0000-0000-0000-000000000001");
    public static readonly Guid Two = Guid.Parse("00000000-0000-0000-0000-000000000002");
    public static readonly Guid Three = Guid.Parse("00000000-0000-0000-0000-000000000003");
    public static readonly Frame Box = FrameOf(0.2, 0.2, 0.5, 0.6);

    public static Job Begun =>
        new()
        {
            Name = "A job",
            Pictures = [new(One, Decisions.None), new(Two, Decisions.None)],
            Slots = [JobSlot.At("site/square"), JobSlot.At("site/thumb"), JobSlot.At("site/wide")],
        };

    public static JobCommand Some(Random random)
    {
        string[] slots = ["site/square", "site/thumb", "site/wide"];
        Guid[] pictures = [One, Two, Three];
        var (picture, slot) = (pictures[random.Next(3)], slots[random.Next(3)]);
        var (left, top) = (random.NextDouble() * 0.5, random.NextDouble() * 0.5);
        var frame = FrameOf(left, top, left + 0.3, top + 0.4);
        return random.Next(20) switch
        {
            0 => new SetFrame(picture, random.Next(3) == 0 ? null : frame, Slot: slot),
            1 => new UnlinkCell(picture, slot),
            2 => new LinkCell(picture, slot),
            3 => new AddKeepBox(picture, frame),
            4 => new SetKeepBoxes(picture, random.Next(2) == 0 ? [] : [frame]),
            5 => new SetFocus(picture, new(left, top)),
            6 => new ConfirmSuggestion(picture),
            7 => new ClearMarks(picture),
            8 => new TurnPicture(picture, random.Next(4), random.Next(-3, 3)),
            9 => new Accept(picture, slot, ["too-small"]),
            10 => new SkipCell(picture, slot, random.Next(2) == 0),
            11 => new Choose(picture, slot, random.Next(2) == 0 ? null : new("webp", random.Next(1, 100))),
            12 => new ChooseForSlots(random.Next(2) == 0 ? null : [slot], new(null, random.Next(1, 100))),
            13 => new GiveWords(picture, $"words {random.Next(5)}", Decorative: random.Next(3) == 0 ? true : null),
            14 => new RemovePictures([picture]),
            15 => new AddPictures([picture]),
            16 => random.Next(2) == 0 ? new RemoveSlots([slot]) : new AddSlots([slot]),
            17 => new GiveWords(picture, Title: $"Title {random.Next(3)}"),
            18 => new DressCell(picture, slot, random.Next(2) == 0 ? null : """{ "fade": { "to": "#ffffff", "amount": 0.5 } }"""),
            _ => new NameJob(
                Name: $"Job {random.Next(4)}",
                Patterns: new Dictionary<string, string> { ["site"] = random.Next(2) == 0 ? "" : "{picture}-{slot}" }
            ),
        };
    }

    public static Frame FrameOf(double left, double top, double right, double bottom) =>
        Frame.TryCreate(left, top, right, bottom, out var frame, out var error) ? frame : throw new ArgumentException(error);
}

/// <summary>What commands are applied among: three pictures that are alike, and three slots.</summary>
internal sealed class Around : ICommandContext
{
    public static readonly Frame Suggested = JobSteps.FrameOf(0.1, 0.2, 0.4, 0.7);

    public static readonly IReadOnlyDictionary<string, Slot> Slots = new Dictionary<string, Slot>
    {
        ["site/square"] = new()
        {
            Key = "square",
            Name = "Square",
            Size = new SizeRule.Exact(new(300, 300)),
        },
        ["site/thumb"] = new()
        {
            Key = "thumb",
            Name = "Thumb",
            Size = new SizeRule.Exact(new(100, 100)),
        },
        ["site/wide"] = new()
        {
            Key = "wide",
            Name = "Wide",
            Size = new SizeRule.Exact(new(900, 300)),
        },
    };

    public PictureFacts? FactsOf(Guid picture) =>
        picture == JobSteps.One || picture == JobSteps.Two || picture == JobSteps.Three
            ? new()
            {
                Size = new(1200, 1200),
                Format = PictureFormat.Jpeg,
                Bytes = 1000,
                HasAlpha = false,
                Frames = 1,
                Orientation = 1,
                Colours = "RGB",
                Bits = 8,
                HasLocation = false,
                Suggestion = new(Suggested, SuggestionKind.EyeCatching),
            }
            : null;

    public Slot? SlotAt(string address) => Slots.GetValueOrDefault(address);

    public int RankOf(string address) => Slots.Keys.ToList().IndexOf(address);

    public CellStanding StandingOf(Guid picture, string address) =>
        new(["keep-cut"], new Dictionary<string, string> { ["file-a"] = "want-a" });

    public Decisions MarksOf(Guid picture) => picture == JobSteps.Three ? Decisions.None with { Keywords = "from before" } : Decisions.None;
}
