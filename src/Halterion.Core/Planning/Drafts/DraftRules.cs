using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;

namespace Halterion.Core.Planning.Drafts;

/// <summary>What keeps a class from being a draft, and where.</summary>
/// <param name="Rule">Such as "ends", "review", "avoid", "gap".</param>
/// <param name="Place">The block, station or option; the class where it is about all of it.</param>
public sealed record DraftBreach(string Rule, PlaceId Place, string Words);

/// <summary>The hard rules of a draft: they are never given up (drafting.md).</summary>
public static class DraftRules
{
    /// <summary>A draft ends no more than so many seconds before its slot.</summary>
    public const int Spare = 15;

    /// <summary>Warm-up and cool-down are as long as was asked, give or take so many seconds.</summary>
    public const int Slack = 30;

    /// <summary>The rule that left and right do the same.</summary>
    public const string Uneven = "even";

    /// <summary>Everything that a class breaks; none: it may be proposed.</summary>
    public static IEnumerable<DraftBreach> Broken(
        DraftBrief brief, ClassReview review, Totals totals, Breakdown breakdown, ImmutableArray<Finding> findings, Assignment? given)
    {
        var (plan, length) = (review.Plan, review.Timeline.Length);
        if (length > plan.Slot || length < plan.Slot - new Seconds(Spare))
        {
            yield return new DraftBreach("ends", PlaceId.Class, $"The class takes {length}, and the room is booked for {plan.Slot}.");
        }

        foreach (var finding in findings.Where(f => f.Waived is null && f.Severity is Severity.Stop or Severity.Fix))
        {
            yield return new DraftBreach(finding.Code, finding.Place, finding.What);
        }

        foreach (var finding in findings.Where(f => brief.Kit is not null && f.Code == "kit.unknown"))
        {
            yield return new DraftBreach("kit", finding.Place, finding.What);
        }

        foreach (var (place, move) in Named(plan).Where(n => brief.Avoid.Contains(n.Move)))
        {
            yield return new DraftBreach("avoid", place, $"{review.Moves.Find(move)?.Name} is to be avoided.");
        }

        foreach (var wanted in brief.Include.Where(m => review.MainStations.All(s => s.Station.Main.Move != m)))
        {
            yield return new DraftBreach("include", PlaceId.Class, $"There is no place for {review.Moves.Find(wanted)?.Name}.");
        }

        foreach (var station in review.MainStations)
        {
            if (!station.Station.Options.Any(o => o.Tier == Tier.Easier) || !station.Station.Options.Any(o => o.Tier == Tier.Harder))
            {
                yield return new DraftBreach("options", station.Id, $"{station.Name} has no easier or no harder option.");
            }

            if (brief.LowImpact && review.Works(station).Any(p => p.HasImpact))
            {
                yield return new DraftBreach("impact", station.Id, $"{station.Name} leaves the floor.");
            }
        }

        foreach (var breach in Timed(brief, review).Concat(Even(totals, breakdown)).Concat(Room(given)).Concat(Shape(brief, plan)))
        {
            yield return breach;
        }
    }

    private static IEnumerable<DraftBreach> Timed(DraftBrief brief, ClassReview review)
    {
        int Of(params Phase[] phases) => review.Timeline.Spans
            .Where(s => phases.Contains(review.Plan.Blocks[s.Block].Phase)).Sum(s => s.Length().Value);
        var (warm, cool) = (Of(Phase.Warmup, Phase.Activation, Phase.Skill), Of(Phase.Cooldown));
        if (Math.Abs(warm - brief.WarmUpSeconds) > Slack)
        {
            yield return new DraftBreach(
                "warmUp", PlaceId.Class, $"The warm-up takes {new Seconds(warm)}, not {new Seconds(brief.WarmUpSeconds)}.");
        }

        if (Math.Abs(cool - brief.CoolDownSeconds) > Slack)
        {
            yield return new DraftBreach(
                "coolDown", PlaceId.Class, $"The cool-down takes {new Seconds(cool)}, not {new Seconds(brief.CoolDownSeconds)}.");
        }

        if (brief.Drink && !review.Plan.Blocks.Any(b => b.Water))
        {
            yield return new DraftBreach("drink", PlaceId.Class, "There is no break to drink.");
        }
    }

    /// <summary>Left and right have the same time and as many reps.</summary>
    internal static bool AreSidesEven(Totals totals, Breakdown breakdown) =>
        totals.LeftReps == totals.RightReps && totals.LeftEstimatedReps == totals.RightEstimatedReps
        && breakdown.LeftSeconds == breakdown.RightSeconds;

    private static IEnumerable<DraftBreach> Even(Totals totals, Breakdown breakdown)
    {
        if (!AreSidesEven(totals, breakdown))
        {
            yield return new DraftBreach(Uneven, PlaceId.Class, "Left and right do not do the same.");
        }
    }

    private static IEnumerable<DraftBreach> Room(Assignment? given) => given is null ? []
        : given.Gaps.Select(g => new DraftBreach("gap", g.Station, "There are moves that somebody who comes cannot do in any way."))
            .Concat(given.Shortages.Select(s =>
                new DraftBreach("kit", s.Station ?? s.Block ?? PlaceId.Class, $"There are too few {NeedWords.Many(s.Item)}.")));

    /// <summary>Whether every main block is of the shape that was asked for; finishers are free.</summary>
    private static IEnumerable<DraftBreach> Shape(DraftBrief brief, ClassPlan plan) =>
        from block in plan.Blocks
        where block.Phase == Phase.Main && !Is(block, brief.Shape)
        select new DraftBreach("shape", block.Id, $"{block.Name} is of another shape.");

    /// <summary>Whether a block is of a shape.</summary>
    public static bool Is(Block block, DraftShape shape) => shape switch
    {
        DraftShape.Any => true,
        DraftShape.Rotation => block.Shape == BlockShape.Rotation,
        DraftShape.Circuit => block.Shape is BlockShape.Circuit or BlockShape.OnTheClock,
        DraftShape.Sets => block.Shape == BlockShape.Sets,
        DraftShape.Supersets => block is { Shape: BlockShape.Circuit, Stations.Length: 2, Rounds: >= 2 },
        DraftShape.DropSets => block.Stations is [var only] && block.Rounds >= 2 && Falls(only),
        DraftShape.OneSideARound => block is { Shape: BlockShape.Circuit, SidePass: SidePass.Round },
        DraftShape.OnTheMinute => block.StartEvery is { } every && every.Value % 60 == 0,
    };

    /// <summary>Lighter from part to part, or from set to set.</summary>
    private static bool Falls(Station station)
    {
        var shares = station.Dose.Where(p => p.LoadFactor is not null).SelectMany(p => p.LoadFactor!.Values).ToArray();
        return shares.Length >= 2 && shares.Zip(shares.Skip(1)).All(p => p.First > p.Second);
    }

    /// <summary>Every move that stands anywhere in a class, with its place.</summary>
    private static IEnumerable<(PlaceId Place, MoveId Move)> Named(ClassPlan plan)
    {
        foreach (var block in plan.Blocks)
        {
            foreach (var option in block.Recovery)
            {
                yield return (block.Id, option.Move);
            }

            foreach (var station in block.Stations)
            {
                foreach (var option in station.Options.Concat(station.Waiting))
                {
                    yield return (station.Id, option.Move);
                    foreach (var part in option.Parts.Values.Select(p => p.Move).OfType<MoveId>())
                    {
                        yield return (station.Id, part);
                    }
                }

                foreach (var own in station.Dose.Select(p => p.OwnMove).OfType<MoveId>())
                {
                    yield return (station.Id, own);
                }
            }
        }
    }

    /// <summary>Whether what was pinned stands in a class as it was, in its order.</summary>
    public static bool Keeps(JsonObject plan, KeptParts kept)
    {
        var places = All(plan).ToArray();
        var at = -1;
        var before = JsonNode.Parse(kept.Plan.GetRawText())!.AsObject();
        foreach (var (id, was) in All(before).Where(p => kept.Pinned.Contains(new PlaceId(p.Id))))
        {
            var now = Array.FindIndex(places, p => p.Id == id);
            if (now <= at || !JsonNode.DeepEquals(places[now].Node, was))
            {
                return false;
            }

            at = now;
        }

        return true;
    }

    /// <summary>Blocks, stations and options with their ids, in the order of the class.</summary>
    private static IEnumerable<(string Id, JsonNode Node)> All(JsonObject plan) =>
        from block in List(plan, "blocks")
        from place in List(block, "stations").SelectMany(s => List(s, "options").Prepend(s)).Prepend(block)
        let id = place["id"]?.GetValue<string>()
        where id is not null
        select (id, (JsonNode)place);

    private static IEnumerable<JsonObject> List(JsonObject thing, string name) => (thing[name] as JsonArray ?? []).OfType<JsonObject>();
}
