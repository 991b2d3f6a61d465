using System.Text.Json;
using Pantomet.Core.Jobs;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Jobs.History;
using static Pantomet.Core.Tests.Jobs.JobSteps;

namespace Pantomet.Core.Tests.Jobs;

/// <summary>What was done with a picture, as sentences, and how it was at an earlier moment.</summary>
public sealed class PictureHistoryTests
{
    private readonly Around _around = new();

    [Theory]
    [InlineData(3)]
    [InlineData(11)]
    public void A_step_concerns_a_picture_when_it_changed_something_about_it_and_then_it_has_a_sentence(int seed)
    {
        foreach (var (before, after, command, applied) in Steps(seed, 500))
        {
            foreach (var picture in (Guid[])[One, Two, Three])
            {
                var concerns = PictureHistory.Concerns(applied.Inverse, picture);
                Assert.Equal(Text(before.Find(picture)?.Decisions) != Text(after.Find(picture)?.Decisions), concerns);
                if (concerns)
                {
                    Assert.NotEmpty(PictureHistory.OfCommands([command], applied.Inverse, picture, Name));
                    Assert.NotEmpty(PictureHistory.OfStep(applied.Inverse, isUndo: true, picture, Name));
                }
            }
        }
    }

    [Theory]
    [InlineData(3)]
    [InlineData(11)]
    public void Going_back_to_a_moment_gives_what_was_decided_then_and_nothing_where_the_picture_was_not_there_all_the_time(int seed)
    {
        var steps = Steps(seed, 300);
        var now = steps[^1].After;
        var (gone, compared) = (0, 0);
        foreach (var picture in (Guid[])[One, Two])
        {
            for (var back = 1; back <= steps.Count; back++)
            {
                var since = steps.TakeLast(back).ToList();
                var then = PictureHistory.AsItWas(now, picture, since.Select(step => step.Applied.Inverse).Reverse());
                if (since.Any(step => step.Before.Find(picture) is null || step.After.Find(picture) is null))
                {
                    Assert.Null(then);
                    gone++;
                    continue;
                }

                var was = since[0].Before.Find(picture)!.Decisions;
                var slots = was.Cells.Where(cell => now.HasSlot(cell.Key)).ToDictionary(cell => cell.Key, cell => cell.Value);
                Assert.Equal(Text(was with { Cells = slots }), Text(then));
                compared++;
            }
        }

        Assert.True(gone > 0 && compared > 5, $"{gone} {compared}");
    }

    [Fact]
    public void Sentences_say_what_a_command_decided_with_the_names_of_slots()
    {
        Assert.Equal("set the frame for the wide one", Said(new SetFrame(One, Box, Slot: "site/wide")));
        Assert.Equal("set the frame for all slots of shape 1", Said(new SetFrame(One, Box, Shape: "1")));
        Assert.Equal("let the frame follow the marks again for the wide one", Said(new SetFrame(One, null, Slot: "site/wide")));
        Assert.Equal("turned it by 88.5 degrees", Said(new TurnPicture(One, 1, -1.5)));
        Assert.Equal("chose webp, quality 60 for the wide one", Said(new Choose(One, "site/wide", new("webp", 60))));
        Assert.Equal("wrote keywords, the title", Said(new GiveWords(One, "vane", Title: "A vane")));
        Assert.Equal("set 2 keep boxes", Said(new SetKeepBoxes(One, [Box, FrameOf(0.6, 0.6, 0.9, 0.9)])));
        Assert.Equal("gave it the frames of another picture", Said(new CopyFraming(Two, [One], "site/wide")));
    }

    [Fact]
    public void What_is_said_twice_is_told_once_and_what_is_about_another_picture_is_not_told()
    {
        var commands = new JobCommand[] { new SkipCell(One, "site/wide", true), new SkipCell(One, "site/wide", true), new ClearMarks(Two) };

        Assert.Equal(["skipped the wide one"], PictureHistory.OfCommands(commands, new(), One, Name));
    }

    [Fact]
    public void A_step_is_told_by_what_it_did_and_a_step_back_by_what_it_took_back()
    {
        Assert.True(JobCommands.TryApply(Begun, [new RemovePictures([One])], _around, out var removed, out _));

        Assert.Equal("removed it from the job", PictureHistory.OfStep(removed!.Inverse, isUndo: false, One, Name));
        Assert.Equal("added it to the job", PictureHistory.OfStep(removed.Inverse, isUndo: true, One, Name));
    }

    [Fact]
    public void The_line_of_the_log_counts_by_kind()
    {
        Assert.Equal(
            "added 2 pictures, set 1 frame, changed the marks of 2 pictures, decided about 1 cell, named the job \"Spring\"",
            CommandSummary.Of([
                new AddPictures([One, Two]),
                new SetFrame(One, Box, Shape: "1"),
                new ClearMarks(One),
                new SetFocus(Two, new(0.5, 0.5)),
                new Accept(One, "site/wide"),
                new NameJob("Spring"),
            ])
        );
        Assert.NotEmpty(CommandSummary.Of([]));
    }

    private static string Name(string slot) => slot == "site/wide" ? "the wide one" : slot;

    private static string Said(JobCommand command) => Assert.Single(PictureHistory.OfCommands([command], new(), One, Name));

    private List<(Job Before, Job After, JobCommand Command, Applied Applied)> Steps(int seed, int tries)
    {
        var random = new Random(seed);
        var job = Begun;
        var steps = new List<(Job, Job, JobCommand, Applied)>();
        for (var i = 0; i < tries; i++)
        {
            var command = Some(random);
            if (JobCommands.TryApply(job, [command], _around, out var applied, out _) && !applied!.Change.IsEmpty)
            {
                steps.Add((job, applied.Job, command, applied));
                job = applied.Job;
            }
        }

        return steps;
    }

    private static string Text(Decisions? decisions) =>
        decisions is null
            ? ""
            : JsonSerializer.Serialize(
                decisions with
                {
                    Framings = new SortedDictionary<string, Core.Geometry.Frame>(decisions.Framings.ToDictionary()),
                    Cells = new SortedDictionary<string, CellDecision>(decisions.Cells.ToDictionary()),
                }
            );
}
