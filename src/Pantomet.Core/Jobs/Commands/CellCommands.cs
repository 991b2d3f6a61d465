using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Jobs.Commands;

/// <summary>Accepts a cell as it is: these reasons are no longer to review.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
/// <param name="Reasons">The reasons by code; null for all that are to review now.</param>
public sealed record Accept(Guid Picture, string Slot, IReadOnlyList<string>? Reasons = null) : JobCommand
{
    private const int MostCodes = 40;

    internal override Outcome On(Job job, ICommandContext around)
    {
        if (!job.HasSlot(Slot))
        {
            return CommandFault.Slot();
        }

        if (Reasons is { } given && (given.Count > MostCodes || given.Any(code => !ReasonCodes.All.Contains(code))))
        {
            return new CommandFault(CommandFault.BadValue, JobTexts.TheseCodesOfReasonsAreNot, "reasons");
        }

        var found = Reasons ?? around.StandingOf(Picture, Slot).ToReview;
        return job.Deciding(
            Picture,
            decisions =>
            {
                var cell = decisions.For(Slot);
                var fresh = found.Except(cell.Accepted).ToList();
                return fresh.Count == 0 && !(decisions.OtherShape && found.Contains(ReasonCodes.OtherShape))
                    ? decisions
                    : decisions.With(Slot, cell with { Accepted = [.. cell.Accepted, .. fresh] }) with
                    {
                        OtherShape = decisions.OtherShape && !found.Contains(ReasonCodes.OtherShape),
                    };
            }
        );
    }
}

/// <summary>Skips a picture in a slot, or includes it again.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
/// <param name="Skipped">True to skip it.</param>
public sealed record SkipCell(Guid Picture, string Slot, bool Skipped) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around) =>
        job.HasSlot(Slot)
            ? job.Deciding(
                Picture,
                decisions =>
                    decisions.For(Slot).Skip == Skipped ? decisions : decisions.With(Slot, decisions.For(Slot) with { Skip = Skipped })
            )
            : CommandFault.Slot();
}

/// <summary>Allows files that break a limit to be handed over anyway.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
/// <param name="Files">The files by their identity; null for all that break a limit now.</param>
public sealed record AllowAnyway(Guid Picture, string Slot, IReadOnlyList<string>? Files = null) : JobCommand
{
    private const int MostFiles = 100;

    internal override Outcome On(Job job, ICommandContext around)
    {
        if (!job.HasSlot(Slot))
        {
            return CommandFault.Slot();
        }

        var broken = around.StandingOf(Picture, Slot).Broken;
        if (Files?.Any(file => !broken.ContainsKey(file)) == true)
        {
            return new CommandFault(CommandFault.BadValue, JobTexts.ThisFileBreaksNoLimitOr, "files");
        }

        var through = (Files ?? broken.Keys).Select(file => broken[file]).ToList();
        return job.Deciding(
            Picture,
            decisions =>
            {
                var cell = decisions.For(Slot);
                var fresh = through.Except(cell.Allowed).ToList();
                // Those of frames that are long gone need not be remembered for ever.
                return fresh.Count == 0
                    ? decisions
                    : decisions.With(Slot, cell with { Allowed = [.. cell.Allowed.Concat(fresh).TakeLast(MostFiles)] });
            }
        );
    }
}

/// <summary>Chooses type and quality of one cell's files.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
/// <param name="Choice">The choice; null finds them again.</param>
public sealed record Choose(Guid Picture, string Slot, Choice? Choice) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around) =>
        !job.HasSlot(Slot) ? CommandFault.Slot()
        : Jobs.Choice.Fault(Choice) is { } wrong ? new CommandFault(CommandFault.BadValue, wrong, "choice")
        : job.Deciding(
            Picture,
            decisions =>
                decisions.For(Slot).Choice == Choice ? decisions : decisions.With(Slot, decisions.For(Slot) with { Choice = Choice })
        );
}

/// <summary>
/// Chooses type and quality for every picture in some slots. What was chosen for single cells of them is removed: this is newer.
/// </summary>
/// <param name="Slots">Addresses; null for all.</param>
/// <param name="Choice">The choice; null finds them again.</param>
public sealed record ChooseForSlots(IReadOnlyList<string>? Slots, Choice? Choice) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around)
    {
        if (Slots?.FirstOrDefault(address => !job.HasSlot(address)) is not null)
        {
            return CommandFault.Slot("slots");
        }

        if (Jobs.Choice.Fault(Choice) is { } wrong)
        {
            return new CommandFault(CommandFault.BadValue, wrong, "choice");
        }

        bool IsMeant(string address) => Slots?.Contains(address) != false;
        return job with
        {
            Slots = [.. job.Slots.Select(slot => IsMeant(slot.Address) ? slot with { Choice = Choice } : slot)],
            Pictures =
            [
                .. job.Pictures.Select(picture =>
                    picture.Decisions.Cells.Where(pair => pair.Value.Choice is not null && IsMeant(pair.Key)).ToList() is { Count: > 0 } own
                        ? picture with
                        {
                            Decisions = own.Aggregate(
                                picture.Decisions,
                                (all, pair) => all.With(pair.Key, pair.Value with { Choice = null })
                            ),
                        }
                        : picture
                ),
            ],
        };
    }
}

/// <summary>Sets text and overlay of one picture in one slot, instead of the slot's own.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
/// <param name="Dress">The value of <c>dress</c> as a rules file has it; null follows the slot again.</param>
public sealed record DressCell(Guid Picture, string Slot, string? Dress) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around)
    {
        if (!job.HasSlot(Slot))
        {
            return CommandFault.Slot();
        }

        string? text = null;
        if (Dress is not null && !DressReader.TryRead(Dress, out _, out text, out var fault))
        {
            return new CommandFault(CommandFault.BadValue, fault!, "dress");
        }

        return job.Deciding(
            Picture,
            decisions => decisions.For(Slot).Dress == text ? decisions : decisions.With(Slot, decisions.For(Slot) with { Dress = text })
        );
    }
}

/// <summary>Gives a picture words.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Keywords">What its files are named by; null leaves them.</param>
/// <param name="Alternative">What it shows, for those who cannot see it; null leaves it. A picture with a text is not decorative.</param>
/// <param name="Decorative">True when it shows nothing that needs to be told; its text is then empty. Null leaves it.</param>
/// <param name="Title">The title that slots write over it; null leaves it.</param>
public sealed record GiveWords(
    Guid Picture,
    string? Keywords = null,
    string? Alternative = null,
    bool? Decorative = null,
    string? Title = null
) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around) => job.Deciding(Picture, Given, "keywords");

    private Decisions Given(Decisions decisions)
    {
        var decorative = Decorative ?? (Alternative is not { Length: > 0 } && decisions.Decorative);
        return decisions with
        {
            Keywords = Keywords ?? decisions.Keywords,
            Alternative = decorative ? "" : Alternative ?? decisions.Alternative,
            Decorative = decorative,
            Title = Title?.Trim() ?? decisions.Title,
        };
    }
}

/// <summary>Removes everything that was decided about a picture in this job.</summary>
/// <param name="Picture">The picture.</param>
public sealed record Forget(Guid Picture) : JobCommand
{
    internal override Outcome On(Job job, ICommandContext around) => job.Deciding(Picture, _ => Decisions.None);
}
