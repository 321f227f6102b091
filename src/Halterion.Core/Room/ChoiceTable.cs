using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Plans;

namespace Halterion.Core.Room;

/// <summary>For every person and station what each option would be for them.</summary>
internal sealed class ChoiceTable
{
    // [M] A step too easy bores; a step too hard hurts; what is not ready can be taught; a load far from the usual is found out.
    private const int StepBelow = 3;
    private const int StepAbove = 8;
    private const int Instead = 1;
    private const int NotReady = 6;
    private const int OtherLoad = 2;
    private const decimal LoadSlack = 0.2m;

    /// <param name="Apart">What it costs to be off their level, nothing else counted.</param>
    private sealed record Entry(bool Allowed, string Why, int Cost, int Apart, string Note);

    /// <param name="Asks">Demand overall, of the part that asks most.</param>
    private sealed record OptionAt(Option Option, ImmutableArray<Need> Needs, ImmutableArray<Tick> Wants, double Asks);

    private readonly RoomOf room;
    private readonly ImmutableArray<Place> places;
    private readonly OptionAt[][] options;
    private readonly Entry[,][] entries;
    private readonly Dictionary<(PersonId, PlaceId), Pin> pins;
    private readonly ImmutableArray<Offer>[,] offers;
    private readonly int[] care;

    public ChoiceTable(RoomOf room, ImmutableArray<Place> places)
    {
        (this.room, this.places) = (room, places);
        var moves = room.Plan.Moves;
        options = [.. places.Select(p =>
            p.Station.Options.Select(o => new OptionAt(o, Needs.Of(o, p.Station, moves), Allowance.Wants(o, p.Station, moves),
                o.In(p.Station).Max(d => Demands.DemandModel.Of(d.Move, d.Manner, moves)?.Overall ?? 0))).ToArray())];
        pins = room.Pins.GroupBy(p => (p.Person, p.Station)).ToDictionary(g => g.Key, g => g.Last());
        care = [
            .. room.People.Select(p => p.LimitsOn(room.Day).ToArray()).Select(
                l => Array.Exists(l, x => x.Strict) ? 0 : l.Length > 0 ? 1 : 2)];
        entries = new Entry[room.People.Length, places.Length][];
        offers = new ImmutableArray<Offer>[room.People.Length + 1, places.Length];
        for (var s = 0; s < places.Length; s++)
        {
            for (var p = 0; p < room.People.Length; p++)
            {
                entries[p, s] = Array.ConvertAll(options[s], o => Of(room.People[p], places[s], o));
                offers[p, s] = OffersOf(p, s);
            }

            // Whoever has no name does the main option.
            var main = Array.FindIndex(options[s], o => o.Option.Tier == Tier.Main);
            offers[room.People.Length, s] = [new Offer(main, 0, options[s][main].Needs)];
        }
    }

    /// <summary>Whose turn it is when sums are equal: 0 with a strict limit, 1 with one, 2 without.</summary>
    public int CareOf(int person) => person >= room.People.Length ? 2 : care[person];

    /// <summary>What there is to choose from for somebody, what is given first of equal ones first; none for a gap.</summary>
    public ImmutableArray<Offer> Offers(int person, int station) => offers[Math.Min(person, room.People.Length), station];

    public ImmutableArray<PersonChoice> All()
    {
        var all = ImmutableArray.CreateBuilder<PersonChoice>();
        for (var p = 0; p < room.People.Length; p++)
        {
            for (var s = 0; s < places.Length; s++)
            {
                for (var o = 0; o < options[s].Length; o++)
                {
                    var entry = entries[p, s][o];
                    all.Add(new PersonChoice(
                        room.People[p].Id, places[s].Station.Id, options[s][o].Option.Id,
                        entry.Allowed, entry.Why, entry.Allowed ? entry.Cost : null,
                        // What goes on a bar is part of the bar.
                        [.. options[s][o].Needs.Where(n => n.BarKg is null)]));
                }
            }
        }

        return all.ToImmutable();
    }

    /// <summary>What somebody does at a station, and why in words.</summary>
    public AssignedStation Told(int person, int station, int? taken)
    {
        var id = places[station].Station.Id;
        if (taken is not { } option)
        {
            return new AssignedStation(id, null, $"No option here suits them. {Care(person, entries[person, station][Main(station)].Why)}.",
                Assigning.GapCost, false);
        }

        var entry = entries[person, station][option];
        return Pinned(person, station) is { } pin
            ? new AssignedStation(id, options[station][option].Option.Id, Words(pin, entry), 0, true)
            : new AssignedStation(id, options[station][option].Option.Id, Why(person, station, option), entry.Cost, false);
    }

    private static string Words(Pin pin, Entry entry) =>
        $"Your choice{(pin.Reason is { Length: > 0 } reason ? $": {reason}" : "")}"
            + $"{(entry.Allowed ? "" : $". It goes against {entry.Why}")}.";

    private int Main(int station) => Array.FindIndex(options[station], o => o.Option.Tier == Tier.Main);

    private Pin? Pinned(int person, int station) => pins.GetValueOrDefault((room.People[person].Id, places[station].Station.Id)) is { } pin
        && Array.Exists(options[station], o => o.Option.Id == pin.Option) ? pin : null;

    private ImmutableArray<Offer> OffersOf(int person, int station)
    {
        if (Pinned(person, station) is { } pin)
        {
            var at = Array.FindIndex(options[station], o => o.Option.Id == pin.Option);
            return [new Offer(at, 0, options[station][at].Needs)];
        }

        return
        [
            .. InOrder(person, station)
                .Where(o => entries[person, station][o].Allowed)
                .Select(o => new Offer(o, entries[person, station][o].Cost, options[station][o].Needs)),
        ];
    }

    /// <summary>For somebody to be careful with what asks least comes first; for the rest the order of the options.</summary>
    private IEnumerable<int> InOrder(int person, int station) => care[person] == 2
        ? Enumerable.Range(0, options[station].Length)
        : Enumerable.Range(0, options[station].Length)
            .OrderBy(o => Gentleness(options[station][o].Option.Tier))
            .ThenBy(o => options[station][o].Asks)
            .ThenBy(o => o);

    private static int Gentleness(Tier tier) => tier switch
    {
        Tier.Easier => 0,
        Tier.Main => 1,
        Tier.Instead => 2,
        Tier.Harder => 3,
    };

    private Entry Of(Person person, Place place, OptionAt at)
    {
        var moves = room.Plan.Moves;
        var family = moves.Find(place.Station.Main.Move)!.Family;
        var step = Step(at.Option.Tier) - Step(person.LevelFor(family));
        var missing = at.Wants.Where(t => !person.Has(t)).ToArray();
        var load = OtherThanRemembered(person, place, at.Option);
        var apart = (step < 0 ? -step * StepBelow : step * StepAbove) + (at.Option.Tier == Tier.Instead ? Instead : 0);
        var cost = apart + missing.Length * NotReady + (load is null ? 0 : OtherLoad);
        var notes = missing.Select(t => $"not signed off yet: {Allowance.Named(t)}").Append(load).OfType<string>();
        return Allowance.WhyNot(person, at.Option, place.Station, place.Block, moves, room.Day) is { } no
            ? new Entry(false, no.Why, cost, apart, "")
            : new Entry(true, StepWords(step), cost, apart, string.Join("; ", notes));
    }

    private static int Step(Tier tier) => tier switch
    {
        Tier.Easier => 0,
        Tier.Harder => 2,
        Tier.Main or Tier.Instead => 1,
    };

    private static string StepWords(int step) => step switch
    {
        < 0 => "easier than usual for them",
        > 0 => "harder than usual for them",
        _ => "as usual for them",
    };

    /// <summary>Where the load differs by more than a fifth from the one they remember for the move, with the same implement.</summary>
    private static string? OtherThanRemembered(Person person, Place place, Option option)
    {
        foreach (var doing in option.In(place.Station))
        {
            if (doing.Manner.Load is { Kg: { } kg } load
                && person.Loads?.GetValueOrDefault(doing.Move.Value) is { } known
                && known.Implement == load.Implement)
            {
                var held = kg.Value * (load.Count ?? 1);
                if (Math.Abs(held - known.Kg) > LoadSlack * known.Kg)
                {
                    return string.Create(CultureInfo.InvariantCulture, $"{held:0.##} kg; they usually hold {known.Kg:0.##} kg");
                }
            }
        }

        return null;
    }

    /// <summary>Why this option: what keeps them from the one they would do, or that it is theirs.</summary>
    private string Why(int person, int station, int taken)
    {
        var all = entries[person, station];
        var would = Enumerable.Range(0, all.Length).MinBy(o => all[o].Apart);
        var allowed = Enumerable.Range(0, all.Length).Where(o => all[o].Allowed).MinBy(o => all[o].Cost);
        var note = all[taken].Note.Length > 0 ? $" ({all[taken].Note})" : "";
        var reason = would == taken ? TheirLevel(person, station, taken)
            : all[taken].Cost > all[allowed].Cost ? $"Not enough {Short(station, allowed, taken)}, so this one; {all[taken].Why}"
            : !all[would].Allowed ? Care(person, all[would].Why)
            : all[would].Note.Length > 0 ? Capitals.Capital(all[would].Note)
            : TheirLevel(person, station, taken);
        return $"{reason}{note}.";
    }

    private string TheirLevel(int person, int station, int taken)
    {
        var family = room.Plan.Moves.Find(places[station].Station.Main.Move)!.Family;
        var level = room.People[person].LevelFor(family);
        return options[station][taken].Option.Tier == Tier.Main && level == Tier.Main ? "Main option, as usual"
            : Step(options[station][taken].Option.Tier) == Step(level) ? $"Their usual: {level.ToString().ToLowerInvariant()}"
            : $"Closest to their usual ({level.ToString().ToLowerInvariant()})";
    }

    /// <summary>"Left knee: no standing knee bend past 60°".</summary>
    private string Care(int person, string why)
    {
        var (limit, what) = (why[..why.IndexOf(':', StringComparison.Ordinal)], why[(why.IndexOf(':', StringComparison.Ordinal) + 2)..]);
        var known = room.People[person].LimitsOn(room.Day).First(l => Demands.LimitTable.Named(l.Limit) == limit);
        return $"{Capitals.Capital(Allowance.Named(known))}: no {Bare(what)}";
    }

    /// <summary>"a hop or jump" after "no": without its article.</summary>
    private static string Bare(string what) =>
        what.StartsWith("a ", StringComparison.Ordinal) ? what[2..] : what.StartsWith("the ", StringComparison.Ordinal) ? what[4..] : what;

    /// <summary>What the option that they would do needs and this one does not.</summary>
    private string Short(int station, int wanted, int taken)
    {
        var need = options[station][wanted].Needs.FirstOrDefault(n => !options[station][taken].Needs.Contains(n));
        return need is null ? "kit" : NeedWords.Many(need.Kind);
    }
}
