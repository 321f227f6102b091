using System.Text.Json.Nodes;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Jumps begin before the legs are gone.</summary>
public sealed class JumpsComeEarly() : Rule(
    "order.jump",
    "Jumps come while legs are fresh",
    "Tired legs land stiff and knees drift in; that is when ankles turn.",
    Common,
    "Some put the jumps last, as a burn-out with a lower target. If so, accept this as is.")
{
    /// <inheritdoc/>
    public override string? Several => "stations jump late";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from late in review.Courses.SelectMany(course => Late(review, course))
        group late by (late.At.B, late.At.S) into place
        let worst = place.MaxBy(l => l.Share)
        where worst.At.Block.Shape.IsOneByOne || worst.At.Block is { Shape: BlockShape.Rotation, Rounds: > 1 }
        select worst.At.Block.Shape == BlockShape.Rotation
            ? Found(Severity.Consider, worst.At.Id, $"{worst.At.Name}: some groups only reach it "
                + $"{Told.Percent(worst.Share)} into the main blocks, with tired legs.",
                [.. Split(review, worst.At)])
            : Found(
                Severity.Fix, worst.At.Id, $"{worst.At.Name}: the first jumps come {Told.Percent(worst.Share)} into the "
                    + $"main blocks; keep them in the first 60%.",
                new Repair("Move it first", () => First(review, worst.At)));

    private static IEnumerable<(StationAt At, double Share)> Late(ClassReview review, Course course)
    {
        var main = course.Pieces.Where(p => review.At(p).IsMain).ToArray();
        var seconds = Seconds(review, main);
        var all = (double)seconds.Sum();
        var seen = new HashSet<MoveId>();
        var before = 0;
        for (var i = 0; i < main.Length; i++)
        {
            // In a rotation somebody comes to it last, in the last round too.
            if (review.Done(main[i]) is { HasImpact: true } jump
                && (seen.Add(jump.Move.Id) || review.At(main[i]).Block.Shape == BlockShape.Rotation)
                && before > Thresholds.JumpsBefore * all)
            {
                yield return (review.At(main[i]), before / all);
            }

            before += seconds[i];
        }
    }

    /// <summary>An own-pace block is work from its first second to its last, however far one comes.</summary>
    private static int[] Seconds(ClassReview review, Piece[] main)
    {
        var seconds = Array.ConvertAll(main, p => p.Seconds);
        for (var i = 0; i < main.Length; i++)
        {
            if (review.Plan.Blocks[main[i].Block] is { Shape: BlockShape.OwnPace } block)
            {
                seconds[i] = i == 0 || main[i - 1].Block != main[i].Block ? block.Length.Value : 0;
            }
        }

        return seconds;
    }

    /// <summary>First in its block; else at the beginning of the main work.</summary>
    private static IEnumerable<Action<JsonObject>> First(ClassReview review, StationAt at)
    {
        yield return root =>
        {
            var stations = root.BlockAt(at.B)["stations"]!.AsArray();
            var moved = stations[at.S]!;
            stations.RemoveAt(at.S);
            stations.Insert(0, moved);
        };
        var first = review.MainStations.First().B;
        if (first != at.B && at.Block.Stations.Length > 1)
        {
            yield return root =>
            {
                var stations = root.BlockAt(at.B)["stations"]!.AsArray();
                var moved = stations[at.S]!;
                stations.RemoveAt(at.S);
                root.BlockAt(first)["stations"]!.AsArray().Insert(0, moved);
            };
        }

        if (first != at.B)
        {
            yield return root =>
            {
                var blocks = root.Blocks();
                var moved = blocks[at.B]!;
                blocks.RemoveAt(at.B);
                blocks.Insert(first, moved);
            };
        }
    }

    /// <summary>The jump in the first round, the same amount of an easier move without a landing in the rest.</summary>
    private static IEnumerable<Repair> Split(ClassReview review, StationAt at)
    {
        var calm = at.Station.Options.Where(o => o.Tier != Tier.Main).FirstOrDefault(o => review.Works(o, at).All(p => !p.HasImpact))?.Move
            ?? new[] { Tier.Instead, Tier.Easier }.SelectMany(
                t => Proposals.All(new Doing(at.Station.Main.Move, at.Station.Main.Manner), t, review.Moves))
                .Select(p => (MoveId?)p.Of.Move).FirstOrDefault(
                    m => m != at.Station.Main.Move
                        && OptionFacts.Of(review.Moves.Find(m!.Value)!, new Manner(), review.Moves) is { Flight: false });
        if (at.Station.Dose is not [{ Rounds: { First: true, Last: true, Listed.Length: 0 } } part] || calm is not { } move
            || review.Moves.Find(move) is not { } easier)
        {
            yield break;
        }

        yield return new Repair($"The jump in the first round, then {easier.Name}", root =>
        {
            var jump = root.PartOf(at, 0);
            var rest = jump.DeepClone().AsObject();
            jump["rounds"] = "first";
            rest["move"] = move.Value;
            rest["rounds"] = new JsonArray([.. Enumerable.Range(2, at.Block.Rounds - 1).Select(r => (JsonNode)r)]);
            if (part.Kind == PartKind.Reps && part.OwnTempo is null && easier.Tempo is null)
            {
                rest["tempo"] = part.Tempo!.ToString();
            }

            root.StationOf(at)["dose"]!.AsArray().Add(rest);
        });
    }
}
