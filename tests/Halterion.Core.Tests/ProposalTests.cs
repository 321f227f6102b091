using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Words;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Easier is easier, harder is harder, instead is as hard; and who is spared what.</summary>
public class ProposalTests
{
    private static OptionFacts Facts(Option o) => OptionFacts.Of(Library.Find(o.Move)!, o.Manner, Library)!;

    private static OptionFacts Facts(MoveId id) => Facts(Option.Of(Tier.Main, id));

    private static Doing Plain(Move move) => new(move.Id, new Manner());

    private static Proposal[] All(Doing main, Tier tier) => [.. Proposals.All(main, tier, Library)];

    /// <summary>What the numbers of the body find beside what a coach gives.</summary>
    [Fact]
    public void What_is_computed_keeps_to_the_numbers() => Assert.All(Library.Moves, move =>
    {
        var here = Facts(move.Id);
        void Below(OptionFacts low, OptionFacts high)
        {
            Assert.True(low.Demand.Overall <= high.Demand.Overall - 0.3 + 1e-9, move.Id.Value);
            Assert.All(low.Demand.Dimensions.Zip(high.Demand.Dimensions), d =>
                Assert.True(d.First.Value <= d.Second.Value + 0.5 + 1e-9, $"{move.Id}: {d.First.Of}"));
            Assert.True(low.Kilograms <= high.Kilograms, move.Id.Value);
        }

        Option[] Computed(Tier tier) => [.. All(Plain(move), tier).Where(p => p.Differs is null).Select(p => p.Of)];
        Assert.All(Computed(Tier.Easier), easier =>
        {
            Below(Facts(easier), here);
            Assert.False(Facts(easier).Flight, move.Id.Value);
            Assert.True(Proposals.Kit(easier, Library) is not { } kit || kit == Proposals.Kit(Option.Of(Tier.Main, move.Id), Library),
                move.Id.Value);
            Assert.True(easier.Manner.Tempo is not { } tempo || tempo.RepSeconds(RepStyle.Full) >= move.Tempo!.RepSeconds(RepStyle.Full),
                $"{move.Id}: quicker is not easier");
            Assert.True(Facts(easier).Demand.Skill <= here.Demand.Skill + 1e-9, $"{move.Id}: nothing more to learn");
        });
        Assert.All(Computed(Tier.Harder), harder => Below(here, Facts(harder)));
        Assert.All(Computed(Tier.Instead), instead =>
        {
            var other = Library.Find(instead.Move)!;
            Assert.Equal((move.Family, Proposals.Main(move)), (other.Family, Proposals.Main(other)));
            Assert.True(other.Position != move.Position || !other.Kit.SequenceEqual(move.Kit), move.Id.Value);
            Assert.All(Facts(instead).Demand.Dimensions.Zip(here.Demand.Dimensions),
                d => Assert.InRange(Math.Abs(d.First.Value - d.Second.Value), 0, 1));
        });
    });

    /// <summary>Our own lists of what a coach gives, common practice, no source: they come first, in their order.</summary>
    [Fact]
    public void What_a_coach_gives_comes_first() => Assert.All(Library.Moves, move =>
    {
        foreach (var tier in new[] { Tier.Easier, Tier.Harder, Tier.Instead })
        {
            var listed = Offers.Of(move, tier, Library).Select(o => o.Differs).ToArray();
            var proposed = All(Plain(move), tier).TakeWhile(p => p.Differs is not null).Select(p => p.Differs).ToArray();
            Assert.InRange(proposed.Length, tier == Tier.Instead || listed.Length < 2 ? 0 : listed.Length - 1, listed.Length);
            Assert.All(proposed, d => Assert.Contains(d, listed));
            Assert.All(All(Plain(move), tier), p => Assert.EndsWith(".", p.Why, StringComparison.Ordinal));
        }

        Assert.NotEmpty(All(Plain(move), Tier.Easier));
        Assert.True(All(Plain(move), Tier.Harder).Length > 0 || move.Offers.Nothing is { Length: > 10 }, move.Id.Value);
        Assert.True(All(Plain(move), Tier.Instead).Length > 0 || move.Family == Family.Recovery, move.Id.Value);
    });

    /// <summary>
    /// Beside main options of any manner nothing is proposed that main already is, and every one says what it does otherwise.
    /// </summary>
    [Theory]
    [InlineData("squat", """ "depth":"half" """)]
    [InlineData("squat", """ "support":"wall" """)]
    [InlineData("squat", """ "support":"chair","depth":"half" """)]
    [InlineData("squat", """ "load":{"implement":"dumbbell","count":1,"kg":12,"position":"goblet"} """)]
    [InlineData("split-squat", """ "support":"wall" """)]
    [InlineData("jump-squat", """ "impact":"none" """)]
    [InlineData("jump-lunge", "")]
    [InlineData("glute-bridge", """ "band":"medium" """)]
    [InlineData("band-squat", """ "band":"strong" """)]
    [InlineData("romanian-deadlift", """ "load":{"implement":"dumbbell","count":2,"kg":4} """)]
    [InlineData("push-up", """ "support":"knees" """)]
    [InlineData("hip-hinge", """ "tempo":"4-0-1-0" """)]
    public void Nothing_is_proposed_that_main_already_is(string id, string with)
    {
        var text = $$"""{"dose":[{"kind":"time","amount":40}],"options":[{"tier":"main","move":"{{id}}"{{(with.Trim().Length > 0 ? "," + with : "")}}}]}""";
        var station = Plan(With(Block("", text))).Blocks[0].Stations[0];
        var main = new Doing(station.Main.Move, station.Main.Manner);
        foreach (var tier in new[] { Tier.Easier, Tier.Harder, Tier.Instead })
        {
            foreach (var proposal in All(main, tier))
            {
                Assert.False(proposal.Of.Move == main.Move && proposal.Of.Manner.Equals(main.Manner), $"{tier} {proposal.Of}");
                var entered = OptionEntry.Into(proposal.Of, station, Library);
                var beside = station with { Options = [station.Main, entered] };
                var said = PlanWords.Option(entered, beside, Library, new Preferences());
                Assert.NotEqual(PlanWords.Option(station.Main, Library, new Preferences()), said);
                Assert.True(
                    entered.Move != main.Move
                        || Differs.Of(entered, beside, Library, new Preferences()) is not ("" or "as the main option"),
                    said);
                Assert.NotNull(Plan(With(Block("", PlanWriter.Of(beside).ToJsonString()))));
            }
        }

        var easiest = All(main, Tier.Easier)[0].Of;
        Assert.True(
            DemandModel.Of(easiest.Move, easiest.Manner, Library)!.Overall < DemandModel.Of(main.Move, main.Manner, Library)!.Overall);
    }

    /// <summary>
    /// Kilograms go with main's: main's × the offer's ÷ usual, to the nearest of the stock that is strictly lighter or heavier.
    /// </summary>
    [Fact]
    public void A_weight_proposed_follows_the_plans_and_the_stocks()
    {
        // The offers of the goblet squat: usual 10 kg.
        var move = Library.Find(new MoveId("romanian-deadlift"))!;
        var main = new Doing(move.Id, new Manner { Load = new Load(Implement.Dumbbell, 2, new Kilograms(8), null, null) });
        decimal? Kg(Tier tier, params decimal[] stock) =>
            Proposals.All(main, tier, Library, null, new WeightsAtHand([.. stock.Select(kg => (Implement.Dumbbell, kg))]))
            .Select(p => p.Of.Manner.Load).FirstOrDefault(l => l is { Kg: not null } && l != main.Manner.Load)?.Kg?.Value;
        Assert.Equal(4, Kg(Tier.Easier, 4, 6, 8, 10));
        Assert.Equal(6, Kg(Tier.Easier, 6, 8, 10));
        Assert.Null(Kg(Tier.Easier, 8, 10));
        Assert.Equal(10, Kg(Tier.Harder, 4, 8, 10));
        Assert.Null(Kg(Tier.Harder, 4, 6, 8));
    }

    /// <summary>What an option needs inside its station's time: sides by legs, and of slower reps as many as main's take.</summary>
    [Fact]
    public void An_option_is_entered_as_it_can_be_done()
    {
        Option Entered(string fields, string dose, string main, Option option)
        {
            var station = Plan(With(Block("", $$"""{{{fields}}"dose":[{{dose}}],"options":[{"tier":"main","move":"{{main}}"}]}""")))
                .Blocks[0]
                .Stations[0];
            return OptionEntry.Into(option, station, Library);
        }

        const string Reps = """{"kind":"reps","amount":10}""";
        const string Time = """{"kind":"time","amount":40}""";
        Option Of(string move, Manner? manner = null) => Option.Of(Tier.Easier, new MoveId(move), manner);
        Assert.Equal(SideRule.AsWritten, Entered(""" "sides":"each", """, Reps, "split-squat", Of("squat")).Sides);
        var oneSided = Entered("", Reps, "squat", Of("split-squat"));
        Assert.Equal((SideRule.Each, 0.5m), (oneSided.Sides, oneSided.Manner.Scale));
        Assert.Equal(SideRule.Split, Entered("", Time, "squat", Of("split-squat")).Sides);

        // A squat at 2-0-1-0 takes 3 s, at 4-0-2-0 twice that.
        var own = Library.Find(new MoveId("squat"))!.Tempo!.RepSeconds(RepStyle.Full);
        Assert.True(Tempo.TryParse("4-0-2-0", out var slow));
        Assert.Equal(Math.Floor(own / 6 * 100) / 100, Entered("", Reps, "squat", Of("squat", new Manner { Tempo = slow })).Manner.Scale);
        Assert.Null(Entered("", Time, "squat", Of("squat", new Manner { Tempo = slow })).Manner.Scale);
    }

    [Theory]
    [InlineData("squat", """{"tier":"easier","move":"squat","depth":"half"}""", "", "half the depth")]
    [InlineData("jump-lunge", """{"tier":"easier","move":"jump-lunge","impact":"none"}""", "", "step the change, no jump")]
    [InlineData(
            "squat",
            """{"tier":"easier","move":"squat"}""",
            ""","load":{"implement":"dumbbell","count":1,"kg":8,"position":"goblet"}""",
            "without the weight")]
    [InlineData("squat", """{"tier":"easier","move":"squat","depth":"half"}""", ""","band":"light" """, "without the band")]
    [InlineData("squat", """{"tier":"harder","move":"squat","band":"strong"}""", ""","band":"light" """, "a stronger band")]
    [InlineData("glute-bridge", """{"tier":"easier","move":"glute-bridge","scale":0.5}""", ""","band":"light" """, "without the band")]
    public void What_an_option_does_otherwise_is_said(string main, string option, string with, string said)
    {
        var text = $$"""{"dose":[{"kind":"time","amount":40}],"options":[{"tier":"main","move":"{{main}}"{{with}}},{{option}}]}""";
        var station = Plan(With(Block("", text))).Blocks[0].Stations[0];
        Assert.Equal(said, Differs.Of(station, Library, new Preferences())[1]);
    }

    /// <summary>
    /// Shallower words are caps on the move's own form (room.md; Schoenfeld 2010, from memory: partial 40, half 70–100, deep over 100).
    /// </summary>
    [Fact]
    public void Shallower_words_cap_the_bend_and_never_deepen_it()
    {
        double Bend(string id, Depth? depth) =>
            OptionFacts.Of(Library.Find(new MoveId(id))!, new Manner { Depth = depth }, Library)!.StandingKnee;
        foreach (var id in new[] { "squat", "split-squat", "reverse-lunge", "band-side-walk", "side-lunge", "goblet-squat", "wide-squat" })
        {
            var own = Bend(id, null);
            var half = Math.Min(85, own - 20);
            var quarter = Math.Max(0, Math.Min(50, half - 20));
            Assert.InRange(Bend(id, Depth.Half), half - 3, half + 1);
            Assert.InRange(Bend(id, Depth.Quarter), quarter - 3, quarter + 6);
            Assert.True(Bend(id, Depth.Small) <= Bend(id, Depth.Quarter), id);
        }

        // A step sets the bend, whatever is said; a lower one bends less.
        Assert.Equal(Bend("step-up", null), Bend("step-up", Depth.Quarter), 3);
        double Step(int cm) =>
            OptionFacts.Of(
                Library.Find(new MoveId("step-up"))!, new Manner { Surface = Surface.Step, HeightCm = cm }, Library)!.StandingKnee;
        Assert.True(Step(15) < Step(30));
    }

    /// <summary>A hand on the wall, knees put down and hands put higher never make a joint ask more.</summary>
    [Fact]
    public void Help_never_asks_more() => Assert.All(Library.Moves, move =>
    {
        var here = DemandModel.Of(move.Id, new Manner(), Library)!;
        foreach (var support in new[] { Support.Wall, Support.Chair, Support.Knees })
        {
            var held = DemandModel.Of(move.Id, new Manner { Support = support }, Library)!;
            Assert.True(
                held.Hip <= here.Hip + 1e-9 && held.Back <= here.Back + 1e-9 && held.Knee <= here.Knee + 1e-9, $"{move.Id} {support}");
        }

        Assert.True(DemandModel.Of(move.Id, new Manner { Scale = 0.5m }, Library)!.Overall < here.Overall, move.Id.Value);
    });

    [Fact]
    public void What_is_near_is_like_it()
    {
        Move[] Near(string id)
        {
            var move = Library.Find(new MoveId(id))!;
            return [.. Library.Moves.OrderBy(m => Nearness.Between(move, m, Library)).Take(5)];
        }

        Assert.Equal("squat", Near("squat")[0].Id.Value);
        Assert.All(Near("squat"), m => Assert.Equal(Family.Squat, m.Family));
        Assert.All(Near("single-leg-bridge"), m => Assert.Equal(Family.Bridge, m.Family));
    }

    /// <summary>Handbook, section 6, as a table; one that must and one that must not be there for each limit.</summary>
    [Theory]
    [InlineData(Limit.Knee, "hip-hinge", "jump-squat")]
    [InlineData(Limit.Knee, "chair-squat", "squat")]
    [InlineData(Limit.LowerBack, "glute-bridge", "romanian-deadlift")]
    [InlineData(Limit.Balance, "split-squat", "single-leg-deadlift")]
    [InlineData(Limit.Pregnancy, "hip-thrust", "glute-bridge")]
    [InlineData(Limit.Ankle, "glute-bridge", "single-calf-raise")]
    [InlineData(Limit.Wrist, "plank", "push-up")]
    [InlineData(Limit.Hip, "split-squat", "cossack-squat")]
    [InlineData(Limit.Neck, "glute-bridge", "opposite-toe-touch")]
    [InlineData(Limit.Shoulder, "squat", "tall-plank")]
    [InlineData(Limit.PelvicFloor, "glute-bridge", "plank")]
    public void Who_is_spared_what(Limit limit, string kind, string not)
    {
        string? Why(string id) => LimitTable.WhyNot(Library.Find(new MoveId(id))!, new Manner(), Library, limit, strict: false);
        Assert.Null(Why(kind));
        Assert.StartsWith($"{LimitTable.Named(limit)}: ", Why(not), StringComparison.Ordinal);
    }

    [Fact]
    public void A_strict_limit_spares_more_and_a_hand_hold_gives_back()
    {
        Assert.All(Library.Moves, m => Assert.All(Enum.GetValues<Limit>(), limit => Assert.True(
            LimitTable.WhyNot(m, new Manner(), Library, limit, false) is null
                || LimitTable.WhyNot(m, new Manner(), Library, limit, true) is not null)));
        var single = Library.Find(new MoveId("single-leg-deadlift"))!;
        Assert.NotNull(LimitTable.WhyNot(single, new Manner(), Library, Limit.Balance, false));
        Assert.Null(LimitTable.WhyNot(single, new Manner { Support = Support.Wall }, Library, Limit.Balance, false));
        var squat = Library.Find(new MoveId("squat"))!;
        Assert.Null(LimitTable.WhyNot(squat, new Manner { Depth = Depth.Half }, Library, Limit.Knee, false));
        Assert.Equal("knee: a standing knee "
            + "bend past 60°", LimitTable.WhyNot(squat, new Manner { Depth = Depth.Half }, Library, Limit.Knee, true));
        Assert.Null(
            LimitTable.WhyNot(
                Library.Find(new MoveId("knees-to-chest"))!, new Manner(), Library, Limit.Pregnancy, false, lyingIsWork: false));
    }

    [Fact]
    public void A_proposal_for_somebody_is_one_they_may_do()
    {
        var found = 0;
        foreach (var move in Library.Moves)
        {
            foreach (var limit in Enum.GetValues<Limit>())
            {
                foreach (var proposal in new[] { Proposals.For(move.Id, Library, new ProposedFor(limit, true)) }.SelectMany(p =>
                    new[] { p.Easier, p.Harder, p.Instead }).OfType<Proposal>())
                {
                    found++;
                    Assert.Null(LimitTable.WhyNot(Library.Find(proposal.Of.Move)!, proposal.Of.Manner, Library, limit, true));
                }
            }
        }

        Assert.True(found > 1000, $"{found}");
    }

    /// <summary>
    /// Fault, fix, option (handbook, section 5): what helps where a fault stays is easier, and asks less of what the fault is about.
    /// </summary>
    [Fact]
    public void A_fault_that_stays_leads_to_an_option_that_takes_it_away()
    {
        Option? For(string id, string seen)
        {
            var move = Library.Find(new MoveId(id))!;
            return FaultRemedies.Of(move, Library)[move.Faults.Select(f => f.Seen).ToList()
                .FindIndex(f => f.Contains(seen, StringComparison.OrdinalIgnoreCase))];
        }

        Assert.True(For("split-squat", "wobbling")!.Manner.Support is Support.Wall or Support.Chair);
        var slid = For("split-squat", "knee slides")!;
        Assert.True(DemandModel.Of(slid.Move, slid.Manner, Library)!.Knee < Facts(new MoveId("split-squat")).Demand.Knee - 0.3);
        Assert.All(Library.Moves, move =>
        {
            var here = DemandModel.Of(move.Id, new Manner(), Library)!;
            var options = FaultRemedies.Of(move, Library);
            Assert.Equal(move.Faults.Length, options.Length);
            var coached = Offers.Of(move, Tier.Easier, Library).Select(o => (o.Option.Move, o.Option.Manner)).ToArray();
            Assert.All(options.OfType<Option>(), o => Assert.True(
                coached.Contains((o.Move, o.Manner))
                    || DemandModel.Of(o.Move, o.Manner, Library)!.Overall <= here.Overall - Proposals.Least, move.Id.Value));
        });
    }
}
