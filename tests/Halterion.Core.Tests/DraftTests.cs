using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning.Drafts;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;
using Halterion.Core.Words;
using Halterion.Drafting;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Drafts are judged here from outside: by the compiler, the review and who does what, on the file that is proposed.</summary>
public sealed class DraftTests
{
    private static readonly Drafter drafter = new(Library, new Preferences());

    private static ImmutableArray<Person> People(int many) =>
    [
        .. Enumerable.Range(0, many).Select(i => new Person(
            new PersonId($"p{i}"), $"Person {i}",
            Limits: i switch
            {
                2 => [new PersonLimit(Limit.Balance)],
                3 => [new PersonLimit(Limit.LowerBack, Strict: true)],
                4 => [new PersonLimit(Limit.Pregnancy)],
                6 => [new PersonLimit(Limit.Knee, Strict: true)],
                _ => null,
            },
            Ready: [Tick.Hinge, Tick.Load, Tick.Split, Tick.Step])),
    ];

    private static readonly ImmutableArray<StockLine> kit =
    [
        new(KitItem.Mat, 14), new(KitItem.Pad, 4), new(KitItem.Chair, 6), new(KitItem.Step, 4, HeightCm: 20),
        new(KitItem.Bench, 2, HeightCm: 42),
        new(KitItem.Dumbbell, 8, 4), new(KitItem.Dumbbell, 6, 6), new(KitItem.Kettlebell, 3, 8), new(KitItem.Kettlebell, 3, 12),
        new(KitItem.Band, 10, Strength: BandStrength.Light), new(KitItem.Wall, 1, Metres: 12),
    ];

    private static DraftBrief Evening(DraftShape shape, Aim aim = Aim.Conditioning, int slot = 45) => new()
    {
        Title = "Loft",
        SlotMinutes = slot,
        Aim = aim,
        Shape = shape,
        From = 4,
        To = 8,
        People = People(14),
        HeadCount = 14,
        Kit = kit,
        Room = new RoomSize(9, 14),
        Drink = true,
        WarmUpMinutes = 6,
        CoolDownMinutes = 5,
    };

    /// <summary>All that must hold of a draft, worked out anew from its file.</summary>
    private static void Holds(DraftBrief brief, Draft draft)
    {
        var bytes = Encoding.UTF8.GetBytes(draft.Plan.ToJsonString());
        var read = ClassReader.Read(bytes, Library);
        Assert.True(read.IsValid, string.Join("; ", read.Faults));
        var (plan, timeline) = (read.Plan, Compiler.Compile(read.Plan).Timeline!);
        Assert.Equal((brief.Title, brief.SlotMinutes, brief.Aim), (plan.Title, plan.SlotMinutes, plan.Aim));
        Assert.InRange(timeline.Length.Value, (60 * brief.SlotMinutes) - 15, 60 * brief.SlotMinutes);

        var room = new RoomOf(plan, brief.Day, brief.People, brief.HeadCount, [], brief.Kit,
            ImmutableDictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>>.Empty);
        var given = room.Heads > 0 ? Assigning.Of(room) : null;
        Assert.True(given is null || given is { Gaps.IsEmpty: true, Shortages.IsEmpty: true });
        var review = new ClassReview(plan, timeline, CheckSettings.Usual, given is null ? null : new Occasion(room, given, brief.Room));
        var findings = Rules.Check(review);
        Assert.DoesNotContain(findings, f => f.Severity is Severity.Stop or Severity.Fix);

        int Seconds(Phase phase) => timeline.Spans.Where(s => plan.Blocks[s.Block].Phase == phase).Sum(s => s.End.Value - s.Start.Value);
        Assert.InRange(Seconds(Phase.Warmup), brief.WarmUpSeconds - 30, brief.WarmUpSeconds + 30);
        Assert.InRange(Seconds(Phase.Cooldown), brief.CoolDownSeconds - 30, brief.CoolDownSeconds + 30);
        var main = plan.Blocks.Where(b => b.Phase == Phase.Main).ToArray();
        Assert.All(main, b => Assert.True(DraftRules.Is(b, draft.Shape), $"{b.Name} is no {draft.Shape}"));
        Assert.All(main.SelectMany(b => b.Stations), s =>
        {
            Assert.Contains(s.Options, o => o.Tier == Tier.Easier);
            Assert.Contains(s.Options, o => o.Tier == Tier.Harder);
        });
        Assert.All(brief.Include, m => Assert.Contains(main.SelectMany(b => b.Stations), s => s.Main.Move == m));
        Assert.All(brief.Avoid, m => Assert.DoesNotContain($"\"{m}\"", draft.Plan.ToJsonString(), StringComparison.Ordinal));
        Assert.True(!brief.Drink || plan.Blocks.Any(b => b.Water));
        var (totals, breakdown) = (Totals.Of(plan, timeline), Breakdown.Of(plan, timeline));
        Assert.Equal(
            (totals.LeftReps, totals.LeftEstimatedReps, breakdown.LeftSeconds),
            (totals.RightReps, totals.RightEstimatedReps, breakdown.RightSeconds));

        // The prices are those of the brief's own terms, and they add up.
        Assert.Equal(DraftCost.Of(brief, review, findings, given), draft.Terms);
        Assert.Equal(draft.Cost, draft.Terms.Values.Sum());
        Assert.True(draft.Bound <= draft.Cost);
        Assert.Equal(draft.Proven, draft.Bound == draft.Cost);
    }

    public static TheoryData<DraftShape, Aim> Shapes =>
        [.. Enum.GetValues<DraftShape>().Select(s => (s, Aim.Strength)), (DraftShape.Any, Aim.Conditioning)];

    [Theory]
    [MemberData(nameof(Shapes))]
    public void Every_shape_gives_classes_that_could_be_led_as_they_are(DraftShape shape, Aim aim)
    {
        var brief = Evening(shape, aim);
        var answer = drafter.Of(brief);
        Assert.NotEmpty(answer.Drafts);
        Assert.All(answer.Drafts, d => Holds(brief, d));
        Assert.Equal(answer.Drafts.OrderBy(d => d.Cost), answer.Drafts);

        // Each differs from the others in its shape or in half of its main moves.
        MoveId[] Mains(Draft d) => [.. ClassReader.Read(Encoding.UTF8.GetBytes(d.Plan.ToJsonString()), Library).Plan!.Blocks
            .Where(b => b.Phase == Phase.Main).SelectMany(b => b.Stations).Select(s => s.Main.Move).Distinct()];
        for (var i = 0; i < answer.Drafts.Length; i++)
        {
            for (var j = 0; j < i; j++)
            {
                var (one, other) = (answer.Drafts[i], answer.Drafts[j]);
                Assert.True(one.Shape != other.Shape || 2 * Mains(one).Except(Mains(other)).Count() >= Mains(one).Length);
            }
        }
    }

    [Fact]
    public void The_same_brief_and_seed_give_the_same_drafts_and_another_seed_others()
    {
        string Told(int seed) => string.Join('\n', drafter.Of(Evening(DraftShape.Any) with { Seed = seed, Seconds = 0.5m })
            .Drafts.Select(d => $"{d.Cost} {d.Plan.ToJsonString()}"));
        Assert.Equal(Told(1), Told(1));
        Assert.NotEqual(Told(1), Told(2));
    }

    [Theory]
    [InlineData(20)]
    [InlineData(60)]
    [InlineData(75)]
    public void Any_booked_time_is_filled(int slot)
    {
        var brief = Evening(DraftShape.Any, slot: slot) with { WarmUpMinutes = null, CoolDownMinutes = null, Drink = false };
        var drafts = drafter.Of(brief).Drafts;
        Assert.NotEmpty(drafts);
        Assert.All(drafts, d => Holds(brief, d));
    }

    [Fact]
    public void Wishes_are_kept_where_they_can_be_and_a_collision_says_so()
    {
        var brief = new DraftBrief
        {
            SlotMinutes = 45,
            HeadCount = 10,
            LowImpact = true,
            Include = [new MoveId("split-squat")],
            Avoid = [new MoveId("squat")],
            Recent = [[new MoveId("split-squat")]],
            Seconds = 0.5m,
        };
        var answer = drafter.Of(brief);
        Assert.All(answer.Drafts, d => Holds(brief, d));
        // What must be in it and was done last time costs what it costs in every class: that is the bound.
        Assert.All(answer.Drafts, d => Assert.Equal(12, d.Bound));
        Assert.All(answer.Drafts, d => Assert.True(d.Terms["recent"] >= 12));

        var both = drafter.Of(brief with { Avoid = [new MoveId("split-squat")] });
        Assert.Empty(both.Drafts);
        Assert.Equal("Split squat is both wanted and to be avoided.", both.Reason);
        Assert.NotEmpty(both.WayOut!);
    }

    [Fact]
    public void What_is_pinned_stays_as_it_is_and_in_its_order()
    {
        var brief = Evening(DraftShape.Circuit) with { Seconds = 0.5m };
        var first = drafter.Of(brief).Drafts[0].Plan;
        var main = first["blocks"]!.AsArray().First(b => (string?)b!["phase"] == "main")!;
        PlaceId[] pins = [new((string)first["blocks"]![1]!["id"]!), new((string)main["stations"]![1]!["id"]!)];
        var kept = new KeptParts(JsonElement.Parse(Encoding.UTF8.GetBytes(first.ToJsonString())), [.. pins]);
        var again = drafter.Of(brief with { Keep = kept, Seed = 5 });
        Assert.NotEmpty(again.Drafts);
        Assert.All(again.Drafts, d => Assert.True(DraftRules.Keeps(d.Plan, kept)));
        Assert.All(again.Drafts, d => Holds(brief, d));

        // The rule itself: what was changed is seen.
        var changed = first.DeepClone().AsObject();
        changed["blocks"]![1]!["name"] = "Another name";
        Assert.False(DraftRules.Keeps(changed, kept));
    }

    private static ClassPlan Read(JsonObject plan) => ClassReader.Read(Encoding.UTF8.GetBytes(plan.ToJsonString()), Library).Plan!;

    private static StationAt[] MainOf(JsonObject plan) =>
        [.. new ClassReview(Read(plan), Compiler.Compile(Read(plan)).Timeline!, CheckSettings.Usual).MainStations];

    [Fact]
    public void Without_the_solver_the_hard_rules_hold_too_and_it_is_said()
    {
        var brief = Evening(DraftShape.Any) with { Seconds = 0.5m };
        var without = new Drafter(Library, new Preferences(), solver: false).Of(brief);
        Assert.False(without.Solved);
        Assert.Equal(3, without.Drafts.Length);
        Assert.All(without.Drafts, d => Holds(brief, d));
        Assert.Equal(Drafter.HasSolver, drafter.Of(brief).Solved);
    }

    /// <summary>Every class that can be made of six moves in one shape, by brute force, with the same checks and prices.</summary>
    [Fact]
    public void A_small_brief_is_answered_about_as_well_as_by_trying_everything()
    {
        MoveId[] few = [new("squat"), new("goblet-squat"), new("reverse-lunge"), new("side-lunge"), new("hip-hinge"), new("glute-bridge")];
        var brief = new DraftBrief
        {
            SlotMinutes = 30,
            HeadCount = 8,
            Shape = DraftShape.Circuit,
            From = 3,
            To = 3,
            Kit = kit,
            Day = new DateOnly(2026, 11, 26),
            Recent = [[new("squat")], [new("hip-hinge")]],
            Avoid = [.. Library.Moves.Where(m => m.Family <= Family.Bridge).Select(m => m.Id).Except(few)
                .Except([new("chair-squat"), new("split-squat"), new("single-leg-bridge"), new("wall-hinge"), new("bridge-hold")])],
        };
        var stations = new DraftStations(brief, Library, new Preferences());
        var builder = new DraftBuilder(brief, Library, new Preferences(), stations);
        var review = new DraftReview(brief, Library, new Preferences());
        var can = few.Where(m => stations.Main(m, DraftShape.Circuit) is not null).ToArray();
        Assert.True(can.Length >= 3, string.Join(", ", can));
        var best = (
            from a in can
            from b in can
            from c in can
            where a != b && b != c && a != c
            let plan = builder.Build(DraftShape.Circuit, [a, b, c])
            where plan is not null
            let seen = review.Of(plan)!
            where !DraftRules.Broken(brief, seen.Review, seen.Totals, seen.Breakdown, seen.Findings, seen.Given).Any()
            select DraftCost.Of(brief, seen.Review, seen.Findings, seen.Given).Values.Sum()).Min();
        var draft = drafter.Of(brief).Drafts[0];
        // [M] Between classes as good the better known moves and the seed decide: a station's worth of points at most.
        Assert.InRange(draft.Cost, draft.Bound, best + 6);
        Assert.True(draft.Bound <= best);
    }

    /// <summary>The search restates no rule: what the checks are told changes what is drafted.</summary>
    [Fact]
    public void A_rule_that_is_set_otherwise_drafts_otherwise()
    {
        var brief = Evening(DraftShape.OneSideARound) with { Seconds = 0.5m };
        var strict = new Preferences { Limits = ImmutableSortedDictionary<string, decimal>.Empty.Add("leg.long", 30) };
        var (usual, short_) = (drafter.Of(brief).Drafts, new Drafter(Library, strict).Of(brief).Drafts);
        string Told(IEnumerable<Draft> drafts) => string.Join("", drafts.Select(d => d.Plan.ToJsonString()));
        Assert.NotEqual(Told(usual), Told(short_));
    }

    [Fact]
    public void A_wish_weighs_what_it_is_given()
    {
        var shares = ImmutableSortedDictionary<Family, decimal>.Empty.Add(Family.Squat, 70).Add(Family.Bridge, 30);
        var brief = Evening(DraftShape.Circuit) with { Shares = shares, Seconds = 0.5m };
        DraftBrief Weighed(decimal weight) =>
            brief with { Wishes = new DraftWishes(ImmutableSortedDictionary<string, decimal>.Empty.Add("shares", weight)) };
        var (never, much) = (drafter.Of(Weighed(0)).Drafts[0], drafter.Of(Weighed(2)).Drafts[0]);
        Assert.Equal(0, never.Terms["shares"]);
        int Squats(Draft d) => MainOf(d.Plan).Count(s => Library.Find(s.Station.Main.Move)!.Family == Family.Squat);
        Assert.True(Squats(much) > Squats(never));
    }

    public static TheoryData<DraftVariation> Ways => [.. Enum.GetValues<DraftVariation>()];

    [Theory]
    [MemberData(nameof(Ways))]
    public void Another_version_keeps_its_word_and_everything_else(DraftVariation how)
    {
        var evening = Evening(DraftShape.Circuit) with { Seconds = 0.5m };
        var before = drafter.Of(evening).Drafts[0].Plan;
        before["notes"] = "Keys are with the porter.";
        var (plan, main) = (Read(before), MainOf(before));
        var pinned = main[1].Id;
        var brief = DraftVariations.Of(
            how, plan, JsonElement.Parse(before.ToJsonString()), Compiler.Compile(plan).Timeline!, [pinned], evening);
        var drafts = drafter.Of(brief).Drafts;
        Assert.NotEmpty(drafts);
        Assert.All(drafts, d => Holds(brief, d));
        MoveId[] mains = [.. main.Select(s => s.Station.Main.Move)];
        foreach (var draft in drafts)
        {
            var now = MainOf(draft.Plan);
            MoveId[] moves = [.. now.Select(s => s.Station.Main.Move)];
            Assert.True(brief.Keep is null || DraftRules.Keeps(draft.Plan, brief.Keep));
            Assert.Equal("Keys are with the porter.", (string?)draft.Plan["notes"]);
            switch (how)
            {
                case DraftVariation.Redraw:
                    Assert.Contains(now, s => s.Id == pinned && s.Station.Main.Move == main[1].Station.Main.Move);
                    break;
                case DraftVariation.Shorter:
                    Assert.Equal(35, Read(draft.Plan).SlotMinutes);
                    Assert.Equal(mains, moves);
                    break;
                case DraftVariation.NoKit:
                    Assert.All(now, s => Assert.Empty(Needs.Of(s.Station.Main, s.Station, Library)));
                    break;
                case DraftVariation.KindToKnees:
                    var knee = new Person(new PersonId("k"), "Knee", Limits: [new PersonLimit(Limit.Knee)]);
                    Assert.All(now, s => Assert.Null(Allowance.WhyNot(knee, s.Station.Main, s.Station, s.Block, Library, brief.Day)));
                    break;
                case DraftVariation.Harder:
                    double Asked(StationAt[] all) => all.Sum(s => s.Station.Main.In(s.Station)
                        .Max(d => Demands.DemandModel.Of(d.Move, d.Manner, Library)?.Overall ?? 0));
                    Assert.True(Asked(now) > Asked(main));
                    Assert.Contains(draft.Why, w => w.Contains("one step harder", StringComparison.Ordinal));
                    break;
                case DraftVariation.OtherMoves:
                    Assert.Empty(mains.Intersect(moves));
                    Assert.Equal(DraftShape.Circuit, draft.Shape);
                    break;
            }
        }
    }

    public static TheoryData<string> Written => ["six-around-the-loft", "slow-and-strong", "every-seventy-five-seconds"];

    /// <summary>Classes written by hand, with a finisher, options of their own and things accepted, can be varied each way.</summary>
    [Theory]
    [MemberData(nameof(Written))]
    public void A_class_that_somebody_wrote_has_every_other_version(string name)
    {
        var before = WrittenAs(name);
        var plan = Read(before);
        var timeline = Compiler.Compile(plan).Timeline!;
        var main = MainOf(before);
        foreach (var how in Enum.GetValues<DraftVariation>())
        {
            var evening = Evening(DraftShape.Any) with { Seconds = 0.3m };
            var brief = DraftVariations.Of(how, plan, JsonElement.Parse(before.ToJsonString()), timeline, [main[0].Id], evening);
            var answer = drafter.Of(brief);
            Assert.True(answer.Drafts.Length > 0, $"{how}: {answer.Reason}");
            // As many stations as their block may be called by, in what is shown first.
            Assert.InRange(MainOf(answer.Drafts[0].Plan).Length, main.Count(s => s.Block.Phase == Phase.Main), main.Length);
            foreach (var draft in answer.Drafts)
            {
                Holds(brief, draft);
                var after = Read(draft.Plan);
                // Blocks are called as they were.
                Assert.Contains(after.Blocks, b => b.Phase == Phase.Main && b.Name == main[0].Block.Name);
                Assert.All(PlanChanges.Between(before, draft.Plan, Library), told => Assert.DoesNotMatch(@" (\S+) → \1 rounds", told));
            }
        }
    }

    /// <summary>Where somebody has nothing to do, other moves are drafted; the same class in less time is to be mended first.</summary>
    [Fact]
    public void A_finisher_that_somebody_has_no_way_to_do_goes_when_other_moves_are_asked_for()
    {
        var before = WrittenAs("six-around-the-loft");
        var finish = before["blocks"]![3]!["stations"]![0]!["options"]!.AsArray();
        foreach (var option in finish.Where(o => (string?)o!["tier"] != "main").ToArray())
        {
            finish.Remove(option);
        }

        var plan = Read(before);
        DraftAnswer Of(DraftVariation how)
        {
            var evening = Evening(DraftShape.Any) with { Seconds = 0.3m };
            return drafter.Of(DraftVariations.Of(
                how, plan, JsonElement.Parse(before.ToJsonString()), Compiler.Compile(plan).Timeline!, [], evening));
        }

        Assert.All(Of(DraftVariation.OtherMoves).Drafts, d => Assert.DoesNotContain(Read(d.Plan).Blocks, b => b.Phase == Phase.Finisher));
        Assert.NotEmpty(Of(DraftVariation.OtherMoves).Drafts);
        var shorter = Of(DraftVariation.Shorter);
        Assert.Empty(shorter.Drafts);
        Assert.Contains("mend", shorter.WayOut, StringComparison.Ordinal);
    }

    /// <summary>A harder option that is done in turn is done so as the main one, too; one that the kit has not enough of is left.</summary>
    [Fact]
    public void One_step_harder_takes_the_sides_along_and_leaves_what_cannot_be()
    {
        var before = WrittenAs("six-around-the-loft");
        ImmutableArray<Station> Steps(DraftBrief evening)
        {
            var plan = Read(before);
            var timeline = Compiler.Compile(plan).Timeline!;
            var kept = DraftVariations.Of(
                DraftVariation.Harder, plan, JsonElement.Parse(before.ToJsonString()), timeline, [], evening).Keep!.Plan;
            return [.. MainOf(JsonNode.Parse(kept.GetRawText())!.AsObject()).Select(s => s.Station)];
        }

        var stations = Steps(Evening(DraftShape.Any));
        var bridge = stations.Single(s => s.Main.Move.Value == "march-bridge");
        Assert.Equal(Side.Alternate, bridge.Dose.Single().Side);
        Assert.Contains(bridge.Options, o => o is { Tier: Tier.Easier, Move.Value: "glute-bridge", Sides: SideRule.AsWritten });
        Assert.Contains(stations, s => s.Main.Move.Value == "goblet-squat");
        // Eleven side lunges fit into 40 s: one leg would do more. A hold has no reps to take turns with.
        Assert.Contains(stations, s => s.Main.Move.Value == "skater");
        Assert.Contains(stations, s => s.Main.Move.Value == "bridge-hold");

        var few = Evening(DraftShape.Any) with { Kit = [new(KitItem.Mat, 14), new(KitItem.Chair, 14), new(KitItem.Wall, 1, Metres: 12)] };
        var bare = Steps(few);
        Assert.DoesNotContain(bare, s => s.Main.Move.Value == "goblet-squat");
        Assert.Contains(bare, s => s.Main.Move.Value == "march-bridge");
    }

    [Fact]
    public void A_class_without_harder_options_is_not_shown_again_as_a_harder_one()
    {
        var before = WrittenAs("six-around-the-loft");
        foreach (var options in before["blocks"]!.AsArray().SelectMany(b => b!["stations"] as JsonArray ?? [])
            .Select(s => s!["options"]!.AsArray()))
        {
            foreach (var option in options.Where(o => (string?)o!["tier"] == "harder").ToArray())
            {
                options.Remove(option);
            }
        }

        var plan = Read(before);
        var answer = drafter.Of(DraftVariations.Of(DraftVariation.Harder, plan, JsonElement.Parse(before.ToJsonString()),
            Compiler.Compile(plan).Timeline!, [], Evening(DraftShape.Any)));
        Assert.Empty(answer.Drafts);
        Assert.Contains("harder option", answer.Reason, StringComparison.Ordinal);
        Assert.NotEmpty(answer.WayOut!);
    }

    [Fact]
    public void What_is_kept_with_something_to_fix_in_it_is_named_and_to_be_mended_first()
    {
        var before = WrittenAs("full-moon-circuit");
        var plan = Read(before);
        var brief = DraftVariations.Of(DraftVariation.Redraw, plan, JsonElement.Parse(before.ToJsonString()),
            Compiler.Compile(plan).Timeline!, [MainOf(before)[0].Id], Evening(DraftShape.Any) with { Seconds = 0.3m });
        var answer = drafter.Of(brief);
        Assert.Empty(answer.Drafts);
        Assert.Contains("a jump with a load on the back", answer.Reason, StringComparison.Ordinal);
        Assert.Contains("mend", answer.WayOut, StringComparison.Ordinal);
    }

    private static JsonObject WrittenAs(string name, [CallerFilePath] string here = "") =>
        JsonNode.Parse(PlanIds.Written(JsonElement.Parse(File.ReadAllText(
            Path.Combine(Path.GetDirectoryName(here)!, $"../../demo/{name}.halterion.json")))).GetRawText())!.AsObject();

    public static TheoryData<string, DraftBrief> Impossible => new()
    {
        { "no jumps", new DraftBrief { SlotMinutes = 45, LowImpact = true, Include = [new MoveId("jump-squat")] } },
        { "not on the list", new DraftBrief { SlotMinutes = 45, Kit = [], HeadCount = 4, Include = [new MoveId("kettlebell-swing")] } },
        { "booked time", new DraftBrief { SlotMinutes = 10, WarmUpMinutes = 6, CoolDownMinutes = 5 } },
    };

    [Theory]
    [MemberData(nameof(Impossible))]
    public void What_cannot_be_met_is_told_with_the_way_out(string told, DraftBrief brief)
    {
        var answer = drafter.Of(brief);
        Assert.Empty(answer.Drafts);
        Assert.Contains(told, answer.Reason, StringComparison.Ordinal);
        Assert.NotEmpty(answer.WayOut!);
    }

    /// <summary>A class that counts its own way keeps doing so; what is pinned between its blocks stays between them.</summary>
    [Fact]
    public void What_a_class_says_of_itself_and_the_order_of_what_is_pinned_outlast_a_draft()
    {
        var brief = Evening(DraftShape.Supersets, Aim.Strength) with { Seconds = 0.3m };
        var before = drafter.Of(brief).Drafts[0].Plan;
        before["startSide"] = "right";
        before["focus"] = "Long back";
        var blocks = before["blocks"]!.AsArray();
        int At(Func<JsonNode, bool> which) => blocks.ToList().FindIndex(b => which(b!));
        var drink = At(b => (bool?)b["water"] == true && (string?)b["phase"] == "talk");
        var pair = At(b => (string?)b["phase"] == "main");
        Assert.InRange(drink, pair + 1, blocks.Count - 2);
        PlaceId[] pins = [new((string)blocks[pair]!["id"]!), new((string)blocks[drink]!["id"]!)];
        var kept = new KeptParts(JsonElement.Parse(before.ToJsonString()), [.. pins]);
        var again = drafter.Of(brief with { Keep = kept, Shape = DraftShape.Any, Seed = 3 }).Drafts;
        Assert.NotEmpty(again);
        Assert.All(again, d =>
        {
            Assert.True(DraftRules.Keeps(d.Plan, kept));
            Assert.Equal(("right", "Long back"), ((string?)d.Plan["startSide"], (string?)d.Plan["focus"]));
        });
    }

    /// <summary>Wanted moves of the last class, more of them than stations are wished for: every class of the brief costs that.</summary>
    [Fact]
    public void The_bound_is_what_no_class_of_the_brief_goes_without()
    {
        MoveId[] wanted = [new("squat"), new("reverse-lunge"), new("hip-hinge"), new("glute-bridge")];
        var brief = new DraftBrief
        {
            SlotMinutes = 45,
            From = 2,
            To = 3,
            Include = [.. wanted],
            Recent = [[.. wanted[..2]], [wanted[2]]],
            Seconds = 0.3m,
        };
        var drafts = drafter.Of(brief).Drafts;
        Assert.NotEmpty(drafts);
        Assert.All(drafts, d => Assert.Equal(12 + 12 + 6 + 15, d.Bound));
        Assert.All(drafts, d => Assert.True(d.Cost >= d.Bound));
    }

    /// <summary>Briefs of every kind, drawn by chance: whatever comes out could be led as it is.</summary>
    [Fact]
    public void Whatever_is_asked_for_what_is_proposed_keeps_the_hard_rules()
    {
        var shares = Gen.Int[0, 40].Array[4].Select(parts => parts.Select((part, i) => (Family: (Family)i, Part: (decimal)part))
            .Where(p => p.Part > 0).ToImmutableSortedDictionary(p => p.Family, p => p.Part));
        var briefs =
            from slot in Gen.Int[12, 75]
            from aim in Gen.Enum<Aim>()
            from shape in Gen.Enum<DraftShape>()
            from heads in Gen.Int[0, 14]
            from stock in Gen.Bool.Array[kit.Length]
            from known in Gen.Bool
            from wished in Gen.OneOf(shares, Gen.Const(ImmutableSortedDictionary<Family, decimal>.Empty))
            from from_ in Gen.Int[2, 6]
            from more in Gen.Int[0, 3]
            from flags in Gen.Bool.Array[3]
            from seed in Gen.Int[0, 1000]
            select new DraftBrief
            {
                Title = "Loft",
                SlotMinutes = slot,
                Aim = aim,
                Shape = shape,
                HeadCount = heads,
                People = People(heads),
                From = from_,
                To = from_ + more,
                Kit = known ? [.. kit.Where((_, i) => stock[i])] : null,
                Room = flags[2] ? new RoomSize(9, 14) : null,
                Drink = flags[0],
                LowImpact = flags[1],
                Shares = wished,
                Seed = seed,
                Seconds = 0.1m,
                Day = new DateOnly(2026, 11, 26),
            };
        var drawn = 0;
        briefs.Sample(
            brief =>
            {
                var answer = drafter.Of(brief);
                Assert.All(answer.Drafts, d => Holds(brief, d));
                Assert.True(answer.Drafts.Length > 0 || answer is { Reason.Length: > 0, WayOut.Length: > 0 });
                Interlocked.Add(ref drawn, answer.Drafts.Length);
            },
            iter: 20, threads: 1);
        Assert.True(drawn > 20, $"only {drawn} drafts for 20 briefs");
    }

    /// <summary>What a person reads: what gave way is told as the wish that it was, and nobody's name stands in it.</summary>
    [Fact]
    public void Why_is_told_as_one_would_say_it()
    {
        var brief = Evening(DraftShape.Circuit) with
        {
            From = 4,
            To = 4,
            Include = [new MoveId("goblet-squat"), new MoveId("hip-hinge")],
            Recent = [[new MoveId("hip-hinge")]],
            Seconds = 0.3m,
            Kit = [.. kit.Where(l => l.Item != KitItem.Kettlebell), new StockLine(KitItem.Kettlebell, 14, 12)],
        };
        foreach (var draft in drafter.Of(brief).Drafts)
        {
            var stations = MainOf(draft.Plan);
            Assert.Equal(stations.Length + 1, draft.Why.Length);
            Assert.StartsWith($"{stations.Length} stations, and everyone has a way to do each.", draft.Why[0], StringComparison.Ordinal);
            Assert.Contains("What gave way: something else than last time", draft.Why[0], StringComparison.Ordinal);
            Assert.Contains(draft.Why, w => w.StartsWith("Goblet squat: squat, as you asked", StringComparison.Ordinal));
            Assert.All(draft.Why, w => Assert.DoesNotContain("Person", w, StringComparison.Ordinal));
            Assert.All(stations.Zip(draft.Why.Skip(1)), p => Assert.StartsWith(
                Library.Find(p.First.Station.Main.Move)!.Name, p.Second, StringComparison.Ordinal));
        }
    }
}
