using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Accounts;
using Pantomet.Application.Jobs;
using Pantomet.Application.Pictures;
using Pantomet.Batch.Folders;
using Pantomet.Core.Deliveries;
using Pantomet.Data;
using Pantomet.Deliveries;
using Pantomet.PageChecks;

namespace Pantomet.Server.Accounts;

/// <summary>
/// Writes into the log what was asked for and done: every request that writes, unless it is said of its address that it is kept otherwise or
/// changes nothing.
/// </summary>
internal static class ActivityFilter
{
    private static readonly string[] Named = ["destination", "slot", "name"];

    private const string SubjectKey = "pantomet.subject";

    /// <summary>Says what a request is about, where its address does not: the name of a picture, of a person.</summary>
    public static void IsAbout(this HttpContext context, string subject) => context.Items[SubjectKey] = subject;

    public static async ValueTask<object?> FilterAsync(EndpointFilterInvocationContext call, EndpointFilterDelegate next)
    {
        var context = call.HttpContext;
        var endpoint = context.GetEndpoint();
        var writes = !HttpMethods.IsGet(context.Request.Method) && !HttpMethods.IsHead(context.Request.Method);
        if (!(endpoint?.Metadata.GetMetadata<LoggedActivity>()?.IsLogged ?? writes))
        {
            return await next(call);
        }

        // What is removed has its name before, not after.
        var job = Guid.TryParse(context.Request.RouteValues["id"] as string, out var id) && IsOfJob(context.Request) ? id : (Guid?)null;
        var name = await NameAsync(context, job);
        var result = await next(call);
        if (
            result
            is IStatusCodeHttpResult { StatusCode: >= 400 }
                or INestedHttpResult { Result: IStatusCodeHttpResult { StatusCode: >= 400 } }
        )
        {
            return result;
        }

        var (made, of) = MadeBy(result);
        await context
            .RequestServices.GetRequiredService<ActivityLog>()
            .AddAsync(
                context.Actor(),
                endpoint?.Metadata.GetMetadata<IEndpointNameMetadata>()?.EndpointName ?? context.Request.Path.ToString(),
                context.Items[SubjectKey] as string ?? made ?? name,
                job ?? of,
                From(context)
            );
        return result;
    }

    /// <summary>The address that a request came from.</summary>
    public static string From(HttpContext context) => context.Connection.RemoteIpAddress?.ToString() ?? "";

    // What was made has its name in the answer.
    private static (string? Name, Guid? Job) MadeBy(object? result) =>
        (result is INestedHttpResult nested ? nested.Result : result) is IValueHttpResult { Value: { } value }
            ? value switch
            {
                JobSummary job => (job.Name, job.Id),
                Intake intake => (intake.Picture.Name, null),
                ReceiverView receiver => (receiver.Rule.Name, null),
                PictureFolderView folder => (folder.Folder, null),
                PageCheckView page => (page.Name, null),
                _ => (null, null),
            }
            : (null, null);

    private static bool IsOfJob(HttpRequest request) => request.Path.StartsWithSegments("/api/jobs", StringComparison.OrdinalIgnoreCase);

    private static async Task<string> NameAsync(HttpContext context, Guid? job)
    {
        var db = context.RequestServices.GetRequiredService<PantometDb>();
        var (values, cancel) = (context.Request.RouteValues, context.RequestAborted);
        if (Guid.TryParse(values["receiver"] as string, out var receiver))
        {
            return await ReceiverAsync(db, receiver, cancel) ?? "";
        }

        if (job is { } one)
        {
            return await db.Jobs.Where(row => row.Id == one).Select(row => row.Name).FirstOrDefaultAsync(cancel) ?? "";
        }

        if (!Guid.TryParse(values["id"] as string, out var id))
        {
            var parts = Named.Select(key => values[key] as string).Where(part => part is not null);
            return string.Join('/', parts);
        }

        return context.Request.Path.Value?.Split('/') switch
            {
                [_, "api", "pictures", ..] => await db
                    .Pictures.Where(row => row.Id == id)
                    .Select(row => row.Name)
                    .FirstOrDefaultAsync(cancel),
                [_, "api", "receivers", ..] => await ReceiverAsync(db, id, cancel),
                [_, "api", "folders", ..] => await db
                    .PictureFolders.Where(row => row.Id == id)
                    .Select(row => row.Name)
                    .FirstOrDefaultAsync(cancel),
                [_, "api", "page-checks", ..] => await db
                    .PageChecks.Where(row => row.Id == id)
                    .Select(row => row.Name)
                    .FirstOrDefaultAsync(cancel),
                [_, "api", "people", ..] => await db
                    .Users.Where(row => row.Id == id)
                    .Select(row => row.DisplayName)
                    .FirstOrDefaultAsync(cancel),
                _ => null,
            } ?? "";
    }

    private static async Task<string?> ReceiverAsync(PantometDb db, Guid id, CancellationToken cancel) =>
        await db.Receivers.Where(row => row.Id == id).Select(row => row.Rule).FirstOrDefaultAsync(cancel) is { } rule
            ? StoredJson.Read<ReceiverRule>(rule).Name
            : null;
}
