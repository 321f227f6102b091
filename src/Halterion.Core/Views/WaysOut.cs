using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Nodes;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Words;

namespace Halterion.Core.Views;

/// <summary>A way out of a shortage, tried before it is offered.</summary>
/// <param name="Preview">What it comes to: "it goes round; the class takes 40 s more".</param>
/// <param name="Class">The class with it, where it changes the class.</param>
/// <param name="Lines">Makeshift lines for the stock, where it adds to that.</param>
public sealed record WayOut(string Title, string Preview, JsonObject? Class, ImmutableArray<StockLine> Lines);

/// <summary>
/// Finds ways out of a shortage of kit: share in turns, do something that needs less, go round in groups, use a stand-in.
/// </summary>
public static class WaysOut
{
    /// <summary>
    /// What serves in place of a thing (handbook, section 8). Nothing serves for what people stand or pull on with their weight.
    /// </summary>
    private static readonly Dictionary<KitItem, string> StandIns = new()
    {
        [KitItem.Mat] = "folded blankets or large towels",
        [KitItem.Pad] = "folded mats or towels",
        [KitItem.Dumbbell] = "filled bottles of the same weight",
        [KitItem.Kettlebell] = "bags or canisters of the same weight",
        [KitItem.Ball] = "rolled bags of the same weight",
        [KitItem.Bottle] = "any filled bottles",
    };

    /// <param name="file">The class file that the room is of, with its ids.</param>
    public static ImmutableArray<WayOut> Of(Shortage shortage, RoomOf room, Evaluator evaluator, JsonObject file)
    {
        var places = Places.PointersOf(room.Plan);
        var before = Assigning.Of(room);
        var length = evaluator.Evaluate(room.Plan).Timeline!.Length;
        var users = Users(shortage, room).ToArray();
        var ways = new List<WayOut?>();
        foreach (var (block, station) in users.Where(u => !u.Station.Turns && u.Block.Shape != BlockShape.OwnPace))
        {
            ways.Add(
                Changed($"Work in pairs at {station.Name}: one works, one rests",
                    f => f.Set($"{places[station.Id]}/sharing", "turns")));
        }

        foreach (var (block, station) in users)
        {
            if (Without(shortage, block, station, room) is { } option)
            {
                ways.Add(Changed(
                    $"Offer {PlanWords.Option(option, station, room.Plan.Moves, evaluator.Preferences)} as an alternative at "
                    + $"{station.Name}",
                    f => f.Append($"{places[station.Id]}/options", PlanWriter.Of(option))));
            }
        }

        if (users is [var first, ..] && first.Block.Shape.IsOneByOne && first.Block.Stations.Length > 1)
        {
            ways.Add(Changed($"Make {first.Block.Name} a rotation, one group per station", f => f.AsRotation(places[first.Block.Id])));
        }

        if (StandIns.TryGetValue(shortage.Item, out var serves))
        {
            var count = (int)Math.Ceiling(shortage.Need - shortage.Have);
            var line = new StockLine(shortage.Item, count, shortage.Kg, shortage.HeightCm, shortage.Strength, StandIn: true);
            var after = Assigning.Of(room with { Kit = [.. room.Kit ?? [], line] });
            ways.Add(new WayOut($"Bring {Counted.Of(count, "stand-in", "stand-ins")}: "
                + $"{serves}", Preview(after, Seconds.Zero), null, [line]));
        }

        return [.. ways.OfType<WayOut>()];

        WayOut? Changed(string title, Func<JsonFile, bool> edit)
        {
            var changed = new JsonFile((JsonObject)file.DeepClone());
            if (!edit(changed) || evaluator.Evaluate(changed.Root.ToJsonString()) is not { Plan: { } plan, Timeline: { } timeline })
            {
                return null;
            }

            var after = Assigning.Of(room with { Plan = plan });
            // What leaves as much short as before is no way out.
            return Units(after) >= Units(before) ? null : new WayOut(title, Preview(after, timeline.Length - length), changed.Root, []);
        }
    }

    private static decimal Units(Assignment of) => of.Shortages.Sum(s => s.Need - s.Have);

    private static string Preview(Assignment after, Seconds longer)
    {
        var left = after.Shortages.IsEmpty ? "then there is enough"
            : string.Create(CultureInfo.InvariantCulture,
                $"then {after.Shortages.Length} {(after.Shortages.Length == 1 ? "shortage is" : "shortages are")} left");
        return longer == Seconds.Zero ? left : $"{left}; the class gets "
            + $"{(longer > Seconds.Zero ? $"{longer} longer" : $"{Seconds.Zero - longer} shorter")}";
    }

    /// <summary>The stations whose options need what is short.</summary>
    private static IEnumerable<(Block Block, Station Station)> Users(Shortage shortage, RoomOf room) =>
        from block in room.Plan.Blocks
        where shortage.Block is null || block.Id == shortage.Block
        from station in block.Stations
        where shortage.Station is null || station.Id == shortage.Station
        where station.Options.Any(o => Needs.Of(o, station, room.Plan.Moves).Any(n => IsOf(n, shortage)))
        select (block, station);

    private static bool IsOf(Need need, Shortage shortage) =>
        (need.Item, need.BarKg ?? need.Kg, need.HeightCm, need.Strength, need.Name) == (
            shortage.Item, shortage.Kg, shortage.HeightCm, shortage.Strength, shortage.Name);

    /// <summary>The option nearest to the main one that needs nothing of the kind; null where the station has one already.</summary>
    private static Option? Without(Shortage shortage, Block block, Station station, RoomOf room)
    {
        var moves = room.Plan.Moves;
        var main = moves.Find(station.Main.Move)!;
        if (DemandModel.Of(main.Id, station.Main.Manner, moves) is not { } asked || room.Kit is not { } stock)
        {
            return null;
        }

        var counted = station.Dose.Any(p => p.Kind == PartKind.Reps && p.OwnTempo is null);
        // What a coach gives for want of kit comes first, then the nearest of the family.
        var coached = Offers.Of(main, Tier.Instead, moves)
            .Concat(Offers.Of(main, Tier.Easier, moves))
            .Select(o => o.Option with { Tier = Tier.Instead })
            .Where(o => !counted || moves.Find(o.Move)!.Tempo is not null)
            .FirstOrDefault(o => station.Options.All(s => s.Move != o.Move || !s.Manner.Equals(o.Manner))
                && Needs.Of(o, station, moves) is var needs
                    && !needs.Any(n => n.Item == shortage.Item)
                    && needs.All(n => stock.Any(n.IsServedBy)));
        if (coached is not null)
        {
            return OptionEntry.Into(coached, station, moves);
        }

        return moves.Moves
            .Where(m => m.Family == main.Family && (!counted || m.Tempo is not null) && !station.Options.Any(o => o.Move == m.Id))
            .Select(m => Option.Of(Tier.Instead, m.Id))
            .Where(
                o => Needs.Of(o, station, moves) is var needs
                    && !needs.Any(n => n.Item == shortage.Item)
                    && needs.All(n => stock.Any(n.IsServedBy)))
            .Where(o => OptionFacts.Of(moves.Find(o.Move)!, o.Manner, moves) is { Flight: false }
                || OptionFacts.Of(main, station.Main.Manner, moves) is { Flight: true })
            .Select(o => (Option: o, Demand: DemandModel.Of(o.Move, o.Manner, moves)))
            .Where(o => o.Demand is not null)
            .OrderBy(o => o.Demand!.Dimensions.Zip(asked.Dimensions).Sum(d => Math.Abs(d.First.Value - d.Second.Value)))
            .Select(o => o.Option)
            .FirstOrDefault();
    }

    /// <summary>A class file that is changed by places.</summary>
    private sealed class JsonFile(JsonObject root)
    {
        /// <summary>Of a block that everyone does together, what a rotation has no use for.</summary>
        private static readonly string[] OfTogether = ["order", "startEverySeconds", "betweenSets"];

        private static readonly string[] OfStationTogether = ["withNext", "betweenSets", "changeSeconds", "demoSeconds", "say"];

        public JsonObject Root => root;

        public bool Set(string pointer, string value)
        {
            new Edit(pointer, value).ApplyTo(root);
            return true;
        }

        public bool Append(string pointer, JsonObject value)
        {
            new Edit($"{pointer}/-", value).ApplyTo(root);
            return true;
        }

        public bool AsRotation(string pointer)
        {
            var block = (JsonObject)root["blocks"]![int.Parse(pointer.Split('/')[^1], CultureInfo.InvariantCulture)]!;
            foreach (var field in OfTogether)
            {
                block.Remove(field);
            }

            foreach (var station in block["stations"]!.AsArray().OfType<JsonObject>())
            {
                foreach (var field in OfStationTogether)
                {
                    station.Remove(field);
                }
            }

            block["format"] = "rotation";
            return true;
        }
    }
}
