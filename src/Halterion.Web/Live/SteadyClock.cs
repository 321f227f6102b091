using System.Globalization;

namespace Halterion.Web.Live;

/// <summary>
/// The time of a class under way. It starts from the machine's clock and from then on runs on the monotonic one, so that a
/// clock that is set neither stops a class nor repeats a part of it.
/// </summary>
public sealed class SteadyClock(TimeProvider clock)
{
    /// <summary>Seconds since this machine was started, sleep included, where the system tells it (proc_uptime(5)).</summary>
    private const string Uptime = "/proc/uptime";

    /// <summary>Less than this apart is how the two are measured.</summary>
    private const long Apart = 1000;

    private readonly double? upAtFirst = SinceBoot();
    private long slept;
    private long looked;

    private readonly long began = clock.GetTimestamp();
    private readonly long origin = clock.GetUtcNow().ToUnixTimeMilliseconds();

    /// <summary>
    /// Milliseconds since 1970 UTC. A machine that slept goes on where the class should be, though its monotonic clock stood.
    /// </summary>
    public long Now
    {
        get
        {
            var run = (long)clock.GetElapsedTime(began).TotalMilliseconds;
            if (run - Interlocked.Read(ref looked) > Apart / 4)
            {
                Interlocked.Exchange(ref looked, run);
                if (upAtFirst is { } first && SinceBoot() is { } up && (long)((up - first) * 1000) - run is var gap
                    && gap > Interlocked.Read(ref slept) + Apart)
                {
                    Interlocked.Exchange(ref slept, gap);
                }
            }

            return origin + run + Interlocked.Read(ref slept);
        }
    }

    private static double? SinceBoot()
    {
        try
        {
            return File.Exists(Uptime)
                && double.TryParse(File.ReadAllText(Uptime).Split(' ')[0], CultureInfo.InvariantCulture, out var seconds) ? seconds : null;
        }
        catch (IOException)
        {
            return null;
        }
    }
}
