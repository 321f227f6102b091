using System.Collections.Concurrent;
using System.Collections.Immutable;
using Halterion.Core;
using Halterion.Core.Sessions;

namespace Halterion.Web.Live;

/// <summary>Somebody's heart, for whoever leads.</summary>
/// <param name="Share">Of their estimated maximum; null: not known now.</param>
/// <param name="Trouble">Such as "lost"; empty: none.</param>
/// <param name="HardSeconds">Above 85 % so far.</param>
public sealed record Heart(PersonId Person, double? Share, string Trouble, int HardSeconds);

/// <summary>
/// Belts as they are heard: real ones and simulated ones bring the same frames. Nothing of them is stored or logged; what is proposed
/// for the log is only what somebody then keeps.
/// </summary>
internal sealed class Belts(SteadyClock clock) : IDisposable
{
    /// <summary>Whose belt it is, and the maximum that is estimated for them.</summary>
    private sealed record Wearer(PersonId Person, double Maximum);

    private readonly ConcurrentDictionary<string, (Wearer? Wearer, Belt Belt)> belts = new(StringComparer.Ordinal);
    private Timer? simulator;

    public bool Simulated => simulator is not null;

    public void Give(string belt, PersonId person, int age) =>
        belts.AddOrUpdate(
            belt, _ => (new Wearer(person, Belt.Maximum(age)), Belt.New), (_, was) => (new Wearer(person, Belt.Maximum(age)), was.Belt));

    /// <summary>A frame as it came; false: it is none.</summary>
    public bool Take(string belt, ReadOnlySpan<byte> bytes)
    {
        if (HeartFrame.Read(bytes) is not { } frame)
        {
            return false;
        }

        var now = clock.Now;
        belts.AddOrUpdate(belt, _ => (null, Belt.New.After(frame, now, double.MaxValue)),
            (_, was) => (was.Wearer, was.Belt.After(frame, now, was.Wearer?.Maximum ?? double.MaxValue)));
        return true;
    }

    public ImmutableArray<Heart> Hearts()
    {
        var now = clock.Now;
        return
        [
            .. belts.Values.Where(b => b.Wearer is not null).Select(b => (b.Wearer, b.Belt, Trouble: b.Belt.Trouble(now)))
                .Select(
                    b => new Heart(
                        b.Wearer!.Person,
                        b.Trouble.Length == 0 ? Math.Round(b.Belt.Beats / b.Wearer.Maximum, 2) : null,
                        b.Trouble,
                        (int)b.Belt.HardSeconds))
                .OrderBy(h => h.Person.Value, StringComparer.Ordinal),
        ];
    }

    /// <summary>Lets simulated belts send a frame a second; now and then one loses contact.</summary>
    /// <param name="wearers">Who wears them, with their ages.</param>
    /// <param name="working">Whether the class works now.</param>
    public void Simulate(ImmutableArray<(PersonId Person, int Age)> wearers, Func<bool> working)
    {
        Stop();
        var rates = wearers.Select((w, i) => 88.0 + (i % 5 * 4)).ToArray();
        foreach (var (wearer, i) in wearers.Select((w, i) => (w, i)))
        {
            Give($"belt {i + 1}", wearer.Person, wearer.Age);
        }

        var beat = 0;
        simulator = new Timer(
            _ =>
            {
                beat++;
                var works = working();
                for (var i = 0; i < wearers.Length; i++)
                {
                    var aim = Belt.Maximum(wearers[i].Age) * (works ? 0.74 + (i % 6 * 0.03) : 0.58);
                    rates[i] += (aim - rates[i]) * 0.06;
                    var off = (beat + (i * 37)) % 151 < 6;
                    Take($"belt {i + 1}",
                        new HeartFrame((int)Math.Round(rates[i]), !off, null, [Math.Round(60 / rates[i] * 1024) / 1024]).Write());
                }
            },
            null,
            TimeSpan.Zero,
            TimeSpan.FromSeconds(1));
    }

    public void Stop()
    {
        simulator?.Dispose();
        simulator = null;
        belts.Clear();
    }

    public void Dispose() => simulator?.Dispose();
}
