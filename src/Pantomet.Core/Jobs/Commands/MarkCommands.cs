using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Jobs.Commands;

/// <summary>Adds a box that must stay whole. A keep box counts more than a focus, which is removed.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Box">The box, of the turned picture.</param>
public sealed record AddKeepBox(Guid Picture, Frame Box) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around) =>
        job.Deciding(Picture, decisions => decisions with { Keep = [.. decisions.Keep, Box], Focus = null }, "box");
}

/// <summary>Sets all keep boxes of a picture. Boxes count more than a focus, which is removed; an empty list removes the boxes.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Boxes">The boxes, of the turned picture.</param>
public sealed record SetKeepBoxes(Guid Picture, IReadOnlyList<Frame> Boxes) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around) =>
        job.Deciding(Picture, decisions => decisions with { Keep = [.. Boxes], Focus = Boxes.Count > 0 ? null : decisions.Focus }, "boxes");
}

/// <summary>Sets the focus point. A focus means nothing beside a keep box, so the boxes give way.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Focus">The point; null removes it.</param>
public sealed record SetFocus(Guid Picture, FocusPoint? Focus) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around) =>
        job.Deciding(Picture, decisions => decisions with { Focus = Focus, Keep = Focus is null ? decisions.Keep : [] }, "focus");
}

/// <summary>Confirms the suggested crop: its box becomes the keep box, instead of all other marks.</summary>
/// <param name="Picture">The picture.</param>
public sealed record ConfirmSuggestion(Guid Picture) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around) =>
        around.FactsOf(Picture) is not { } facts
            ? CommandFault.Picture()
            : job.Deciding(
                Picture,
                decisions =>
                    CellPlan.SuggestionOf(facts, decisions.Turn) is { Kind: not SuggestionKind.Content } suggestion
                        ? decisions with
                        {
                            Keep = [suggestion.Box],
                            Focus = null,
                            SuggestionRejected = false,
                        }
                        : decisions with
                        {
                            Focus = null,
                            SuggestionRejected = false,
                        }
            );
}

/// <summary>Rejects the suggested crop; frames come from the middle instead.</summary>
/// <param name="Picture">The picture.</param>
public sealed record RejectSuggestion(Guid Picture) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around) =>
        job.Deciding(Picture, decisions => decisions with { SuggestionRejected = true });
}

/// <summary>Removes keep boxes and focus; the suggested crop counts again.</summary>
/// <param name="Picture">The picture.</param>
public sealed record ClearMarks(Guid Picture) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around) =>
        job.Deciding(Picture, decisions => decisions with { Keep = [], Focus = null, SuggestionRejected = false });
}

/// <summary>
/// Turns a picture. Marks stay on what they mark. Frames by hand stay with a small angle; with another quarter they would have another
/// shape, so those slots
/// follow the marks again.
/// </summary>
/// <param name="Picture">The picture.</param>
/// <param name="Quarters">Quarter turns clockwise, 0 to 3.</param>
/// <param name="Degrees">The small angle clockwise, -15 to 15.</param>
public sealed record TurnPicture(Guid Picture, int Quarters, double Degrees) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around)
    {
        var to = new Turn(Quarters, Degrees);
        return !to.IsPossible ? new CommandFault(CommandFault.BadValue, JobTexts.APictureCanBeTurnedBy(Turn.MostDegrees), "quarters")
            : around.FactsOf(Picture) is not { } facts ? CommandFault.Picture()
            : job.Deciding(Picture, decisions => decisions.Turned(to, facts.Size));
    }
}
