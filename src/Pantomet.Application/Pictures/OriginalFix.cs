using Pantomet.Application.Engine;
using Pantomet.Core.Facts;
using Pantomet.Core.Mending;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Imaging.Hosting;

namespace Pantomet.Application.Pictures;

/// <summary>Puts originals of the library right: what comes of one is a newer original, with the way back that every one has.</summary>
public sealed class OriginalFix(ImagingProcessPool engine, DataFolder folder, Revisions revisions)
{
    /// <summary>What is said when no file came of it.</summary>
    public const string NoFile = "cannot-put-right";

    /// <summary>Puts one right.</summary>
    /// <param name="picture">The picture.</param>
    /// <param name="rule">Nothing is wrong with it.</param>
    /// <param name="cancel">Stops; nothing is changed then.</param>
    /// <returns>What came of it; null where the picture is gone meanwhile.</returns>
    public async Task<IntakeResult?> DoAsync(PictureRow picture, OriginalFixRule rule, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(picture);
        ArgumentNullException.ThrowIfNull(rule);
        var facts = picture.Facts with { Suggestion = null };
        if (rule.Nothing(facts) is { } nothing)
        {
            return IntakeResult.Refused(NoFile, nothing);
        }

        var slot = rule.SlotFor(facts);
        var output = folder.Scratch();
        try
        {
            var request = new VariantRequest(
                folder.Originals.PathOf(picture.ContentHash),
                facts,
                default,
                RulesWriter.Write(new RuleBook([new("mend", "mend", [slot])])),
                VariantPlanner.PlanAll(facts.Size, slot)[0],
                null,
                null,
                output
            );
            var response = await engine.RunAsync(request, cancel, urgent: true);
            if (response.Variant is not { HasFile: true } made)
            {
                return IntakeResult.Refused(
                    NoFile,
                    response.Refusal
                        ?? (response.Variant is { Reasons: [var first, ..] } ? first.Message : PictureTexts.NoFileCouldBeMadeOf)
                );
            }

            await using var file = File.OpenRead(output);
            var name = Path.ChangeExtension(picture.Name, made.Format!.Value.Ending());
            return await revisions.ReplaceAsync(picture.Id, name, file, file.Length, cancel);
        }
        finally
        {
            File.Delete(output);
        }
    }
}
