using System.Text.Json.Nodes;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>At least one main station goes sideways or turns.</summary>
public sealed class SomethingGoesSideways() : Rule(
    "mix.plane",
    "Something goes sideways or turns",
    "Only forward and back leaves the outer hips out, and daily life does not.",
    Common)
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        if (review.MainStations.Count() < Thresholds.StationsOfAMix
            || review.MainStations.SelectMany(s => review.Works(s)).Any(p => p.IsSideways))
        {
            yield break;
        }

        yield return Found(Severity.Note, PlaceId.Class, "No station in the main blocks goes sideways or turns.", [.. Repairs(review)]);
    }

    /// <summary>One station more, like the last one of a block that has room, with a side lunge in turn.</summary>
    private static IEnumerable<Repair> Repairs(ClassReview review)
    {
        var like = review.MainStations.LastOrDefault(s => s.Block.Stations.Length < 16 && s.Block.SidePass == SidePass.Station
            && s.Block.Stations.All(o => !o.WithNext) && s.Station.Dose is [{ Kind: PartKind.Time or PartKind.Reps }]);
        if (like is not null)
        {
            yield return new Repair("Add a side lunge station", () => Enumerable.Range(0, like.Block.Stations.Length + 1).Reverse()
                .Select(place =>
                    (Action<JsonObject>)(
                        root => root.BlockAt(like.B)["stations"]!.AsArray().Insert(place, Station(root.PartOf(like, 0), review)))));
        }
    }

    private static JsonObject Station(JsonObject like, ClassReview review)
    {
        var dose = like.DeepClone().AsObject();
        foreach (var own in new[] { "move", "tempo", "loadKg", "loadFactor", "style", "pulsesPerRep" })
        {
            dose.Remove(own);
        }

        dose["side"] = "alternate";
        var (move, gentler) = MoveLibrary.Usual.Sideways;
        var proposed = Proposals.For(move, review.Moves);
        var options = new JsonArray(new JsonObject { ["tier"] = "main", ["move"] = move.Value });
        foreach (var option in new[] { proposed.Easier, proposed.Harder }.OfType<Proposal>())
        {
            options.Add(option.Option.DeepClone());
        }

        var easier = new JsonObject { ["tier"] = "easier", ["move"] = move.Value };
        foreach (var (field, value) in gentler)
        {
            easier[field] = value!.DeepClone();
        }

        options.Add(easier);
        return new JsonObject { ["dose"] = new JsonArray(dose), ["options"] = options };
    }
}
