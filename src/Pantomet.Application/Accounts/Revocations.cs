namespace Pantomet.Application.Accounts;

/// <summary>Counts the links and tokens that were revoked since the server started: whoever relied on one asks again when the count has moved.</summary>
public sealed class Revocations
{
    private long _count;

    /// <summary>How many there were.</summary>
    public long Count => Interlocked.Read(ref _count);

    /// <summary>Counts one more.</summary>
    public void Add() => Interlocked.Increment(ref _count);
}
