using System.Collections.Concurrent;
using System.Globalization;
using System.Security.Cryptography;
using System.Threading.RateLimiting;
using Halterion.Store;

namespace Halterion.Web.Security;

/// <summary>What became of a code that was typed in.</summary>
public enum Tried
{
    LetIn,
    Wrong,

    /// <summary>Too many wrong ones: nobody is let in for a while.</summary>
    Wait,
}

/// <summary>
/// Codes with which a device is let in: six digits, good for five minutes and one device. Five wrong tries a minute in all, then even
/// a right one waits.
/// </summary>
public sealed class Pairing(TimeProvider clock) : IDisposable
{
    public static readonly TimeSpan GoodFor = TimeSpan.FromMinutes(5);
    private const int WrongTries = 5;

    private readonly ConcurrentDictionary<string, (DeviceRole Role, DateTimeOffset Until)> codes = new();
    private readonly ConcurrentDictionary<Guid, CancellationTokenSource> present = new();

    private readonly FixedWindowRateLimiter wrong = new(new FixedWindowRateLimiterOptions
    {
        PermitLimit = WrongTries,
        Window = TimeSpan.FromMinutes(1),
        QueueLimit = 0,
    });

    public (string Code, DateTimeOffset Until) NewCode(DeviceRole role)
    {
        var now = clock.GetUtcNow();
        foreach (var (old, held) in codes)
        {
            if (held.Until < now)
            {
                codes.TryRemove(old, out _);
            }
        }

        string code;
        do
        {
            code = RandomNumberGenerator.GetInt32(1_000_000).ToString("000000", CultureInfo.InvariantCulture);
        }
        while (!codes.TryAdd(code, (role, now + GoodFor)));
        return (code, now + GoodFor);
    }

    public (Tried Tried, DeviceRole Role) Try(string code)
    {
        if (wrong.GetStatistics() is { CurrentAvailablePermits: 0 })
        {
            return (Tried.Wait, default);
        }

        if (codes.TryRemove(code, out var held) && held.Until >= clock.GetUtcNow())
        {
            return (Tried.LetIn, held.Role);
        }

        wrong.AttemptAcquire();
        return (Tried.Wrong, default);
    }

    /// <summary>Ends when the device is sent away.</summary>
    public CancellationToken WhileWelcome(Guid? device) =>
        device is { } id ? present.GetOrAdd(id, _ => new CancellationTokenSource()).Token : CancellationToken.None;

    public void SendAway(Guid device)
    {
        if (present.TryRemove(device, out var streams))
        {
            streams.Cancel();
        }
    }

    public void Dispose() => wrong.Dispose();
}
