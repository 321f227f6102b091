using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;
using Halterion.Core.Words;

namespace Halterion.Core.Views;

/// <summary>Somebody in the room, for the instructor's own screen.</summary>
/// <param name="Care">Their care in words, such as "knee care, left"; only here and on their page.</param>
/// <param name="ToRenew">Care that has run out.</param>
public sealed record RoomPerson(
    PersonId Id, string Called, ImmutableArray<string> Care, ImmutableArray<string> ToRenew, ImmutableArray<RoomCell> Cells);

/// <summary>How what somebody does stands to the main option.</summary>
public enum CellKind
{
    /// <summary>As the station is planned.</summary>
    Main,
    /// <summary>An easier option.</summary>
    Easier,
    /// <summary>A harder option.</summary>
    Harder,
    /// <summary>Another move instead.</summary>
    Instead,
    /// <summary>Nothing fits.</summary>
    Gap,
}

/// <summary>What somebody does at a station.</summary>
/// <param name="Against">It was chosen against a limit.</param>
public sealed record RoomCell(PlaceId Station, CellKind Kind, PlaceId? Option, string Words, string Why, bool Pinned, bool Against,
    ImmutableArray<RoomChoice> Choices);

/// <summary>An option for somebody, as it is offered in the grid.</summary>
/// <param name="Why">What it would be for them, or why it is not offered.</param>
public sealed record RoomChoice(PlaceId Option, Tier Tier, string Words, bool Allowed, string Why);

/// <summary>A station of the room.</summary>
/// <param name="Ways">By option: who does it; for the walk-through.</param>
/// <param name="Lies">What lies there.</param>
/// <param name="Pairs">Who takes turns with whom, where two share it.</param>
public sealed record RoomStation(
    PlaceId Block, PlaceId Station, string BlockName, int Number, string Name, ImmutableArray<StationWay> Ways, ImmutableArray<string> Lies,
        ImmutableArray<string> Pairs);

/// <param name="Who">By the names they are called.</param>
/// <param name="Unnamed">How many without a name.</param>
public sealed record StationWay(PlaceId Option, Tier Tier, string Words, ImmutableArray<string> Who, int Unnamed);

/// <summary>A gap, and what could be added for it.</summary>
public sealed record RoomGap(PersonId Person, PlaceId Station, string Words, JsonObject? Proposed, string ProposedWords);

/// <summary>Kit that does not go round, in words.</summary>
/// <param name="Index">Its place in the list: ways out are asked for by it.</param>
public sealed record RoomShortage(int Index, PlaceId? Station, PlaceId? Block, string Words);

/// <summary>A kind of kit in a class.</summary>
/// <param name="When">Minutes in which it is used, such as "min 12–18".</param>
/// <param name="Where">Stations that use it.</param>
public sealed record RoomKit(string Words, decimal Peak, decimal? Have, string When, string Where, string Place);

/// <summary>The groups of a rotation, by the names they are called.</summary>
/// <param name="Hops">Whether they begin at a hop or jump.</param>
public sealed record RoomGroup(int Number, string BeginsAt, bool Hops, ImmutableArray<PersonId> People, int Unnamed);

/// <summary>One a station.</summary>
public sealed record RoomGroups(PlaceId Block, string Name, ImmutableArray<RoomGroup> Groups);

/// <summary>The room that a class is held in: who does what with what, in words for the instructor's screen.</summary>
/// <param name="Summary">Such as "14 people, 11 stations: 1 gap, 2 shortages".</param>
/// <param name="KitSays">Whether there is enough of all kit; empty where something is short, or nothing is known.</param>
/// <param name="KitEnough">There is enough of everything, and all of it is known.</param>
/// <param name="Exact">Nothing is cheaper.</param>
public sealed record RoomView(
    string Summary,
    string KitSays,
    bool KitEnough,
    bool Exact,
    ImmutableArray<RoomPerson> People,
    int Unnamed,
    ImmutableArray<RoomStation> Stations,
    ImmutableArray<RoomGap> Gaps,
    ImmutableArray<RoomShortage> Shortages,
    ImmutableArray<RoomKit> Kit,
    ImmutableArray<string> FetchOnce,
    ImmutableArray<string> StaysOn,
    ImmutableArray<KitLook> Looks,
    ImmutableArray<RoomGroups> Groups)
{
    /// <summary>The grid of people and stations.</summary>
    public static RoomView Of(RoomOf room, Timeline timeline, Preferences preferences) =>
        Of(room, Assigning.Of(room), timeline, preferences);

    /// <summary>The grid of people and stations.</summary>
    public static RoomView Of(RoomOf room, Assignment found, Timeline timeline, Preferences preferences)
    {
        var places = Place.Of(room.Plan);
        var people = room.People.ToDictionary(p => p.Id);
        var assigned = Assigned.Of(found, room);
        var byPlace = places.ToDictionary(p => p.Station.Id);
        var unnamed = room.Heads - room.People.Length;
        var kit = KitOfClass.Of(room, found, timeline, places);
        var unlisted = kit.Lines.Count(k => k.Have is null);
        var gaps = assigned.Gaps.Select(g => GapOf(g, people[g.Person], byPlace[g.Station], room, preferences)).ToImmutableArray();
        return new RoomView(
            Summarised(room, places.Length, gaps.Length, found.Shortages.Length, unlisted),
            KitSaid(room, kit.Lines.Length, found.Shortages.Length, unlisted),
            room.Kit is not null && found.Shortages.IsEmpty && unlisted == 0,
            found.Exact,
            [.. room.People.Zip(found.People).Select(p => PersonOf(p.First, p.Second, found, byPlace, room, preferences))],
            unnamed,
            [.. places.Select(p => StationOf(p, found, people, unnamed, room, preferences, kit))],
            gaps,
            [.. found.Shortages.Select((s, i) => new RoomShortage(i, s.Station, s.Block, Words(s, byPlace, room)))],
            kit.Lines, kit.FetchOnce, kit.StaysOn,
            KitLooks.For(found.Kit.Select(k => k.Item), room.Kit ?? []),
            [
                .. found.Groups.Where(
                    g => room.Plan.Blocks.First(b => b.Id == g.Block).Shape == BlockShape.Rotation).Select(g => GroupsOf(g, room))]);
    }

    /// <summary>What a pin changed for the others: "Kaja: goblet squat, 12 kg instead of 8 kg at station 1."</summary>
    public static string Told(RoomView before, RoomView after, PersonId pinned, PlaceId station)
    {
        var told = after.People.Join(before.People, a => a.Id, b => b.Id, (a, b) => (a, b))
            .SelectMany(p => p.a.Cells.Join(p.b.Cells, c => c.Station, c => c.Station, (now, was) => (p.a.Called, p.a.Id, now, was)))
            .Where(c => c.now.Option != c.was.Option && !(c.Id == pinned && c.now.Station == station))
            .Select(c => $"{c.Called}: {c.now.Words} instead of {c.was.Words}")
            .ToArray();
        var gone = before.Shortages.Select(s => s.Words).Except(after.Shortages.Select(s => s.Words)).Select(w => $"enough again: {w}");
        var fresh = after.Shortages.Select(s => s.Words).Except(before.Shortages.Select(s => s.Words)).Select(w => $"now not enough: {w}");
        var all = told.Concat(gone).Concat(fresh).ToArray();
        return all.Length == 0
            ? "Nobody else changes."
            : string.Join("; ", all.Take(4)) + (all.Length > 4 ? $"; and {all.Length - 4} more." : ".");
    }

    private static string KitSaid(RoomOf room, int kinds, int shortages, int unlisted) =>
        room.Kit is null || kinds == 0 || shortages > 0 ? ""
        : unlisted == 0 ? "There is enough of everything."
        : $"{Counted.Of(unlisted, "thing is", "things are")} not on the kit list; there is enough of the rest.";

    private static string Summarised(RoomOf room, int stations, int gaps, int shortages, int unlisted)
    {
        string?[] troubles =
        [
            gaps > 0 ? Counted.Of(gaps, "place without an option", "places without an option") : null,
            shortages > 0 ? $"not enough of {Counted.Of(shortages, "item", "items")}" : null,
        ];
        var told = gaps > 0 || shortages > 0 ? string.Join(", ", troubles.OfType<string>())
            : $"{(room.People.IsEmpty ? "no names yet" : "everyone has an option")}"
                + (room.Kit is null ? "; kit is not known" : unlisted > 0 ? "; some kit is not on the list" : ", and there is enough kit");
        return $"{Counted.Of(room.Heads, "person", "people")}, {Counted.Of(stations, "station", "stations")}: {told}";
    }

    private static RoomPerson PersonOf(Person person, AssignedPerson given, Assignment found, Dictionary<PlaceId, Place> places,
        RoomOf room, Preferences preferences)
    {
        var choices = found.Choices.Where(c => c.Person == person.Id).ToLookup(c => c.Station);
        return new RoomPerson(
            person.Id, person.Called,
            [.. person.LimitsOn(room.Day).Select(Allowance.Named)],
            [.. (person.Limits ?? []).Where(l => !l.CountsOn(room.Day)).Select(l => $"{Allowance.Named(l)} (expired "
                + $"{l.Until:d MMM yyyy})")],
            [.. given.Stations.Select(cell =>
            {
                var station = places[cell.Station].Station;
                var option = station.Options.FirstOrDefault(o => o.Id == cell.Option);
                return new RoomCell(
                    cell.Station,
                    option is null ? CellKind.Gap : Enum.Parse<CellKind>(option.Tier.ToString()),
                    cell.Option,
                    option is null ? "no option" : PlanWords.Option(option, station, room.Plan.Moves, preferences),
                    cell.Why, cell.Pinned,
                    cell.Pinned && choices[cell.Station].Any(c => c.Option == cell.Option && !c.Allowed),
                    [.. choices[cell.Station].Select(c =>
                    {
                        var o = station.Options.First(x => x.Id == c.Option);
                        return new RoomChoice(o.Id, o.Tier, PlanWords.Option(o, station, room.Plan.Moves, preferences), c.Allowed, c.Why);
                    })]);
            })]);
    }

    private static RoomStation StationOf(Place place, Assignment found, Dictionary<PersonId, Person> people, int unnamed, RoomOf room,
        Preferences preferences, KitOfClass kit)
    {
        var station = place.Station;
        var who = found.People.SelectMany(p => p.Stations.Where(s => s.Station == station.Id && s.Option is not null)
            .Select(s => (s.Option, people[p.Person].Called))).ToLookup(w => w.Option!.Value, w => w.Called);
        return new RoomStation(
            place.Block.Id, station.Id, place.Block.Name, place.Block.Stations.IndexOf(station) + 1, station.Name,
            [.. station.Options.Where(o => who[o.Id].Any() || (o.Tier == Tier.Main && unnamed > 0))
                .OrderBy(o => o.Tier switch { Tier.Easier => 0, Tier.Main => 1, Tier.Instead => 2, _ => 3 })
                .Select(o => new StationWay(o.Id, o.Tier, PlanWords.Option(o, station, room.Plan.Moves, preferences), [.. who[o.Id]],
                    o.Tier == Tier.Main ? unnamed : 0))],
            kit.LiesAt(station.Id),
            station.Turns ? PairsAt(place, found, people) : []);
    }

    /// <summary>People who fit take turns: the same option first, so that the kit stays as it is; then the nearest in stature.</summary>
    private static ImmutableArray<string> PairsAt(Place place, Assignment found, Dictionary<PersonId, Person> people)
    {
        var taken = found.People.ToDictionary(p => p.Person, p => p.Stations.First(s => s.Station == place.Station.Id).Option);
        var options = place.Station.Options.Select(o => o.Id).ToImmutableArray();
        var groups = found.Groups.FirstOrDefault(g => g.Block == place.Block.Id)?.Groups ?? [[.. people.Keys]];
        return
        [
            .. groups.SelectMany(group => group
                .OrderBy(p => taken[p] is { } option ? options.IndexOf(option) : -1).ThenBy(p => people[p].StatureCm ?? 0)
                .Select(p => people[p].Called).Chunk(2)
                .Select(pair => pair.Length == 2 ? $"{pair[0]} with {pair[1]}" : $"{pair[0]} with whoever is free")),
        ];
    }

    private static RoomGap GapOf(OpenGap gap, Person person, Place place, RoomOf room, Preferences preferences)
    {
        var proposed = gap.Proposed is null ? null : GapProposals.For(person, place, room);
        return new RoomGap(
            gap.Person, gap.Station, $"{person.Called} has no option at {place.Station.Name}", gap.Proposed,
            proposed is null ? "The library has no match either. Swap the station, or let them "
                + "rest." : PlanWords.Option(proposed, place.Station, room.Plan.Moves, preferences));
    }

    private static string Words(Shortage s, Dictionary<PlaceId, Place> places, RoomOf room)
    {
        var place = s.Station is { } station ? places[station].Station.Name : room.Plan.Blocks.First(b => b.Id == s.Block).Name;
        var when = s.Station is null && s.Window is > 0 and var bell ? $" after bell {bell}" : "";
        if (s.Or is { } or)
        {
            var one = NeedWords.Many(new Need(s.Item, 1, s.Kg, s.HeightCm, s.Strength, null, s.Name));
            return $"{Counted.Of((int)s.Need, "person", "people")} at {place} need {one} or {NeedWords.Many(or)}{when}; "
                + string.Create(CultureInfo.InvariantCulture, $"there is enough for {s.Have:0}");
        }

        var what = s.Item == KitItem.Plate && s.Kg is { } bar && s.Need > 0
            ? string.Create(CultureInfo.InvariantCulture, $"plates for {Counted.Of((int)s.Need, "bar", "bars")} of {bar:0.##} kg")
            : s.Item == KitItem.Wall ? string.Create(CultureInfo.InvariantCulture, $"{s.Need:0.#} m of free wall")
            : NeedWords.Of(s.Item, s.Need, s.Kg, s.HeightCm, s.Strength, null, s.Name);
        return $"{place} needs {what}{when}; you have "
            + (s.Have == 0 ? "none" : string.Create(CultureInfo.InvariantCulture, $"{s.Have:0.#}"));
    }

    private static RoomGroups GroupsOf(BlockGroups groups, RoomOf room)
    {
        var block = room.Plan.Blocks.First(b => b.Id == groups.Block);
        return new RoomGroups(
            block.Id, block.Name,
            [.. groups.Groups.Select((g, i) => new RoomGroup(
                i + 1, block.Stations[i].Name, GroupPlans.IsHop(block.Stations[i], room.Plan.Moves), g, groups.Sizes[i] - g.Length))]);
    }
}
