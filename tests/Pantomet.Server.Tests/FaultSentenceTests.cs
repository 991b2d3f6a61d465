using System.Text.Json;
using Microsoft.AspNetCore.Http;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;
using Pantomet.Server.Door;

namespace Pantomet.Server.Tests;

/// <summary>What comes up in the middle of a request: each kind has its status, its code and its sentence. bench/faults acts most of them out.</summary>
public sealed class FaultSentenceTests
{
    public static TheoryData<string, int, string> Kinds =>
        new()
        {
            { "sqlite 5", 503, "busy" },
            { "sqlite 6", 503, "busy" },
            { "sqlite 8", 503, "read-only" },
            { "sqlite 10", 503, "disk-error" },
            { "sqlite 13", 507, "disk-full" },
            { "sqlite 14", 503, "read-only" },
            { "update 10", 503, "disk-error" },
            { "file 5", 503, "disk-error" },
            { "file 28", 507, "disk-full" },
            { "file 30", 503, "read-only" },
            { "access 0", 503, "read-only" },
            { "other 0", 500, "unforeseen" },
        };

    [Theory]
    [MemberData(nameof(Kinds))]
    public async Task A_fault_of_the_disk_is_told_as_what_it_is(string kind, int status, string code)
    {
        await using var services = new ServiceCollection().AddLogging().AddProblemDetails().BuildServiceProvider();
        var context = new DefaultHttpContext { RequestServices = services };
        context.Response.Body = new MemoryStream();

        Assert.True(await new Faults(NullLogger<Faults>.Instance).TryHandleAsync(context, Fault(kind), CancellationToken.None));

        context.Response.Body.Position = 0;
        using var problem = await JsonDocument.ParseAsync(context.Response.Body);
        Assert.Equal(status, context.Response.StatusCode);
        Assert.Equal(code, problem.RootElement.GetProperty("code").GetString());
        Assert.EndsWith(".", problem.RootElement.GetProperty("detail").GetString(), StringComparison.Ordinal);
    }

    private static Exception Fault(string kind)
    {
        var number = int.Parse(kind.Split(' ')[1], System.Globalization.CultureInfo.InvariantCulture);
        return kind.Split(' ')[0] switch
        {
            "sqlite" => new SqliteException("said by SQLite", number),
            "update" => new DbUpdateException("said by EF Core", new SqliteException("said by SQLite", number)),
            "file" => new IOException("said by the system", number),
            "access" => new UnauthorizedAccessException(),
            _ => new InvalidOperationException("nobody foresaw it"),
        };
    }
}
