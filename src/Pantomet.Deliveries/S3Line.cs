using Amazon.Runtime;
using Amazon.S3;
using Amazon.S3.Model;
using Pantomet.Application;
using Pantomet.Application.Background;
using Pantomet.Core.Deliveries;
using Pantomet.Core.Texts;

namespace Pantomet.Deliveries;

/// <summary>An object store with the S3 interface: each file is an object whose key is its path.</summary>
internal sealed class S3Line : IReceiverLine
{
    private readonly ReceiverRule _rule;
    private readonly AmazonS3Client _client;

    public S3Line(ReceiverRule rule, string? secret, WorkOptions options)
    {
        _rule = rule;
        _client = new(
            new BasicAWSCredentials(rule.User, string.IsNullOrEmpty(secret) ? "none" : secret),
            new AmazonS3Config
            {
                ServiceURL = rule.Address,
                AuthenticationRegion = rule.Region,
                // Stores of other makers have no host of their own for each bucket.
                ForcePathStyle = true,
                MaxErrorRetry = 0,
                Timeout = options.LongestAnswer * 2,
                RequestChecksumCalculation = RequestChecksumCalculation.WHEN_REQUIRED,
                ResponseChecksumValidation = ResponseChecksumValidation.WHEN_REQUIRED,
                HttpClientFactory = new Clients(options),
            }
        );
    }

    public async Task<Handed> HandAsync(Outgoing file, CancellationToken cancel)
    {
        try
        {
            await _client.PutObjectAsync(
                new()
                {
                    BucketName = _rule.Bucket,
                    Key = file.Path,
                    ContentType = file.MediaType,
                    InputStream = new MemoryStream(file.Bytes, writable: false),
                    // One hash over the whole: every store understands that.
                    UseChunkEncoding = false,
                },
                cancel
            );
            var there = await _client.GetObjectMetadataAsync(_rule.Bucket, file.Path, cancel);
            return there.ContentLength == file.Bytes.Length
                ? Handed.Accepted()
                : Handed.Later(Sizes.Differ(there.ContentLength, file.Bytes.Length));
        }
        catch (AmazonS3Exception fault)
        {
            return new(MeaningOf(fault), [Said(fault)]);
        }
        catch (Exception fault) when (HttpLine.TroubleOf(Root(fault), cancel) is var (meaning, sentence))
        {
            return new(meaning, [sentence]);
        }
    }

    public async Task<ReceiverTrial> TryAsync(CancellationToken cancel)
    {
        try
        {
            using var _ = await _client.GetObjectAsync(_rule.Bucket, "pantomet-trial", cancel);
            return new(true, ReceiverTexts.TheStoreAnswersAndAcceptsThe);
        }
        catch (AmazonS3Exception fault)
        {
            // That there is no such object is said only to those who may look.
            return fault.ErrorCode == "NoSuchKey" ? new(true, ReceiverTexts.TheStoreAnswersAndAcceptsThe) : new(false, Said(fault));
        }
        catch (Exception fault) when (HttpLine.TroubleOf(Root(fault), cancel) is var (_, sentence))
        {
            return new(false, sentence);
        }
    }

    public ValueTask DisposeAsync()
    {
        _client.Dispose();
        return ValueTask.CompletedTask;
    }

    private static AnswerMeaning MeaningOf(AmazonS3Exception fault) =>
        fault.ErrorCode is "InvalidAccessKeyId" or "SignatureDoesNotMatch" or "NoSuchBucket" or "AccessDenied" or "RequestTimeTooSkewed"
            ? AnswerMeaning.Closed
            : ReceiverAnswer.Read((int)fault.StatusCode is 0 or 200 ? 502 : (int)fault.StatusCode, null, "").Meaning;

    private static string Said(AmazonS3Exception fault) =>
        fault.ErrorCode switch
        {
            "InvalidAccessKeyId" => ReceiverTexts.TheStoreDoesNotKnowThis,
            "SignatureDoesNotMatch" => ReceiverTexts.TheSecretDoesNotMatchThe,
            "NoSuchBucket" => ReceiverTexts.ThisBucketDoesNotExist,
            "AccessDenied" => ReceiverTexts.TheKeyMayNotWriteInto,
            "RequestTimeTooSkewed" => ReceiverTexts.TheClockOfThisMachineAnd,
            // Where there was no answer of its kind the client gives the status a name instead of a code.
            { Length: > 0 } code when code != fault.StatusCode.ToString() && fault.Message.Length is > 0 and < 300 => fault.Message,
            _ => ReceiverTexts.TheAnswerIsNotTheAnswer,
        };

    private static Exception Root(Exception fault) =>
        fault is AmazonServiceException or AmazonClientException or AggregateException && fault.InnerException is { } inner
            ? Root(inner)
            : fault;

    private sealed class Clients(WorkOptions options) : HttpClientFactory
    {
        public override HttpClient CreateHttpClient(IClientConfig clientConfig) =>
            new(new AtOnce(new HostReach(PrivateHosts.Of(options)).Handler(options.LongestAnswer)))
            {
                Timeout = clientConfig.Timeout ?? options.LongestAnswer,
            };

        public override bool UseSDKHttpClientCaching(IClientConfig clientConfig) => false;

        public override bool DisposeHttpClientsAfterUse(IClientConfig clientConfig) => true;
    }

    // A request that first asks whether it may go on is begun again and again, many times a second, by a host that only hangs up.
    private sealed class AtOnce(HttpMessageHandler inner) : DelegatingHandler(inner)
    {
        protected override Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken cancellationToken)
        {
            request.Headers.ExpectContinue = false;
            return base.SendAsync(request, cancellationToken);
        }
    }
}
