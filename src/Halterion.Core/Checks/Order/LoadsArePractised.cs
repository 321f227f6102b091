using System.Text.Json.Nodes;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>A family is done without a weight before it is done with one.</summary>
public sealed class LoadsArePractised() : Rule(
    "order.practise",
    "The movement comes before the weight",
    "The first loaded rep should not be the first rep of that movement today.",
    Common)
{
    /// <inheritdoc/>
    public override string? Several => "families start with a weight";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        var practised = new HashSet<Family>();
        for (var b = 0; b < review.Plan.Blocks.Length; b++)
        {
            var here = review.Stations.Where(s => s.B == b).ToArray();
            var rotates = review.Plan.Blocks[b].Shape == BlockShape.Rotation;
            // In a rotation somebody begins at the weight.
            var earlier = new HashSet<Family>(practised);
            foreach (var at in here)
            {
                foreach (var done in review.Works(at).Where(p => p.IsHard))
                {
                    if ((done.Kilograms >= Thresholds.PractiseFrom || done.IsSwing)
                        && !(rotates ? earlier : practised).Contains(done.Family))
                    {
                        practised.Add(done.Family);
                        earlier.Add(done.Family);
                        yield return Found(
                            Severity.Consider, at.Id, $"{at.Name}: the first {done.Family.ToString().ToLowerInvariant()} of the class is "
                                + "already loaded.",
                            new Repair("Add an unloaded set to the warm-up", root => Practise(root, review, done)));
                    }
                    else if (!done.IsLoaded)
                    {
                        practised.Add(done.Family);
                    }
                }
            }
        }
    }

    private const int PractiseSeconds = 30;

    private static void Practise(JsonObject root, ClassReview review, DonePart done)
    {
        var usual = MoveLibrary.Usual;
        var move = (usual.Of(done.Family) ?? usual.Families[Family.Bridge]).Practise;
        var station = WarmsUp.Station(move, PractiseSeconds, review.Moves);
        var warm = review.Plan.Blocks.ToList()
            .FindIndex(b =>
                b is { Phase: Phase.Warmup, Shape: BlockShape.Circuit, SidePass: SidePass.Station, Stations.Length: < 16 }
                    && !b.Stations[^1].WithNext);
        if (warm >= 0)
        {
            root.BlockAt(warm)["stations"]!.AsArray().Add(station);
            return;
        }

        var first = review.Plan.Blocks.ToList().FindIndex(b => b.Shape.HasStations);
        root.Blocks()
            .Insert(first,
                new JsonObject
                {
                    ["name"] = "Practice without weights",
                    ["phase"] = "warmup",
                    ["leadInSeconds"] = 0,
                    ["stations"] = new JsonArray(station)
                });
    }
}
