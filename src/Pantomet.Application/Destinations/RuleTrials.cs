using Pantomet.Application.Jobs;
using Pantomet.Application.Variants;
using Pantomet.Core.Jobs;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Destinations;

/// <summary>What came of a trial: a file, or the reasons why there is none.</summary>
/// <param name="Verdict">The verdict.</param>
/// <param name="Reasons">Why.</param>
/// <param name="File">The file, when one was made.</param>
public sealed record TrialView(Verdict Verdict, IReadOnlyList<Reason> Reasons, VariantFileView? File);

/// <summary>What a slot's rule makes of one picture, before the rule is saved.</summary>
/// <remarks>The file is made as for a job and kept as one that no job wants: should the rule be saved as it is, it is there.</remarks>
public sealed class RuleTrials(SideFileStore files, FileDesk desk)
{
    /// <summary>Makes the slot's first file of a picture on which nothing was decided.</summary>
    /// <param name="picture">The picture.</param>
    /// <param name="rule">The slot's rule.</param>
    /// <param name="cancel">Stops between encodes.</param>
    public async Task<TrialView> MakeAsync(PictureRow picture, Slot rule, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(picture);
        ArgumentNullException.ThrowIfNull(rule);
        if (rule.Pair is { } pair)
        {
            return new(Verdict.Skipped, [new(ReasonCodes.Pair, JobTexts.ThisSlotCombinesPicturesTheseAre(pair.Count, 1))], null);
        }

        var slot = files.Now.Named(rule).For(null);
        var requests = CellPlan.Of(picture.Facts, Decisions.None, slot, new("trial", slot.Key)).Requests;
        var request = requests.FirstOrDefault(one => one.Plan.IsMade) ?? requests[0];
        if (!request.Plan.IsMade)
        {
            return new(request.Plan.Verdict, request.Plan.Reasons, null);
        }

        var wanted = WantedFile.Of(picture, default, slot, RulesWriter.BytesKey(slot), request);
        var standings = await desk.MakeAsync(wanted, urgent: true, cancel);
        if (standings.Made(wanted.Id) is not { } row)
        {
            var why = standings.Failure(wanted.Id)?.Reason ?? JobTexts.TheFileCouldNotBeMade;
            return new(Verdict.Breaks, [.. request.Plan.Reasons, new(ReasonCodes.Unreadable, why)], null);
        }

        var (verdict, reasons) = CellJudge.Of(request.Plan, row);
        return new(verdict, reasons, VariantFileView.Of(row, picture.Name));
    }
}
