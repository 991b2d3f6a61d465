using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Jobs;

/// <summary>A change touches the cells that it changes, so that nothing else is planned again; and never one too few.</summary>
public sealed class TouchedCellsTests
{
    private static readonly Guid One = Guid.Parse("00000000-0000-0000-0000-000000000001");
    private static readonly Guid Two = Guid.Parse("00000000-0000-0000-0000-000000000002");
    private static readonly Guid Pair = Guid.Parse("00000000-0000-0000-0000-00000000000a");
    private static readonly Frame Box = FrameOf(0.2, 0.2, 0.5, 0.6);

    private static readonly Dictionary<string, Slot> Slots = new()
    {
        ["site/square"] = SlotOf("square", 300, 300),
        ["site/thumb"] = SlotOf("thumb", 100, 100),
        ["site/wide"] = SlotOf("wide", 900, 300) with { Dress = new() { Title = new() { Size = 20 } } },
        ["site/pair"] = SlotOf("pair", 600, 300) with { Pair = new(2, 8, Rgb.White) },
    };

    private static Job Begun =>
        new()
        {
            Name = "A job",
            Pictures = [new(One, Decisions.None), new(Two, Decisions.None), new(Pair, Decisions.None)],
            Slots = [.. Slots.Keys.Select(JobSlot.At)],
        };

    [Fact]
    public void A_frame_of_a_shape_touches_the_slots_of_that_shape() =>
        Assert.Equal([(One, "site/square"), (One, "site/thumb")], Touched(Begun, new SetFrame(One, Box, Slot: "site/square")));

    [Fact]
    public void What_is_decided_about_one_cell_touches_that_cell_and_the_combined_pictures() =>
        Assert.Equal([(One, "site/wide"), (Pair, "site/pair")], Touched(Begun, new Choose(One, "site/wide", new("webp", 70))));

    [Fact]
    public void Marks_touch_every_slot_of_the_picture_and_the_pictures_that_it_is_combined_in() =>
        Assert.Equal(
            [(One, "site/pair"), (One, "site/square"), (One, "site/thumb"), (One, "site/wide"), (Pair, "site/pair")],
            Touched(Begun, new AddKeepBox(One, Box))
        );

    [Fact]
    public void A_title_touches_the_slots_that_write_one()
    {
        Assert.Equal([(Two, "site/wide")], Touched(Begun, new GiveWords(Two, Title: "Storm vane")));
        var alone = Done(Begun, new DressCell(Two, "site/thumb", """{ "title": { "size": 12 } }"""));
        Assert.Equal([(Two, "site/thumb"), (Two, "site/wide")], Touched(alone, new GiveWords(Two, Title: "Storm vane")));
    }

    [Fact]
    public void Names_and_words_touch_no_cell()
    {
        Assert.Empty(Touched(Begun, new NameJob(Name: "Another")));
        Assert.Empty(Touched(Begun, new GiveWords(One, "storm vane", "A vane on a roof")));
    }

    [Fact]
    public void Pictures_and_slots_that_go_are_among_the_touched()
    {
        Assert.Equal(
            [(Two, "site/pair"), (Two, "site/square"), (Two, "site/thumb"), (Two, "site/wide")],
            Touched(Begun, new RemovePictures([Two]))
        );
        Assert.Equal([(One, "site/wide"), (Two, "site/wide"), (Pair, "site/wide")], Touched(Begun, new RemoveSlots(["site/wide"])));
    }

    [Fact]
    public void Whatever_is_done_no_cell_that_is_planned_otherwise_afterwards_is_missed()
    {
        var random = new Random(7);
        var job = Begun;
        for (var i = 0; i < 400; i++)
        {
            var command = Some(random);
            if (!JobCommands.TryApply(job, [command], new Around(), out var applied, out _))
            {
                continue;
            }

            var touched = Of(job, applied!);
            foreach (var (picture, slot) in Begun.Pictures.SelectMany(one => Slots.Keys.Select(slot => (one.Id, slot))))
            {
                if (Planned(job, picture, slot) != Planned(applied!.Job, picture, slot))
                {
                    Assert.True(touched.Contains(new(picture, slot)), $"{command} changes {picture} in {slot} and does not touch it");
                }
            }

            job = applied!.Job.Pictures.Count < 2 || applied.Job.Slots.Count < 2 ? Begun : applied.Job;
        }
    }

    // What the plan and the files of a cell follow from.
    private static string? Planned(Job job, Guid picture, string address)
    {
        if (job.Find(picture) is not { } mine || job.SlotOf(address) is not { } place)
        {
            return null;
        }

        var own = Slots[address].For(mine.Decisions.Title);
        return $"{CellPlan.Of(Around.Facts, mine.Decisions, own, place).Frame} {mine.Decisions.Turn} {place.Choice} "
            + $"{mine.Decisions.For(address)} {RulesWriter.BytesKey(own)}";
    }

    private static JobCommand Some(Random random)
    {
        var picture = random.Next(2) == 0 ? One : Two;
        var slot = Slots.Keys.ElementAt(random.Next(Slots.Count));
        return random.Next(16) switch
        {
            0 => new SetFrame(picture, Box, Slot: slot),
            1 => new SetFrame(picture, null, Shape: "1"),
            2 => new AddKeepBox(picture, Box),
            3 => new SetKeepBoxes(picture, []),
            4 => new SetFocus(picture, new(random.NextDouble(), random.NextDouble())),
            5 => new RejectSuggestion(picture),
            6 => new ClearMarks(picture),
            7 => new TurnPicture(picture, random.Next(4), random.Next(-5, 5)),
            8 => new SkipCell(picture, slot, random.Next(2) == 0),
            9 => new Choose(picture, slot, random.Next(2) == 0 ? null : new("avif", 60)),
            10 => new ChooseForSlots(random.Next(2) == 0 ? null : [slot], new(null, random.Next(20, 90))),
            11 => new GiveWords(picture, Title: $"Title {random.Next(3)}"),
            12 => new DressCell(picture, slot, random.Next(2) == 0 ? null : """{ "fade": { "to": "#ffffff", "amount": 0.5 } }"""),
            13 => new UnlinkCell(picture, slot),
            14 => new CopyFraming(picture, [picture == One ? Two : One], random.Next(2) == 0 ? slot : null),
            _ => new RemoveSlots([slot]),
        };
    }

    private static List<(Guid, string)> Touched(Job job, JobCommand command)
    {
        Assert.True(JobCommands.TryApply(job, [command], new Around(), out var applied, out var refused), refused?.Fault.ToString());
        return [.. Of(job, applied!).Select(key => (key.Picture, key.Slot)).Order()];
    }

    private static HashSet<CellKey> Of(Job before, Applied applied) =>
        TouchedCells.Of(before, applied.Job, applied.Change, Slots, part => part == One ? [Pair] : []);

    private static Job Done(Job job, JobCommand command) =>
        JobCommands.TryApply(job, [command], new Around(), out var applied, out var refused)
            ? applied!.Job
            : throw new ArgumentException(refused!.Fault.ToString());

    private static Slot SlotOf(string key, int width, int height) =>
        new()
        {
            Key = key,
            Name = key,
            Size = new SizeRule.Exact(new(width, height)),
        };

    private static Frame FrameOf(double left, double top, double right, double bottom) =>
        Frame.TryCreate(left, top, right, bottom, out var frame, out var error) ? frame : throw new ArgumentException(error);

    private sealed class Around : ICommandContext
    {
        public static readonly PictureFacts Facts = new()
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
            Suggestion = new(FrameOf(0.1, 0.2, 0.4, 0.7), SuggestionKind.EyeCatching),
        };

        public PictureFacts? FactsOf(Guid picture) => Facts;

        public Slot? SlotAt(string address) => Slots.GetValueOrDefault(address);

        public int RankOf(string address) => Slots.Keys.ToList().IndexOf(address);

        public CellStanding StandingOf(Guid picture, string address) => CellStanding.None;

        public Decisions MarksOf(Guid picture) => Decisions.None;
    }
}
