using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Jobs.Commands;

/// <summary>One picture in one slot.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address, "destination/slot".</param>
public sealed record CellAddress(Guid Picture, string Slot);

/// <summary>
/// Sets a frame by hand. With a slot, it is the frame of that slot alone where it was unlinked, else of all slots of its shape; with a
/// shape, of all slots of
/// that shape that are not unlinked.
/// </summary>
/// <param name="Picture">The picture.</param>
/// <param name="Frame">The frame, of the turned picture; null gives it up for the marks.</param>
/// <param name="Slot">The slot's address; or</param>
/// <param name="Shape">the shape, by <see cref="Shapes.KeyOf"/>.</param>
public sealed record SetFrame(Guid Picture, Frame? Frame, string? Slot = null, string? Shape = null) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around)
    {
        if ((Slot is null) == (Shape is null))
        {
            return new CommandFault(CommandFault.BadValue, JobTexts.AFrameIsSetForA, "slot");
        }

        if (Frame is { } frame && !Geometry.Frame.TryCreate(frame.Left, frame.Top, frame.Right, frame.Bottom, out _, out var wrong))
        {
            return new CommandFault(CommandFault.BadValue, char.ToUpperInvariant(wrong![0]) + wrong[1..] + ".", "frame");
        }

        if (Shape is { } shape)
        {
            return job.Slots.Any(place => around.SlotAt(place.Address) is { } slot && Shapes.KeyOf(slot) == shape)
                ? job.Deciding(Picture, decisions => decisions.Framed(shape, Frame))
                : new CommandFault(CommandFault.NoSuchSlot, JobTexts.TheJobHasNoSlotOf(shape), "shape");
        }

        return job.HasSlot(Slot!) && around.SlotAt(Slot!) is { } rule
            ? job.Deciding(
                Picture,
                decisions =>
                    decisions.For(Slot!).Unlinked
                        ? decisions.With(Slot!, decisions.For(Slot!) with { Frame = Frame })
                        : decisions.Framed(Shapes.KeyOf(rule), Frame)
            )
            : CommandFault.Slot();
    }
}

/// <summary>Removes frames by hand, so that cells follow the marks again.</summary>
/// <param name="Cells">The cells.</param>
public sealed record FollowMarks(IReadOnlyList<CellAddress> Cells) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around) =>
        Each(job, Cells, (now, cell) => new SetFrame(cell.Picture, null, cell.Slot).On(now, around));

    internal static Outcome Each<T>(Job job, IEnumerable<T> all, Func<Job, T, Outcome> act)
    {
        foreach (var one in all)
        {
            var outcome = act(job, one);
            if (outcome.Job is not { } next)
            {
                return outcome;
            }

            job = next;
        }

        return job;
    }
}

/// <summary>Unlinks a slot: it keeps the frame that it has now, and no longer follows the other slots of its shape.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
public sealed record UnlinkCell(Guid Picture, string Slot) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around)
    {
        if (job.SlotOf(Slot) is not { } place || around.SlotAt(Slot) is not { } slot)
        {
            return CommandFault.Slot();
        }

        return around.FactsOf(Picture) is not { } facts
            ? CommandFault.Picture()
            : job.Deciding(
                Picture,
                decisions =>
                    decisions.For(Slot).Unlinked
                        ? decisions
                        : decisions.With(
                            Slot,
                            decisions.For(Slot) with
                            {
                                Unlinked = true,
                                Frame = CellPlan.Of(facts, decisions, slot, place).Frame,
                            }
                        )
            );
    }
}

/// <summary>Links a slot to the other slots of its shape again.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
public sealed record LinkCell(Guid Picture, string Slot) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around) =>
        job.HasSlot(Slot)
            ? job.Deciding(Picture, decisions => decisions.With(Slot, decisions.For(Slot) with { Unlinked = false, Frame = null }))
            : CommandFault.Slot();
}

/// <summary>
/// Gives other pictures the turn, marks and frames of one: the same product, photographed twelve times. What was set by hand on them is
/// replaced; what was
/// decided about single cells otherwise stays.
/// </summary>
/// <param name="Picture">The picture that is copied from.</param>
/// <param name="To">The pictures that are given the same.</param>
/// <param name="Slot">A slot whose frame is copied as it stands where none was set by hand; null copies only what was set.</param>
public sealed record CopyFraming(Guid Picture, IReadOnlyList<Guid> To, string? Slot = null) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around)
    {
        if (job.Find(Picture)?.Decisions is not { } from || around.FactsOf(Picture) is not { } facts)
        {
            return CommandFault.Picture();
        }

        var framings = new Dictionary<string, Frame>(from.Framings);
        if (Slot is not null)
        {
            if (job.SlotOf(Slot) is not { } place || around.SlotAt(Slot) is not { } slot)
            {
                return CommandFault.Slot();
            }

            framings.TryAdd(Shapes.KeyOf(slot), CellPlan.Of(facts, from, slot, place).Frame);
        }

        var loose = from.Cells.Where(pair => pair.Value.Unlinked).ToList();
        return FollowMarks.Each(
            job,
            To.Where(other => other != Picture).Distinct(),
            (now, other) =>
                now.Deciding(
                    other,
                    theirs =>
                        loose.Aggregate(
                            theirs with
                            {
                                Turn = from.Turn,
                                Keep = from.Keep,
                                Focus = from.Focus,
                                SuggestionRejected = from.SuggestionRejected || from.Keep.Count > 0,
                                Framings = framings,
                            },
                            (all, pair) => all.With(pair.Key, all.For(pair.Key) with { Unlinked = true, Frame = pair.Value.Frame })
                        ),
                    "to"
                )
        );
    }
}
