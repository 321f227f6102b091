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
    private const decimal VeryMuch = 2;
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
            WarmUpMinutes = MinutesOf(timeline, plan, Phase.Warmup, Phase.Activation, Phase.Skill)
                ?? (plan.WarmUp == WarmUp.OwnTime ? 0 : null),
            CoolDownMinutes = MinutesOf(timeline, plan, Phase.Cooldown),
            Drink = plan.Blocks.Any(b => b.Water),
            LowImpact = evening.LowImpact || (main.Length > 0 && !main.SelectMany(s => review.Works(s)).Any(p => p.HasImpact)),
            Shares = DraftCost.MadeOf(review).Where(f => f.Family <= Family.Bridge)
                .ToImmutableSortedDictionary(f => f.Family, f => (decimal)f.Percent),
            // It is the same class: its name, and who stands where, go by the number of stations.
            Wishes = new DraftWishes(evening.Wishes.Weights.SetItem("stations", VeryMuch)),
            // What a class is made of is no wish to do something else.
            Recent = how == DraftVariation.OtherMoves ? evening.Recent : [],
        };
        // As many stations as there are, but for those of a finisher that goes.
        DraftBrief With(KeptParts keep)
        {
            var count = Math.Max(1, main.Count(s =>
                s.Block.Phase == Phase.Main || keep.Pinned.Contains(s.Block.Id) || keep.Pinned.Contains(s.Id)));
            return brief with { Keep = keep, From = count, To = count };
        }

        // Stations of main blocks stay by themselves, a finisher as a whole; what stands beside the main work stays.
        DraftBrief Keeping(IEnumerable<StationAt> stay)
        {
            var here = stay.Select(s => s.Id).ToHashSet();
            return With(new KeptParts(file,
            [
                .. main.Where(s => s.Block.Phase == Phase.Main && here.Contains(s.Id)).Select(s => s.Id),
                .. plan.Blocks.Where(b => b.Phase == Phase.Core || (b.Phase == Phase.Finisher && b.Stations.All(s => here.Contains(s.Id))))
                    .Select(b => b.Id),
            ]));
        }

        // Where somebody who comes has nothing to do, something else may be drafted; in the same class it is to be mended first.
        var gaps = GapsOf(plan, evening);
        var sound = main.Where(s => !gaps.Contains(s.Id)).ToArray();
        switch (how)
        {
            case DraftVariation.Shorter:
                return Keeping(main) with
                {
                    SlotMinutes = Math.Max(LeastSlot, plan.SlotMinutes - Less),
                    WarmUpMinutes = brief.WarmUpMinutes > 5 ? 5 : brief.WarmUpMinutes,
                    CoolDownMinutes = brief.CoolDownMinutes > 4 ? 4 : brief.CoolDownMinutes,
                };
            case DraftVariation.NoKit:
                return Keeping(sound.Where(s => s.Station.Options.All(o => Needs.Of(o, s.Station, plan.Moves).IsEmpty))) with { Kit = [] };
            case DraftVariation.KindToKnees:
                var knee = new Person(new PersonId("somebody"), "Somebody with a sore knee", Limits: [new PersonLimit(Limit.Knee)]);
                var kind = sound.Where(s =>
                    Allowance.WhyNot(knee, s.Station.Main, s.Station, s.Block, plan.Moves, evening.Day) is null).ToArray();
                return Keeping(kind) with
                {
                    NotMain = main.Length == 0 ? [] :
                    [
                        .. plan.Moves.Moves.Where(m => m.Family <= Family.Bridge).Select(m => m.Id)
                            .Where(m => IsNotFor(knee, m, main[0].Block, evening.Day, plan.Moves)),
                    ],
                };
            case DraftVariation.Harder:
                var kept = Keeping(main);
                var (steeper, raised) = Steeper(file, main, plan.Moves, evening);
                return kept with { Keep = kept.Keep! with { Plan = steeper, Raised = raised } };
            case DraftVariation.OtherMoves:
                // A finisher stays: it is what the class is known by, and its moves are not what the rest is made of.
                var finish = sound.Where(s => s.Block.Phase == Phase.Finisher).ToArray();
                return Keeping(finish) with
                {
                    Avoid = [.. evening.Avoid, .. mains.Except(finish.SelectMany(s => s.Station.Options.Select(o => o.Move)))],
                };
            default:
                return With(new KeptParts(file, pinned));
        }
    }

    private static HashSet<PlaceId> GapsOf(ClassPlan plan, DraftBrief evening)
    {
        var room = new RoomOf(plan, evening.Day, evening.People, evening.HeadCount, [], evening.Kit,
            ImmutableDictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>>.Empty);
        return room.Heads > 0 ? [.. Assigning.Of(room).Gaps.Select(g => g.Station)] : [];
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
    /// a station that has no such step stays as it is, and so does one where it would leave somebody without a way, kit short, left and
    /// right uneven, or more to fix.
    /// </summary>
    private static (JsonElement File, ImmutableHashSet<PlaceId> Raised) Steeper(
        JsonElement file, StationAt[] main, MoveLibrary moves, DraftBrief evening)
    {
        var raised = ImmutableHashSet.CreateBuilder<PlaceId>();
        var review = new DraftReview(evening, moves, new Preferences());
        var root = JsonNode.Parse(file.GetRawText())!.AsObject();
        foreach (var at in main)
        {
            var tried = root.DeepClone().AsObject();
            if (StepUp(tried["blocks"]![at.B]!["stations"]![at.S]!.AsObject(), at.Station, moves, evening.Kit)
                && WrongAt(tried, at, review) <= WrongAt(root, at, review))
            {
                root = tried;
                raised.Add(at.Id);
            }
        }

        return (PlanIds.Written(JsonElement.Parse(root.ToJsonString())), raised.ToImmutable());
    }

    /// <summary>How much is to be fixed at a station, how many have nothing to do or no kit, and whether left and right differ.</summary>
    private static int WrongAt(JsonObject root, StationAt at, DraftReview review)
    {
        if (review.Of(root) is not { } draft)
        {
            return int.MaxValue;
        }

        var block = draft.Review.Plan.Blocks[at.B];
        var here = block.Stations[at.S].Options.Select(o => o.Id).Append(at.Id).Append(block.Id).ToHashSet();
        return draft.Open.Count(f => f.Severity is Severity.Stop or Severity.Fix && here.Contains(f.Place))
            + (draft.Given?.Gaps.Length ?? 0) + (draft.Given?.Shortages.Length ?? 0)
            + (DraftRules.AreSidesEven(draft.Totals, draft.Breakdown) ? 0 : 1);
    }

    /// <summary>Makes the harder option of a station its main one; false, and nothing changed, where that is no main one.</summary>
    private static bool StepUp(JsonObject written, Station station, MoveLibrary moves, ImmutableArray<StockLine>? kit)
    {
        var was = station.Main;
        var next = station.Options.FirstOrDefault(o => o.Tier == Tier.Harder);
        if (next is null || next.Parts.Count > 0 || next.Manner.Scale is not null
            || (kit is { } known && Needs.Of(next, station, moves).Any(n => !Supply.Lists(known, n))))
        {
            return false;
        }

        // What is done on other sides takes its station along, where that changes nothing about the time.
        var sides = next.Sides ?? OptionEntry.Into(next, station, moves).Sides;
        var inTime = station.Dose.All(p => p is { Side: Side.Both, Kind: PartKind.Time });
        switch (sides)
        {
            case null:
                break;
            case SideRule.Split when inTime && station.Dose.Length == 1:
                station = station with { Sides = SideRule.Split };
                written["sides"] = WordsOf<SideRule>.Of(SideRule.Split);
                break;
            case SideRule.Alternate when inTime && station.Sides == SideRule.AsWritten:
                station = station with { Dose = [.. station.Dose.Select(p => p with { Side = Side.Alternate })] };
                foreach (var part in written["dose"]!.AsArray())
                {
                    part!["side"] = WordsOf<Side>.Of(Side.Alternate);
                }

                break;
            default:
                return false;
        }

        var asMain = next with { Tier = Tier.Main, Sides = null };
        var above = Proposals.All(new Doing(asMain.Move, asMain.Manner), Tier.Harder, moves).Select(p => p.Of).FirstOrDefault();
        if (above is null)
        {
            return false;
        }

        Option[] others = [above, was with { Tier = Tier.Easier }, .. station.Options.Where(o => o.Tier is Tier.Easier or Tier.Instead)];
        station = station with { Options = [asMain] };
        Option[] now = [asMain, .. others.Select(o => OptionEntry.Into(o, station, moves))];
        var options = written["options"]!.AsArray();
        options.Clear();
        foreach (var option in now.DistinctBy(o => (o.Move, o.Manner)).OrderBy(o => o.Tier))
        {
            var own = PlanWriter.Of(option);
            own.Remove("id");
            options.Add(own);
        }

        return true;
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
