using System.Collections.Concurrent;
using System.Globalization;
using System.Security.Cryptography;
using Halterion.Store;

namespace Halterion.Web.Security;

/// <summary>What became of a code that was typed in.</summary>
public enum Tried
{
    LetIn,
    Wrong,

    /// <summary>It was right, and its five minutes are over.</summary>
    Expired,

    /// <summary>Too many wrong ones: nobody is let in for a while.</summary>
    Wait,
}

/// <summary>
/// Codes with which a device is let in: six digits, good for five minutes and one device. After five wrong tries a minute an address
/// waits, also with a right one; after twenty by whomever every code given out so far is void, so that guessing from many addresses
/// helps nobody, and the owner, who is told, makes a new one at once.
/// </summary>
public sealed class Pairing(TimeProvider clock)
{
    public static readonly TimeSpan GoodFor = TimeSpan.FromMinutes(5);
    private static readonly TimeSpan Window = TimeSpan.FromMinutes(1);
    private const int WrongFromOne = 5;
    private const int WrongInAll = 20;

    private readonly ConcurrentDictionary<string, (DeviceRole Role, Guid? Session, DateTimeOffset Until)> codes = new();
    private readonly ConcurrentDictionary<Guid, CancellationTokenSource> present = new();
    private readonly Dictionary<string, (int Count, DateTimeOffset Since)> wrong = [];
    private readonly Lock gate = new();
    private int wrongInAll;

    /// <summary>Wrong tries since the last code was made.</summary>
    public int WrongTries => wrongInAll;

    /// <summary>So many that the codes given out are void.</summary>
    public bool IsVoid => wrongInAll >= WrongInAll;

    /// <param name="session">The one whose lead asks for it.</param>
    public (string Code, DateTimeOffset Until) NewCode(DeviceRole role, Guid? session = null)
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
        while (!codes.TryAdd(code, (role, session, now + GoodFor)));
        wrongInAll = 0;
        return (code, now + GoodFor);
    }

    /// <param name="from">The address that asks.</param>
    public (Tried Tried, DeviceRole Role, Guid? Session) Try(string code, string from)
    {
        lock (gate)
        {
            var now = clock.GetUtcNow();
            foreach (var old in wrong.Where(w => now - w.Value.Since > Window).Select(w => w.Key).ToArray())
            {
                wrong.Remove(old);
            }

            var before = wrong.TryGetValue(from, out var known) ? known : (Count: 0, Since: now);
            if (before.Count >= WrongFromOne)
            {
                return (Tried.Wait, default, null);
            }

            if (codes.TryRemove(code, out var held) && held.Until >= now)
            {
                return (Tried.LetIn, held.Role, held.Session);
            }

            if (held.Until != default)
            {
                return (Tried.Expired, default, null);
            }

            wrong[from] = (before.Count + 1, before.Since);
            if (++wrongInAll >= WrongInAll)
            {
                codes.Clear();
            }

            return (Tried.Wrong, default, null);
        }
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
}
