using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;

namespace Halterion.Core.Planning.Drafts;

/// <summary>Another version of a class that stands.</summary>
public enum DraftVariation
{
    /// <summary>What is chosen stays, the rest is drafted anew.</summary>
    Redraw,
    /// <summary>The same stations in ten minutes less.</summary>
    Shorter,
    /// <summary>Nothing is fetched.</summary>
    NoKit,
    /// <summary>Every main move can be done with a sore knee.</summary>
    KindToKnees,
    /// <summary>The harder options become the main ones.</summary>
    Harder,
    /// <summary>Other moves in the same shape.</summary>
    OtherMoves,
}

/// <summary>Briefs that follow from a class: each keeps what it can.</summary>
public static class DraftVariations
{
    private const int Less = 10;
    private const int LeastSlot = 10;
    private const int Minute = 60;

    /// <summary>The brief of a class as it stands, on an evening, with what stays.</summary>
    /// <param name="file">The same class as it is written.</param>
    /// <param name="pinned">What the instructor wants to keep: blocks, stations or options.</param>
    /// <param name="evening">Who comes, with which kit, where, and what was held before.</param>
    public static DraftBrief Of(
        DraftVariation how, ClassPlan plan, JsonElement file, Timeline timeline, ImmutableArray<PlaceId> pinned, DraftBrief evening)
    {
        var review = new ClassReview(plan, timeline, CheckSettings.Usual);
        var main = review.MainStations.ToArray();
        var mains = main.Select(s => s.Station.Main.Move).Distinct().ToArray();
        var brief = evening with
        {
            Title = plan.Title,
            SlotMinutes = plan.SlotMinutes,
            Aim = plan.Aim,
            Shape = ShapeOf(plan),
            From = Math.Max(1, main.Length),
            To = Math.Max(1, main.Length),
            WarmUpMinutes = MinutesOf(timeline, plan, Phase.Warmup, Phase.Activation, Phase.Skill)
                ?? (plan.WarmUp == WarmUp.OwnTime ? 0 : null),
            CoolDownMinutes = MinutesOf(timeline, plan, Phase.Cooldown),
            Drink = plan.Blocks.Any(b => b.Water),
            LowImpact = evening.LowImpact || (main.Length > 0 && !main.SelectMany(s => review.Works(s)).Any(p => p.HasImpact)),
            // What a class is made of is no wish to do something else.
            Recent = how == DraftVariation.OtherMoves ? evening.Recent : [],
        };
        DraftBrief Keeping(IEnumerable<PlaceId> stay) => brief with { Keep = new KeptParts(file, [.. stay]) };
        switch (how)
        {
            case DraftVariation.Shorter:
                return Keeping(main.Select(s => s.Id)) with
                {
                    SlotMinutes = Math.Max(LeastSlot, plan.SlotMinutes - Less),
                    WarmUpMinutes = brief.WarmUpMinutes > 5 ? 5 : brief.WarmUpMinutes,
                    CoolDownMinutes = brief.CoolDownMinutes > 4 ? 4 : brief.CoolDownMinutes,
                };
            case DraftVariation.NoKit:
                return Keeping(main.Where(s => s.Station.Options.All(o => Needs.Of(o, s.Station, plan.Moves).IsEmpty)).Select(s => s.Id))
                    with
                { Kit = [] };
            case DraftVariation.KindToKnees:
                var knee = new Person(new PersonId("somebody"), "Somebody with a sore knee", Limits: [new PersonLimit(Limit.Knee)]);
                var kind = main.Where(s =>
                    Allowance.WhyNot(knee, s.Station.Main, s.Station, s.Block, plan.Moves, evening.Day) is null).ToArray();
                return Keeping(kind.Select(s => s.Id)) with
                {
                    NotMain = main.Length == 0 ? [] :
                    [
                        .. plan.Moves.Moves.Where(m => m.Family <= Family.Bridge).Select(m => m.Id)
                            .Where(m => IsNotFor(knee, m, main[0].Block, evening.Day, plan.Moves)),
                    ],
                };
            case DraftVariation.Harder:
                var steeper = Steeper(file, main, plan.Moves);
                return brief with { Keep = new KeptParts(steeper, [.. main.Select(s => s.Id)]) };
            case DraftVariation.OtherMoves:
                return brief with
                {
                    Avoid = [.. evening.Avoid, .. mains],
                    Shares = DraftCost.MadeOf(review).Where(f => f.Family <= Family.Bridge)
                        .ToImmutableSortedDictionary(f => f.Family, f => (decimal)f.Percent),
                };
            default:
                return Keeping(pinned);
        }
    }

    /// <summary>The shape that all main blocks are of, else that of the first one; any where there is none.</summary>
    public static DraftShape ShapeOf(ClassPlan plan)
    {
        var main = plan.Blocks.Where(b => b.Phase == Phase.Main).ToArray();
        DraftShape[] shapes =
        [
            DraftShape.Rotation, DraftShape.OneSideARound, DraftShape.OnTheMinute, DraftShape.DropSets, DraftShape.Supersets,
            DraftShape.Sets, DraftShape.Circuit,
        ];
        bool Can(DraftShape shape, IEnumerable<Block> of) => of.All(b => DraftRules.Is(b, shape));
        return main.Length == 0 ? DraftShape.Any
            : shapes.Where(s => Can(s, main)).Concat(shapes.Where(s => Can(s, main.Take(1)))).Append(DraftShape.Any).First();
    }

    /// <summary>
    /// The class with the harder option of each main station as its main one, what was main as the easier one, and a further step above it;
    /// a station that has no such step stays as it is.
    /// </summary>
    private static JsonElement Steeper(JsonElement file, StationAt[] main, MoveLibrary moves)
    {
        var root = JsonNode.Parse(file.GetRawText())!.AsObject();
        foreach (var at in main)
        {
            var options = root["blocks"]![at.B]!["stations"]![at.S]!["options"]!.AsArray();
            var (was, next) = (at.Station.Main, at.Station.Options.FirstOrDefault(o => o.Tier == Tier.Harder));
            // An option that is done in other parts or on other sides than its station is no main one.
            if (next is null || next.Sides is not null || next.Parts.Count > 0 || next.Manner.Scale is not null)
            {
                continue;
            }

            var asMain = next with { Tier = Tier.Main };
            var station = at.Station with { Options = [asMain] };
            if (Proposals.All(new Doing(asMain.Move, asMain.Manner), Tier.Harder, moves).Select(p => OptionEntry.Into(p.Of, station, moves))
                .FirstOrDefault() is not { } above)
            {
                continue;
            }

            Option[] now =
            [
                above, asMain, was with { Tier = Tier.Easier },
                .. at.Station.Options.Where(o => o.Tier == Tier.Instead && (o.Move != next.Move || !o.Manner.Equals(next.Manner))),
            ];
            options.Clear();
            foreach (var option in now)
            {
                var written = PlanWriter.Of(option);
                written.Remove("id");
                options.Add(written);
            }
        }

        return PlanIds.Written(JsonElement.Parse(root.ToJsonString()));
    }

    private static int? MinutesOf(Timeline timeline, ClassPlan plan, params Phase[] phases)
    {
        var seconds = timeline.Spans.Where(s => phases.Contains(plan.Blocks[s.Block].Phase)).Sum(s => s.Length().Value);
        // Under three minutes a warm-up is left to the checks.
        return seconds < 3 * Minute ? null : (seconds + (Minute / 2)) / Minute;
    }

    private static bool IsNotFor(Person person, MoveId move, Block block, DateOnly day, MoveLibrary moves)
    {
        var station = new Station { Id = default, Name = "", Dose = [], Options = [Option.Of(Tier.Main, move)] };
        return Allowance.WhyNot(person, station.Main, station, block, moves, day) is not null;
    }
}
