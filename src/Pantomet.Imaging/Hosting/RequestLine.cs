using System.Diagnostics;
using System.Text.Json;
using System.Text.Json.Serialization;
using Pantomet.Core.Texts;
using Pantomet.Imaging.Reading;
using Pantomet.Platform;

namespace Pantomet.Imaging.Hosting;

/// <summary>Orders and outcomes as lines of JSON between two processes. The lines are an inner matter and change as they need.</summary>
public static class RequestLine
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter() },
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        IgnoreReadOnlyProperties = false,
    };

    /// <summary>One line.</summary>
    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    /// <summary>Reads a line back.</summary>
    /// <exception cref="JsonException">The line is none of ours.</exception>
    public static T Read<T>(string line) => JsonSerializer.Deserialize<T>(line, Options) ?? throw new JsonException("an empty line");

    /// <summary>
    /// Carries out orders from a reader until it ends; an empty line stops the one under way. A line that only tells a weight is followed
    /// by the outcome.
    /// </summary>
    public static async Task ServeAsync(TextReader orders, TextWriter outcomes)
    {
        ArgumentNullException.ThrowIfNull(orders);
        ArgumentNullException.ThrowIfNull(outcomes);
        using var worker = new ImagingWorker();
        var gate = new Lock();
        void Tell(ImagingResponse told)
        {
            lock (gate)
            {
                outcomes.WriteLine(Write(told));
                outcomes.Flush();
            }
        }

        // What draws cannot be stopped but with its process: the refusal is told first.
        DrawingTime.Over = () =>
        {
            Tell(ImagingResponse.Failed(ImagingFailure.Refused, DrawingTime.Refusal) with { Ends = true });
            Process.GetCurrentProcess().Kill();
        };
        CancellationTokenSource? running = null;
        var work = Task.CompletedTask;
        while (await orders.ReadLineAsync() is { } line)
        {
            if (line.Length == 0)
            {
                running?.Cancel();
                continue;
            }

            await work;
            running?.Dispose();
            running = new();
            var stop = running.Token;
            work = Task.Run(async () =>
            {
                ImagingResponse response;
                ImagingRequest? request = null;
                HelperProcess.Step();
                try
                {
                    request = Read<ImagingRequest>(line);
                    response = worker.Do(request, Tell, stop);
                }
                catch (OperationCanceledException)
                {
                    response = new() { Refusal = "Stopped." };
                }
                catch (OutOfMemoryException)
                {
                    response = ImagingResponse.Failed(ImagingFailure.TooLarge, ImagingFault.TooLarge) with { Ends = true };
                }
                catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
                {
                    response = ImagingResponse.Failed(ImagingFailure.Disk, fault.Message);
                }
#pragma warning disable CA1031 // Whatever happens, the other side gets its line; it must not wait for one that never comes.
                catch (Exception fault)
#pragma warning restore CA1031
                {
                    await Console.Error.WriteLineAsync($"{request?.GetType().Name}: {fault}");
                    response = ImagingResponse.Failed(ImagingFailure.Unforeseen, PictureTexts.ThisPictureCouldNotBeProcessed);
                }

                HelperProcess.Done();
                Tell(response);
            });
        }

        await work;
        running?.Dispose();
        DrawingTime.Over = null;
    }
}
