namespace Halterion.Web.Live;

/// <summary>
/// The time of a class under way. It starts from the machine's clock and from then on runs on the monotonic one, so that a
/// clock that is set neither stops a class nor repeats a part of it.
/// </summary>
public sealed class SteadyClock(TimeProvider clock)
{
    private readonly long began = clock.GetTimestamp();
    private readonly long origin = clock.GetUtcNow().ToUnixTimeMilliseconds();

    /// <summary>Milliseconds since 1970 UTC.</summary>
    public long Now => origin + (long)clock.GetElapsedTime(began).TotalMilliseconds;
}
