using System.Collections.Immutable;
using CsCheck;
using Google.OrTools.Sat;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Who does what: the cheapest in sum, held against every way there is, and against a solver where there are too many.</summary>
public class AssignmentTests
{
    private static readonly ImmutableDictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>> InOrder = ImmutableDictionary<PlaceId,
        ImmutableArray<ImmutableArray<PersonId>>>.Empty;

    [Fact]
    public void Nothing_is_cheaper_and_of_equal_ones_it_is_the_first() => RandomRooms.All(4, 3, 3).Sample(
        room =>
        {
            var found = Assigning.Of(room);
            Assert.True(found.Exact);
            var brute = new EveryWay(room, found.Choices);
            Assert.Equal(brute.Total, found.Total);
            Assert.Equal(brute.Taken, found.People.SelectMany(p => p.Stations).Select(s => s.Option?.Value ?? "-"));
        },
        iter: 600, print: Print);

    [Fact]
    public void A_solver_finds_nothing_cheaper_in_a_full_room() =>
        RandomRooms.All(14, 4, 4).Where(r => r.Kit is not null && r.People.Length > 6).Sample(
        room =>
        {
            // Of lines that serve several kinds the solver is told the same as everyone else: it may hand each unit to one of them.
            var found = Assigning.Of(room);
            Assert.True(found.Exact);
            if (new Solved(room, found.Choices).Least is { } least)
            {
                Assert.Equal(least, found.Total);
            }
        },
        iter: 40, print: Print);

    private static string Print(RoomOf room) =>
        string.Join("\n", [.. room.Plan.Blocks.Select(b => PlanFormat.PlanWriter.Of(b).ToJsonString()), .. room.People, .. room.Kit ?? []]);

    /// <summary>The costs of room.md, "Who does what", by hand.</summary>
    [Fact]
    public void A_person_costs_what_the_table_says()
    {
        var plan = Plan(With("""
            {"name":"B","phase":"main","stations":[{"dose":[{"kind":"time","amount":30}],"options":[
              {"tier":"main","move":"goblet-squat","load":{"implement":"kettlebell","kg":12}},
              {"tier":"easier","move":"squat"},
              {"tier":"harder","move":"jump-squat"},
              {"tier":"instead","move":"wall-sit"}]}]}
            """));
        int?[] Costs(Person person) =>
            [.. Assigning.Of(new RoomOf(plan, new DateOnly(2026, 11, 26), [person], 0, [], null, InOrder)).Choices.Select(c => c.Cost)];
        var plain = new Person(new PersonId("p"), "P");
        // 12 kg wants the tick "load", the jump "land": 6 each where missing. A step below 3, above 8; instead 1 more.
        Assert.Equal([6, 3, 14, 1], Costs(plain));
        Assert.Equal([0, 3, 8, 1], Costs(plain with { Ready = [Tick.Load, Tick.Land] }));
        Assert.Equal([3, 6, 0, 4],
            Costs(
                plain with
                {
                    Ready = [Tick.Load, Tick.Land],
                    Level = ImmutableSortedDictionary<string, Tier>.Empty.Add("squat", Tier.Harder)
                }));
        // 12 kg where 9 are remembered is a third more; where 10 are, a fifth, which is not more than a fifth.
        Person Used(decimal kg) =>
            plain with
            {
                Ready = [Tick.Load, Tick.Land],
                Loads = ImmutableSortedDictionary<string,
                RememberedLoad>.Empty.Add("goblet-squat", new RememberedLoad(Implement.Kettlebell, kg))
            };
        Assert.Equal([2, 3, 8, 1], Costs(Used(9)));
        Assert.Equal([0, 3, 8, 1], Costs(Used(10)));
        // A hop is not for knee care; a limit past its day no longer counts, on its day it does.
        Assert.Null(Costs(plain with { Limits = [new PersonLimit(Limit.Knee, Until: new DateOnly(2026, 11, 26))] })[2]);
        Assert.NotNull(Costs(plain with { Limits = [new PersonLimit(Limit.Knee, Until: new DateOnly(2026, 11, 25))] })[2]);
    }

    [Fact]
    public void A_pin_holds_where_it_goes_against_a_limit_and_a_gap_is_offered_something_allowed()
    {
        var plan = Plan(With("""{"name":"B","phase":"main","stations":[{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"jump-squat"}]}]}"""));
        var person = new Person(new PersonId("p"), "P", Limits: [new PersonLimit(Limit.Knee, BodySide.Left, Strict: true)]);
        var room = new RoomOf(plan, new DateOnly(2026, 11, 26), [person], 0, [], null, InOrder);
        var gap = Assigning.Of(room);
        Assert.Equal((1000, 1), (gap.Total, gap.Gaps.Length));
        var proposed = GapProposals.For(person, Place.Of(plan)[0], room)!;
        Assert.Equal(Tier.Instead, proposed.Tier);
        Assert.Null(Allowance.WhyNot(person, proposed, plan.Blocks[0].Stations[0], plan.Blocks[0], Library, room.Day));
        var station = plan.Blocks[0].Stations[0];
        var pinned = Assert.Single(Assert.Single(Assigning.Of(room with
        {
            Pins = [new Pin(person.Id, station.Id, station.Main.Id,
            "Her own wish")]
        }).People).Stations);
        Assert.True(pinned.Pinned);
        Assert.Equal(0, pinned.Cost);
        Assert.Contains("Her own wish. It goes against knee: a jump: the landing loads a sore knee", pinned.Why, StringComparison.Ordinal);
    }

    /// <summary>
    /// American College of Obstetricians and Gynecologists, Committee Opinion 804, 2020 (from memory): no lying on the back, no
    /// fall risk; room.md for the rest.
    /// </summary>
    [Fact]
    public void Nobody_pregnant_lies_on_the_back_as_work_and_nobody_with_care_of_joints_hops() => RandomRooms.All(8, 4, 4).Sample(
        room =>
        {
            var places = Place.Of(room.Plan).ToDictionary(p => p.Station.Id);
            foreach (var (person, stations) in room.People.Zip(Assigning.Of(room).People.Select(p => p.Stations)))
            {
                var care = person.LimitsOn(room.Day).Select(l => l.Limit).ToHashSet();
                foreach (var cell in stations.Where(s => !s.Pinned && s.Option is not null))
                {
                    var option = places[cell.Station].Station.Options.First(o => o.Id == cell.Option);
                    Assert.False(
                        care.Contains(Limit.Pregnancy)
                            && option.Move.Value == "march-bridge"
                            && places[cell.Station].Block.Phase != Phase.Cooldown);
                    Assert.False(care.Overlaps([Limit.Knee, Limit.Balance, Limit.Pregnancy, Limit.Ankle, Limit.PelvicFloor,
                        Limit.LowerBack]) && option.Move.Value == "jump-squat");
                }
            }
        },
        iter: 200);

    [Fact]
    public void Every_word_of_the_librarys_kit_is_understood() =>
        Assert.All(Library.Moves.SelectMany(m => m.Kit).Distinct(), k => Assert.True(KitWords.IsKnown(k), k));

    /// <summary>Worked by hand: 14 over 6 is 3, 3, 2, 2, 2, 2 (handbook, section 8); 17 is 3, 3, 3, 3, 3, 2.</summary>
    [Fact]
    public void Seventeen_come_instead_of_fourteen_and_most_keep_their_group()
    {
        Assert.Equal([3, 3, 2, 2, 2, 2], Groups.Sizes(14, 6));
        Assert.Equal([3, 3, 3, 3, 3, 2], Groups.Sizes(17, 6));
        var hops = ImmutableArray.Create(false, false, false, true, false, false);
        var friends = Guid.NewGuid();
        GroupMember Member(int i, int? was) => new(Careful: i is 0 or 1 or 6 or 7, NoHop: i % 2 == 0, i is 2 or 9 ? friends : null, was);
        var before = Grouping.Make([.. Enumerable.Range(0, 14).Select(i => Member(i, null))], 0, hops);
        Assert.Equal([3, 3, 2, 2, 2, 2], Sizes(before));
        Assert.Equal(before[2], before[9]);
        Assert.Equal(1, new[] { 0, 1, 6, 7 }.GroupBy(i => before[i]).Max(g => g.Count()));
        Assert.All(Enumerable.Range(0, 14).Where(i => before[i] == 3), i => Assert.Equal(1, i % 2));
        var after = Grouping.Make([.. Enumerable.Range(0, 17).Select(i => Member(i, i < 14 ? before[i] : null))], 0, hops);
        Assert.Equal([3, 3, 3, 3, 3, 2], Sizes(after));
        Assert.Equal(before, after.Take(14));
        int[] Sizes(ImmutableArray<int> groups) => [.. Enumerable.Range(0, 6).Select(g => groups.Count(x => x == g))];
    }

    /// <summary>Every way to do every moment, one by one; nothing of the program's own search or counting.</summary>
    private sealed class EveryWay
    {
        private readonly RoomOf room;
        private readonly Dictionary<(int Person, int Station), int?> taken = [];
        private readonly ILookup<(PersonId, PlaceId), PersonChoice> choices;
        private readonly (Block Block, Station Station)[] places;

        public EveryWay(RoomOf room, ImmutableArray<PersonChoice> all)
        {
            this.room = room;
            choices = all.ToLookup(c => (c.Person, c.Station));
            places = [.. room.Plan.Blocks.SelectMany(b => b.Stations.Select(s => (b, s)))];
            foreach (var spots in MomentsOf())
            {
                Total += Best(spots);
            }

            for (var p = 0; p < room.People.Length; p++)
            {
                for (var s = 0; s < places.Length; s++)
                {
                    if (!taken.ContainsKey((p, s)))
                    {
                        Total += Best([(p, s)], kit: false);
                    }
                }
            }
        }

        public int Total { get; private set; }

        public IEnumerable<string> Taken => Enumerable.Range(0, room.People.Length).SelectMany(p => Enumerable.Range(0, places.Length)
            .Select(s => taken[(p, s)] is { } o ? places[s].Station.Options[o].Id.Value : "-"));

        private int Heads => Math.Max(room.HeadCount, room.People.Length);

        private IEnumerable<(int Person, int Station)[]> MomentsOf()
        {
            foreach (var block in room.Plan.Blocks)
            {
                var first = Array.FindIndex(places, p => p.Block.Id == block.Id);
                var n = block.Stations.Length;
                // People in list order, sizes that differ by at most one, the first ones larger.
                int GroupOf(int person)
                {
                    var (small, larger) = (Heads / n, Heads % n);
                    return person < larger * (small + 1) ? person / (small + 1) : larger + (person - larger * (small + 1)) / small;
                }

                var windows = block.Shape == BlockShape.Rotation ? n : 1;
                for (var w = 0; w < (block.Shape is BlockShape.Rotation or BlockShape.OwnPace ? windows : n); w++)
                {
                    yield return [.. Enumerable.Range(0, Heads)
                        .Select(p => (p, first + (block.Shape is BlockShape.Rotation or BlockShape.OwnPace ? (GroupOf(p) + w) % n : w)))];
                }
            }
        }

        /// <summary>
        /// Of equal sums care comes first: a strict limit, then any, then the rest; each in person order, stations in class order.
        /// </summary>
        private int CareOf(int person) => person >= room.People.Length ? 2
            : (room.People[person].Limits ?? []).Where(l => l.Until is not { } until || until >= room.Day).ToArray() is var limits
                && limits.Any(l => l.Strict)
                ? 0
                : limits.Length > 0 ? 1
                : 2;

        private int Best((int Person, int Station)[] spots, bool kit = true)
        {
            spots = [.. spots.OrderBy(s => CareOf(s.Person)).ThenBy(s => s.Person).ThenBy(s => s.Station)];
            var offers = spots.Select(spot => Offers(spot.Person, spot.Station)).ToArray();
            var (best, chosen) = (int.MaxValue, new int?[spots.Length]);
            var now = new int?[spots.Length];
            void Go(int i, int cost)
            {
                if (i == spots.Length)
                {
                    var total = cost + (kit && room.Kit is { } stock ? 200 * Short(spots, now, stock) : 0);
                    if (total < best)
                    {
                        (best, chosen) = (total, [.. now]);
                    }

                    return;
                }

                foreach (var (option, price) in offers[i])
                {
                    now[i] = option;
                    Go(i + 1, cost + price);
                }
            }

            Go(0, 0);
            for (var i = 0; i < spots.Length; i++)
            {
                if (spots[i].Person < room.People.Length)
                {
                    taken[spots[i]] = chosen[i];
                }
            }

            return best;
        }

        private (int? Option, int Cost)[] Offers(int person, int station)
        {
            var options = places[station].Station.Options;
            if (person >= room.People.Length)
            {
                return [(options.IndexOf(places[station].Station.Main), 0)];
            }

            var id = room.People[person].Id;
            if (room.Pins.LastOrDefault(p => p.Person == id && p.Station == places[station].Station.Id) is { } pin)
            {
                return [(options.IndexOf(options.First(o => o.Id == pin.Option)), 0)];
            }

            double Asks(int o) => Demands.DemandModel.Of(options[o].Move, options[o].Manner, room.Plan.Moves)!.Overall;
            var listed = choices[(id, places[station].Station.Id)].Select((c, i) => (c, i)).Where(c => c.c.Allowed).ToArray();
            // Who has a limit is given what asks least of equal ones.
            var may = (
                CareOf(person) == 2
                    ? listed
                    : [
                        .. listed.OrderBy(c => Array.IndexOf([Tier.Easier, Tier.Main, Tier.Instead, Tier.Harder], options[c.i].Tier))
                            .ThenBy(c => Asks(c.i))
                            .ThenBy(c => c.i)])
                .Select(c => ((int?)c.i, c.c.Cost!.Value)).ToArray();
            return may.Length > 0 ? may : [(null, 1000)];
        }

        private int Short((int Person, int Station)[] spots, int?[] now, ImmutableArray<StockLine> stock)
        {
            var needs = new List<Need>();
            foreach (var at in spots.Select((spot, i) => (spot.Station, Option: now[i])).GroupBy(s => s.Station))
            {
                var all = at.Where(a => a.Option is not null)
                    .SelectMany(
                        a => Needs.Of(places[at.Key].Station.Options[a.Option!.Value], places[at.Key].Station, room.Plan.Moves)).ToArray();
                var half = (at.Count(a => a.Option is not null) + 1) / 2;
                needs.AddRange(places[at.Key].Station.Turns
                    ? all.GroupBy(n => n.Kind).SelectMany(g => g.OrderByDescending(n => n.Count).Take(half))
                    : all);
            }

            return UnitsShort(needs, stock);
        }
    }

    /// <summary>Units short by trying every way to hand things out (few things only); metres of wall begun.</summary>
    /// <summary>Of what the stock says nothing nobody knows whether it is short.</summary>
    private static bool IsListed(Need need, ImmutableArray<StockLine> stock) =>
        stock.Any(l => l.Item == need.Item || need.Item is KitItem.Box or KitItem.Step && l.Item is KitItem.Box or KitItem.Step)
        || (need.Or ?? []).Any(o => stock.Any(l => l.Item == o.Item));

    private static int UnitsShort(List<Need> all, ImmutableArray<StockLine> stock)
    {
        var needs = all.Where(n => IsListed(n, stock)).ToList();
        var units = needs.Where(n => n.Item != KitItem.Wall || n.Or is not null).SelectMany(n => Enumerable.Repeat(n, n.Count)).ToArray();
        var walls = needs.Count(n => n.Item == KitItem.Wall && n.Or is null);
        var lines = stock.Where(l => l.Condition != Condition.Out).ToArray();
        var metres = lines.Where(l => l.Item == KitItem.Wall).Sum(l => l.Metres!.Value * l.Count);
        var left = lines.Select(l => l.Item == KitItem.Wall ? (int)Math.Floor(metres / 0.8m) : l.Count).ToArray();
        var best = int.MaxValue;
        void Go(int i, int missing, int onWall)
        {
            if (missing >= best)
            {
                return;
            }

            if (i == units.Length)
            {
                best = Math.Min(best, missing + (walls == 0 ? 0 : (int)Math.Max(0, Math.Ceiling(walls * 0.8m - (metres - onWall * 0.8m)))));
                return;
            }

            foreach (var l in Enumerable.Range(0, lines.Length).Where(l => left[l] > 0 && units[i].IsServedBy(lines[l])))
            {
                left[l]--;
                Go(i + 1, missing, onWall + (lines[l].Item == KitItem.Wall ? 1 : 0));
                left[l]++;
            }

            Go(i + 1, missing + 1, onWall);
        }

        Go(0, 0, 0);
        return best;
    }

    /// <summary>The same as a model for the CP-SAT solver of Google OR-Tools.</summary>
    private sealed class Solved
    {
        public Solved(RoomOf room, ImmutableArray<PersonChoice> all)
        {
            var places = Place.Of(room.Plan);
            var found = 0;
            var table = all.ToLookup(c => (c.Person, c.Station));
            var seen = new HashSet<(int, int)>();
            foreach (var moment in Moments.Of(places, room.Heads,
                room.Plan.Blocks.ToDictionary(b => b.Id, b => Groups.InOrder(room.Heads, Math.Max(1, b.Stations.Length)))))
            {
                if (Solve(room, places, moment, table, seen) is not { } cost)
                {
                    return;
                }

                found += cost;
            }

            for (var p = 0; p < room.People.Length; p++)
            {
                found += places.Where((_, s) => !seen.Contains((p, s))).Sum(place =>
                    room.Pins.Any(x => x.Person == room.People[p].Id && x.Station == place.Station.Id) ? 0
                        : table[(room.People[p].Id, place.Station.Id)].Min(c => c.Cost) ?? 1000);
            }

            Least = found;
        }

        /// <summary>
        /// Null where the solver's own limit came first, or where walls are shared with other holds: it only counts pieces.
        /// </summary>
        public int? Least { get; }

        private static int? Solve(RoomOf room, ImmutableArray<Place> places, Moment moment, ILookup<(PersonId, PlaceId),
            PersonChoice> table, HashSet<(int, int)> seen)
        {
            var sat = new CpModel();
            var (costs, demand) = (new List<LinearExpr>(), new Dictionary<Need, List<LinearExpr>>());
            foreach (var spot in moment.Spots)
            {
                seen.Add((spot.Person, spot.Station));
                var station = places[spot.Station].Station;
                if (station.Turns)
                {
                    return null;
                }

                var options = station.Options;
                var pin = spot.Person < room.People.Length
                    ? room.Pins.FirstOrDefault(p => p.Person == room.People[spot.Person].Id && p.Station == station.Id) : null;
                var may = spot.Person >= room.People.Length ? [(Option: station.Main.Id, Value: 0)]
                    : pin is not null ? [(pin.Option, 0)]
                    : table[(room.People[spot.Person].Id, station.Id)]
                        .Where(c => c.Allowed)
                        .Select(c => (c.Option, c.Cost!.Value))
                        .ToArray();
                if (may.Length == 0)
                {
                    costs.Add(LinearExpr.Constant(1000));
                    continue;
                }

                var on = may.Select(_ => sat.NewBoolVar("o")).ToArray();
                sat.AddExactlyOne(on);
                foreach (var ((option, cost), var) in may.Zip(on))
                {
                    costs.Add(var * cost);
                    foreach (var need in Needs.Of(options.First(o => o.Id == option), station, room.Plan.Moves))
                    {
                        if (need.Item == KitItem.Wall || (need.Or ?? []).Any(o => o.Item == KitItem.Wall))
                        {
                            return null;
                        }

                        (demand.TryGetValue(need.Kind, out var list) ? list : demand[need.Kind] = []).Add(var * need.Count);
                    }
                }
            }

            var lines = room.Kit!.Value.Where(l => l.Condition != Condition.Out).ToArray();
            var given = lines.Select(_ => new List<LinearExpr>()).ToArray();
            foreach (var (kind, asked) in demand.Where(d => IsListed(d.Key, room.Kit!.Value)))
            {
                var missing = sat.NewIntVar(0, 100, "short");
                var parts = new List<LinearExpr> { missing };
                for (var l = 0; l < lines.Length; l++)
                {
                    if (kind.IsServedBy(lines[l]))
                    {
                        var part = sat.NewIntVar(0, lines[l].Count, "given");
                        parts.Add(part);
                        given[l].Add(part);
                    }
                }

                sat.Add(LinearExpr.Sum(parts) >= LinearExpr.Sum(asked));
                costs.Add(missing * 200);
            }

            for (var l = 0; l < lines.Length; l++)
            {
                sat.Add(LinearExpr.Sum(given[l]) <= lines[l].Count);
            }

            sat.Minimize(LinearExpr.Sum(costs));
            using var solver = new CpSolver { StringParameters = "num_workers:1,random_seed:1,max_deterministic_time:2" };
            return solver.Solve(sat) == CpSolverStatus.Optimal ? (int)solver.ObjectiveValue : null;
        }
    }
}
