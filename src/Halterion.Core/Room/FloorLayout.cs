using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Room;

/// <summary>A station as it lies on the floor. Metres; <paramref name="X"/> and <paramref name="Y"/> are its middle.</summary>
/// <param name="Number">From 1, in its block.</param>
/// <param name="Heads">How many are at it at most.</param>
/// <param name="Lane">Its move travels.</param>
/// <param name="Needs">What it has to stand at: wall or anchor; empty: nothing.</param>
/// <param name="Put">It was put there by hand.</param>
public sealed record FloorStation(PlaceId Station, int Number, string Name, double X, double Y, double WidthM, double LengthM, int Heads,
    bool Lane, bool Hop, string Needs, bool Put, bool Turned);

/// <summary>What does not fit, and by how much.</summary>
public sealed record FloorTrouble(PlaceId? Station, string Words);

/// <summary>The floor of a block.</summary>
/// <param name="Troubles">Empty where all fits.</param>
public sealed record FloorPlan(HallFloor Hall, ImmutableArray<FloorStation> Stations, ImmutableArray<FloorTrouble> Troubles);

/// <summary>
/// Lays the stations of a block out on the floor: on an oval in the order of the class, each with the area that its move asks for;
/// what needs a wall or an anchor at one, jumps away from furniture. What was put by hand stays there.
/// </summary>
public static class FloorLayout
{
    // [M] Square metres a person, from the handbook, section 8: 4 on the spot, 6 for jumps and swings, a lane of 1.5 × 6 m to travel.
    /// <summary>A person works on a square of so many metres.</summary>
    public const double Spot = 2;
    /// <summary>Metres ahead for who jumps or swings.</summary>
    public const double HopLength = 3;
    /// <summary>Metres that a lane is wide.</summary>
    public const double LaneWidth = 1.5;
    /// <summary>Metres of a lane for who travels.</summary>
    public const double LaneLength = 6;

    /// <summary>Jumps keep so far from furniture, metres. [M]</summary>
    private const double FromFurniture = 1;

    /// <summary>At a wall or an anchor: no further than this, metres. [M]</summary>
    private const double At = 0.3;

    private const int Passes = 6;

    /// <summary>So many ways are tried until one has nothing in the way.</summary>
    private const int Starts = 12;

    /// <summary>Stations are tried at steps of this, metres.</summary>
    private const double Step = 0.5;

    private sealed record Wish(
        PlaceId Id, int Number, string Name, int Heads, bool Lane, bool Hop, string Needs, double Width, double Length);

    private readonly record struct Box(double Left, double Front, double Right, double Back)
    {
        public static Box Around(double x, double y, double w, double l) => new(x - w / 2, y - l / 2, x + w / 2, y + l / 2);

        public static Box Of(Fixture f) => new((double)f.X, (double)f.Y, (double)(f.X + f.WidthM), (double)(f.Y + f.LengthM));

        public double Overlap(Box other) =>
            Math.Max(0, Math.Min(Right, other.Right) - Math.Max(Left, other.Left))
                * Math.Max(0, Math.Min(Back, other.Back) - Math.Max(Front, other.Front));

        public Box Wider(double by) => new(Left - by, Front - by, Right + by, Back + by);
    }

    /// <param name="heads">At each station at most, in the order of the stations.</param>
    /// <param name="spots">Where stations were put by hand.</param>
    public static FloorPlan Of(
        Block block, MoveLibrary moves, HallFloor hall, ImmutableArray<int> heads, IReadOnlyDictionary<string, FloorSpot> spots)
    {
        var wishes = block.Stations.Select((s, i) => WishOf(s, i, moves, heads[i])).ToArray();
        var best = (Cost: double.MaxValue, Stations: ImmutableArray<FloorStation>.Empty);
        for (var start = 0; start < Starts && (start == 0 || Troubles(best.Stations, hall).Any()); start++)
        {
            var stations = Lay(wishes, hall, spots, start);
            var cost = stations.Select((s, i) => CostOf(s, wishes[i], i, wishes.Length, hall, stations.RemoveAt(i))).Sum();
            if (cost < best.Cost)
            {
                best = (cost, stations);
            }
        }

        return new FloorPlan(hall, best.Stations, [.. Troubles(best.Stations, hall)]);
    }

    /// <summary>
    /// One way to lay them out: placed in an order that differs by start, then each placed anew among the others while that helps.
    /// </summary>
    private static ImmutableArray<FloorStation> Lay(Wish[] wishes, HallFloor hall, IReadOnlyDictionary<string, FloorSpot> spots, int start)
    {
        var placed = wishes.Select(w => spots.TryGetValue(w.Id.Value, out var spot)
            ? Place(w, (double)spot.X, (double)spot.Y, spot.Turned, put: true) : null).ToArray();
        // What must stand at something goes first: it has fewest places to choose from.
        var order = Enumerable.Range(0, wishes.Length).Where(i => placed[i] is null)
            .OrderBy(i => wishes[i].Needs.Length == 0).ThenBy(i => (i * (1 + start % 3) + start) % wishes.Length).ToArray();
        foreach (var i in order)
        {
            placed[i] = Find(wishes[i], i, wishes.Length, hall, [.. placed.OfType<FloorStation>()]);
        }

        for (var pass = 0; pass < Passes; pass++)
        {
            var moved = false;
            foreach (var i in order)
            {
                var better = Find(wishes[i], i, wishes.Length, hall, [.. placed.Where((_, o) => o != i).Select(p => p!)]);
                moved |= (better.X, better.Y, better.WidthM) != (placed[i]!.X, placed[i]!.Y, placed[i]!.WidthM);
                placed[i] = better;
            }

            if (!moved)
            {
                break;
            }
        }

        return [.. placed.Select(p => p!)];
    }

    /// <summary>
    /// Everyone at one station at a time, each on a place of their own: the station that asks for most, and which do not fit.
    /// </summary>
    public static FloorPlan Together(Block block, MoveLibrary moves, HallFloor hall, int heads)
    {
        var (w, l) = ((double)hall.WidthM, (double)hall.LengthM);
        var asked = block.Stations.Select((s, i) =>
        {
            var one = WishOf(s, i, moves, 1);
            var columns = Math.Max(1, Math.Min(heads, (int)(w / one.Width)));
            return (Wish: one, Width: columns * one.Width, Length: Math.Ceiling(heads / (double)columns) * one.Length);
        }).ToArray();
        var most = asked.MaxBy(a => a.Width * a.Length);
        var all = most.Wish with { Heads = heads, Width = most.Width, Length = most.Length, Needs = "" };
        var everyone = Place(all, w / 2, Math.Max(l, most.Length) / 2, false, put: false);
        return new FloorPlan(
            hall, [everyone],
            [.. asked.Where(a => a.Length > l + 0.005)
                .Select(a => new FloorTrouble(a.Wish.Id,
                    Say($"{a.Wish.Name}: the rows of {heads} people are {a.Length - l:0.#} m too long for the room ",
                        $"({a.Length:0.#} m of {l:0.#} m).")))]);
    }

    private static Wish WishOf(Station station, int index, MoveLibrary moves, int heads)
    {
        var doings = station.Options.SelectMany(o => o.In(station))
            .Select(d => (Move: moves.Find(d.Move), d.Manner))
            .Where(d => d.Move is not null)
            .Select(d => (d.Move, Facts: OptionFacts.Of(d.Move!, d.Manner, moves))).ToArray();
        var lane = doings.Any(d => d.Move!.Poses?.Way == Body.Way.On);
        var hop = doings.Any(d => d.Facts is { Flight: true } || d.Move!.Quick);
        var needs = station.Options.SelectMany(o => Room.Needs.Of(o, station, moves)).ToArray();
        var word = Array.Exists(needs, n => n.Item == KitItem.LongBand) ? "anchor"
            : Array.Exists(needs, n => n.Item == KitItem.Wall && n.Or is null) ? "wall" : "";
        var people = Math.Max(1, heads);
        var (width, length) = lane ? (LaneWidth * people, LaneLength) : Rows(people, Spot, hop ? HopLength : Spot);
        return new Wish(station.Id, index + 1, station.Name, heads, lane, hop, word, width, length);
    }

    /// <summary>
    /// In rows of equal length, as square as can be; where that is only one long row, in rows with a place left over. [M] Not
    /// longer than three times its width.
    /// </summary>
    private static (double Width, double Length) Rows(int people, double width, double length)
    {
        var exact = Enumerable.Range(1, people).Where(c => people % c == 0)
            .Select(c => (Width: width * c, Length: length * (people / c)))
            .MinBy(s => Math.Abs(s.Width - s.Length));
        if (Math.Max(exact.Width, exact.Length) <= 3 * Math.Min(exact.Width, exact.Length))
        {
            return exact;
        }

        var columns = (int)Math.Ceiling(Math.Sqrt(people));
        return (width * columns, length * Math.Ceiling(people / (double)columns));
    }

    private static FloorStation Place(Wish w, double x, double y, bool turned, bool put) => new(
        w.Id, w.Number, w.Name, Math.Round(x, 2), Math.Round(y, 2),
        turned ? w.Length : w.Width, turned ? w.Width : w.Length,
        w.Heads, w.Lane, w.Hop, w.Needs, put, turned);

    /// <summary>The free place nearest to its turn on the oval; where none is free, the one where least is in the way.</summary>
    private static FloorStation Find(Wish wish, int index, int of, HallFloor hall, ImmutableArray<FloorStation> others)
    {
        var (w, l) = ((double)hall.WidthM, (double)hall.LengthM);
        FloorStation? best = null;
        var least = double.MaxValue;
        foreach (var turned in wish.Width.Equals(wish.Length) ? new[] { false } : [false, true])
        {
            var (width, length) = turned ? (wish.Length, wish.Width) : (wish.Width, wish.Length);
            for (var x = Math.Min(width / 2, w / 2); x <= Math.Max(w - width / 2, w / 2) + 1e-9; x += Step)
            {
                for (var y = Math.Min(length / 2, l / 2); y <= Math.Max(l - length / 2, l / 2) + 1e-9; y += Step)
                {
                    var there = Place(wish, x, y, turned, put: false);
                    var cost = CostOf(there, wish, index, of, hall, others);
                    if (cost < least - 1e-9)
                    {
                        (least, best) = (cost, there);
                    }
                }
            }
        }

        return best!;
    }

    /// <summary>
    /// How far it is from its turn on the oval, and, far heavier, what is in its way. The first at the front in the middle, then
    /// with the clock.
    /// </summary>
    private static double CostOf(FloorStation s, Wish wish, int index, int of, HallFloor hall, ImmutableArray<FloorStation> others)
    {
        var (w, l) = ((double)hall.WidthM, (double)hall.LengthM);
        var angle = 2 * Math.PI * index / of - Math.PI / 2;
        var (idealX, idealY) = (
            w / 2 + Math.Max(0, w - s.WidthM) / 2 * Math.Cos(angle), l / 2 + Math.Max(0, l - s.LengthM) / 2 * Math.Sin(angle));
        return Math.Sqrt((s.X - idealX) * (s.X - idealX) + (s.Y - idealY) * (s.Y - idealY)) + 100 * InTheWay(BoxOf(s), wish, hall, others);
    }

    /// <summary>Square metres taken from others, outside the room, or from what it needs, in sum.</summary>
    private static double InTheWay(Box box, Wish wish, HallFloor hall, ImmutableArray<FloorStation> others)
    {
        // However little it is, it is in the way.
        static double Shared(double area) => area > 0.001 ? area + 1 : 0;
        var sum = others.Sum(o => Shared(box.Overlap(Box.Around(o.X, o.Y, o.WidthM, o.LengthM)))) + Outside(box, hall);
        sum += hall.Fixtures.Where(f => f.Kind is FixtureKind.Furniture or FixtureKind.Pillar or FixtureKind.Door)
            .Sum(f => Shared((wish.Hop && f.Kind != FixtureKind.Door ? box.Wider(FromFurniture) : box).Overlap(Box.Of(f))));
        return sum + (wish.Needs.Length > 0 && !StandsAt(box, wish.Needs, hall) ? 4 : 0);
    }

    private static double Outside(Box box, HallFloor hall)
    {
        var room = new Box(0, 0, (double)hall.WidthM, (double)hall.LengthM);
        return (box.Right - box.Left) * (box.Back - box.Front) - box.Overlap(room);
    }

    private static bool StandsAt(Box box, string needs, HallFloor hall) => needs == "anchor"
        ? hall.Fixtures.Any(f => f.Kind == FixtureKind.Anchor && box.Wider(At).Overlap(Box.Of(f)) > 0)
        : box.Left < At || box.Front < At || (double)hall.WidthM - box.Right < At || (double)hall.LengthM - box.Back < At;

    private static IEnumerable<FloorTrouble> Troubles(ImmutableArray<FloorStation> stations, HallFloor hall)
    {
        var area = stations.Sum(s => s.WidthM * s.LengthM);
        var room = (double)(hall.WidthM * hall.LengthM);
        if (area > room)
        {
            yield return new FloorTrouble(null, Say($"The stations need {area:0.#} m² and the room has {room:0.#} m²: ",
                $"{area - room:0.#} m² too little."));
        }

        for (var i = 0; i < stations.Length; i++)
        {
            var (s, box) = (stations[i], BoxOf(stations[i]));
            if (Outside(box, hall) > 0.005)
            {
                var by = new[] { -box.Left, -box.Front, box.Right - (double)hall.WidthM, box.Back - (double)hall.LengthM }.Max();
                yield return new FloorTrouble(s.Station, Say($"Station {s.Number} is {by:0.##} m over the edge of the room."));
            }

            foreach (var other in stations.Skip(i + 1))
            {
                if (box.Overlap(BoxOf(other)) is > 0.005 and var shared)
                {
                    yield return new FloorTrouble(s.Station, Say($"Stations {s.Number} and {other.Number} overlap by {shared:0.##} m²."));
                }
            }

            foreach (var f in hall.Fixtures.Where(f => f.Kind is FixtureKind.Furniture or FixtureKind.Pillar or FixtureKind.Door))
            {
                if (box.Overlap(Box.Of(f)) > 0.005)
                {
                    yield return new FloorTrouble(s.Station, $"Station {s.Number} is on top of {Named(f)}.");
                }
                else if (s.Hop && f.Kind != FixtureKind.Door && box.Wider(FromFurniture).Overlap(Box.Of(f)) > 0.005)
                {
                    yield return new FloorTrouble(s.Station, Say($"Station {s.Number} has jumps or swings less than {FromFurniture:0.#} m ",
                        $"from {Named(f)}."));
                }
            }

            if (s.Needs.Length > 0 && !StandsAt(box, s.Needs, hall))
            {
                yield return new FloorTrouble(s.Station, s.Needs == "anchor" && !hall.Fixtures.Any(f => f.Kind == FixtureKind.Anchor)
                    ? $"Station {s.Number} needs an anchor, but the room has none."
                    : $"Station {s.Number} needs {(s.Needs == "anchor" ? "the anchor" : "a wall")} but is not at one.");
            }
        }
    }

    private static Box BoxOf(FloorStation s) => Box.Around(s.X, s.Y, s.WidthM, s.LengthM);

    private static string Named(Fixture f) => f.Name is { } name ? $"“{name}”" : f.Kind == FixtureKind.Door ? "the door"
        : $"a {f.Kind.ToString().ToLowerInvariant()}";

    private static string Say(params FormattableString[] parts) => string.Concat(parts.Select(FormattableString.Invariant));
}
