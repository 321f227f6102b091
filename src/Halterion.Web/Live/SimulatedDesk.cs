using System.Collections.Immutable;
using System.Text;
using Halterion.Core.People;
using Halterion.Formats;
using Halterion.Store;
using Halterion.Web.Bodies;
using Halterion.Web.Startup;

namespace Halterion.Web.Live;

/// <summary>
/// A booking desk that stands in for a real one: every few seconds somebody books the next class, cancels, or waits for a place, and a
/// file says so. Only the demo has it, for it books whom it likes.
/// </summary>
internal sealed class SimulatedDesk(
    BookingDesk desk, Sessions sessions, Store.People people, TimeProvider clock, CommandLine line) : IDisposable
{
    private static readonly TimeSpan Pace = TimeSpan.FromSeconds(6);

    /// <summary>Somebody whom nobody has met yet.</summary>
    private static readonly ImmutableArray<string> strangers = ["Wren Alder", "Tamsin Reed"];

    /// <summary>Its files count by the second, so that one begun anew is not taken for an older one.</summary>
    private const long Since = 1_700_000_000;

    private readonly Lock gate = new();
    private Timer? timer;

    public bool Offered => line.Demo;

    public bool On => timer is not null;

    /// <returns>False: no class is planned for which anybody could book.</returns>
    public bool Start()
    {
        lock (gate)
        {
            var now = clock.GetUtcNow();
            var next = sessions.ToCome()
                .Select(s => (s.Title, Starts: BookingReader.Moment(s.StartsAt, s.Zone)))
                .FirstOrDefault(s => s.Starts > now);
            if (next.Title is null)
            {
                return false;
            }

            var step = 0;
            timer?.Dispose();
            timer = new Timer(_ => Drop(next.Title, next.Starts, step++), null, TimeSpan.Zero, Pace);
            return true;
        }
    }

    public void Stop()
    {
        lock (gate)
        {
            timer?.Dispose();
            timer = null;
        }
    }

    public void Dispose() => timer?.Dispose();

    /// <summary>The list after so many steps: all but the last two of the roster, then one thing after the other.</summary>
    internal static DeskEvent After(int step, string uid, string title, DateTimeOffset starts, ImmutableArray<string> roster)
    {
        var guests = roster.Select(
            (name, i) => (Name: name, Standing: i < roster.Length - 2 ? DeskStanding.Coming : DeskStanding.Waiting)).ToList();
        if (step >= 1)
        {
            guests.Add((strangers[0], DeskStanding.Coming));
        }

        if (step >= 2 && roster.Length > 2)
        {
            guests[0] = (guests[0].Name, DeskStanding.Gone);
        }

        if (step >= 3 && roster.Length > 2)
        {
            guests[roster.Length - 2] = (guests[roster.Length - 2].Name, DeskStanding.Coming);
        }

        if (step >= 4)
        {
            guests.Add((strangers[1], DeskStanding.Waiting));
        }

        return new DeskEvent(uid, 0, title, starts, false,
            [.. guests.Select(g => new DeskGuest(DeskGuest.KeyOf(Address(g.Name), g.Name), g.Name, g.Standing))]);
    }

    internal static string Address(string name) => $"{name.Replace(' ', '.').ToLowerInvariant()}@desk.example";

    private void Drop(string title, DateTimeOffset starts, int step)
    {
        const int lastStep = 4;
        var roster = people.List().Select(p => p.Name).ToImmutableArray();
        var uid = $"{starts.ToUnixTimeSeconds()}@desk.example";
        var now = After(
            Math.Min(step, lastStep), uid, title, starts, roster) with
        { Sequence = (int)(clock.GetUtcNow().ToUnixTimeSeconds() - Since) };
        var text = DeskCalendar.Write(now, g => Address(g.Name), TimeSpan.FromHours(1), clock.GetUtcNow());
        // Written beside and then moved, as a careful desk would: nobody reads half a list.
        var half = Path.Combine(desk.Folder, $"{uid}.part");
        Database.MakeFolder(desk.Folder);
        File.WriteAllText(half, text, Encoding.UTF8);
        File.Move(half, Path.ChangeExtension(half, ".ics"), overwrite: true);
        if (step >= lastStep)
        {
            Stop();
        }
    }
}
