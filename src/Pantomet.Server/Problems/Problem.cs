using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Pantomet.Server.Problems;

/// <summary>Errors over HTTP: problem details (RFC 9457) with a code for programs and a sentence for people.</summary>
internal static class Problem
{
    public static ProblemHttpResult Of(int status, string code, string sentence) =>
        TypedResults.Problem(statusCode: status, detail: sentence, extensions: new Dictionary<string, object?> { ["code"] = code });

    public static ProblemHttpResult NoPicture() => Of(StatusCodes.Status404NotFound, "no-such-picture", "There is no such picture.");

    public static ProblemHttpResult NoSlot(string destination, string slot) =>
        Of(StatusCodes.Status404NotFound, "no-such-slot", $"The rules have no slot \"{destination}/{slot}\".");

    public static ProblemHttpResult NoRevision() => Of(StatusCodes.Status404NotFound, "no-such-revision", "The picture never had such an original.");

    public static ProblemHttpResult NoDestination() => Of(StatusCodes.Status404NotFound, "no-such-destination", "The book has no such destination.");

    public static ProblemHttpResult NoJob() => Of(StatusCodes.Status404NotFound, "no-such-job", "There is no such job.");

    public static ProblemHttpResult NoCell() => Of(StatusCodes.Status404NotFound, "no-such-cell", "The job has no such picture in such a slot.");

    public static ProblemHttpResult NoVariant() => Of(StatusCodes.Status404NotFound, "no-such-variant", "There is no such variant.");
}
