using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using Pantomet.Core.Dressing;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Vectors;

/// <summary>
/// Where the page must compute a rule itself, because a hand is moving, its cases come from here: the core works them out, and the
/// client's unit tests hold the
/// page's own version against them. Set PANTOMET_WRITE_VECTORS=1 to write the files anew after a rule changed.
/// </summary>
public sealed class ClientVectorTests
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        WriteIndented = true,
        AllowOutOfOrderMetadataProperties = true,
    };

    private static readonly Guid Picture = Guid.Parse("00000000-0000-0000-0000-000000000001");
    private static readonly Guid Other = Guid.Parse("00000000-0000-0000-0000-000000000002");

    [Fact]
    public void The_solvers_cases_are_those_of_the_core()
    {
        var random = new Random(11);
        var cases = new List<object>();
        PixelSize[] sizes = [new(6000, 4000), new(3000, 4500), new(1200, 1200)];
        for (var i = 0; i < 120; i++)
        {
            var size = sizes[i % 3];
            var slot = SomeSlot(random, i);
            var kind = (SuggestionKind)random.Next(5);
            var suggestion = new Suggestion(Some(random), kind)
            {
                Strongest = random.Next(2) == 0 ? Some(random) : null,
                Faces = kind == SuggestionKind.Faces ? [.. Enumerable.Range(0, 1 + random.Next(3)).Select(_ => Small(random))] : null,
            };
            var content = suggestion.Kind == SuggestionKind.Content;
            var decisions = (i % 6) switch
            {
                0 => Decisions.None with { Keep = [Some(random)] },
                1 => Decisions.None with { Keep = [Some(random), Some(random)] },
                2 => Decisions.None with { Focus = new FocusPoint(random.NextDouble(), random.NextDouble()) },
                3 => Decisions.None with { SuggestionRejected = true },
                4 => Decisions.None.Framed(Shapes.KeyOf(slot), Some(random)),
                _ => Decisions.None,
            };
            var facts = FactsOf(size, suggestion);
            var region = CellPlan.Of(facts, decisions, slot, JobSlot.At("site/slot")).Solved.Region;
            cases.Add(
                new
                {
                    picture = new
                    {
                        size.Width,
                        size.Height,
                        Suggestion = content ? null : (Frame?)suggestion.Box,
                        SuggestionKind = suggestion.Kind,
                        SuggestedParts = content ? [] : suggestion.Parts,
                        Faces = suggestion.Faces ?? [],
                        Content = content
                            ? new FocusPoint(
                                (suggestion.Box.Left + suggestion.Box.Right) / 2,
                                (suggestion.Box.Top + suggestion.Box.Bottom) / 2
                            )
                            : (FocusPoint?)null,
                    },
                    slot = new
                    {
                        slot.Fit,
                        Ratio = slot.FrameShape?.Value,
                        ShapeKey = Shapes.KeyOf(slot),
                        Clear = new[] { slot.Clear.Left, slot.Clear.Top, slot.Clear.Right, slot.Clear.Bottom },
                        slot.SubjectShare,
                        slot.Toward,
                        slot.Extend,
                    },
                    decisions,
                    frame = new
                    {
                        region.X,
                        region.Y,
                        region.Width,
                        region.Height,
                    },
                }
            );
        }

        Hold("domain/solver.vectors.json", cases);
    }

    [Fact]
    public void The_turns_cases_are_those_of_the_core()
    {
        var random = new Random(12);
        var cases = new List<object>();
        for (var i = 0; i < 60; i++)
        {
            var size = i % 2 == 0 ? new PixelSize(4000, 3000) : new PixelSize(1500, 2600);
            var from = new Turn(random.Next(4), random.Next(3) == 0 ? 0 : Math.Round((random.NextDouble() * 20) - 10, 1));
            var to = new Turn(random.Next(4), random.Next(3) == 0 ? 0 : Math.Round((random.NextDouble() * 20) - 10, 1));
            var decisions = Decisions.None with
            {
                Turn = from,
                Keep = [Some(random)],
                Focus = new FocusPoint(random.NextDouble(), random.NextDouble()),
            };
            cases.Add(
                new
                {
                    original = new { size.Width, size.Height },
                    decisions,
                    to,
                    turned = decisions.Framed("1", Some(random)).Turned(to, size) with
                    {
                        Framings = new Dictionary<string, Frame>(),
                    },
                }
            );
        }

        Hold("domain/turn.vectors.json", cases);
    }

    [Fact]
    public void The_commands_cases_are_those_of_the_core()
    {
        var around = new Around();
        var box = Some(new Random(13));
        var begun = new Job
        {
            Name = "A job",
            Pictures =
            [
                new(
                    Picture,
                    (Decisions.None with { Keep = [box] }).With("site/wide", new() { Choice = new("webp", 60), Accepted = ["too-small"] })
                ),
                new(Other, Decisions.None with { Keywords = "lantern" }),
            ],
            Slots = [JobSlot.At("site/square"), JobSlot.At("site/thumb"), JobSlot.At("site/wide")],
        };
        var loose = begun.With(Picture, begun.Find(Picture)!.Decisions.With("site/thumb", new() { Unlinked = true, Frame = box }));
        JobCommand[] commands =
        [
            new SetFrame(Picture, box, Slot: "site/square"),
            new SetFrame(Picture, box, Slot: "site/thumb"),
            new SetFrame(Picture, box, Shape: "3"),
            new SetFrame(Picture, null, Slot: "site/thumb"),
            new FollowMarks([new(Picture, "site/square"), new(Picture, "site/thumb"), new(Other, "site/wide")]),
            new UnlinkCell(Picture, "site/wide"),
            new LinkCell(Picture, "site/thumb"),
            new AddKeepBox(Picture, box),
            new SetKeepBoxes(Picture, []),
            new SetFocus(Picture, new(0.25, 0.5)),
            new SetFocus(Picture, null),
            new ConfirmSuggestion(Picture),
            new RejectSuggestion(Picture),
            new ClearMarks(Picture),
            new TurnPicture(Picture, 1, 0),
            new Accept(Picture, "site/wide", ["keep-cut", "too-small"]),
            new SkipCell(Picture, "site/wide", true),
            new Choose(Picture, "site/wide", null),
            new ChooseForSlots(null, new(null, 44)),
            new GiveWords(Picture, "storm vane", null),
            new GiveWords(Picture, null, "A vane"),
            new GiveWords(Picture, Decorative: true),
            new GiveWords(Picture, Title: "Storm vane"),
            new DressCell(
                Picture,
                "site/wide",
                RulesWriter.Write(
                    new Dress
                    {
                        Fade = new() { To = Rgb.White, Amount = 0.5 },
                    }
                )
            ),
            new DressCell(Picture, "site/wide", null),
            new CopyFraming(Picture, [Other], "site/square"),
            new RemovePictures([Other]),
            new RemoveSlots(["site/wide"]),
            new NameJob(Name: "Another", Patterns: new Dictionary<string, string> { ["site"] = "{picture}" }),
        ];
        var cases = new List<object>();
        foreach (var job in new[] { begun, loose })
        {
            foreach (var command in commands)
            {
                Assert.True(JobCommands.TryApply(job, [command], around, out var applied, out var refused), refused?.Fault.Sentence);
                cases.Add(
                    new
                    {
                        job = Shown(job, around),
                        command,
                        after = Shown(applied!.Job, around),
                    }
                );
            }
        }

        Hold("domain/commands.vectors.json", cases);
    }

    private static object Shown(Job job, Around around) =>
        new
        {
            job.Name,
            job.Patterns,
            pictures = job.Pictures.Select(one => new
            {
                one.Id,
                one.Decisions,
                frames = job.Slots.ToDictionary(
                    slot => slot.Address,
                    slot =>
                    {
                        var frame = CellPlan.Of(around.FactsOf(one.Id)!, one.Decisions, around.SlotAt(slot.Address)!, slot).Frame;
                        return new[] { frame.Left, frame.Top, frame.Right, frame.Bottom };
                    }
                ),
            }),
            slots = job.Slots.Select(slot => new
            {
                slot.Address,
                ShapeKey = Shapes.KeyOf(around.SlotAt(slot.Address)!),
                slot.Choice,
            }),
        };

    private static void Hold(string name, object cases)
    {
        var text = JsonSerializer.Serialize(cases, Json) + "\n";
        WrittenFile.Check(Path.Combine("client", "src", name), text);
    }

    private static Frame Some(Random random)
    {
        var (left, top) = (Math.Round(random.NextDouble() * 0.6, 3), Math.Round(random.NextDouble() * 0.6, 3));
        return Frame.TryCreate(left, top, left + 0.25, top + 0.375, out var frame, out var error)
            ? frame
            : throw new ArgumentException(error);
    }

    private static Frame Small(Random random)
    {
        var (left, top) = (Math.Round(random.NextDouble() * 0.8, 3), Math.Round(random.NextDouble() * 0.8, 3));
        return Frame.Within(left, top, left + 0.06, top + 0.09);
    }

    private static Slot SomeSlot(Random random, int i)
    {
        SizeRule[] rules =
        [
            new SizeRule.Exact(new(300, 300)),
            new SizeRule.Exact(new(851, 315)),
            new SizeRule.Exact(new(400, 600)),
            new SizeRule.SideAlone(Side.Width, 800),
        ];
        Assert.True(Frame.TryCreate(0.1, 0, 0.9, 0.8, out var clear, out _));
        return new()
        {
            Key = "slot",
            Name = "Slot",
            Size = rules[random.Next(4)],
            Fit = i % 11 == 0 ? Fit.Mat : Fit.Crop,
            Clear = random.Next(3) == 0 ? clear : Frame.Whole,
            SubjectShare = random.Next(4) == 0 ? 0.7 : null,
            Extend = i % 5 == 1,
            Toward = i % 4 == 3 ? new FocusPoint(random.NextDouble(), random.NextDouble()) : null,
        };
    }

    private static PictureFacts FactsOf(PixelSize size, Suggestion? suggestion) =>
        new()
        {
            Size = size,
            Format = PictureFormat.Jpeg,
            Bytes = 1000,
            HasAlpha = false,
            Frames = 1,
            Orientation = 1,
            Colours = "RGB",
            Bits = 8,
            HasLocation = false,
            Suggestion = suggestion,
        };

    private sealed class Around : ICommandContext
    {
        private static IReadOnlyDictionary<string, Slot> Slots => Jobs.Around.Slots;

        public PictureFacts? FactsOf(Guid picture) =>
            ClientVectorTests.FactsOf(new(1200, 900), new Suggestion(Some(new Random(14)), SuggestionKind.EyeCatching));

        public Slot? SlotAt(string address) => Slots.GetValueOrDefault(address);

        public int RankOf(string address) => Slots.Keys.ToList().IndexOf(address);

        public CellStanding StandingOf(Guid picture, string address) => CellStanding.None;

        public Decisions MarksOf(Guid picture) => Decisions.None;
    }
}
