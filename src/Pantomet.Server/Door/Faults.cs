using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.Logging;
using Pantomet.Core.Texts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Door;

/// <summary>
/// What came up in the middle of a request, as a problem: what the sender can mend, what passes, and what nobody foresaw, which is logged
/// with its trace.
/// </summary>
internal sealed partial class Faults(ILogger<Faults> log) : IExceptionHandler
{
    private const int Busy = 5;
    private const int Locked = 6;
    private const int ReadOnly = 8;
    private const int Full = 13;
    private const int DiskFull = 28;

    // Result codes of SQLite (sqlite.org/rescode.html), and numbers of the system (errno(3)).
    private const int InputOutput = 10;
    private const int CannotOpen = 14;
    private const int DiskError = 5;
    private const int ReadOnlyDisk = 30;

    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        var (status, code, sentence, place) = Of(exception, httpContext);
        if (status == StatusCodes.Status500InternalServerError)
        {
            Unforeseen(log, httpContext.Request.Method, httpContext.Request.Path, httpContext.TraceIdentifier, exception);
        }
        else if (status is StatusCodes.Status503ServiceUnavailable or StatusCodes.Status507InsufficientStorage)
        {
            NotNow(log, httpContext.Request.Method, httpContext.Request.Path, httpContext.TraceIdentifier, exception.Message);
        }

        httpContext.Response.StatusCode = status;
        var problem = Problem.Of(status, code, sentence, place);
        problem.ProblemDetails.Extensions["traceId"] = httpContext.TraceIdentifier;
        await problem.ExecuteAsync(httpContext);
        return true;
    }

    private static (int Status, string Code, string Sentence, string? Place) Of(Exception fault, HttpContext context) =>
        fault switch
        {
            OperationCanceledException when context.RequestAborted.IsCancellationRequested => (
                StatusCodes.Status499ClientClosedRequest,
                "gone",
                ServerTexts.TheRequestWasCancelled,
                null
            ),
            BadHttpRequestException { StatusCode: StatusCodes.Status413PayloadTooLarge } => (
                StatusCodes.Status413PayloadTooLarge,
                "too-large",
                ServerTexts.TheRequestBodyIsTooLarge,
                null
            ),
            BadHttpRequestException { InnerException: JsonException json } => (
                StatusCodes.Status400BadRequest,
                "bad-body",
                ServerTexts.TheRequestBodyDoesNotHave,
                json.Path
            ),
            BadHttpRequestException { StatusCode: StatusCodes.Status408RequestTimeout } slow => (
                StatusCodes.Status408RequestTimeout,
                "too-slow",
                slow.Message,
                null
            ),
            BadHttpRequestException bad => (bad.StatusCode, "bad-request", ServerTexts.TheRequestCannotBeRead, null),
            // Where nothing is sent it is something stored that cannot be read: a fault of ours.
            JsonException json when !HttpMethods.IsGet(context.Request.Method) => (
                StatusCodes.Status400BadRequest,
                "bad-body",
                ServerTexts.TheRequestBodyDoesNotHave,
                json.Path
            ),
            // A command without the member that tells which it is.
            NotSupportedException { Source: "System.Text.Json" } => (
                StatusCodes.Status400BadRequest,
                "bad-body",
                ServerTexts.TheRequestBodyDoesNotHave,
                null
            ),
            SqliteException { SqliteErrorCode: Busy or Locked } => (
                StatusCodes.Status503ServiceUnavailable,
                "busy",
                ServerTexts.AnotherProgramUsesTheDatabaseNothing,
                null
            ),
            SqliteException { SqliteErrorCode: Full } or IOException { HResult: DiskFull } => (
                StatusCodes.Status507InsufficientStorage,
                "disk-full",
                ServerTexts.TheDiskIsFullNothingWas,
                null
            ),
            SqliteException { SqliteErrorCode: InputOutput } or IOException { HResult: DiskError } => (
                StatusCodes.Status503ServiceUnavailable,
                "disk-error",
                ServerTexts.TheDiskReportsAnError,
                null
            ),
            SqliteException { SqliteErrorCode: ReadOnly or CannotOpen }
            or UnauthorizedAccessException
            or IOException { HResult: ReadOnlyDisk } => (
                StatusCodes.Status503ServiceUnavailable,
                "read-only",
                ServerTexts.TheDataFolderCannotBeWritten,
                null
            ),
            Microsoft.EntityFrameworkCore.DbUpdateException { InnerException: { } inner } => Of(inner, context),
            _ => (StatusCodes.Status500InternalServerError, "unforeseen", ServerTexts.UnexpectedErrorTheLogHasThe, null),
        };

    [LoggerMessage(Level = LogLevel.Error, Message = "{Method} {Path} failed, trace {Trace}.")]
    private static partial void Unforeseen(ILogger log, string method, string path, string trace, Exception fault);

    [LoggerMessage(Level = LogLevel.Warning, Message = "{Method} {Path} could not be answered now, trace {Trace}: {Why}")]
    private static partial void NotNow(ILogger log, string method, string path, string trace, string why);
}
