using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Checks;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;
using Halterion.Core.Views;

namespace Halterion.Core.Sheets;

/// <summary>How one thing stands before the class.</summary>
public enum Standing
{
    /// <summary>It can be led.</summary>
    Well,
    /// <summary>Something is to be mended.</summary>
    ToMend,

    /// <summary>Nothing is known of it, so nothing is said.</summary>
    NotKnown,

    /// <summary>Booked time that nothing is planned for.</summary>
    Unplanned,
}

/// <summary>One thing that has to be well before a class.</summary>
/// <param name="Of">Such as "Time" or "Kit".</param>
/// <param name="To">The screen where it is seen to: build, room or brief.</param>
public sealed record ReadyLine(string Of, Standing Standing, string Words, string To);

/// <summary>Care of somebody who is coming, for the instructor's eyes.</summary>
public sealed record ReadyCare(string Called, string Words);

/// <summary>What is shown in the walk-through.</summary>
/// <param name="Helper">Who shows it, where it is not the instructor; empty.</param>
public sealed record ReadyShow(string Name, string View, string Show, string Fault, string Takes, string Helper);

/// <summary>Something to put out, or to look at.</summary>
/// <param name="Key">Names it among the ticks of the session.</param>
public sealed record SetUpItem(string Key, string Words, bool Done);

/// <summary>What is done at one place while the room is set up.</summary>
public sealed record SetUpPlace(string Place, ImmutableArray<SetUpItem> Items);

/// <summary>One page before the class: whether it is ready, and what is left to do.</summary>
/// <param name="Ready">Nothing is left that must not stay so.</param>
/// <param name="Sure">It is ready, all of it is known, and the booked time is used.</param>
/// <param name="Says">"Ready", or what is in the way.</param>
/// <param name="InOneLine">How dense it is, jumps, the longest time on one leg, the hardest moment.</param>
/// <param name="Findings">What is still open, and what was left as it is.</param>
/// <param name="Off">Checks that are switched off, with the reason.</param>
public sealed record ReadyView(
    bool Ready,
    bool Sure,
    string Says,
    ImmutableArray<ReadyLine> Lines,
    string InOneLine,
    ImmutableArray<Finding> Findings,
    ImmutableArray<ReadyCare> Care,
    ImmutableArray<string> Cautions,
    ImmutableArray<ReadyShow> Shows,
    string ShowsTake,
    ImmutableArray<SetUpPlace> SetUp,
    ImmutableArray<string> Off)
{
    /// <summary>Before the keys of looks before use: they are ticked on the screen of the kit too.</summary>
    public const string LookKey = "look ";

    private static readonly ImmutableArray<string> Usual =
    [
        "“If you feel pain, dizziness, chest discomfort or unusual breathlessness, stop and tell me.”",
        "“Everything I say is an offer. Not sure whether to start? Ask a doctor or midwife first.”",
        "“Pick weights up and put them down with your legs.”",
    ];

    /// <param name="ticks">Keys of what is done.</param>
    public static ReadyView Of(
        ClassReview review, ImmutableArray<Finding> findings, RoomView? room, ImmutableHashSet<string> ticks, Preferences preferences)
    {
        var open = findings.Where(f => f.Waived is null).ToImmutableArray();
        var grave = open.Count(f => f.Severity is Severity.Stop or Severity.Fix);
        var shows = ShowsOf(review.Plan, preferences);
        var lines = LinesOf(review, open).ToImmutableArray();
        var unused = Unused(review);
        var stations = HasStations(review);
        var unknown = lines.Where(l => stations && l.Standing == Standing.NotKnown).Select(l => l.Of.ToLowerInvariant()).ToArray();
        return new ReadyView(
            grave == 0,
            IsSure(lines, grave),
            grave > 0 ? $"Not ready: {Counted.Of(grave, "thing needs", "things need")} fixing first."
                : string.Join(" ", new[]
                {
                    stations ? "Ready." : "No stations yet.",
                    unused is null ? null : $"{unused} unplanned.",
                    unknown.Length == 0 ? null : $"Not known: {string.Join(", ", unknown)}.",
                    open.Length == 0 ? null : $"{Counted.Of(open.Length, "thing", "things")} to consider, nothing in the way.",
                }.OfType<string>()),
            lines,
            ClassMeasure.Of(review).InOneLine, findings,
            [.. CareOf(review)],
            Usual,
            [.. shows.Select(s => s.Show)],
            new Seconds(shows.Sum(s => s.Seconds)).ToString(),
            room is null ? [] : SetUpOf(room, ticks),
            [.. review.Settings.Off.Select(o => $"Check off: {Rules.All.First(r => r.Code == o.Key).Says}. Reason: {o.Value}")]);
    }

    /// <summary>Whether it is ready, all of it is known, and the booked time is used: what may be shown as well.</summary>
    public static bool IsSure(ClassReview review, ImmutableArray<Finding> findings)
    {
        var open = findings.Where(f => f.Waived is null).ToImmutableArray();
        return IsSure(LinesOf(review, open), open.Count(f => f.Severity is Severity.Stop or Severity.Fix));
    }

    private static bool IsSure(IEnumerable<ReadyLine> lines, int grave) => grave == 0 && lines.All(l => l.Standing == Standing.Well);

    private static bool HasStations(ClassReview review) => review.Plan.Blocks.Any(b => b.Shape.HasStations);

    /// <summary>What is left of the booked time, where it is more than a tenth of it; null: it is used.</summary>
    private static string? Unused(ClassReview review) =>
        -review.Over.Value * 10 > review.Plan.SlotMinutes * 60 ? (Seconds.Zero - review.Over).Apart() : null;

    private static IEnumerable<ReadyLine> LinesOf(ClassReview review, ImmutableArray<Finding> open)
    {
        ReadyLine Line(string of, string to, string well, Func<Finding, bool> about)
        {
            var wrong = open.Where(f => f.Severity is Severity.Stop or Severity.Fix && about(f)).ToArray();
            return wrong.Length == 0 ? new ReadyLine(of, Standing.Well, well, to)
                : new ReadyLine(of, Standing.ToMend, wrong.Length == 1 ? wrong[0].What : $"{wrong[0].What} And "
                    + $"{Counted.Of(wrong.Length - 1, "other", "others")}.", to);
        }

        bool Is(Finding f, params string[] starts) => starts.Any(s => f.Code.StartsWith(s, StringComparison.Ordinal));
        yield return Unused(review) is { } unused
            ? new ReadyLine("Time", Standing.Unplanned, $"{unused} of {review.Plan.SlotMinutes} min unplanned.", "build")
            : Line("Time", "build", review.Over == Seconds.Zero ? "Ends exactly on time."
                : $"Ends {(Seconds.Zero - review.Over).Apart()} before the booked time is up.", f => f.Code == "time.over");
        if (!HasStations(review))
        {
            yield return new ReadyLine("Class", Standing.NotKnown, "No stations yet.", "build");
            yield break;
        }

        yield return Line(
            "Class", "build", "Nothing needs fixing.", f => !Is(f, "people.", "kit.", "room.") && f.Code != "time.over");
        if (review.Occasion is not { } occasion)
        {
            yield return new ReadyLine("People", Standing.NotKnown, "Nobody is expected yet.", "brief");
            yield break;
        }

        var named = occasion.Room.People.Length;
        yield return named == 0
            ? new ReadyLine("People", Standing.NotKnown, $"{Told.People(occasion.Heads)} expected without a name, "
                + "so care notes are not known.", "brief")
            : Line("People", "room", named == occasion.Heads ? $"Everyone ({named}) has an option that suits them at every station."
                : $"{Counted.Of(named, "person has", "people have")} an option at every station; "
                    + $"{occasion.Heads - named} more have no name.", f => Is(f, "people."));
        yield return occasion.Room.Kit is null
            ? new ReadyLine("Kit", Standing.NotKnown, "No kit list yet.", "room")
            : open.FirstOrDefault(f => f.Code == "kit.unknown") is { } unlisted && !open.Any(f => f.Code == "kit.short")
                ? new ReadyLine("Kit", Standing.NotKnown, unlisted.What, "room")
            : Line("Kit", "room", "There is enough all through the class.", f => Is(f, "kit."));
        yield return occasion.Sized is null
            ? new ReadyLine("Room", Standing.NotKnown, "Size not known.", "room")
            : Line("Room", "room", "Everything fits on the floor.", f => Is(f, "room."));
    }

    private static IEnumerable<ReadyCare> CareOf(ClassReview review) => review.Occasion is not { } occasion ? [] :
        from person in occasion.Room.People
        let care = person.LimitsOn(occasion.Room.Day).Select(Allowance.Named).ToArray()
        where care.Length > 0
        select new ReadyCare(person.Called, string.Join("; ", care));

    private static (ReadyShow Show, int Seconds)[] ShowsOf(ClassPlan plan, Preferences preferences)
    {
        var planned = plan.Blocks.SelectMany(b => b.Show.Select(s => (Block: b, Showing: s))).ToArray();
        var helpers = planned.Length > 0
            ? planned.Select(p => p.Block.ShownBy ?? plan.Find(p.Showing.Station)?.Block.ShownBy ?? "").ToArray()
            : [.. ClassCards.Once(plan).Select(s => s.Block.ShownBy ?? "")];
        var lines = ClassCards.Shown(plan, ClassCards.Once(plan).Select(s => s.Station), preferences);
        return [
            .. lines.Select((l, i) => (new ReadyShow(l.Name, l.View, l.Show, l.Fault, l.Seconds.ToString(), helpers[i]), l.Seconds.Value))];
    }

    /// <summary>What is fetched from where, what is put where, what is looked at before it is used.</summary>
    private static ImmutableArray<SetUpPlace> SetUpOf(RoomView room, ImmutableHashSet<string> ticks)
    {
        // What is ticked off is known by these keys, which no wording of a heading changes.
        SetUpItem Item(string key, string words) => new($"{key}: {words}", words, ticks.Contains($"{key}: {words}"));
        var fetched = room.Kit.Where(k => k.Peak > 0).GroupBy(k => IsWall(k) ? ("Keep free", "Keep clear")
                : k.Place.Length == 0 ? ("Fetch", "Fetch") : ($"From: {k.Place}", $"Fetch from: {k.Place}"))
            .Select(g => new SetUpPlace(g.Key.Item2, [.. g.Select(k => Item(g.Key.Item1, k.Words))]));
        var laid = room.Stations.Where(s => s.Lies.Length > 0).GroupBy(s => s.BlockName)
            .Select(g => new SetUpPlace($"Put out: {g.Key}", [.. g.Select(s => Item(g.Key, $"{s.Number}. {s.Name}: "
                + $"{string.Join(", ", s.Lies)}"))]));
        SetUpPlace[] looks = room.Looks.IsEmpty ? []
            : [
                new SetUpPlace("Check before use",
                    [.. room.Looks.Select(l => new SetUpItem(LookKey + l.Key, l.Words, ticks.Contains(LookKey + l.Key)))])];
        return [.. fetched, .. laid, .. looks];
    }

    private static bool IsWall(RoomKit kit) => kit.Words.EndsWith("m of free wall", StringComparison.Ordinal);
}
