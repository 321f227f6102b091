namespace Halterion.Store;

/// <summary>The data cannot be used; the message says why and what to do.</summary>
public sealed class StoreException(string message, Exception? inner = null) : Exception(message, inner);

/// <summary>What is wrong with the data, and what puts it right.</summary>
/// <param name="Why">In one sentence.</param>
/// <param name="Copy">The newest good copy; null: there is none.</param>
public sealed record DataTrouble(string Why, string? Copy)
{
    /// <summary>The one command that puts the newest good copy back; null: there is none.</summary>
    public string? Command => Copy is null ? null : $"./halterion restore "
        + $"{(Copy.Contains(' ', StringComparison.Ordinal) ? $"'{Copy}'" : Copy)}";

    public string Words =>
        $"{Why} {(Copy is null ? "There is no good copy." : $"The newest good copy is {Copy}. Stop Halterion, then run {Command}")}";
}
