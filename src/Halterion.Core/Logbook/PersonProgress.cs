using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.Json;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Words;

namespace Halterion.Core.Logbook;

/// <summary>What somebody did at a station of a class that was held.</summary>
/// <param name="StartsAt">On the wall clock, such as 2026-11-24T18:00.</param>
/// <param name="Effort">Of the whole class.</param>
public sealed record PastUse(PersonId Person, Guid Session, string StartsAt, decimal? Effort, StationUse Use, LoggedWork Work)
{
    /// <summary>The day it was on.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public DateOnly Date => DateOnly.ParseExact(StartsAt[..10], "yyyy-MM-dd", CultureInfo.InvariantCulture);

    /// <summary>As moving on reads it; null where it was not noted set by set.</summary>
    public PastWork? AsPast(MoveLibrary moves) =>
        Work.Target is { } target && Use.Sets is { IsEmpty: false } sets && sets.All(s => s.Seconds is not null == target.IsTime)
            && OptionOf(moves) is { } option
                ? new PastWork(Date, option, target, sets, Use.Effort ?? Effort, Use.Pain, Use.Clean)
                : null;

    private Option? OptionOf(MoveLibrary moves)
    {
        var text = Work.Option.ToJsonString();
        return moves.Once(("option of a log", text), () =>
        {
            var faults = new Faults();
            var fields = new Fields(JsonElement.Parse(Encoding.UTF8.GetBytes(text)), "", faults);
            var option = ClassReader.ReadOption(fields, moves, faults);
            return faults.None ? option : null;
        });
    }
}

/// <summary>A class that somebody came to, or did not.</summary>
/// <param name="Minutes">As led, else as planned.</param>
public sealed record CameTo(Guid Session, Guid Class, string? StartsAt, string Title, int? Minutes, LogRow Row)
{
    /// <summary>Its effort times its minutes: what it weighed for them; null: their effort is not known.</summary>
    public decimal? Load => Row is { Came: true, Effort: { } effort } && Minutes is { } minutes ? effort * minutes : null;
}

/// <summary>A move in one class.</summary>
/// <param name="Done">In the last set; of sides, the weaker one's.</param>
/// <param name="Kg">Of all that was held.</param>
/// <param name="Volume">Reps times kilograms of all sets.</param>
public sealed record ProgressPoint(
    DateOnly Date, Tier Tier, string Words, int Target, int Done, decimal? Kg, decimal? Effort, string? Pain, decimal? Volume);

/// <summary>A move over time.</summary>
/// <param name="Timed">It counts seconds; else reps.</param>
/// <param name="Best">An estimate; null: there is none.</param>
/// <param name="Next">What is suggested next.</param>
public sealed record MoveProgress(
    MoveId Move, string Name, Family Family, bool Timed, ImmutableArray<ProgressPoint> Points, BestSet? Best, Suggestion? Next);

/// <summary>A week of somebody.</summary>
/// <param name="Start">Its first day.</param>
/// <param name="HardSets">Of main work at an effort of 6 or more, or without one given, by family.</param>
public sealed record PersonWeek(DateOnly Start, WeekLoad Load, ImmutableSortedDictionary<string, int> HardSets);

/// <summary>How somebody has come along.</summary>
public sealed record PersonProgress(ImmutableArray<CameTo> Classes, ImmutableArray<PersonWeek> Weeks, ImmutableArray<MoveProgress> Moves)
{
    /// <summary>From here on a set is hard, Borg CR10. [M]</summary>
    public const decimal HardFrom = 6;

    /// <summary>So many weeks are shown.</summary>
    private const int Shown = 8;

    /// <param name="classes">By start.</param>
    /// <param name="uses">All of theirs, the oldest first.</param>
    public static PersonProgress Of(
        Person person, ImmutableArray<CameTo> classes, ImmutableArray<PastUse> uses, ImmutableArray<StockLine>? stock, DateOnly today,
        DayOfWeek weekStart, MoveLibrary moves, Preferences schools)
    {
        var first = WeekLoad.StartOf(today, weekStart).AddDays(-7 * (Shown - 1));
        var weeks = Enumerable.Range(0, Shown).Select(w => first.AddDays(7 * w)).Select(start => new PersonWeek(
            start,
            WeekLoad.Of([.. Enumerable.Range(0, WeekLoad.Days).Select(d => classes
                .Where(c => c.StartsAt is { } at
                    && at.StartsWith(Iso(start.AddDays(d)), StringComparison.Ordinal)).Sum(c => c.Load ?? 0))]),
            HardSets(uses.Where(u => u.Date >= start && u.Date < start.AddDays(WeekLoad.Days)))));
        return new PersonProgress(
            [.. classes.Reverse()],
            [.. weeks],
            [
                .. uses.Where(u => u.Work.IsMain).GroupBy(u => u.Work.Move)
                    .OrderBy(m => m.First().Work.Family).ThenByDescending(m => m.Count())
                    .Select(m => Of(person, m.Key, [.. m], stock, today, moves, schools)).OfType<MoveProgress>(),
            ]);
    }

    /// <summary>Sets of main work at an effort of 6 or more, or without one given, by family.</summary>
    public static ImmutableSortedDictionary<string, int> HardSets(IEnumerable<PastUse> uses) => uses
        .Where(u => u.Work.IsMain && (u.Use.Effort ?? u.Effort) is null or >= HardFrom)
        .GroupBy(u => WordsOf<Family>.Of(u.Work.Family)).ToImmutableSortedDictionary(f => f.Key, f => f.Sum(u => Goes(u.Use)));

    /// <summary>A set of one side and the set of the other are one go.</summary>
    private static int Goes(StationUse use) =>
        use.Sets.Count(s => s.Side is null) + Math.Max(use.Sets.Count(s => s.Side == BodySide.Left), use.Sets.Count(s =>
            s.Side == BodySide.Right));

    private static MoveProgress? Of(
        Person person, MoveId id, ImmutableArray<PastUse> uses, ImmutableArray<StockLine>? stock, DateOnly today, MoveLibrary moves,
        Preferences schools)
    {
        var past = uses.Select(u => (Use: u, Past: u.AsPast(moves)!)).Where(p => p.Past is not null).ToArray();
        if (moves.Find(id) is not { } move || past.Length == 0)
        {
            return null;
        }

        var last = past[^1].Past;
        var history = past.Where(p => p.Past.Target.IsTime == last.Target.IsTime).Select(p => p.Past).ToImmutableArray();
        return new MoveProgress(
            id, move.Name, move.Family, last.Target.IsTime,
            [.. past.Select(p => new ProgressPoint(
                p.Past.Date, p.Past.Option.Tier, PlanWords.Option(p.Past.Option, moves, schools), p.Past.Target.Amount, p.Past.Done,
                p.Past.Sets[^1].Kg, p.Past.Effort, p.Past.Pain is { } pain ? pain.Where : null, Volume(p.Past.Sets)))],
            BestSet.Of(past.SelectMany(p => p.Past.Sets)),
            MovingOn.Of(Suggestions.Case(person, history, last.Option, last.Target, stock, today, move), moves));
    }

    private static decimal? Volume(ImmutableArray<DoneSet> sets) =>
        sets.Any(s => s is { Reps: not null, Kg: not null }) ? sets.Sum(s => (s.Reps ?? 0) * (s.Kg ?? 0)) : null;

    private static string Iso(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}
