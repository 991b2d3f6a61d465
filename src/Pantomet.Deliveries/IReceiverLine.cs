using Pantomet.Core.Deliveries;

namespace Pantomet.Deliveries;

/// <summary>A file on its way to a receiver.</summary>
/// <param name="Path">Its path, as in the bundle.</param>
/// <param name="MediaType">Its media type.</param>
/// <param name="Bytes">What it holds.</param>
/// <param name="Hash">The SHA-256 of that.</param>
/// <param name="HeldHash">The hash of what the receiver took before under this path; null where it took nothing.</param>
public sealed record Outgoing(string Path, string MediaType, byte[] Bytes, string Hash, string? HeldHash)
{
    /// <summary>Its name without folders.</summary>
    public string Name => Path[(Path.LastIndexOf('/') + 1)..];
}

/// <summary>What came of handing a file over.</summary>
/// <param name="Meaning">What it means.</param>
/// <param name="Said">What the receiver said, or why it could not.</param>
public sealed record Handed(AnswerMeaning Meaning, IReadOnlyList<string> Said)
{
    /// <summary>Where the receiver says that it shows what it made of the file.</summary>
    public IReadOnlyList<Uri> ShownAt { get; init; } = [];

    /// <summary>True where what is shown was named by the receiver; false where it is only likely to be there.</summary>
    public bool SaysWhere { get; init; }

    /// <summary>When it wants to be asked again; null where it did not say.</summary>
    public TimeSpan? After { get; init; }

    /// <summary>The file was accepted.</summary>
    public static Handed Accepted(params string[] said) => new(AnswerMeaning.Accepted, said);

    /// <summary>The file was refused.</summary>
    public static Handed Refused(string why) => new(AnswerMeaning.Refused, [why]);

    /// <summary>The receiver could not take it now.</summary>
    public static Handed Later(string why) => new(AnswerMeaning.Later, [why]);

    /// <summary>The receiver takes no file at all.</summary>
    public static Handed Closed(string why) => new(AnswerMeaning.Closed, [why]);
}

/// <summary>What came of trying whether a receiver can be reached.</summary>
/// <param name="Reached">True where it can.</param>
/// <param name="Sentence">What was found.</param>
/// <param name="HostKey">The digest of the key that the host showed, where it has one that was not accepted yet.</param>
public sealed record ReceiverTrial(bool Reached, string Sentence, string? HostKey = null);

/// <summary>A way to a receiver, open for a while. One file goes at a time.</summary>
public interface IReceiverLine : IAsyncDisposable
{
    /// <summary>Hands a file over and looks whether it arrived whole. What goes wrong is an answer too.</summary>
    public Task<Handed> HandAsync(Outgoing file, CancellationToken cancel);

    /// <summary>Tries whether the receiver can be reached; nothing is handed over.</summary>
    public Task<ReceiverTrial> TryAsync(CancellationToken cancel);
}
