namespace Halterion.Store;

/// <summary>The store cannot be used; the message says why in one line and what to do.</summary>
public sealed class StoreException(string message, Exception? inner = null) : Exception(message, inner)
{
    /// <summary>The file itself is damaged.</summary>
    public bool IsDamage { get; init; }
}
