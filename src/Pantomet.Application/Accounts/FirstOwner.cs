using Pantomet.Core.Accounts;

namespace Pantomet.Application.Accounts;

/// <summary>
/// The one-time secret by which the first owner is made, or another one when none can sign in. It is in memory only: whoever starts the
/// server reads it, and it ends with the server, with its use, and after an hour.
/// </summary>
public sealed class FirstOwner(TimeProvider clock)
{
    private static readonly TimeSpan Lasts = TimeSpan.FromHours(1);
    private readonly Lock _gate = new();
    private string? _hash;
    private DateTimeOffset _until;

    /// <summary>A new secret; the one before ends.</summary>
    public string Make()
    {
        var secret = SecretText.Make();
        lock (_gate)
        {
            (_hash, _until) = (SecretText.Hash(secret), clock.GetUtcNow() + Lasts);
        }

        return secret;
    }

    /// <summary>True when this is the secret, and it still works.</summary>
    public bool Is(string secret)
    {
        lock (_gate)
        {
            return _hash is { } hash && clock.GetUtcNow() < _until && SecretText.Is(secret, hash);
        }
    }

    /// <summary>Ends the secret; false when another one was quicker.</summary>
    public bool TryUse(string secret)
    {
        lock (_gate)
        {
            if (!Is(secret))
            {
                return false;
            }

            _hash = null;
            return true;
        }
    }
}
