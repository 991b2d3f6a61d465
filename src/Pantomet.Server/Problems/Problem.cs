using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Texts;

namespace Pantomet.Server.Problems;

/// <summary>Errors over HTTP: problem details (RFC 9457) with a code for programs and a sentence for people.</summary>
internal static class Problem
{
    /// <summary>A problem.</summary>
    /// <param name="status">HTTP status.</param>
    /// <param name="code">For programs.</param>
    /// <param name="sentence">For people.</param>
    /// <param name="place">Where in the body, as a JSON path; null for the whole.</param>
    public static ProblemHttpResult Of(int status, string code, string sentence, string? place = null)
    {
        var more = new Dictionary<string, object?> { ["code"] = code };
        if (place is not null)
        {
            more["place"] = place;
        }

        return TypedResults.Problem(statusCode: status, detail: sentence, extensions: more);
    }

    /// <summary>A command that was refused: what the job no longer has is a conflict, all else a mistake of the sender.</summary>
    /// <param name="refused">Which command, and why.</param>
    /// <param name="place">Where the commands stand in the body; null where the body is a short form of them.</param>
    public static ProblemHttpResult Of(RefusedCommand refused, string? place) =>
        Of(
            refused.Fault.Code is CommandFault.NoSuchPicture or CommandFault.NoSuchSlot
                ? StatusCodes.Status409Conflict
                : StatusCodes.Status400BadRequest,
            refused.Fault.Code,
            refused.Fault.Sentence,
            place is null
                ? refused.Fault.Field is null
                    ? null
                    : $"$.{refused.Fault.Field}"
                : $"{place}[{refused.At}]{(refused.Fault.Field is null ? "" : $".{refused.Fault.Field}")}"
        );

    public static ProblemHttpResult NoPicture() =>
        Of(StatusCodes.Status404NotFound, "no-such-picture", ServerTexts.ThisPictureDoesNotExist);

    public static ProblemHttpResult NoSlot(string destination, string slot) =>
        Of(StatusCodes.Status404NotFound, "no-such-slot", ServerTexts.TheRulesHaveNoSlot(destination, slot));

    public static ProblemHttpResult NoRevision() =>
        Of(StatusCodes.Status404NotFound, "no-such-revision", ServerTexts.ThePictureDoesNotHaveThis);

    public static ProblemHttpResult NoDestination() =>
        Of(StatusCodes.Status404NotFound, "no-such-destination", ServerTexts.ThisDestinationDoesNotExist);

    public static ProblemHttpResult NoJob() => Of(StatusCodes.Status404NotFound, "no-such-job", ServerTexts.ThisJobDoesNotExist);

    public static ProblemHttpResult NoCell() => Of(StatusCodes.Status404NotFound, "no-such-cell", ServerTexts.TheJobDoesNotHaveThis);

    public static ProblemHttpResult NoVariant() => Of(StatusCodes.Status404NotFound, "no-such-variant", ServerTexts.ThisFileDoesNotExist);
}
