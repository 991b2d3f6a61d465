using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Jobs.Commands;
using static Pantomet.Core.Tests.Jobs.JobSteps;

namespace Pantomet.Core.Tests.Jobs;

/// <summary>What each decision means, applied to a job as it is now; and that every one of them can be taken back to the letter.</summary>
public sealed class JobCommandTests
{
    private readonly Around _around = new();

    [Fact]
    public void A_frame_set_in_a_slot_is_that_of_all_slots_of_its_shape_until_one_is_let_loose()
    {
        var job = Done(Begun, new SetFrame(One, Box, Slot: "site/square"));
        Assert.Equal(Box, job.Find(One)!.Decisions.Framings["1"]);
        job = Done(job, new UnlinkCell(One, "site/thumb"));
        var loose = job.Find(One)!.Decisions.For("site/thumb");
        Assert.True(loose.Unlinked);
        // It keeps the frame it had: the square that the box of 0.3 x 0.4 was narrowed to.
        Assert.Equal(0.3, loose.Frame!.Value.Right - loose.Frame.Value.Left, 6);
        var other = FrameOf(0, 0, 0.2, 0.2);
        job = Done(job, new SetFrame(One, other, Slot: "site/thumb"));
        Assert.Equal((other, Box), (job.Find(One)!.Decisions.For("site/thumb").Frame, job.Find(One)!.Decisions.Framings["1"]));
        job = Done(job, new LinkCell(One, "site/thumb"));
        Assert.Equal(CellDecision.None, job.Find(One)!.Decisions.For("site/thumb"));
        Assert.Empty(Done(job, new SetFrame(One, null, Shape: "1")).Find(One)!.Decisions.Framings);
    }

    [Fact]
    public void A_keep_box_takes_the_place_of_a_focus_and_a_focus_that_of_keep_boxes()
    {
        var focus = new FocusPoint(0.3, 0.4);
        var job = Done(Begun, new SetFocus(One, focus), new AddKeepBox(One, Box), new AddKeepBox(One, FrameOf(0.6, 0.6, 0.9, 0.9)));
        Assert.Equal((2, null), (job.Find(One)!.Decisions.Keep.Count, job.Find(One)!.Decisions.Focus));
        job = Done(job, new SetFocus(One, focus));
        Assert.Equal((0, focus), (job.Find(One)!.Decisions.Keep.Count, job.Find(One)!.Decisions.Focus));
        // Taking boxes away that are not there leaves the focus.
        Assert.Equal(focus, Done(job, new SetKeepBoxes(One, [])).Find(One)!.Decisions.Focus);
    }

    [Fact]
    public void A_suggestion_is_confirmed_as_it_lies_after_the_turn()
    {
        var job = Done(Begun, new RejectSuggestion(One), new TurnPicture(One, 2, 0), new ConfirmSuggestion(One));
        var (keep, decisions) = (Assert.Single(job.Find(One)!.Decisions.Keep), job.Find(One)!.Decisions);
        Assert.False(decisions.SuggestionRejected);
        Assert.Equal((1 - Around.Suggested.Right, 1 - Around.Suggested.Bottom), (keep.Left, keep.Top));
    }

    [Theory]
    [InlineData(1, 0)]
    [InlineData(3, 0)]
    [InlineData(0, 4.5)]
    [InlineData(2, -12)]
    public void Marks_stay_on_what_they_mark_when_a_picture_is_turned_there_and_back(int quarters, double degrees)
    {
        var job = Done(Begun, new SetFocus(One, new(0.4, 0.55)), new SetFrame(One, Box, Shape: "1"));
        var turned = Done(job, new TurnPicture(One, quarters, degrees));
        Assert.Equal(quarters == 0 ? 1 : 0, turned.Find(One)!.Decisions.Framings.Count);
        var back = Done(turned, new TurnPicture(One, 0, 0)).Find(One)!.Decisions.Focus!.Value;
        Assert.Equal((0.4, 0.55), (Math.Round(back.X, 9), Math.Round(back.Y, 9)));
    }

    [Fact]
    public void Accepting_adds_to_what_was_accepted_and_clears_the_other_shape()
    {
        var job = Begun.With(One, Decisions.None with { OtherShape = true });
        job = Done(job, new Accept(One, "site/square", ["too-small"]), new Accept(One, "site/square", ["other-shape", "too-small"]));
        Assert.Equal(["too-small", "other-shape"], job.Find(One)!.Decisions.For("site/square").Accepted);
        Assert.False(job.Find(One)!.Decisions.OtherShape);
        // Without codes, what is to review now is meant.
        Assert.Equal(["keep-cut"], Done(Begun, new Accept(Two, "site/wide")).Find(Two)!.Decisions.For("site/wide").Accepted);
    }

    [Fact]
    public void What_is_let_through_is_known_by_what_it_is_wanted_as_and_only_what_breaks_a_limit_can_be()
    {
        var job = Done(Begun, new AllowAnyway(One, "site/wide", ["file-a"]));
        Assert.Equal(["want-a"], job.Find(One)!.Decisions.For("site/wide").Allowed);
        Assert.Equal(CommandFault.BadValue, Refused(Begun, new AllowAnyway(One, "site/wide", ["file-z"])).Code);
    }

    [Fact]
    public void A_choice_for_slots_takes_the_place_of_those_for_single_cells()
    {
        var job = Done(Begun, new Choose(One, "site/square", new("webp", 60)), new Choose(One, "site/wide", new("webp", 60)));
        job = Done(job, new ChooseForSlots(["site/square"], new(null, 44)));
        Assert.Equal((44, null), (job.SlotOf("site/square")!.Choice!.Quality, job.SlotOf("site/wide")!.Choice));
        Assert.Equal(
            (null, 60),
            (job.Find(One)!.Decisions.For("site/square").Choice, job.Find(One)!.Decisions.For("site/wide").Choice?.Quality)
        );
    }

    [Fact]
    public void Copied_frames_and_marks_replace_those_of_the_others_and_leave_the_rest()
    {
        var job = Done(
            Begun,
            new AddKeepBox(One, Box),
            new UnlinkCell(One, "site/thumb"),
            new SkipCell(Two, "site/thumb", true),
            new GiveWords(Two, "lantern")
        );
        var copied = Done(job, new CopyFraming(One, [Two, One], "site/wide")).Find(Two)!.Decisions;
        Assert.Equal([Box], copied.Keep);
        Assert.True(copied.SuggestionRejected && copied.For("site/thumb") is { Unlinked: true, Skip: true });
        Assert.Equal(("lantern", 1), (copied.Keywords, copied.Framings.Count));
    }

    [Fact]
    public void Slots_stand_in_the_order_of_the_book_in_whatever_order_they_are_ticked()
    {
        var job = Done(Begun, new RemoveSlots(["site/square", "site/thumb"]), new AddSlots(["site/thumb"]), new AddSlots(["site/square"]));
        Assert.Equal(["site/square", "site/thumb", "site/wide"], job.Slots.Select(slot => slot.Address));
        Assert.Equal(CommandFault.NoSuchSlot, Refused(Begun, new AddSlots(["site/gone"])).Code);
    }

    [Fact]
    public void Pictures_are_added_once_with_the_marks_that_their_last_job_had()
    {
        var job = Done(Begun, new AddPictures([Two, Three, Three, Guid.NewGuid()]));
        Assert.Equal([One, Two, Three], job.Pictures.Select(one => one.Id));
        Assert.Equal("from before", job.Find(Three)!.Decisions.Keywords);
    }

    [Fact]
    public void A_list_is_applied_whole_or_the_command_that_cannot_be_is_named()
    {
        Assert.False(
            JobCommands.TryApply(
                Begun,
                [new GiveWords(One, "vane"), new LinkCell(Three, "site/wide")],
                _around,
                out var applied,
                out var refused
            )
        );
        Assert.Null(applied);
        Assert.Equal((1, CommandFault.NoSuchPicture), (refused!.At, refused.Fault.Code));
    }

    [Fact]
    public void What_changes_nothing_is_no_change()
    {
        var job = Done(Begun, new SetFocus(One, new(0.5, 0.5)));
        Assert.True(JobCommands.TryApply(job, [new SetFocus(One, new(0.5, 0.5)), new GiveWords(Two)], _around, out var applied, out _));
        Assert.True(applied!.Change.IsEmpty);
        Assert.Same(job, applied.Job);
    }

    [Fact]
    public void Every_command_can_be_taken_back_to_the_letter_and_done_again()
    {
        var random = new Random(7);
        var job = Begun;
        var steps = new List<(Job Before, Job After, Applied Applied)>();
        for (var i = 0; i < 800; i++)
        {
            if (JobCommands.TryApply(job, [Some(random)], _around, out var applied, out _) && !applied!.Change.IsEmpty)
            {
                steps.Add((job, applied.Job, applied));
                job = applied.Job;
            }
        }

        Assert.True(steps.Count > 150);
        foreach (var (before, after, applied) in Enumerable.Reverse(steps))
        {
            Same(before, applied.Inverse.On(after));
            Same(after, applied.Change.On(before));
        }
    }

    private static void Same(Job expected, Job actual)
    {
        Assert.Equal(
            System.Text.Json.JsonSerializer.Serialize(Ordered(expected)),
            System.Text.Json.JsonSerializer.Serialize(Ordered(actual))
        );

        static Job Ordered(Job job) =>
            job with
            {
                Patterns = new SortedDictionary<string, string>(job.Patterns.ToDictionary()),
                Pictures =
                [
                    .. job.Pictures.Select(one =>
                        one with
                        {
                            Decisions = one.Decisions with
                            {
                                Framings = new SortedDictionary<string, Frame>(one.Decisions.Framings.ToDictionary()),
                                Cells = new SortedDictionary<string, CellDecision>(one.Decisions.Cells.ToDictionary()),
                            },
                        }
                    ),
                ],
            };
    }

    private Job Done(Job job, params JobCommand[] commands)
    {
        Assert.True(JobCommands.TryApply(job, commands, _around, out var applied, out var refused), refused?.Fault.Sentence);
        return applied!.Job;
    }

    private CommandFault Refused(Job job, JobCommand command)
    {
        Assert.False(JobCommands.TryApply(job, [command], _around, out _, out var refused));
        return refused!.Fault;
    }
}
