using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;

namespace Halterion.Core.Views;

/// <summary>The kit of a class: what is fetched, when and where it is used, what lies at each station, and what stays on.</summary>
internal sealed record KitOfClass(
    ImmutableArray<RoomKit> Lines,
    ImmutableArray<string> FetchOnce,
    ImmutableArray<string> StaysOn,
    ImmutableDictionary<PlaceId, ImmutableArray<string>> Lies)
{
    public ImmutableArray<string> LiesAt(PlaceId station) => Lies.GetValueOrDefault(station, []);

    public static KitOfClass Of(RoomOf room, Assignment found, Timeline timeline, ImmutableArray<Place> places)
    {
        var uses = places.ToDictionary(p => p.Station.Id, p => UsesAt(p, room, found));
        var kinds = uses.Values.SelectMany(u => u.Keys).Distinct().ToArray();
        var lines = kinds.Select(kind => LineOf(kind, room, found, timeline, places, uses)).ToImmutableArray();
        return new KitOfClass(
            lines,
            [.. lines.Where(l => l.Peak > 0).Select(l => $"{l.Words}{(l.Place.Length > 0 ? $" ({l.Place})" : "")}")],
            [.. kinds.Select(kind => Stays(kind, places, uses)).OfType<string>()],
            uses.ToImmutableDictionary(
                u => u.Key,
                u => u.Value.Select(n => NeedWords.Of(n.Key with { Count = n.Value })).ToImmutableArray()));
    }

    /// <summary>How many of each kind lie at a station: what those who are there at once need, at most.</summary>
    private static Dictionary<Need, int> UsesAt(Place place, RoomOf room, Assignment found)
    {
        var options = place.Station.Options.ToDictionary(o => o.Id, o => Needs.Of(o, place.Station, room.Plan.Moves));
        var taken = found.People.ToDictionary(p => p.Person, p => p.Stations.First(s => s.Station == place.Station.Id).Option);
        var groups = found.Groups.FirstOrDefault(g => g.Block == place.Block.Id);
        var at = groups is null ? [(People: room.People.Select(p => p.Id).ToImmutableArray(), Heads: room.Heads)]
            : groups.Groups.Zip(groups.Sizes, (people, size) => (People: people, Heads: size)).ToArray();
        var most = new Dictionary<Need, int>();
        foreach (var (people, heads) in at)
        {
            var needs = people.Select(p => taken[p]).OfType<PlaceId>().Select(o => options[o])
                .Concat(Enumerable.Repeat(options[place.Station.Main.Id], heads - people.Length)).ToArray();
            foreach (var kind in needs.SelectMany(n => n).Select(n => n.Kind).Where(n => n.BarKg is null).Distinct())
            {
                var counts = needs.Select(n => n.Where(x => x.Kind == kind).Sum(x => x.Count)).Where(c => c > 0).OrderDescending();
                var count = place.Station.Turns ? counts.Take((heads + 1) / 2).Sum() : counts.Sum();
                most[kind] = Math.Max(most.GetValueOrDefault(kind), count);
            }
        }

        return most;
    }

    private static RoomKit LineOf(Need kind, RoomOf room, Assignment found, Timeline timeline, ImmutableArray<Place> places,
        Dictionary<PlaceId, Dictionary<Need, int>> uses)
    {
        var where = places.Where(p => uses[p.Station.Id].ContainsKey(kind)).ToArray();
        var peak = found.Kit.FirstOrDefault(k => k.Kind == kind);
        var most = kind is { Item: KitItem.Wall, Or: null } ? peak?.Peak ?? 0
            : Math.Max(peak?.Peak ?? 0, where.Select(p => uses[p.Station.Id][kind]).DefaultIfEmpty(0).Max());
        bool IsAt(Span span, Place p) => room.Plan.Blocks[span.Block] is var block && block.Id == p.Block.Id
            && (span.Station is null || block.Stations[span.Station.Value].Id == p.Station.Id);
        var spans = timeline.Spans.Where(s => s.Kind == SpanKind.Work && where.Any(p => IsAt(s, p))).ToArray();
        var when = spans.Length == 0 ? "" : Minutes(spans[0].Start, spans[^1].End);
        var place = (room.Kit ?? []).FirstOrDefault(kind.IsServedBy)?.Place ?? "";
        return new RoomKit(
            kind is { Item: KitItem.Wall, Or: null } ? string.Create(CultureInfo.InvariantCulture, $"{most:0.#} m of free wall")
                : NeedWords.Of(kind with { Count = Math.Max(1, (int)most) }),
            most, peak?.Have, when, string.Join(", ", where.Select(p => p.Station.Name).Distinct()), place);
    }

    private static string Minutes(Seconds from, Seconds to)
    {
        var (a, b) = (from.Value / 60 + 1, Math.Max(from.Value / 60 + 1, (to.Value + 59) / 60));
        return a == b ? $"minute {a}" : $"minutes {a}–{b}";
    }

    /// <summary>What is worn or held from one station to the next without being put down.</summary>
    private static string? Stays(Need kind, ImmutableArray<Place> places, Dictionary<PlaceId, Dictionary<Need, int>> uses)
    {
        if (kind.Item is not (KitItem.Band or KitItem.Dumbbell or KitItem.Kettlebell))
        {
            return null;
        }

        var runs = places.GroupBy(p => p.Block.Id)
            .Select(
                g => g.SkipWhile(p => !uses[p.Station.Id].ContainsKey(kind)).TakeWhile(p => uses[p.Station.Id].ContainsKey(kind)).ToArray())
            .Where(run => run.Length > 1 && run[0].Block.Shape != BlockShape.Rotation).ToArray();
        return runs.Length == 0 ? null
            : $"{NeedWords.Of(kind).Capital()}: {(kind.Item == KitItem.Band ? "keep on" : "keep in hand")} from "
                + $"{runs[0][0].Station.Name} to "
                + $"{runs[0][^1].Station.Name}";
    }
}
