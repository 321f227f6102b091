using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Plans;

namespace Halterion.Core.Room;

/// <summary>The instructor's own choice for somebody at a station: it holds whatever the rest says.</summary>
public sealed record Pin(PersonId Person, PlaceId Station, PlaceId Option, string? Reason = null);

/// <summary>All that is known of a room when people are given their options.</summary>
/// <param name="HeadCount">How many come; where more are named, the names count.</param>
/// <param name="Kit">Null: not known, so that nothing runs short.</param>
/// <param name="Groups">Where they are chosen: by block, ids by group.</param>
public sealed record RoomOf(
    ClassPlan Plan,
    DateOnly Day,
    ImmutableArray<Person> People,
    int HeadCount,
    ImmutableArray<Pin> Pins,
    ImmutableArray<StockLine>? Kit,
    IReadOnlyDictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>> Groups)
{
    /// <summary>With and without a name.</summary>
    public int Heads => Math.Max(HeadCount, People.Length);
}

/// <summary>What somebody does at a station.</summary>
/// <param name="Option">Null: a gap, nothing there is for them.</param>
public sealed record AssignedStation(PlaceId Station, PlaceId? Option, string Why, int Cost, bool Pinned);

/// <summary>Station by station, in the order of the class.</summary>
public sealed record AssignedPerson(PersonId Person, ImmutableArray<AssignedStation> Stations);

/// <summary>An option of a station as it is for one person, whatever is pinned.</summary>
/// <param name="Cost">Null where it is not allowed.</param>
public sealed record PersonChoice(
    PersonId Person, PlaceId Station, PlaceId Option, bool Allowed, string Why, int? Cost, ImmutableArray<Need> Needs);

/// <summary>Kit that does not go round at a moment.</summary>
/// <param name="Station">Where everyone is at one station.</param>
/// <param name="Window">Of a rotation, from 0, beside its block.</param>
/// <param name="Need">Pieces; metres of wall; people, where one of two things serves.</param>
/// <param name="Or">What serves as well as the item.</param>
public sealed record Shortage(
    KitItem Item,
    decimal Need,
    decimal Have,
    PlaceId? Station = null,
    PlaceId? Block = null,
    int? Window = null,
    decimal? Kg = null,
    int? HeightCm = null,
    BandStrength? Strength = null,
    string? Name = null,
    KitItem? Or = null);

/// <summary>The most that is asked of one kind of kit at once, and where.</summary>
public sealed record KitPeak(
    KitItem Item,
    decimal Peak,
    decimal? Have,
    PlaceId? Station = null,
    PlaceId? Block = null,
    int? Window = null,
    decimal? Kg = null,
    int? HeightCm = null,
    BandStrength? Strength = null,
    decimal? Metres = null,
    string? Name = null)
{
    /// <summary>The same with what may stand in its place.</summary>
    [JsonIgnore]
    public Need? Kind { get; init; }
}

/// <summary>Somebody for whom a station has nothing.</summary>
public sealed record Gap(PersonId Person, PlaceId Station);

/// <summary>Who does what.</summary>
/// <param name="Total">The cost of all that is done, and of all that is short.</param>
/// <param name="Exact">It is known that nothing is cheaper; only a room of hundreds could be too large to tell.</param>
public sealed record Assignment(
    ImmutableArray<AssignedPerson> People,
    ImmutableArray<PersonChoice> Choices,
    int Total,
    bool Exact,
    ImmutableArray<Gap> Gaps,
    ImmutableArray<Shortage> Shortages,
    ImmutableArray<KitPeak> Kit,
    ImmutableArray<BlockGroups> Groups);

/// <summary>The groups of a block: ids of those with a name, and how many each has with those without.</summary>
public sealed record BlockGroups(PlaceId Block, ImmutableArray<ImmutableArray<PersonId>> Groups, ImmutableArray<int> Sizes);

/// <summary>Gives everyone exactly one option at every station, the cheapest way in sum.</summary>
public static class Assigning
{
    /// <summary>A station that has nothing for somebody. [M]</summary>
    public const int GapCost = 1000;

    /// <summary>Who does which option with which kit: the solution of least cost (room.md), in the order of the class.</summary>
    public static Assignment Of(RoomOf room)
    {
        var places = Place.Of(room.Plan);
        var choices = new ChoiceTable(room, places);
        var groups = GroupsOf(room);
        var taken = new int?[room.People.Length, places.Length];
        var exact = true;
        var (shortages, peaks, units) = (ImmutableArray.CreateBuilder<Shortage>(), new Dictionary<Need, (KitPeak Peak, int Order)>(), 0);
        for (var p = 0; p < room.People.Length; p++)
        {
            for (var s = 0; s < places.Length; s++)
            {
                taken[p, s] = choices.Offers(p, s) is { Length: > 0 } offers
                    ? offers[Cheapest.Of([new Seat(offers)], null).Taken[0]].Option
                    : null;
            }
        }

        // A moment has nothing to do with another: they are settled side by side.
        var settled = Moments.Of(places, room.Heads, groups).AsParallel().AsOrdered().Select(moment =>
        {
            // Of equal sums care comes first: the first seat takes the first of its equal offers.
            var spots = moment.Spots.Where(s => choices.Offers(s.Person, s.Station).Length > 0)
                .OrderBy(s => choices.CareOf(s.Person))
                .ThenBy(s => s.Person)
                .ThenBy(s => s.Station)
                .ToArray();
            var seats = spots.Select(
                s => new Seat(choices.Offers(s.Person, s.Station), places[s.Station].Station.Turns ? s.Station : null)).ToArray();
            var (offers, sure) = Cheapest.Of(seats, room.Kit);
            return (moment, spots, seats, offers, sure);
        });
        foreach (var (moment, spots, seats, offers, sure) in settled)
        {
            exact &= sure;
            for (var i = 0; i < spots.Length; i++)
            {
                if (spots[i].Person < room.People.Length)
                {
                    taken[spots[i].Person, spots[i].Station] = seats[i].Offers[offers[i]].Option;
                }
            }

            foreach (var asked in KitDemand.Of(moment, seats, offers, room.Kit))
            {
                units += asked.Units;
                if (asked.Units > 0)
                {
                    shortages.Add(asked.Shortage);
                }

                if (!peaks.TryGetValue(asked.Kind, out var known) || asked.Peak.Peak > known.Peak.Peak)
                {
                    peaks[asked.Kind] = (asked.Peak, known.Peak is null ? peaks.Count : known.Order);
                }
            }
        }

        var people = room.People.Select((person, p) => new AssignedPerson(
            person.Id,
            [.. places.Select((place, s) => choices.Told(p, s, taken[p, s]))])).ToImmutableArray();
        return new Assignment(
            people,
            choices.All(),
            people.SelectMany(p => p.Stations).Sum(s => s.Cost) + Cheapest.Unit * units,
            exact,
            [.. people.SelectMany(p => p.Stations.Where(s => s.Option is null).Select(s => new Gap(p.Person, s.Station)))],
            shortages.ToImmutable(),
            [.. peaks.Values.OrderBy(p => p.Order).Select(p => p.Peak)],
            [.. room.Plan.Blocks.Where(b => groups.ContainsKey(b.Id)).Select(b => Named(b.Id, groups[b.Id], room.People))]);
    }

    private static Dictionary<PlaceId, ImmutableArray<ImmutableArray<int>>> GroupsOf(RoomOf room)
    {
        var index = room.People.Select((p, i) => (p.Id, i)).ToDictionary(p => p.Id, p => p.i);
        return room.Plan.Blocks.Where(b => b.Shape.IsSpread && b.Stations.Length > 0).ToDictionary(
            b => b.Id,
            b => b.Shape == BlockShape.Rotation && room.Groups.TryGetValue(b.Id, out var given) && given.Length == b.Stations.Length
                ? Groups.Filled([.. given.Select(g => g.Where(index.ContainsKey).Select(id => index[id]).ToImmutableArray())], room.Heads)
                : Groups.InOrder(room.Heads, b.Stations.Length));
    }

    private static BlockGroups Named(PlaceId block, ImmutableArray<ImmutableArray<int>> groups, ImmutableArray<Person> people) => new(
        block,
        [.. groups.Select(g => g.Where(p => p < people.Length).Select(p => people[p].Id).ToImmutableArray())],
        [.. groups.Select(g => g.Length)]);
}
