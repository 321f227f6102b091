using System.Collections.Immutable;
using Halterion.Core.Leading;
using Halterion.Core.Logbook;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;

namespace Halterion.Web.Demo;

/// <summary>
/// Six weeks of a made-up studio: some move on, some had a bad day, one was away, two had pain. The same on every start; nobody’s data.
/// </summary>
internal static class DemoHistory
{
    /// <param name="Station">Its place among the stations that are logged, from 0, warm-up left out.</param>
    /// <param name="Times">In so many of the last classes.</param>
    internal sealed record Hurt(string Name, string File, int Station, int Times, string Where, BodySide? Side = null);

    private const string Traveller = "Leo Pike";

    /// <summary>Since when the traveller is away, in days from today.</summary>
    private const int AwaySince = -33;

    /// <summary>Started late, some words more at the welcome, and a change-over that took longer.</summary>
    public static ImmutableArray<LeadCommand> Commands(LeadScript script, DateTimeOffset booked, int place)
    {
        var commands = ImmutableArray.CreateBuilder<LeadCommand>();
        var at = booked.AddSeconds(60 * (place % 4)).ToUnixTimeMilliseconds();
        var position = 0;
        Add(LeadCommandKind.Start, 0);
        Pause(60, 25 + (10 * (place % 3)));
        var change = script.Scenes.FirstOrDefault(s => s.Kind == SpanKind.Change && s.Start.Value > 60);
        if (change is not null)
        {
            Pause(change.Start.Value + 2, 4 + (place % 3));
        }

        Add(LeadCommandKind.Finish, script.Length.Value);
        return commands.ToImmutable();

        void Add(LeadCommandKind kind, int to)
        {
            at += 1000L * (to - position);
            position = to;
            commands.Add(new LeadCommand(Guid.CreateVersion7(), kind, at));
        }

        void Pause(int where, int seconds)
        {
            Add(LeadCommandKind.Pause, where);
            at += 1000L * seconds;
            Add(LeadCommandKind.Resume, where);
        }
    }

    /// <summary>What somebody did of what was asked.</summary>
    /// <param name="who">Their place in the roster.</param>
    /// <param name="place">Of the class among those of its kind, from 0.</param>
    /// <param name="before">How many of its kind came after it.</param>
    public static LogRow Row(LogRow row, Person person, int who, int place, int before, int day, ImmutableArray<Hurt> pains)
    {
        var came = ((who * 7) + (place * 5)) % 13 != 0 && (person.Name != Traveller || day < AwaySince);
        var strong = person.Level?.Values.Contains(Tier.Harder) == true;
        var main = row.Uses.Skip(WarmUp(row)).ToArray();
        return row with
        {
            Came = came,
            Effort = who == 13 ? null : Math.Clamp(5 + (who % 3) + (place % 3 == 2 ? 1 : 0) + (strong ? 1 : 0), 0, 10),
            Felt = came && (who + place) % 4 == 0 ? new DayAfter(Feeling.Sore, "thighs") : null,
            Uses =
            [
                .. row.Uses.Select(use =>
                {
                    var station = Array.FindIndex(main, m => m.Station == use.Station);
                    var hurt = pains.FirstOrDefault(p => p.Name == person.Name && p.Station == station && before < p.Times);
                    return use with
                    {
                        Sets = station < 0 ? use.Sets : Done(use.Sets, (who + station) % 5, before),
                        Pain = hurt is null ? null : new Pain(hurt.Where, hurt.Side),
                    };
                }),
            ],
        };
    }

    /// <summary>The first four stations of the demo’s classes of this kind are their warm-up.</summary>
    private static int WarmUp(LogRow row) => Math.Min(4, row.Uses.Length);

    private static ImmutableArray<DoneSet> Done(ImmutableArray<DoneSet> asked, int kind, int before) =>
        [.. asked.Select(s => s.Reps is not { } reps ? s : s with { Reps = Math.Max(1, Of(reps, s.Side, kind, before)) })];

    private static int Of(int reps, BodySide? side, int kind, int before) => kind switch
    {
        0 => before < 2 ? reps + 2 : reps + (before % 2),
        2 => before == 0 ? reps / 2 : reps,
        3 => reps + 1,
        4 when side == BodySide.Left && before < 2 => reps * 3 / 4,
        _ => reps,
    };
}
